import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { writeVersions } from '../../src/core/write/desk.ts';
import { insertBrand } from '../../src/server/db/brand-repository.ts';
import { openDatabase } from '../../src/server/db/connection.ts';
import { countPieces, listTogether, listUsedTags } from '../../src/server/db/tag-repository.ts';
import { answerTags } from '../../src/server/words/tag-question.ts';
import { DEMO_FOLDER, withDemo } from './demo-page.ts';
import { timed } from './figure.ts';

const KEYSTROKES = 80;
const BETWEEN_MS = 60;
const OPENINGS = 7;
const POSTS = 5_000;
const ROUNDS = 15;

/** Times of a wording sheet of thirty channels, in milliseconds. */
export interface SheetTimes {
  /** From a key to the moment its letter and the count below it stand in the field beside the sheet. */
  readonly keystrokes: readonly number[];
  /** From the press on Words to the sheet with its cells. */
  readonly openings: readonly number[];
  readonly channels: number;
  readonly fields: number;
}

/** Types into the shared caption of a piece that goes to over thirty channels. */
export function sheetTimes(): Promise<SheetTimes> {
  return withDemo(async (page) => {
    await openWidePiece(page);
    const openings: number[] = [];
    for (let round = 0; round < OPENINGS; round += 1) {
      await page.getByRole('tab', { name: 'Look' }).click();
      await page.getByRole('tab', { name: 'Words' }).waitFor();
      openings.push(await timeOpening(page));
    }
    const grid = page.getByRole('grid', { name: 'Wording sheet' });
    const channels = Number(await grid.getAttribute('aria-rowcount')) - 2;
    const fields = Number(await grid.getAttribute('aria-colcount')) - 1;
    return { keystrokes: await timeKeys(page), openings, channels, fields };
  });
}

/** Gives the brand accounts enough, and opens a new piece that goes to all of them. */
async function openWidePiece(page: Page): Promise<void> {
  const { origin } = new URL(page.url());
  const db = await openDatabase(DEMO_FOLDER);
  const accounts = (await db('channels').join('brands', 'brands.id', 'channels.brand_id').where({ 'brands.slug': 'gullwick' }).select('channels.*')) as unknown as readonly { id: string; handle: string }[];
  const more = ['two', 'three', 'four'].flatMap((name) => accounts.map((account) => ({ ...account, id: `${account.id}-${name}`, handle: `${account.handle}.${name}` })));
  await db.batchInsert('channels', more, 20);
  await db.destroy();
  const made = await page.request.post(`${origin}/api/brands/gullwick/pieces`, { data: { template: 'aside' }, headers: { origin } });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${origin}/b/gullwick/make/pieces/${id}`);
  await page.getByLabel('Quote').fill('Wind is free');
  await page.locator('canvas[data-painted]').first().waitFor({ state: 'attached' });
}

function timeOpening(page: Page): Promise<number> {
  return page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const started = performance.now();
        const look = (): void => {
          if (document.querySelectorAll('[role="gridcell"]').length > 20) resolve(performance.now() - started);
          else requestAnimationFrame(look);
        };
        for (const tab of document.querySelectorAll<HTMLElement>('[role="tab"]')) {
          if (tab.textContent !== 'Words') continue;
          for (const type of ['pointerdown', 'pointerup']) tab.dispatchEvent(new PointerEvent(type, { bubbles: true, cancelable: true, pointerType: 'mouse', button: 0, isPrimary: true }));
          tab.click();
        }
        look();
      }),
  );
}

async function timeKeys(page: Page): Promise<readonly number[]> {
  const field = page.getByLabel('Shared caption', { exact: true });
  await field.fill('Build your own kite. ');
  await field.press('End');
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(globalThis, { keyTimes: times });
    let pressed = 0;
    addEventListener('keydown', ({ timeStamp }) => (pressed = timeStamp), { capture: true });
    new MutationObserver(() => {
      if (pressed > 0) times.push(performance.now() - pressed);
      pressed = 0;
    }).observe(document.querySelector('[data-cell-editor]') ?? document.body, { childList: true, subtree: true, characterData: true });
  });
  for (let index = 0; index < KEYSTROKES; index += 1) {
    await page.keyboard.type('abcdefghij klmno pqrst'[index % 22] ?? 'x');
    await page.waitForTimeout(BETWEEN_MS);
  }
  return page.evaluate(() => (globalThis as unknown as { keyTimes: number[] }).keyTimes);
}

/** Proposals out of the hashtags of five thousand pieces, without what networks say. */
export async function proposalTimes(): Promise<readonly number[]> {
  const folder = mkdtempSync(join(tmpdir(), 'confetti-bench-tags-'));
  const db = await openDatabase(folder);
  try {
    await insertBrand(db, { id: 'b', slug: 'b', name: 'B', zone: 'Europe/London', book: gullwickBook });
    await db.raw('pragma foreign_keys = off');
    const vocabulary = Array.from({ length: 600 }, (_, index) => `Tag${index}Of${index % 37}`);
    const rows = Array.from({ length: POSTS }, (_, post) => [...new Set(Array.from({ length: 8 }, (__, at) => vocabulary[(post * 7 + at * at * 13 + (post % 11) * at) % vocabulary.length] ?? ''))].map((tag) => ({ brand_id: 'b', piece_id: `p${post}`, tag_key: tag.toLowerCase(), tag: `#${tag}` }))).flat();
    await db.batchInsert('piece_tags', rows, 200);
    const times: number[] = [];
    for (let round = 0; round < ROUNDS; round += 1) {
      const present = vocabulary.slice(round * 3, round * 3 + 3);
      times.push(
        await timed(async () => {
          const [pieces, used, together] = await Promise.all([countPieces(db, 'b'), listUsedTags(db, 'b'), listTogether(db, 'b', present.map((tag) => tag.toLowerCase()))]);
          const posts = Math.max(pieces, POSTS);
          answerTags({ text: 'Build a kite in our weekend workshop by the sea, tag 3 of 12.', language: 'en', present: present.map((tag) => `#${tag}`), candidates: used.map(({ tag, pieces: count }) => ({ tag, origin: 'past', reach: null, posts: count, isOfTheme: false })), posts, counts: used.map(({ key, pieces: count }) => [key, count]), together: together.map(({ present: given, key, pieces: count }) => [`${given} ${key}`, count]), avoided: [], sort: 'both' });
        }),
      );
    }
    return times.slice(1);
  } finally {
    await db.destroy();
    rmSync(folder, { recursive: true });
  }
}

const article = 'Every Saturday from 2 pm we open the Old Net Loft for anyone who wants to build a sled kite. You sit at a long bench, you get ripstop, spars and line, and you cut it yourself. Marlow Tregear shows how to tie the bridle, which is the hard part. It costs £24 a bench and children under 8 come free with an adult. We have twelve benches, so book early. The kettle is behind the glue. ';

/** Five versions from a piece and an article, each time of another text. */
export async function deskTimes(): Promise<readonly number[]> {
  const times: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const text = Array.from({ length: 4 }, (_, index) => article.replaceAll('kite', `kite ${round * 4 + index}`)).join('\n');
    times.push(await timed(() => Promise.resolve(writeVersions({ language: 'en', voice: gullwickBook.voice, ask: 'draft', text: '', topic: '', sources: [{ name: 'the article', text }], facts: gullwickBook.facts, recent: [], words: null, limit: null, versions: 5, hashtags: [], emoji: [], turn: round }))));
  }
  return times;
}
