import AxeBuilder from '@axe-core/playwright';
import { type Page, expect, freshData, test } from './fixtures.ts';
import { comeInAs, expectNoMotion } from './steps.ts';

test.use(freshData(import.meta.url));

const openFirstPiece = async (page: Page): Promise<void> => {
  await page.locator('a[href*="/make/pieces/"]').filter({ hasText: 'Box Kite' }).first().click();
  await expect(page.locator('canvas[data-painted]')).toHaveCount(15);
};
/** Opens a piece of the demo. Other journeys have made newer ones; it may be on a later page of the list. */
const openDemoPiece = async (page: Page, start: string): Promise<void> => {
  const { items } = (await (await page.request.get('/api/brands/gullwick/pieces?limit=100')).json()) as { items: { id: string; name: string }[] };
  await page.goto(`/b/gullwick/make/pieces/${items.find(({ name }) => name.startsWith(start))?.id ?? ''}`);
};
const openCarousel = async (page: Page): Promise<void> => {
  await openDemoPiece(page, 'Five winds');
  await expect(page.locator('canvas[data-painted]').nth(30)).toBeAttached();
};
const openVideo = async (page: Page): Promise<void> => {
  await openDemoPiece(page, 'Three things');
  await expect(page.locator('canvas[data-painted]')).toHaveCount(18);
};
const openSheet = (name: string) => async (page: Page): Promise<void> => {
  await openFirstPiece(page);
  await page.getByRole('tab', { name }).click();
  await expect(page.getByRole('tabpanel', { name })).toBeVisible();
};

const openWorkshop = async (page: Page): Promise<void> => {
  await page.goto('/b/lanternfall/brand/templates');
  const open = page.getByRole('link', { name: 'Open in the workshop' });
  // The first run makes the copy, later ones find it.
  await expect(page.locator('canvas[data-painted]').first()).toBeVisible();
  if ((await open.count()) > 0) await open.first().click();
  else await page.locator('[data-template="aside"]').getByRole('button', { name: 'Make a copy' }).click();
  await page.waitForURL(/brand\/templates\/[\w-]+/);
  await expect(page.locator('canvas[data-painted]')).toHaveCount(15);
};

/** Templates are painted as they come into view: those that are seen now. */
const expectTemplatesInView = (least: number) => async (page: Page): Promise<void> => {
  const seen = (): Promise<readonly boolean[]> =>
    page.locator('[data-template] canvas').evaluateAll((all) => all.filter((each) => each.getBoundingClientRect().top < innerHeight).map((each) => (each as HTMLElement).dataset['painted'] !== undefined));
  await expect.poll(async () => (await seen()).length).toBeGreaterThanOrEqual(least);
  await expect.poll(async () => (await seen()).every(Boolean)).toBe(true);
};

