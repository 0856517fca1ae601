import AxeBuilder from '@axe-core/playwright';
import { type Page, expect, test } from './fixtures.ts';
import { comeInAs, expectNoMotion } from './steps.ts';

/** A view: what it is called, where it is, and what is done and waited for before it is looked at. */
export type ViewToCheck = readonly [name: string, address: string, prepare: (page: Page) => Promise<unknown>];

/** What scrolls sideways although it holds no table, calendar or time line, by what it is called. */
function scrollsSideways(page: Page): Promise<readonly string[]> {
  const twoWays = 'table, [role="grid"], [role="table"], [role="listbox"], [role="tablist"], [data-two-ways]';
  return page.evaluate(
    (exempt) =>
      [...document.querySelectorAll<HTMLElement>('main, main *')]
        .filter((element) => element.scrollWidth > element.clientWidth + 1 && ['auto', 'scroll'].includes(getComputedStyle(element).overflowX))
        .filter((element) => element.tagName === 'MAIN' || !(element.matches(`textarea, input, ${exempt}`) || element.querySelector(exempt)))
        .map((element) => `${element.tagName} ${element.ariaLabel ?? ''} .${element.className.slice(0, 60)} by ${element.scrollWidth - element.clientWidth}`),
    twoWays,
  );
}

/** A test a view: no violation in either theme, nothing beyond the edge of a narrow window, nothing blocked and no error. */
export function testViews(views: readonly ViewToCheck[]): void {
  // One window for all: they only look, and scripts that all views share are compiled once.
  let page: Page;
  let complaints: string[] = [];
  test.beforeAll(async ({ browser, stack }) => {
    page = await browser.newPage({ baseURL: stack.origin });
    page.on('console', (message) => {
      if (message.type() === 'error') complaints.push(message.text());
    });
    page.on('pageerror', (error) => complaints.push(error.message));
  });
  test.afterAll(() => page.context().close());

  for (const [name, address, prepare] of views) {
    test(`${name} can be used by everyone in both themes, runs off no narrow window, and no script or style is blocked`, { tag: '@long' }, async () => {
      await page.goto('about:blank');
      complaints = [];
      await page.setViewportSize({ width: 1280, height: 800 });
      await comeInAs(page, 'Wren', address);
      await prepare(page);
      const grounds: string[] = [];
      for (const colorScheme of ['light', 'dark'] as const) {
        await page.emulateMedia({ colorScheme });
        await expectNoMotion(page);
        grounds.push(await page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor));
        // Only faults are told: gathering all that is in order takes longer than finding them. Without frames one page is enough to look.
        const axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'], preload: false });
        // The dark theme changes colours only, so contrast is the only rule to run again.
        const { violations } = await (colorScheme === 'light' ? axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']) : axe.withRules(['color-contrast'])).analyze();
        expect(violations.map((violation) => `${colorScheme}, ${violation.id}: ${violation.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)).toEqual([]);
      }
      expect(new Set(grounds).size).toBe(2);
      await page.emulateMedia({ colorScheme: 'light' });
      for (const [width, height] of [[1280, 800], [1024, 700], [640, 800], [320, 640]] as const) {
        await page.setViewportSize({ width, height });
        await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth), `width of the page at ${width}`).toBeLessThanOrEqual(width);
        // A window of 1280 pixels at 200% and at 400%.
        if (width <= 640) await expect.poll(() => scrollsSideways(page), `what scrolls sideways at ${width}`).toEqual([]);
        // On a phone a piece is one long page; elsewhere what is long scrolls inside.
        if (width >= 1024) await expect.poll(() => page.evaluate(() => document.documentElement.scrollHeight), `height of the page at ${width}`).toBeLessThanOrEqual(height);
      }
      expect(complaints).toEqual([]);
    });
  }
}
