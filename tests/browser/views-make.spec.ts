import { type Page, expect, freshData, test } from './fixtures.ts';
import { testViews } from './view-checks.ts';

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
  else await page.locator('[data-template="aside"]').getByRole('button', { name: 'Duplicate' }).click();
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

testViews([
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
  ['the shelf of ideas', '/b/gullwick/make/ideas', (page) => expect(page.getByRole('article').first()).toBeVisible()],
  ['ideas from a text', '/b/gullwick/make/ideas?show=text', (page) => expect(page.getByRole('button', { name: 'Propose pieces' })).toBeVisible()],
  ['ideas from a table', '/b/gullwick/make/ideas?show=table', (page) => expect(page.getByLabel('Pasted table')).toBeVisible()],
  ['ideas from files', '/b/gullwick/make/ideas?show=files', (page) => expect(page.getByRole('checkbox', { name: 'Headland' })).toBeVisible()],
  ['the feeds', '/b/gullwick/make/ideas?show=feeds', (page) => expect(page.getByRole('button', { name: 'Let items become posts' })).toBeVisible()],
]);
