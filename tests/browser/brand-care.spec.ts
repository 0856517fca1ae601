import { appendFile, copyFile, readFile } from 'node:fs/promises';
import { expect, freshData, test } from './fixtures.ts';
import { comeInAs, expectSaved, startPiece } from './steps.ts';

test.use(freshData(import.meta.url));

test('a fact is written once, fills texts and captions, and is asked for where it is missing', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/brand/facts');
  await page.getByLabel('Name of a new fact').fill('Parking');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByText('{parking}')).toBeVisible();
  await page.getByRole('button', { name: 'Save the book' }).click();
  await expect(page.getByText('The book is saved.', { exact: false })).toBeVisible();

  await startPiece(page, 'Aside');
  await page.getByLabel('Quote').fill('Ring us:');
  await page.getByRole('button', { name: 'Put a fact in here' }).first().click();
  await page.getByRole('menuitem', { name: /Phone/ }).click();
  await expect(page.getByLabel('Quote')).toHaveValue('Ring us: {phone}');
  // It goes in where the caret is, which is behind it then.
  await expect(page.getByLabel('Quote')).toBeFocused();
  await page.keyboard.type(' today');
  await page.keyboard.press('Home');
  await page.getByRole('button', { name: 'Put a fact in here' }).first().click();
  await page.getByRole('menuitem', { name: /Phone/ }).click();
  await expect(page.getByLabel('Quote')).toHaveValue('{phone} Ring us: {phone} today');
  await page.getByLabel('Who said it').fill('Park at {parking}, not at {market}');
  const rail = page.getByRole('complementary', { name: 'Preflight' });
  await expect(rail).toContainText('uses the fact {parking}, which has no text yet');
  await expect(rail).toContainText('uses {market}, and the brand has no fact of that name');
  await page.getByLabel('Who said it').fill('The loft');
  await page.getByRole('tab', { name: 'Words' }).click();
  await page.getByLabel('Shared caption').fill('');
  await page.getByRole('button', { name: 'Put a house hashtag in here' }).first().click();
  await page.getByRole('menuitem', { name: '#GullwickKites' }).click();
  await expect(page.getByLabel('Shared caption')).toHaveValue('#GullwickKites');
  await page.getByLabel('Shared caption').fill('Unleash it on {phone}');
  await expect(page.getByRole('region', { name: /Preview for/ })).toContainText('Unleash it on 01632 960 184');
  await rail.getByRole('button', { name: 'Say “let go”' }).first().click();
  await expect(page.getByLabel('Shared caption')).toHaveValue('Let go it on {phone}');
  await expectSaved(page);
});

test('a typeface of one’s own is imported, and a wrong file is refused', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/lanternfall/brand/book');
  const input = page.getByLabel('Import a typeface');
  await input.setInputFiles({ name: 'notes.ttf', mimeType: 'font/ttf', buffer: Buffer.from('not a font') });
  await expect(page.getByText('“notes.ttf” is no TTF, OTF or WOFF2 file.')).toBeVisible();
  await input.setInputFiles('fonts/bebas-neue/bebas-neue-400.ttf');
  await expect(page.getByText('Licence of Bebas Neue 400')).toBeVisible();
  const cut = page.locator('canvas[data-cut="tally"]');
  const before = await cut.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  const own = await page.getByLabel('Typeface of Display').locator('optgroup[label="The brand’s own"] option').first().getAttribute('value');
  await page.getByLabel('Typeface of Display').selectOption(own);
  await expect.poll(() => cut.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL())).not.toBe(before);
});

test('the owner invites somebody, who joins with a password of their own; a designer only sees who is there', async ({ page, browser }) => {
  await comeInAs(page, 'Ottoline', '/b/gullwick/brand/book');
  const people = page.getByRole('region', { name: 'People' });
  await people.getByLabel('Email').fill('piet@gullwickkites.example');
  await people.getByRole('button', { name: 'Invite', exact: true }).click();
  const address = (await people.getByRole('status').locator('code').textContent()) ?? '';
  await expect(people.getByRole('list', { name: 'Open invitations' })).toContainText('piet@gullwickkites.example');

  const piet = await (await browser.newContext({ baseURL: new URL(page.url()).origin })).newPage();
  await piet.goto(address);
  await expect(piet.getByRole('heading', { name: 'Join Gullwick Kite Works' })).toBeVisible();
  await expect(piet.getByLabel('Email')).toHaveValue('piet@gullwickkites.example');
  await piet.getByLabel('Your name').fill('Piet Aalders');
  await piet.getByLabel('Password').fill('too short');
  await piet.getByRole('button', { name: 'Join' }).click();
  await expect(piet.getByText('A password has at least 12 characters')).toBeVisible();
  await piet.getByLabel('Password').fill('a few words of his own');
  await piet.getByRole('button', { name: 'Join' }).click();
  await piet.waitForURL(/\/b\/gullwick\/make\/pieces/);
  await piet.goto(address);
  await expect(piet.getByRole('alert')).toHaveText('This link has been used or has ended. Ask for a new one.');

  await page.reload();
  await people.getByRole('listitem').filter({ hasText: 'Piet' }).getByRole('button', { name: 'Remove' }).click();
  await expect(people.getByRole('listitem').filter({ hasText: 'Piet' })).toHaveCount(0);
  const wren = await browser.newPage();
  await comeInAs(wren, 'Wren', '/b/gullwick/brand/book');
  await expect(wren.getByRole('region', { name: 'People' })).toContainText('Ottoline Brack');
  await expect(wren.getByRole('button', { name: 'Invite', exact: true })).toHaveCount(0);
});

