import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { expect, freshData, test } from './fixtures.ts';
import { comeInAs } from './steps.ts';

test.use(freshData(import.meta.url));

test('a brand goes out as a package and comes in again, once, also over a reload and a second press', async ({ page }) => {
  await comeInAs(page, 'Ottoline', '/b/gullwick/plan/month');
  await page.getByRole('button', { name: /^Brand: / }).click();
  await page.getByRole('menuitem', { name: 'Export and import' }).click();
  await page.waitForURL(/\/exchange\?brand=gullwick/);
  await expect(page.getByRole('combobox', { name: 'Brand' })).toHaveValue('gullwick');
  await page.getByRole('radio', { name: /A month/ }).check();
  await page.getByLabel('Month', { exact: true }).fill('2026-12');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Export ZIP' }).click()]);
  expect(download.suggestedFilename()).toBe('gullwick-2026-12.zip');
  const path = await download.path();
  expect(Object.keys(unzipSync(readFileSync(path)))).toEqual(expect.arrayContaining(['confetti.json', 'gullwick/brand.jsonl', 'gullwick/pieces.jsonl']));

  await page.getByLabel('Choose a package').setInputFiles(path);
  const start = page.getByRole('button', { name: 'Import', exact: true });
  await expect(start).toBeVisible();
  await page.reload();
  await expect(page.getByText('here already', { exact: true })).toBeVisible();
  await start.dblclick();
  await expect(page.getByRole('status').filter({ hasText: 'Gullwick Kite Works is up to date' })).toBeVisible();
  const rows = page.getByRole('table').getByRole('row');
  await expect(rows.filter({ hasText: 'Pieces' })).toBeVisible();
  await expect(page.getByRole('columnheader', { name: 'New', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Import another' }).click();
  await expect(page).not.toHaveURL(/package=/);
});

test('a file that is no package says so, and another can be chosen', async ({ page }) => {
  await comeInAs(page, 'Ottoline', '/exchange');
  await page.getByLabel('Choose a package').setInputFiles('README.md');
  await expect(page.getByRole('alert')).toContainText('no whole ZIP');
  await page.getByRole('button', { name: 'Choose another' }).click();
  await expect(page.getByLabel('Choose a package')).toBeAttached();
});

test('who makes nothing has nothing to export', async ({ page }) => {
  await comeInAs(page, 'Tove', '/exchange');
  await expect(page.getByText('You make nothing in any brand here')).toBeVisible();
});
