import { readFile } from 'node:fs/promises';
import { expect, freshData, test } from './fixtures.ts';
import { comeInAs } from './steps.ts';

test.use(freshData(import.meta.url));

test('every kind of slide of a carousel is changed on its own', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/brand/templates');
  await page.locator('[data-template="strand"]').getByRole('button', { name: 'Duplicate' }).click();
  await page.waitForURL(/brand\/templates\/strand-copy/);
  const square = page.locator('canvas[data-cut="usual.square"]');
  await expect(square).toHaveAttribute('data-settled', 'true');
  const pixels = (): Promise<string> => square.evaluate((each: HTMLCanvasElement) => each.toDataURL());
  const cover = await pixels();
  const kinds = page.getByRole('radiogroup', { name: 'Kinds of slides' });
  await kinds.getByRole('radio', { name: 'Closing card' }).click();
  await expect.poll(pixels).not.toBe(cover);
  const before = await pixels();
  await page.getByRole('list', { name: 'Parts of this arrangement' }).getByRole('button', { name: /^Call/ }).click();
  await page.getByRole('complementary', { name: 'The chosen part' }).getByLabel('Align', { exact: true }).selectOption('end');
  await expect.poll(pixels).not.toBe(before);
  await kinds.getByRole('radio', { name: 'Cover' }).click();
  await expect.poll(pixels).toBe(cover);
  await page.getByRole('button', { name: 'Save the template' }).click();
  await expect(page.getByText('Saved. Pieces with this template follow')).toBeVisible();
  await page.goto('/b/gullwick/brand/templates');
  const tile = page.locator('[data-template="strand-copy"]');
  await tile.getByRole('button', { name: 'Archive' }).click();
  await expect(tile.getByRole('button', { name: 'Restore' })).toBeVisible();
});

test('a copy of a template is changed part by part, checked live, saved, exported, imported, and used', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/brand/templates');
  await page.locator('[data-template="headland"]').getByRole('button', { name: 'Duplicate' }).click();
  await page.waitForURL(/brand\/templates\/headland-copy/);
  const square = page.locator('canvas[data-cut="usual.square"]');
  const tall = page.locator('canvas[data-cut="usual.tall"]');
  await expect(square).toHaveAttribute('data-settled', 'true');
  const pixels = (canvas: typeof square): Promise<string> => canvas.evaluate((each: HTMLCanvasElement) => each.toDataURL());
  const [before, tallBefore] = [await pixels(square), await pixels(tall)];

  const parts = page.getByRole('list', { name: 'Parts of this arrangement' });
  await parts.getByRole('button', { name: /^Headline/ }).click();
  const chosen = page.getByRole('complementary', { name: 'The chosen part' });
  await chosen.getByLabel('Align', { exact: true }).selectOption('centre');
  await expect.poll(() => pixels(square)).not.toBe(before);
  // The arrangement at work is for cards and squares; the others stay as they were.
  expect(await pixels(tall)).toBe(tallBefore);

  const centred = await pixels(square);
  await page.getByRole('button', { name: 'Move up' }).click();
  await expect.poll(() => pixels(square)).not.toBe(centred);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => pixels(square)).toBe(centred);
  await page.getByLabel('Add a part').selectOption('motif');
  await chosen.getByLabel('Motif', { exact: true }).selectOption('scraps');
  await expect(parts.getByRole('button', { name: /^Motif/ })).toBeVisible();
  await page.locator('input[accept=".svg"]').setInputFiles({ name: 'star.svg', mimeType: 'image/svg+xml', buffer: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><path d="M5 0L10 10H0Z" fill="#ff00ff"/></svg>') });
  await expect(parts.getByRole('button', { name: /^Drawing/ })).toBeVisible();
  await page.getByRole('button', { name: 'Save the template' }).click();
  await expect(page.getByText('Saved. Pieces with this template follow')).toBeVisible();
  await page.reload();
  await expect(parts.getByRole('button', { name: /^Drawing/ })).toBeVisible();

  await page.goto('/b/gullwick/brand/templates');
  const tile = page.locator('[data-template="headland-copy"]');
  const [download] = await Promise.all([page.waitForEvent('download'), tile.getByRole('button', { name: 'Export' }).click()]);
  const text = await readFile(await download.path(), 'utf8');
  expect(JSON.parse(text)).toMatchObject({ name: 'Headland copy' });
  await page.getByLabel('Import a template').setInputFiles({ name: 'mine.json', mimeType: 'application/json', buffer: Buffer.from(text.replace('Headland copy', 'Harbour wall')) });
  await page.waitForURL(/brand\/templates\/harbour-wall/);
  await page.goto('/b/gullwick/brand/templates');
  await page.getByLabel('Import a template').setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from('{"version":1}') });
  await expect(page.getByRole('alert').or(page.getByRole('status')).filter({ hasText: /required|must/i }).first()).toBeVisible();

  await page.goto('/b/gullwick/make/pieces?new');
  await page.getByRole('button', { name: /^Harbour wall/ }).click();
  await page.waitForURL(/make\/pieces\/[\w-]+$/);
  await page.getByLabel('Headline').fill('Made in the workshop');
  await expect(page.getByText('fits all 15 cuts')).toHaveCount(1);

  // So that other journeys find the templates as they ship.
  await page.goto('/b/gullwick/brand/templates');
  for (const key of ['headland-copy', 'harbour-wall']) {
    await page.locator(`[data-template="${key}"]`).getByRole('button', { name: 'Archive' }).click();
    await expect(page.locator(`[data-template="${key}"]`).getByRole('button', { name: 'Restore' })).toBeVisible();
  }
  await page.goto('/b/gullwick/make/pieces?new');
  await expect(page.getByRole('button', { name: /^Headland/ })).toHaveCount(1);
});