test('media: from the library with its credit, by tag, archived and back, and no address that is not public', { tag: '@long' }, async ({ page, stack }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/media');
  await page.getByRole('button', { name: 'From elsewhere' }).click();
  await page.getByRole('menuitem', { name: 'From the picture library' }).click();
  await page.getByLabel('Search the library').fill('fabric');
  await page.getByRole('dialog').getByRole('button', { name: /Rack of fabric rolls/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Close', exact: true }).click();
  const panel = page.getByRole('complementary', { name: 'Rack of fabric rolls' });
  await expect(panel.getByLabel('Credit')).toHaveValue('Bram Oakenfold');
  await panel.getByLabel('Tags').fill('Fabric, Workshop');
  await panel.getByLabel('Tags').blur();
  await page.getByLabel('Search media').fill('oakenfold');
  await expect(page.locator('main [role="listitem"] button').filter({ hasText: 'Rack of fabric rolls' })).toHaveCount(1);
  await panel.getByRole('button', { name: 'Archive' }).click();
  await expect(page.getByText('No picture has all of these words.')).toBeVisible();
  await page.getByRole('checkbox', { name: 'Archived' }).check();
  await expect(panel).toContainText('it stays where it is used and is not offered any more');
  await page.getByRole('button', { name: 'Restore' }).click();
  await page.getByRole('checkbox', { name: 'Archived' }).uncheck();
  await page.getByLabel('Search media').fill('');
  await page.getByRole('button', { name: 'From elsewhere' }).click();
  await page.getByRole('menuitem', { name: 'From a web address' }).click();
  await page.getByLabel('Address of the picture').fill('http://localhost:9/x.png');
  await page.getByRole('button', { name: 'Fetch it' }).click();
  await expect(page.getByText('localhost is not on the public internet, so it is not fetched.')).toBeVisible();
  await page.getByLabel('Address of the picture').fill(`${stack.standinOrigin}/library/ripstop-swatches/whole`);
  await page.getByRole('button', { name: 'Fetch it' }).click();
  await expect(page.getByRole('complementary', { name: 'whole' })).toContainText('From http');
});

test('a broken upload resumes where it stopped', async ({ page, context }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/media');
  await page.route('**/uploads/*?at=*', (route) => route.abort());
  await page.getByLabel('Upload files').setInputFiles('standin/library/patchwork-wall.jpg');
  const list = page.getByRole('list', { name: 'Uploads' });
  await expect(list).toContainText('The connection broke.');
  await page.unroute('**/uploads/*?at=*');
  await context.setOffline(false);
  await list.getByRole('button', { name: 'Resume' }).click();
  await expect(page.getByRole('complementary', { name: 'patchwork-wall.jpg' })).toBeVisible();
  // Also where it breaks in the middle of an answer.
  await page.route('**/uploads/*?at=*', (route) => route.fulfill({ status: 200, contentType: 'application/json', body: '{"id":' }));
  await page.getByLabel('Upload files').setInputFiles('standin/library/tail-ribbons-macro.jpg');
  await expect(list).toContainText('The connection broke.');
  await page.unroute('**/uploads/*?at=*');
  await list.getByRole('button', { name: 'Resume' }).click();
  await expect(page.getByRole('complementary', { name: 'tail-ribbons-macro.jpg' })).toBeVisible();
});

test('files of one name and one size are uploads of their own', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/ideas');
  await page.getByRole('tab', { name: 'From files', exact: true }).click();
  const bytes = await readFile('standin/library/tail-ribbons-macro.jpg');
  // What stands behind the end of a picture is not read, and makes it another file.
  await page.getByLabel('Choose files').setInputFiles([1, 2].map((mark) => ({ name: 'IMG_0001.jpg', mimeType: 'image/jpeg', buffer: Buffer.concat([bytes, Buffer.from([mark])]) })));
  await expect(page.getByRole('button', { name: 'Make 2 pieces' })).toBeEnabled();
  await expect(page.getByRole('list', { name: 'Uploads' })).toHaveCount(0);
});

test('a file that changes while its upload waits is asked for again, and nothing is said of the connection', async ({ page }, testInfo) => {
  const path = testInfo.outputPath('wall.jpg');
  await copyFile('standin/library/patchwork-wall.jpg', path);
  await comeInAs(page, 'Wren', '/b/gullwick/make/media');
  await page.route('**/uploads/*?at=*', (route) => route.abort());
  await page.getByLabel('Upload files').setInputFiles(path);
  const list = page.getByRole('list', { name: 'Uploads' });
  await expect(list).toContainText('The connection broke.');
  await appendFile(path, 'written to');
  await page.unroute('**/uploads/*?at=*');
  await list.getByRole('button', { name: 'Resume' }).click();
  await expect(list).toContainText('has changed on this computer');
  await expect(list.getByRole('button', { name: 'Resume' })).toHaveCount(0);
});