const views: readonly (readonly [string, string, (page: Page) => Promise<unknown>])[] = [
  ['pieces with the templates', '/b/gullwick/make/pieces?new', expectTemplatesInView(12)],
  ['the brand book', '/b/gullwick/brand/book', (page) => expect(page.locator('canvas[data-painted]')).toHaveCount(3)],
  ['the facts', '/b/gullwick/brand/facts', (page) => expect(page.getByLabel('Text of Phone')).toBeVisible()],
  ['the voice', '/b/gullwick/brand/voice', (page) => expect(page.getByLabel('Tone')).toBeVisible()],
  ['the templates', '/b/gullwick/brand/templates', expectTemplatesInView(9)],
  ['a template in the workshop', '/b/gullwick/brand/templates', openWorkshop],
  ['a new brand', '/brands/new', (page) => expect(page.locator('canvas[data-painted]')).toHaveCount(3)],
  ['media with a picture open', '/b/gullwick/make/media', (page) => page.getByRole('list', { name: 'Media' }).getByRole('button').first().click()],
  ['a piece, Look', '/b/gullwick/make/pieces', openFirstPiece],
  ['a carousel, Look', '/b/gullwick/make/pieces', openCarousel],
  ['a video, Look', '/b/gullwick/make/pieces', openVideo],
  ['a piece, Words', '/b/gullwick/make/pieces', openSheet('Words')],
  ['a piece, Times', '/b/gullwick/make/pieces', openSheet('Times')],
  ['Today', '/b/gullwick/today', (page) => expect(page.locator('[data-need]').first()).toBeVisible()],
  ['the lanes', '/b/gullwick/plan/lanes', (page) => expect(page.locator('[data-item]').first()).toBeVisible()],
  ['the month', '/b/gullwick/plan/month', (page) => expect(page.locator('[data-group]').first()).toBeVisible()],
  ['the week', '/b/gullwick/plan/week', (page) => expect(page.locator('[data-group]').first()).toBeVisible()],
  ['the list', '/b/gullwick/plan/list', (page) => expect(page.getByRole('row').nth(3)).toBeVisible()],
  ['the profile', '/b/gullwick/plan/profile', (page) => expect(page.getByRole('option').first()).toBeVisible()],
  ['the rota', '/b/gullwick/plan/rota', (page) => expect(page.locator('[data-rule]').first()).toBeVisible()],
  ['the rotation', '/b/gullwick/plan/rotation', (page) => expect(page.getByText('different posts')).toBeVisible()],
  ['the campaigns', '/b/gullwick/plan/campaigns', (page) => expect(page.getByLabel('Aim')).toBeVisible()],
  ['sign-off', '/b/gullwick/send/sign-off', (page) => expect(page.getByRole('button', { name: 'Approve', exact: true })).toBeVisible()],
  ['posts by hand', '/b/lanternfall/send/by-hand', (page) => expect(page.locator('[data-hand-off]').first()).toBeVisible()],
  ['the channels', '/b/gullwick/send/channels', (page) => expect(page.locator('[data-channel]').first()).toBeVisible()],
  ['the network sheets', '/b/gullwick/send/networks', (page) => expect(page.getByLabel('Width of Square')).toBeVisible()],
  ['the history', '/b/gullwick/send/history', (page) => expect(page.getByText(/Asked for approval/).first()).toBeVisible()],
  ['the outbox', '/b/gullwick/send/outbox', (page) => expect(page.locator('[data-delivery]').first()).toBeVisible()],
  ['the results', '/b/gullwick/learn/results', (page) => expect(page.getByRole('heading', { name: 'Did best' })).toBeVisible()],
  ['the results by post', '/b/gullwick/learn/results?show=posts', async (page) => {
    await page.getByRole('table', { name: 'Posts' }).getByRole('button', { name: /kites|sky|wind|line/i }).first().click();
    await expect(page.getByRole('heading', { name: 'What was different' })).toBeVisible();
  }],
  ['what works', '/b/gullwick/learn/results?show=works&span=91', (page) => expect(page.getByRole('heading', { name: 'Themes in the rota' })).toBeVisible()],
  ['experiments', '/b/gullwick/learn/results?show=experiments', (page) => expect(page.getByText('3 wordings')).toBeVisible()],
  ['the audience', '/b/gullwick/learn/results?show=audience', (page) => expect(page.getByText('There, by hour').first()).toBeVisible()],
  ['others', '/b/gullwick/learn/results?show=others', (page) => expect(page.getByText('Did best in two months').first()).toBeVisible()],
  ['the replies', '/b/gullwick/learn/replies', (page) => expect(page.getByRole('list', { name: 'What was said' })).toBeVisible()],
  ['the links', '/b/gullwick/learn/links', (page) => expect(page.getByRole('table', { name: 'Short links' })).toBeVisible()],
  ['the archive', '/b/gullwick/learn/archive', (page) => expect(page.getByRole('list', { name: 'What went out' }).getByRole('listitem').first()).toBeVisible()],
  ['the shelf of ideas', '/b/gullwick/make/ideas', (page) => expect(page.getByRole('article').first()).toBeVisible()],
  ['ideas from a text', '/b/gullwick/make/ideas?show=text', (page) => expect(page.getByRole('button', { name: 'Propose pieces' })).toBeVisible()],
  ['ideas from a table', '/b/gullwick/make/ideas?show=table', (page) => expect(page.getByLabel('Pasted table')).toBeVisible()],
  ['ideas from files', '/b/gullwick/make/ideas?show=files', (page) => expect(page.getByRole('checkbox', { name: 'Headland' })).toBeVisible()],
  ['the feeds', '/b/gullwick/make/ideas?show=feeds', (page) => expect(page.getByRole('button', { name: 'Let items become posts' })).toBeVisible()],
  ['a page of the guide', '/guide/ideas', (page) => expect(page.getByRole('heading', { level: 1 })).toBeVisible()],
  ['the account', '/account', (page) => expect(page.getByText('Demo scripts')).toBeVisible()],
];

