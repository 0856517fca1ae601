import { expect, type Cookie, type Locator, type Page } from '@playwright/test';

/** Cookies of who has signed in before: how signing in works is seen the first time, and need not be waited for again. */
const sessions = new Map<string, Cookie[]>();

/** Comes in as one of the demo's people, who then is at an address. */
export async function comeInAs(page: Page, name: string, address = '/b/gullwick/make/pieces'): Promise<void> {
  const known = sessions.get(name);
  if (known) {
    await page.context().addCookies(known);
  } else {
    await page.goto('/sign-in');
    await page.getByRole('button', { name: new RegExp(name) }).first().click();
    await page.waitForURL(/\/today/);
    sessions.set(name, await page.context().cookies());
  }
  const isThere = page.url() !== 'about:blank' && new URL(page.url()).pathname === address;
  if (!isThere) await page.goto(address);
  // Presses wait for their script; keys reach nobody before.
  await expect(page.locator('astro-island[ssr][client="load"]')).toHaveCount(0);
}

/** Starts a piece from a template and waits until its wall is painted. */
export async function startPiece(page: Page, template: string): Promise<void> {
  await page.goto('/b/gullwick/make/pieces?new');
  await page.getByRole('button', { name: new RegExp(`^${template}`) }).click();
  await page.waitForURL(/make\/pieces\/[\w-]+/);
  await expect(page.locator('canvas[data-painted]')).toHaveCount(15);
}

/** Types a day (`YYYY-MM-DD`) into the segments of a day field. */
export async function typeDay(page: Page, label: string, day: string): Promise<void> {
  const [year, month, date] = day.split('-');
  // A field hands the typing on from segment to segment.
  await page.getByRole('group', { name: label, exact: true }).getByRole('spinbutton').first().focus();
  await page.keyboard.type(`${date}${month}${year}`);
}

/** Types a time (`HH:MM`) into the segments of a time field. */
export async function typeTime(page: Page, label: string, time: string): Promise<void> {
  await page.getByRole('group', { name: label, exact: true }).getByRole('spinbutton').first().focus();
  await page.keyboard.type(time.replace(':', ''));
}

/** Ticks these places of the Times view and no others. */
export async function chooseOnly(page: Page, ...places: readonly RegExp[]): Promise<void> {
  await page.getByRole('tab', { name: 'Times' }).click();
  const all = page.getByRole('checkbox', { name: 'All places' });
  // Places can be ticked once it is known where the piece goes out already.
  await expect(all).toBeEnabled();
  await all.setChecked(true);
  await all.setChecked(false);
  for (const name of places) await page.getByRole('checkbox', { name }).setChecked(true);
}

/** Sends what is ticked at once, and agrees to where it goes. */
export async function sendNow(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Send now', exact: true }).first().click();
  await page.getByRole('dialog', { name: 'Send now' }).getByRole('button', { name: /^Send to \d+ place/ }).click();
}

export async function expectSaved(page: Page): Promise<void> {
  // A field passes its text on after the next frame.
  await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => setTimeout(() => setTimeout(resolve)))));
  await expect(page.locator('[data-save]')).toHaveAttribute('data-save', 'saved');
}

const STILL_FRAMES = 30;

/** Waits until canvases show their pictures and none has been painted again for half a second of frames. */
export async function expectStill(canvases: Locator): Promise<void> {
  await expect(canvases.first()).toHaveAttribute('data-settled', 'true');
  await canvases.evaluateAll(
    (all, frames) =>
      new Promise<void>((resolve) => {
        let last = '';
        let same = 0;
        const look = (): void => {
          const now = all.map((each) => `${each.dataset['painted'] ?? ''} ${each.dataset['settled'] ?? ''}`).join();
          same = now === last && !now.includes('false') ? same + 1 : 0;
          last = now;
          if (same >= frames) resolve();
          else requestAnimationFrame(look);
        };
        look();
      }),
    STILL_FRAMES,
  );
}

/** Waits until the whole wall is painted, pictures and all, and stays as it is. */
export async function expectSettled(page: Page): Promise<void> {
  await expectStill(page.locator('canvas[data-painted]'));
}

/** Waits until no colour and no place on the page is under way to another. */
export async function expectNoMotion(page: Page): Promise<void> {
  await expect.poll(() => page.evaluate(() => document.getAnimations().filter((each) => each.playState === 'running' && Number.isFinite(each.effect?.getComputedTiming().endTime as number)).length)).toBe(0);
}

/** The row of the wording sheet that is a channel's, by what its name begins with; `Shared` is the first. */
export function wordingRow(page: Page, name: string): Locator {
  return page.getByRole('grid', { name: 'Wording sheet' }).getByRole('row').filter({ has: page.getByRole('rowheader', { name: new RegExp(`^${name}`) }) });
}

/** Chooses a cell of the wording sheet, which opens large beside it. */
export async function chooseCell(page: Page, row: string, field: string): Promise<void> {
  await wordingRow(page, row).locator(`[data-field="${field}"]`).click();
}
