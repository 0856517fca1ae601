import AxeBuilder from '@axe-core/playwright';
import { expect, freshData, test } from './fixtures.ts';
import { comeInAs, expectNoMotion } from './steps.ts';
import { testViews } from './view-checks.ts';

test.use(freshData(import.meta.url));

testViews([
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
  ['a page of the guide', '/guide/ideas', (page) => expect(page.getByRole('heading', { level: 1 })).toBeVisible()],
  ['the account', '/account', (page) => expect(page.getByText('Demo scripts')).toBeVisible()],
  ['export and import', '/exchange?brand=gullwick', (page) => expect(page.getByRole('link', { name: 'Export ZIP' })).toBeVisible()],
]);

test('a long list loads as one scrolls, draws what is near alone, and paints templates that come into view', { tag: '@long' }, async ({ page }) => {
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

for (const path of ['/sign-in', '/join#cfi_none', '/new-password#cfp_none']) test(`${path} can be used by everyone`, { tag: '@long' }, async ({ page }) => {
  await page.goto(path);
  // The buttons take their colours once they can be pressed.
  await page.locator('astro-island:not([ssr])').first().waitFor();
  await expectNoMotion(page);
  const { violations } = await new AxeBuilder({ page }).setLegacyMode(true).analyze();
  expect(violations.map((violation) => violation.id)).toEqual([]);
});