for (const [name, address, prepare] of views) {
  test(`${name} can be used by everyone in both themes, runs off no narrow window, and no script or style is blocked`, async ({ page }) => {
    const complaints: string[] = [];
    page.on('console', (message) => {
      if (message.type() === 'error') complaints.push(message.text());
    });
    page.on('pageerror', (error) => complaints.push(error.message));
    await comeInAs(page, 'Wren', address);
    await prepare(page);
    const grounds: string[] = [];
    for (const colorScheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme });
      await expectNoMotion(page);
      grounds.push(await page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor));
      const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']).analyze();
      expect(violations.map((violation) => `${colorScheme}, ${violation.id}: ${violation.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)).toEqual([]);
    }
    expect(new Set(grounds).size).toBe(2);
    await page.emulateMedia({ colorScheme: 'light' });
    for (const [width, height] of [[1280, 800], [1024, 700], [640, 800], [320, 640]] as const) {
      await page.setViewportSize({ width, height });
      await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth), `width of the page at ${width}`).toBeLessThanOrEqual(width);
      // On a phone a piece is one long page; elsewhere what is long scrolls inside.
      if (width >= 1024) await expect.poll(() => page.evaluate(() => document.documentElement.scrollHeight), `height of the page at ${width}`).toBeLessThanOrEqual(height);
    }
    expect(complaints).toEqual([]);
  });
}

test('a long list loads as one scrolls, draws what is near alone, and paints templates that come into view', async ({ page }) => {
  await comeInAs(page, 'Wren');
  for (let count = 0; count < 80; count += 1) expect((await page.request.post('/api/brands/lanternfall/pieces', { data: { template: 'aside' }, headers: { origin: new URL(page.url()).origin } })).status()).toBe(201);
  const { items } = (await (await page.request.get('/api/brands/lanternfall/pieces?limit=100')).json()) as { items: { id: string }[] };
  await page.goto('/b/lanternfall/make/pieces');
  const list = page.getByRole('list', { name: 'Pieces' });
  const drawn = list.getByRole('listitem');
  await expect(drawn.first()).toBeVisible();
  const last = list.locator(`a[href$="${items.at(-1)?.id ?? ''}"]`);
  await page.locator('main').hover();
  await expect
    .poll(async () => {
      await page.mouse.wheel(0, 1_500);
      return last.count();
    })
    .toBe(1);
  await expect(last).toBeVisible();
  expect(await drawn.count()).toBeLessThan(70);
  // From the end the keyboard leads back, row by row.
  await last.focus();
  for (let count = 0; count < 40; count += 1) await page.keyboard.press('Shift+Tab');
  await expect(page.locator(`a[href$="${items.at(-21)?.id ?? ''}"]`)).toBeFocused();

  await page.goto('/b/lanternfall/brand/templates');
  const tile = page.locator('[data-template]').last();
  await expect(tile).toBeAttached();
  await expect(page.locator('canvas[data-painted]').first()).toBeVisible();
  await expect(tile.locator('canvas[data-painted]')).toHaveCount(0);
  await tile.scrollIntoViewIfNeeded();
  await expect(tile.locator('canvas[data-painted]')).toHaveCount(3);
});

for (const path of ['/sign-in', '/join#cfi_none', '/new-password#cfp_none']) test(`${path} can be used by everyone`, async ({ page }) => {
  await page.goto(path);
  // The buttons take their colours once they can be pressed.
  await page.locator('astro-island:not([ssr])').first().waitFor();
  await expectNoMotion(page);
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((violation) => violation.id)).toEqual([]);
});
