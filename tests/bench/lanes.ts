import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { addDays } from '../../src/core/time/day.ts';
import { withPage, withServer } from './bench-server.ts';
import { SCALE_BRAND, seedScale } from './scale/seed-scale.ts';

const AMOUNTS = { posts: 10_000, media: 300, channels: 60, pieces: 300 };
const DAYS = 28;
const SCROLLS = 5;
const WHEEL_PX = 90;
const WHEEL_TURNS = 60;
const DRAGS = 9;

/** Times of four weeks of lanes in the browser, in milliseconds. */
export interface LaneFrames {
  /** Each frame while one scrolls through all channels and back, several times over. */
  readonly frames: readonly number[];
  /** The same turns of the wheel over a bare table of as many rows and cells: what the browser takes by itself. */
  readonly floor: readonly number[];
  /** From the drop of a post on another day to the frame in which it stands there. */
  readonly drops: readonly number[];
}

/** Scrolls lanes of 60 channels with 10,000 posts, and drags posts across them. */
export async function laneFrames(): Promise<LaneFrames> {
  const folder = await mkdtemp(join(tmpdir(), 'confetti-lanes-'));
  try {
    const nowMs = Date.now();
    await seedScale(folder, AMOUNTS, nowMs);
    const today = new Date(nowMs).toISOString().slice(0, 10);
    return await withServer(folder, (origin) =>
      withPage(origin, async (page) => {
        await page.goto(`${origin}/b/${SCALE_BRAND}/plan/lanes?from=${addDays(today, -20)}&days=${DAYS}`);
        await page.locator('[data-item]').first().waitFor();
        // The first time through, small pictures are made and decoded; what a person works in is the second.
        await scroll(page);
        const bare = await page.context().newPage();
        await bare.setContent(bareTable());
        const [frames, floor]: [number[], number[]] = [[], []];
        for (let round = 0; round < SCROLLS; round += 1) {
          for (const [on, times] of [[page, frames], [bare, floor]] as const) {
            await on.bringToFront();
            times.push(...(await scroll(on)));
          }
        }
        await page.bringToFront();
        return { frames, floor, drops: await drag(page) };
      }),
    );
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** As many rows and cells as the lanes have, and nothing else. */
function bareTable(): string {
  const row = `<div style="display:flex;height:64px">${'<div style="width:35px;border:1px solid">1</div>'.repeat(DAYS)}</div>`;
  return `<div style="height:560px;overflow:auto;background:white;margin-top:150px">${row.repeat(AMOUNTS.channels)}</div>`;
}

/** Turns the wheel to the last channel and back. @returns how long each frame took */
async function scroll(page: Page): Promise<readonly number[]> {
  await page.mouse.move(700, 500);
  await page.evaluate(() => {
    const frames: number[] = [];
    let [before, isOn] = [performance.now(), true];
    const look = (): void => {
      const now = performance.now();
      frames.push(now - before);
      before = now;
      if (isOn) requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
    Object.assign(globalThis, { endFrames: () => ((isOn = false), frames) });
  });
  for (const step of [WHEEL_PX, -WHEEL_PX]) for (let turn = 0; turn < WHEEL_TURNS; turn += 1) await page.mouse.wheel(0, step);
  return page.evaluate(() => (globalThis as unknown as { endFrames: () => number[] }).endFrames());
}

/** Drags scheduled posts to the next day of their channel, one after the other. */
async function drag(page: Page): Promise<readonly number[]> {
  await page.evaluate(() => {
    const drops: number[] = [];
    addEventListener(
      'drop',
      (event) => {
        const begun = performance.now();
        const cell = (event.target as HTMLElement).closest('[data-cell]');
        const count = cell?.querySelectorAll('[data-plan-state="scheduled"]').length ?? 0;
        const look = (): void => {
          if ((cell?.querySelectorAll('[data-plan-state="scheduled"]').length ?? 0) > count) drops.push(performance.now() - begun);
          else requestAnimationFrame(look);
        };
        requestAnimationFrame(look);
      },
      { capture: true },
    );
    Object.assign(globalThis, { drops });
  });
  const scheduled = page.locator('[data-plan-state="scheduled"]');
  await scheduled.first().scrollIntoViewIfNeeded();
  for (let index = 0; index < DRAGS; index += 1) {
    const item = scheduled.nth(index);
    const key = await item.evaluate((element) => element.closest('[data-cell]')?.getAttribute('data-cell') ?? '');
    const [channel = '', day = ''] = key.split(' ');
    const target = page.locator(`[data-cell="${channel} ${addDays(day, 1)}"]`);
    if ((await target.count()) === 0) continue;
    const before = await page.evaluate(() => (globalThis as unknown as { drops: number[] }).drops.length);
    // A hand moves in steps; the browser takes a drag from the second one.
    const [from, to] = [await item.boundingBox(), await target.boundingBox()];
    if (!from || !to) continue;
    await page.mouse.move(from.x + 8, from.y + 10);
    await page.mouse.down();
    await page.mouse.move(from.x + 14, from.y + 14, { steps: 4 });
    await page.mouse.move(to.x + 10, to.y + 14, { steps: 6 });
    await page.mouse.up();
    await page.waitForFunction((count) => (globalThis as unknown as { drops: number[] }).drops.length > count, before);
  }
  return page.evaluate(() => (globalThis as unknown as { drops: number[] }).drops);
}
