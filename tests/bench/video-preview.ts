import type { Page } from '@playwright/test';
import { untilStill, withDemo } from './demo-page.ts';

const STARTS = 7;
const SCRUBS = 40;
/** A wall that has not answered by then never will. */
const MAX_ANSWER_MS = 10_000;

/** How a video answers on the wall, in milliseconds. */
export interface PreviewTimes {
  /** From the press on Play to the first frame that is another. */
  readonly starts: readonly number[];
  /** From a new moment to the last cut that shows it. */
  readonly scrubs: readonly number[];
}

/** Plays and scrubs the demo's video of clips with a voice, in all its cuts. */
export function previewTimes(): Promise<PreviewTimes> {
  return withDemo(async (page) => {
    const { origin } = new URL(page.url());
    const { items } = (await (await page.request.get(`${origin}/api/brands/gullwick/pieces?limit=100`)).json()) as { items: readonly { readonly id: string; readonly name: string }[] };
    await page.goto(`${origin}/b/gullwick/make/pieces/${items.find(({ name }) => name === 'Build your own kite')?.id ?? ''}`);
    await page.locator('canvas[data-settled="true"]').first().waitFor();
    await untilStill(page);
    await page.evaluate(() => {
      for (const [type, name] of [['click', 'asked'], ['input', 'asked']] as const) addEventListener(type, ({ timeStamp }) => performance.mark(name, { startTime: timeStamp }), { capture: true });
    });
    const starts: number[] = [];
    for (let round = 0; round < STARTS; round += 1) {
      // The clips have come to the moment once it is painted.
      await answeredIn(page, () => page.getByLabel('Moment', { exact: true }).fill(String(20 + round * 80)));
      await untilStill(page);
      starts.push(await answeredIn(page, () => page.getByRole('button', { name: 'Play', exact: true }).click()));
      await page.getByRole('button', { name: 'Pause', exact: true }).click();
      await untilStill(page);
    }
    const scrubs: number[] = [];
    for (let scrub = 0; scrub < SCRUBS; scrub += 1) {
      await untilStill(page);
      scrubs.push(await answeredIn(page, () => page.getByLabel('Moment', { exact: true }).fill(String((scrub * 97) % 640))));
    }
    return { starts, scrubs };
  });
}

/** From what was asked to the end of the first painting that began after it. */
async function answeredIn(page: Page, ask: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    performance.clearMeasures('wall');
    performance.clearMarks('asked');
  });
  await ask();
  await page.waitForFunction(() => performance.getEntriesByName('wall', 'measure').some(({ startTime }) => startTime >= (performance.getEntriesByName('asked', 'mark')[0]?.startTime ?? Infinity)), undefined, { timeout: MAX_ANSWER_MS });
  return page.evaluate(() => {
    const asked = performance.getEntriesByName('asked', 'mark')[0]?.startTime ?? Number.NaN;
    const ends = performance.getEntriesByName('wall', 'measure').filter(({ startTime }) => startTime >= asked).map(({ startTime, duration }) => startTime + duration);
    return Math.min(...ends) - asked;
  });
}
