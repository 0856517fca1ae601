import { expect, freshData, test } from './fixtures.ts';
import { comeInAs, expectSaved, startPiece } from './steps.ts';

test.use(freshData(import.meta.url));

test('pieces are searched, filtered, duplicated, archived and deleted with a way back, and the address says what is shown', async ({ page }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Tally');
  await page.getByLabel('Number').fill('41');
  await page.getByLabel('Sentence').fill('zebras in the loft');
  await expectSaved(page);
  await page.goto('/b/gullwick/make/pieces');
  const list = page.getByRole('list', { name: 'Pieces' });
  const found = list.getByRole('listitem').filter({ hasText: 'zebras' });
  await page.getByRole('searchbox', { name: 'Search pieces' }).fill('zebr');
  await expect(list.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('combobox', { name: 'Kind' }).selectOption({ label: 'Videos' });
  await expect(page.getByText('No piece fits these filters.')).toBeVisible();
  await page.getByRole('combobox', { name: 'Kind' }).selectOption({ label: 'Graphics' });
  expect(new URL(page.url()).search).toBe('?words=zebr&kind=graphic');
  await page.reload();
  await expect(found).toHaveCount(1);

  const act = async (index: number, action: string): Promise<void> => {
    await found.nth(index).getByRole('button', { name: /^Actions for/ }).click();
    await page.getByRole('menuitem', { name: action }).click();
  };
  await act(0, 'Duplicate');
  await expect(found).toHaveCount(2);
  await expect(found.first()).toContainText('copy');
  await act(0, 'Archive');
  await expect(found).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(found).toHaveCount(2);
  await act(0, 'Delete');
  await expect(found).toHaveCount(1);
  // Until the answer is there, what is listed is of the question before and has other actions.
  let letListCome = (): void => undefined;
  const asked = new Promise<void>((resolve) => (letListCome = resolve));
  await page.route(/\/pieces\?.*deleted/, (route) => asked.then(() => route.continue()));
  await page.getByRole('combobox', { name: 'Show' }).selectOption({ label: 'Deleted' });
  const shown = page.locator('[role=list][aria-label=Pieces]');
  await expect(shown).toHaveAttribute('aria-busy', 'true');
  expect(await shown.evaluate((element) => element instanceof HTMLElement && element.inert)).toBe(true);
  letListCome();
  await expect(shown).toHaveAttribute('aria-busy', 'false');
  await expect(found).toHaveCount(1);
  await act(0, 'Restore');
  await expect(page.getByText('No piece fits these filters.')).toBeVisible();
  await page.getByRole('combobox', { name: 'Show' }).selectOption({ label: 'In use' });
  await expect(found).toHaveCount(2);
});

test('a dialog stays inside a low window, and what is below in it can be reached', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 420 });
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Headland');
  const bottomOf = (name: string | RegExp): Promise<number> => page.getByRole('dialog', { name }).evaluate((dialog) => Math.round((dialog.parentElement ?? dialog).getBoundingClientRect().bottom));
  await page.getByRole('button', { name: /Choose a picture/ }).first().click();
  await expect(page.getByRole('dialog').getByRole('img').first()).toBeVisible();
  expect(await bottomOf('Choose a picture')).toBeLessThanOrEqual(420);
  const last = page.getByRole('dialog').getByRole('listitem').last();
  await last.scrollIntoViewIfNeeded();
  await page.getByRole('dialog').getByRole('listitem').last().getByRole('button').click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expectSaved(page);
  // The dialog that most of the others are built from, and one of the plan.
  await comeInAs(page, 'Wren', '/b/gullwick/make/ideas');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: /Shortcuts/ })).toBeVisible();
  expect(await bottomOf(/Shortcuts/)).toBeLessThanOrEqual(420);
});

test('a piece with scheduled posts is not deleted', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/pieces?status=scheduled');
  const item = page.getByRole('list', { name: 'Pieces' }).getByRole('listitem').first();
  const name = (await item.getByRole('link').innerText()).trim();
  await item.getByRole('button', { name: /^Actions for/ }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByRole('status').filter({ hasText: /scheduled\. Cancel/ })).toBeVisible();
  await expect(page.getByRole('link').filter({ hasText: name }).first()).toBeVisible();
});

test('picked pictures become a carousel with a slide each', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/media');
  const tiles = page.getByRole('list', { name: 'Media' }).getByRole('listitem');
  const picks = page.getByRole('checkbox', { name: /^Pick / });
  await expect(picks.first()).toBeAttached();
  expect(await tiles.count()).toBeGreaterThan(3);
  for (const index of [0, 1, 2]) await picks.nth(index).check({ force: true });
  await page.getByRole('group', { name: 'Picked pictures' }).getByRole('button', { name: 'Make a carousel' }).click();
  await page.waitForURL(/make\/pieces\/[\w-]+/);
  await expect(page.getByRole('listbox', { name: 'Slides in their order' }).getByRole('option')).toHaveCount(5);
});

test('a brand without channels has templates and pieces, which say what they wait for', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/brands/new');
  await page.getByLabel('Name', { exact: true }).fill('Kornfeld');
  const networks = page.getByRole('group', { name: /stand-in networks/ }).getByRole('checkbox');
  await expect(networks.first()).toBeVisible();
  for (const network of await networks.all()) await network.uncheck();
  await expect(page.getByText('0 cuts of every piece')).toBeVisible();
  await page.getByRole('button', { name: 'Begin this brand' }).click();
  await page.waitForURL(/\/b\/kornfeld\/make\/pieces/);
  const waits = page.getByText('No cuts yet');
  const preflight = page.getByRole('complementary', { name: 'Preflight' });
  for (const [template, kind] of [['Plank', 'A piece has a cut'], ['Strand', 'A carousel has a row'], ['Knot', 'A video has a cut']] as const) {
    await page.goto('/b/kornfeld/make/pieces?new');
    await page.getByRole('button', { name: new RegExp(`^${template}`) }).click();
    await page.waitForURL(/make\/pieces\/[\w-]+$/);
    await expect(waits).toBeVisible();
    await expect(page.getByText(kind)).toBeVisible();
    await expect(preflight).toContainText('Nothing to send yet');
    await expect(page.getByRole('button', { name: /^Download/ })).toHaveCount(0);
  }
  for (const view of ['Words', 'Times']) {
    await page.getByRole('tab', { name: view }).click();
    await expect(waits).toBeVisible();
  }
  await expect(page.getByRole('button', { name: /^Schedule in/ })).toHaveCount(0);
  await page.getByRole('link', { name: 'Open Channels' }).click();
  await page.waitForURL(/\/send\/channels/);
});