test('the workshop shows where a part lies, compares with what is saved, and checks the template on its worst cuts', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/brand/templates');
  await page.locator('[data-template="headland"]').getByRole('button', { name: 'Duplicate' }).click();
  await page.waitForURL(/brand\/templates\/headland-copy/);
  const key = new URL(page.url()).pathname.split('/').at(-1) ?? '';
  const square = page.locator('canvas[data-cut="usual.square"]');
  await expect(square).toHaveAttribute('data-settled', 'true');
  const pixels = (): Promise<string> => square.evaluate((each: HTMLCanvasElement) => each.toDataURL());
  const parts = page.getByRole('list', { name: 'Parts of this arrangement' });
  const frames = page.locator('[data-part-frame]');
  await expect(frames).toHaveCount(0);
  await parts.getByRole('button', { name: /^Headline/ }).hover();
  await expect.poll(() => frames.count()).toBeGreaterThan(2);

  // A press in a cut chooses what lies there: the mark stands in the lower right corner.
  const box = await square.boundingBox();
  if (!box) throw new Error('The square is shown');
  await square.click({ position: { x: box.width * 0.89, y: box.height * 0.87 } });
  await expect(parts.getByRole('button', { name: /^Mark/ })).toHaveAttribute('aria-pressed', 'true');

  await parts.getByRole('button', { name: /^Picture|^Photo/ }).first().click();
  const chosen = page.getByRole('complementary', { name: 'The chosen part' });
  const before = await pixels();
  const height = chosen.getByRole('slider', { name: 'Height at the least' });
  await height.focus();
  await page.keyboard.press('PageUp');
  await expect.poll(pixels).not.toBe(before);
  const after = await pixels();
  await page.getByRole('button', { name: 'Show as saved' }).click();
  await expect.poll(pixels).toBe(before);
  await page.getByRole('button', { name: 'Show the change' }).click();
  await expect.poll(pixels).toBe(after);

  await chosen.getByLabel('Import an SVG outline').setInputFiles({ name: 'drop.svg', mimeType: 'image/svg+xml', buffer: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><path d="M5 0L10 10H0Z" fill="#000000"/></svg>') });
  await expect(chosen.getByLabel('Seen through')).toHaveValue('own outline');
  await expect.poll(pixels).not.toBe(after);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(pixels).toBe(after);

  await page.getByRole('button', { name: 'Check', exact: true }).click();
  const check = page.getByRole('region', { name: 'Check' });
  await expect(check.getByRole('status')).toContainText(/have something amiss|Every text fits/);
  await expect(check.getByRole('heading')).toContainText('The worst of');
  await page.getByRole('button', { name: 'Close the check' }).click();
  await expect(check).toHaveCount(0);

  await page.getByRole('button', { name: 'Undo' }).click();
  await page.goto('/b/gullwick/brand/templates');
  await page.locator(`[data-template="${key}"]`).getByRole('button', { name: 'Archive' }).click();
  await expect(page.locator(`[data-template="${key}"]`).getByRole('button', { name: 'Restore' })).toBeVisible();
});

test('a template begins with a sketch, drawn with the mouse and with the keys, and is used', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/brand/templates');
  await page.getByRole('button', { name: 'New from a sketch' }).click();
  const dialog = page.getByRole('dialog', { name: 'New template from a sketch' });
  const sheet = dialog.getByRole('group', { name: 'Sketch' });
  const upright = dialog.locator('canvas[data-cut="card"]');
  await expect(upright).toHaveAttribute('data-settled', 'true');
  const pixels = (): Promise<string> => upright.evaluate((each: HTMLCanvasElement) => each.toDataURL());
  const before = await pixels();

  // By the keys: the picture goes to the foot of the sheet, and what overlaps it then stands on it or beside it.
  const picture = sheet.getByRole('button', { name: /^Picture, 12 by 9 at column 1, row 1$/ });
  await picture.focus();
  for (let count = 0; count < 8; count += 1) await page.keyboard.press('ArrowDown');
  await expect(sheet.getByRole('button', { name: /^Picture, 12 by 9 at column 1, row 7$/ })).toBeFocused();
  await page.keyboard.press('Shift+ArrowUp');
  await expect(sheet.getByRole('button', { name: /^Picture, 12 by 8 at column 1, row 7$/ })).toBeFocused();
  await expect.poll(pixels).not.toBe(before);

  // By the mouse: the headline goes to the top.
  const headline = sheet.getByRole('button', { name: /^Headline/ });
  const [from, on] = [await headline.boundingBox(), await sheet.boundingBox()];
  if (!from || !on) throw new Error('nothing is drawn');
  await page.mouse.move(from.x + 20, from.y + 12);
  await page.mouse.down();
  await page.mouse.move(on.x + 44, on.y + 36, { steps: 5 });
  await page.mouse.up();
  await expect(sheet.getByRole('button', { name: /^Headline, 10 by 2 at column 2, row 2$/ })).toBeVisible();

  // A mark alone is no template: it says so, and comes back with a list.
  for (const kind of ['Picture', 'Headline', 'Line']) {
    await sheet.getByRole('button', { name: new RegExp(`^${kind},`) }).focus();
    await page.keyboard.press('Delete');
  }
  await expect(dialog.getByRole('alert')).toHaveText('A sketch needs a picture or words: draw a region for one.');
  const create = dialog.getByRole('button', { name: 'Create and open in the workshop' });
  await expect(create).toBeDisabled();
  await dialog.getByRole('button', { name: '+ Headline' }).click();
  await dialog.getByRole('button', { name: '+ List' }).click();
  await dialog.getByLabel('Name').fill('Board of the week');
  await create.dblclick();
  await page.waitForURL(/brand\/templates\/board-of-the-week$/);
  await expect(page.locator('canvas[data-cut="usual.square"]')).toHaveAttribute('data-settled', 'true');
  await page.goto('/b/gullwick/make/pieces?new');
  await page.getByRole('button', { name: /^Board of the week/ }).click();
  await page.waitForURL(/make\/pieces\/[\w-]+/);
  await expect(page.getByLabel('Points')).toBeVisible();
  const { items } = (await (await page.request.get('/api/brands/gullwick/templates')).json()) as { items: { name: string }[] };
  expect(items.filter(({ name }) => name === 'Board of the week')).toHaveLength(1);
});
