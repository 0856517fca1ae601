import { expect, freshData, test } from './fixtures.ts';
import { comeInAs, expectStill } from './steps.ts';

test.use(freshData(import.meta.url));

test('a weak pair is named, the offered colour is chosen, the cuts follow at once, and the book is kept', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/brand/book');
  const table = page.getByRole('region', { name: 'Contrast' }).getByRole('table');
  const weak = table.getByRole('row').filter({ has: page.getByRole('button', { name: /^Take #/ }) });
  await expect(weak).not.toHaveCount(0);
  const before = await weak.count();
  const cut = page.locator('canvas[data-cut="tally"]');
  await expectStill(cut);
  const painted = await cut.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  await page.getByLabel(/^Sail Yellow,/).fill('#ffb37a');
  await expect.poll(() => cut.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL())).not.toBe(painted);
  await page.getByRole('button', { name: 'Discard changes' }).click();
  await weak.first().getByRole('button').click();
  await expect(page.getByText('Not saved yet')).toBeVisible();
  expect(await weak.count()).toBeLessThan(before);
  await expect(page.getByRole('textbox', { name: /^Name of #/ }).and(page.locator('[value$="er"]')).first()).toHaveValue(/, (darker|lighter)$/);
  await page.getByRole('button', { name: 'Save the book' }).click();
  await expect(page.getByText('The book is saved.', { exact: false })).toBeVisible();
  await page.reload();
  await expect(page.getByText('Not saved yet')).toBeHidden();
  await expect(table).toBeVisible();
});

test('a reviewer reads the book and cannot change it', async ({ page }) => {
  await comeInAs(page, 'Tove', '/b/gullwick/brand/book');
  await expect(page.getByLabel(/^Sea Ink/)).toBeDisabled();
  await expect(page.getByRole('button', { name: /^Take #/ })).toHaveCount(0);
});
