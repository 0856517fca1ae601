import type { Locator } from '@playwright/test';
import { expect, freshData, test } from './fixtures.ts';
import { comeInAs, expectStill, startPiece } from './steps.ts';

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

test('the brand chooses its own motif, which the cuts show at once, and the book keeps it', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/brand/book');
  const cut = page.locator('canvas[data-cut="aside"]');
  await expectStill(cut);
  const painted = await cut.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  const motifs = page.getByRole('radiogroup', { name: 'Motif' });
  await expect(motifs.getByRole('radio', { name: 'Bows on a line' })).toBeChecked();
  await motifs.getByRole('radio', { name: 'Bows on a line' }).focus();
  await page.keyboard.press('ArrowLeft');
  await expect(motifs.getByRole('radio', { name: 'Paper scraps' })).toBeChecked();
  await expect.poll(() => cut.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL())).not.toBe(painted);
  // Far down the book the cuts are still in sight.
  await expect(cut).toBeInViewport();
  await page.getByRole('button', { name: 'Save the book' }).click();
  await expect(page.getByText('The book is saved.', { exact: false })).toBeVisible();
  await page.reload();
  await expect(motifs.getByRole('radio', { name: 'Paper scraps' })).toBeChecked();
});

test('what templates say as a sample is in the brand’s language, and changes with it', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/brand/book');
  const cut = page.locator('canvas[data-cut="tally"]');
  await expectStill(cut);
  const look = (): Promise<string> => cut.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  const english = await look();
  const language = page.getByLabel('Language');
  await language.selectOption({ label: 'Deutsch' });
  await expect.poll(look).not.toBe(english);
  await expectStill(cut);
  const german = await look();
  await language.selectOption({ label: 'Polski' });
  await expect.poll(async () => [english, german].includes(await look())).toBe(false);
  await language.selectOption({ label: 'English' });
  await expect.poll(look).toBe(english);
});

test('a reviewer reads the book and cannot change it', async ({ page }) => {
  await comeInAs(page, 'Tove', '/b/gullwick/brand/book');
  await expect(page.getByLabel(/^Sea Ink/)).toBeDisabled();
  await expect(page.getByRole('button', { name: /^Take #/ })).toHaveCount(0);
});

/** How far the channels of a painted pixel are apart at most, in the upper half of a cut, where the photograph is. */
const colourfulness = (canvas: Locator): Promise<number> =>
  canvas.evaluate((each: HTMLCanvasElement) => {
    const pixels = each.getContext('2d')?.getImageData(0, 0, each.width, Math.floor(each.height / 3)).data ?? [];
    let most = 0;
    for (let at = 0; at < pixels.length; at += 4) most = Math.max(most, Math.max(pixels[at] ?? 0, pixels[at + 1] ?? 0, pixels[at + 2] ?? 0) - Math.min(pixels[at] ?? 0, pixels[at + 1] ?? 0, pixels[at + 2] ?? 0));
    return most;
  });

test('the brand’s photographs get one look, shown on its own picture, and a single one stays as it was taken', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/brand/book');
  const looks = page.getByRole('radiogroup', { name: 'What is done to photographs' });
  await expect(looks.getByRole('radio', { name: 'As taken' })).toBeChecked();
  const [taken, mono] = [looks.locator('canvas[data-look="none"]'), looks.locator('canvas[data-look="mono"]')];
  await expect.poll(() => colourfulness(taken)).toBeGreaterThan(60);
  await expect.poll(() => colourfulness(mono)).toBeLessThan(4);
  // With the keyboard, as a group of radio buttons: one step on is the next look.
  await looks.getByRole('radio', { name: 'As taken' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(looks.getByRole('radio', { name: 'Black and white' })).toBeChecked();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByLabel('Shadows')).toBeVisible();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByLabel('Strength')).toHaveValue('100');
  await page.getByRole('button', { name: 'Save the book' }).click();
  await expect(page.getByText('The book is saved.', { exact: false })).toBeVisible();

  await startPiece(page, 'Headland');
  await page.getByRole('button', { name: 'Choose a picture' }).click();
  await page.getByRole('dialog').getByRole('button', { name: /red-diamond-dunes/ }).first().click();
  const wall = page.locator('canvas[data-painted]').first();
  await expectStill(wall);
  await expect.poll(() => colourfulness(wall)).toBeLessThan(90);
  const treated = await colourfulness(wall);
  await page.getByLabel('As it was taken').check();
  await expect.poll(() => colourfulness(wall)).toBeGreaterThan(treated + 60);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('As it was taken')).not.toBeChecked();
  // A finer copy of the picture may have come meanwhile: it is treated again, and not of the very same colours.
  await expect.poll(() => colourfulness(wall)).toBeLessThan(90);
});

test('the brand chooses how its videos move and how its subtitles look, and the book keeps it', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/brand/book');
  const manners = page.getByRole('radiogroup', { name: 'How texts come in' });
  const looks = page.getByRole('radiogroup', { name: 'How subtitles look' });
  await expect(manners.getByRole('radio', { name: 'Playful' })).toBeChecked();
  await manners.getByRole('radio', { name: 'Playful' }).focus();
  await page.keyboard.press('ArrowLeft');
  await expect(manners.getByRole('radio', { name: 'Brisk' })).toBeChecked();
  const word = page.getByLabel('Highlight each word while it is spoken');
  await expect(word).toBeChecked();
  await expect(page.getByText('In the colour of the book that stands out most', { exact: false })).toBeVisible();
  await looks.getByText('Bold label').click();
  await expect(page.getByText('The word stands on a plate', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Save the book' }).click();
  await expect(page.getByText('The book is saved.', { exact: false })).toBeVisible();
  await page.reload();
  await expect(manners.getByRole('radio', { name: 'Brisk' })).toBeChecked();
  await expect(looks.getByRole('radio', { name: 'Bold label' })).toBeChecked();
});
