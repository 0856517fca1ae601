import type { Page } from '@playwright/test';
import { untilStill, withDemo } from './demo-page.ts';
import { routeFloor, switchFloor } from './keystroke-floor.ts';

const KEYSTROKES = 61;
/** A brisk typist; keystrokes do not wait for each other's paint. */
const BETWEEN_MS = 90;

/** A piece of the demo to type in: how it is found, how many cuts and slides it is brought to, and the field, with the slide it belongs to. */
export interface TypedIn {
  readonly piece: string;
  readonly cuts: number;
  /** Slides of a carousel; its points are written again until there are so many. */
  readonly slides: number;
  readonly field: string;
  readonly slide: RegExp | null;
}

/** Times of one run, in milliseconds. */
export interface KeystrokeTimes {
  /** From a keystroke to the moment the last of what it changes is repainted, in the real program. */
  readonly keystrokes: readonly number[];
  /** The same where the painters answer with ready bitmaps, in turns with the keystrokes. */
  readonly floor: readonly number[];
}

export function keystrokeTimes(typedIn: TypedIn): Promise<KeystrokeTimes> {
  return withDemo(async (page) => {
    await routeFloor(page);
    await openPiece(page, typedIn);
    return measure(page, typedIn.field);
  });
}

interface StoredPiece {
  readonly revision: number;
  readonly document: { readonly frames: readonly { readonly id: string }[]; readonly cuts: readonly { readonly placement: string }[] };
}

/** Places where all ten slides of a carousel go out. */
const WHOLE_CAROUSEL: ReadonlySet<string> = new Set(['feed-square', 'feed-portrait', 'page-square', 'page-portrait', 'document']);

/** Brings the open piece to its number of cuts and slides, by the same endpoint that the editor saves with. */
async function shape(page: Page, { cuts, slides }: TypedIn): Promise<void> {
  const { origin, pathname } = new URL(page.url());
  const [brand, id] = /\/b\/([\w-]+)\/make\/pieces\/([\w-]+)/.exec(pathname)?.slice(1) ?? [];
  const address = `${origin}/api/brands/${brand}/pieces/${id}`;
  const { revision, document } = (await (await page.request.get(address)).json()) as StoredPiece;
  const [cover, ...others] = document.frames;
  const closing = slides > 1 ? others.at(-1) : undefined;
  const points = closing ? others.slice(0, -1) : [];
  const wanted = Array.from({ length: Math.max(0, slides - 2) }, (_, index) => ({ ...points[index % points.length], id: points[index]?.id ?? `more-${index}` }));
  const kept = slides > 1 ? document.cuts.filter(({ placement }) => WHOLE_CAROUSEL.has(placement)) : document.cuts;
  const patches = [
    { op: 'replace', path: '/frames', value: [cover, ...wanted, ...(closing ? [closing] : [])] },
    { op: 'replace', path: '/cuts', value: kept.slice(0, cuts) },
  ];
  const answer = await page.request.patch(address, { data: { revision, patches }, headers: { origin } });
  if (!answer.ok()) throw new Error(`The piece could not be brought to its shape: ${await answer.text()}`);
  await page.reload();
}

async function openPiece(page: Page, typedIn: TypedIn): Promise<void> {
  const { piece, slide, cuts, slides } = typedIn;
  await page.goto(new URL(`/b/gullwick/make/pieces?${new URLSearchParams({ words: piece })}`, page.url()).href);
  await page.locator('a[href*="/make/pieces/"]').filter({ hasText: piece }).first().click();
  await page.locator('canvas[data-painted]').first().waitFor({ state: 'attached' });
  await shape(page, typedIn);
  await page.locator('canvas[data-painted]').nth(cuts * slides - 1).waitFor({ state: 'attached' });
  if (slide) await page.getByRole('option', { name: slide }).click();
  await untilStill(page);
}

async function measure(page: Page, field: string): Promise<KeystrokeTimes> {
  await page.getByLabel(field, { exact: true }).focus();
  await page.keyboard.press('End');
  await page.evaluate(() => {
    performance.clearMeasures('wall');
    // The wall measures from the moment it is asked to paint; the key came before that.
    addEventListener('keydown', ({ timeStamp }) => performance.mark('key', { startTime: timeStamp }), { capture: true });
  });
  const text = ' and fly it before the tide turns, with all of us on the quay';
  const times = { keystrokes: [] as number[], floor: [] as number[] };
  // The text typed for the floor is deleted again: the painter has not seen it.
  for (let index = 0; index < 2 * KEYSTROKES; index += 1) {
    const isFloor = index % 2 === 1;
    await switchFloor(page, isFloor);
    await page.keyboard.type(text[Math.floor(index / 2) % text.length] ?? 'x');
    await page.waitForTimeout(BETWEEN_MS);
    times[isFloor ? 'floor' : 'keystrokes'].push(...(await takeTimes(page)));
    if (isFloor) {
      await page.keyboard.press('Backspace');
      await page.waitForTimeout(BETWEEN_MS);
      await takeTimes(page);
    }
  }
  return times;
}

/** What was measured since the last time. */
function takeTimes(page: Page): Promise<readonly number[]> {
  return page.evaluate(() => {
    const keys = performance.getEntriesByName('key', 'mark').map(({ startTime }) => startTime);
    const times = performance.getEntriesByName('wall', 'measure').map(({ startTime, duration }) => startTime + duration - Math.max(...keys.filter((key) => key <= startTime)));
    performance.clearMeasures('wall');
    performance.clearMarks('key');
    return times;
  });
}
