import { readFile } from 'node:fs/promises';
import { type Page, expect, freshData, test } from './fixtures.ts';
import sharp from 'sharp';
import { chooseOnly, comeInAs, expectSaved, sendNow, startPiece, typeDay, typeTime, chooseCell, wordingRow } from './steps.ts';

test.use(freshData(import.meta.url));

const PHOTO = 'demo/media/red-diamond-dunes.jpg';
const CAPTION = 'A red diamond, out over the dunes. #GullwickKites';

/** Mean and 99th percentile of the differences of all channels of two pictures, in steps of 256. */
async function difference(a: Buffer, b: Buffer): Promise<{ mean: number; high: number }> {
  const read = (bytes: Buffer) => sharp(bytes).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const [left, right] = await Promise.all([read(a), read(b)]);
  expect([left.info.width, left.info.height]).toEqual([right.info.width, right.info.height]);
  const counts = new Array<number>(256).fill(0);
  for (let index = 0; index < left.data.length; index += 1) {
    const step = Math.abs((left.data[index] ?? 0) - (right.data[index] ?? 0));
    counts[step] = (counts[step] ?? 0) + 1;
  }
  const total = left.data.length;
  let [seen, high] = [0, 0];
  while (seen + (counts[high] ?? 0) < total * 0.99) seen += counts[high++] ?? 0;
  return { mean: counts.reduce((sum, count, step) => sum + count * step, 0) / total, high };
}

/** The large look's own pixels, at full size. */
async function paintedPreview(page: Page): Promise<Buffer> {
  await expect(page.locator('[data-large]')).not.toHaveAttribute('data-settled', '0');
  const dataUrl = await page.locator('[data-large] canvas').evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL('image/png'));
  return Buffer.from(dataUrl.split(',')[1] ?? '', 'base64');
}

test('from a photo to a sent post, as Wren', { tag: '@long' }, async ({ page, stack }) => {
  await test.step('sign in', async () => {
    await page.goto('/b/gullwick/make/media');
    await expect(page).toHaveURL(/sign-in\?next=/);
    await page.getByLabel('Email').fill('wren@gullwickkites.example');
    await page.getByLabel('Password').fill('wrong');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('alert')).toHaveText('Wrong email or password.');
    await page.getByLabel('Password').fill('sand-in-both-shoes');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page).toHaveURL(/make\/media/);
  });

  await test.step('import a photo, and move its focal point', async () => {
    const bytes = await sharp(PHOTO).resize(1800, 1200).jpeg({ quality: 90 }).toBuffer();
    await page.getByLabel('Upload files').setInputFiles({ name: 'saturday.jpg', mimeType: 'image/jpeg', buffer: bytes });
    const panel = page.getByRole('complementary', { name: 'saturday.jpg' });
    await expect(panel).toContainText('1800 × 1200');
    const point = panel.getByRole('button', { name: /Focal point/ });
    await expect(point).toHaveAccessibleName(/Focal point, (6|7)\d% from the left/);
    await point.focus();
    await page.keyboard.press('ArrowLeft');
    await expect(panel).toContainText('placed by hand');
    await panel.getByRole('button', { name: 'Back to the proposal' }).click();
    await expect(panel).toContainText('proposed');
    await panel.getByLabel('Alt text').fill('A red diamond kite over dunes.');
    await panel.getByLabel('Alt text').blur();
  });

  await test.step('a wrong file is refused with a sentence, and the rest is imported', async () => {
    await page.getByLabel('Upload files').setInputFiles({ name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture at all') });
    const list = page.getByRole('list', { name: 'Uploads' });
    await expect(list).toContainText('“notes.jpg” is not a JPEG, PNG or WebP picture');
    await list.getByRole('button', { name: 'Remove' }).click();
    await expect(list).toBeHidden();
  });

  await test.step('a piece from a template: the wall repaints as one types', async () => {
    await startPiece(page, 'Headland');
    await expect(page.getByRole('complementary', { name: 'Preflight' })).toContainText('Headline is empty');
    await page.getByRole('button', { name: /Choose a picture/ }).click();
    await page.getByRole('dialog').getByRole('button', { name: /saturday\.jpg|red diamond/i }).first().press('Enter');
    await expect(page.getByRole('button', { name: 'Change', exact: true })).toBeFocused();
    const wide = page.locator('canvas[data-cut$="post-wide"]');
    const before = await wide.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
    await page.getByLabel('Headline').fill('Build your own kite in an afternoon');
    await expect.poll(() => wide.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL())).not.toBe(before);
    await page.getByLabel('Label').fill('Saturday on the quay');
    await page.getByLabel('Line', { exact: true }).fill('The Old Net Loft, from 2 pm.');
    await expect(page.getByText('fits all 15 cuts')).toHaveCount(3);
    await expectSaved(page);
  });

  await test.step('undo and redo', async () => {
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByLabel('Line', { exact: true })).toHaveValue('');
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(page.getByLabel('Line', { exact: true })).toHaveValue('The Old Net Loft, from 2 pm.');
    await expectSaved(page);
    await page.reload();
    await expect(page.getByLabel('Headline')).toHaveValue('Build your own kite in an afternoon');
  });

  await test.step('a text that cannot fit says by how much', async () => {
    await page.getByLabel('Headline').fill('wind and weather '.repeat(24).trim());
    await expect(page.getByText(/^too long for .* by \d+/).first()).toBeVisible();
    await expect(page.getByRole('complementary', { name: 'Preflight' })).toContainText(/Headline is too long for Petalry Square by \d+ characters/);
    await page.keyboard.press('Control+z');
    await expect(page.getByLabel('Headline')).toHaveValue('Build your own kite in an afternoon');
  });

  await test.step('words: shared, then one channel’s own, and back', async () => {
    await page.getByRole('tab', { name: 'Words' }).click();
    await chooseCell(page, 'Shared', 'altText');
    await expect(page.getByLabel('Shared alt text')).toHaveValue('A red diamond kite over dunes.');
    await chooseCell(page, 'Shared', 'caption');
    await page.getByLabel('Shared caption').fill('x'.repeat(300));
    const quipline = wordingRow(page, 'Quipline');
    await expect(quipline.locator('[data-count="caption"]')).toHaveText(/20 over: 300 \/ 280/);
    await page.getByLabel('Shared caption').fill(CAPTION);
    await expect(quipline.locator('[data-count="caption"]')).toHaveText('49 / 280');
    await chooseCell(page, 'Quipline', 'caption');
    await page.getByLabel(/Caption for Quipline/).fill('Short for Quipline 🪁');
    await expect(quipline.locator('[data-count="caption"]')).toHaveText('21 / 280');
    await page.getByRole('complementary', { name: 'Chosen cell' }).getByRole('button', { name: 'Back to shared' }).click();
    await expect(page.getByLabel(/Caption for Quipline/)).toHaveValue(CAPTION);
    await page.getByLabel(/Caption for Quipline/).fill('Short for Quipline 🪁');
    await expectSaved(page);
  });

  await test.step('times: a past moment is refused, a later one is kept with its zone', async () => {
    await page.getByRole('tab', { name: 'Times' }).click();
    await expect(page.getByRole('button', { name: 'Schedule in 9 places' })).toBeEnabled();
    const [date, month, year] = ((await page.getByRole('group', { name: 'All places: day', exact: true }).textContent()) ?? '').match(/\d+/g) ?? [];
    await typeDay(page, 'All places: day', '2020-05-04');
    await expect(page.locator('[data-moment]')).toHaveText(/has passed/);
    await page.getByRole('button', { name: 'Schedule in 9 places' }).click();
    await expect(page.getByRole('alert')).toHaveText(/Mon 4 May 2020, \d\d:\d\d London has passed: it is now .* London\. Choose a later moment\./);
    await typeDay(page, 'All places: day', `${year}-${month}-${date}`);
    await typeTime(page, 'Quipline @gullwickkites post: time', '23:30');
    await expect(page.getByRole('group', { name: 'Quipline @gullwickkites post', exact: true }).locator('[data-moment="fine"]')).toContainText('23:30 London');
    await page.getByRole('button', { name: 'Schedule in 9 places' }).press('Enter');
    await expect(page.locator('[data-delivery]')).toHaveCount(9);
    // Who works by keyboard goes on from here, not from the top of the page.
    await expect(page.getByRole('button', { name: 'Schedule in 0 places' })).toBeFocused();
    await expect(page.locator('[data-post]')).toHaveCount(2);
    await expect(page.locator('[data-post]').first()).toContainText(/23:30 London.*Quipline.*Scheduled/);
  });

  await test.step('what is scheduled shows in its place, and is not scheduled twice without a word', async () => {
    const none = page.getByRole('button', { name: 'Schedule in 0 places' });
    await expect(page.getByRole('group', { name: 'Petalry @gullwickkites feed', exact: true })).toContainText('Scheduled');
    await expect(none).toBeDisabled();
    await page.getByRole('tab', { name: 'Words' }).click();
    await page.getByRole('tab', { name: 'Times' }).click();
    await expect(none).toBeDisabled();
    await page.getByRole('checkbox', { name: 'Quipline @gullwickkites post' }).check();
    await typeTime(page, 'Quipline @gullwickkites post: time', '23:30');
    await page.getByRole('button', { name: 'Schedule in 1 place' }).click();
    await expect(page.getByRole('alert')).toContainText(/is scheduled for Quipline.* already\. Nothing was scheduled twice\./);
    await typeTime(page, 'Quipline @gullwickkites post: time', '22:15');
    await page.getByRole('button', { name: 'Schedule in 1 place' }).click();
    await expect(page.getByRole('alert')).toContainText('Schedule it there once more?');
    await page.getByRole('button', { name: 'Leave it' }).click();
    await expect(page.locator('[data-delivery]')).toHaveCount(9);
  });

  const pieceAddress = page.url();
  await test.step('the demo clock moves forward, and the posts go out', async () => {
    await page.goto('/b/gullwick/send/outbox');
    const rows = page.locator('[data-post]').filter({ hasText: 'Build your own kite in an afternoon' });
    await page.getByRole('button', { name: /Demo clock/ }).click();
    await page.getByRole('button', { name: '+ 1 day' }).click();
    await page.keyboard.press('Escape');
    // A row that is calm is closed: it says how all stands, and opens.
    await expect(rows.getByText('Sent', { exact: true }).first()).toBeVisible({ timeout: 120_000 });
    const closed = rows.getByRole('button', { name: /its \d+ places/, expanded: false });
    while ((await closed.count()) > 0) await closed.first().click();
    await expect(rows.locator('[data-delivery][data-state="sent"] a[target="_blank"]')).not.toHaveCount(0, { timeout: 120_000 });
    await expect(rows.locator('nth=0')).toBeVisible();
    await expect(page.locator('[data-state="sending"]')).toHaveCount(0, { timeout: 120_000 });
  });

  await test.step('the published picture is the painted preview, and the words are each channel’s own', async () => {
    await page.goto(pieceAddress.replace('#times', ''));
    for (const [name, placement, words] of [
      ['Petalry Portrait', 'feed-portrait', CAPTION],
      ['Petalry Story', 'story', CAPTION],
      ['Quipline Square', 'post-square', 'Short for Quipline 🪁'],
    ] as const) {
      await page.getByRole('tab', { name: 'Times' }).click();
      const [network = '', place = ''] = name.split(' ');
      const row = page.locator('[data-delivery]').filter({ hasText: network }).filter({ hasText: place });
      await expect(row).toHaveAttribute('data-state', 'sent');
      const address = (await row.locator('a[target="_blank"]').getAttribute('href')) ?? '';
      expect(address.startsWith(stack.standinOrigin)).toBe(true);
      const published = await page.context().newPage();
      await published.goto(address);
      await expect(published.locator('.words')).toHaveText(words);
      const image = published.locator('main img');
      await expect(image).toHaveAttribute('alt', 'A red diamond kite over dunes.');
      const bytes = await (await page.request.get(new URL((await image.getAttribute('src')) ?? '', stack.standinOrigin).href)).body();
      await published.close();

      await page.getByRole('tab', { name: 'Look' }).click();
      await page.getByRole('button', { name: new RegExp(`^${name},`) }).click();
      const { mean, high } = await difference(await paintedPreview(page), bytes);
      expect(mean, `${placement}: mean difference`).toBeLessThan(1.2);
      expect(high, `${placement}: 99th percentile`).toBeLessThan(14);
    }
  });

  await test.step('download the cut as PNG at full size', async () => {
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'PNG' }).click()]);
    expect(download.suggestedFilename()).toMatch(/^build-your-own-kite-in-an-afternoon-quipline-post-square-1080x1080\.png$/);
    const { width, height, format } = await sharp(await readFile(await download.path())).metadata();
    expect([format, width, height]).toEqual(['png', 1080, 1080]);
  });

  await test.step('send now works too', async () => {
    await chooseOnly(page);
    await page.getByRole('checkbox', { name: 'All places' }).check();
    for (const name of [/Petalry.*feed/, /Petalry.*story/]) await page.getByRole('checkbox', { name }).uncheck();
    await sendNow(page);
    await expect(page.getByRole('alert')).toContainText(/went out to .* already\. The same holds for 6 more places\. Schedule it there once more\?/);
    await page.getByRole('button', { name: 'Schedule it once more' }).click();
    await expect(page.locator('[data-delivery][data-state="sent"]')).toHaveCount(16);
  });
});

test('two people in one piece: both keep their words, see each other, and are asked only about one place', async ({ browser }) => {
  // Contexts of their own: they stay when a page goes, as a browser does.
  const [mine, theirs] = [await (await browser.newContext()).newPage(), await (await browser.newContext()).newPage()];
  await comeInAs(mine, 'Wren');
  await startPiece(mine, 'Aside');
  await comeInAs(theirs, 'Ottoline', new URL(mine.url()).pathname);
  await expect(mine.locator('[data-present]')).toContainText('Ottoline is here');
  await expect(theirs.locator('[data-present]')).toContainText('Wren is here');

  await test.step('different fields: nobody is asked, and each sees the other’s words come', async () => {
    await Promise.all([theirs.getByLabel('Who said it').fill('Ottoline'), mine.getByLabel('Quote').fill('Wind is free')]);
    await Promise.all([expectSaved(mine), expectSaved(theirs)]);
    await expect(mine.getByLabel('Who said it')).toHaveValue('Ottoline');
    await expect(theirs.getByLabel('Quote')).toHaveValue('Wind is free');
    await expect(mine.getByRole('alertdialog')).toBeHidden();
  });

  await test.step('one field: both texts and the name, and a choice', async () => {
    await mine.context().setOffline(true);
    await mine.getByLabel('Quote').fill('Wren had another idea');
    await theirs.getByLabel('Quote').fill('Ottoline was here first');
    await expectSaved(theirs);
    await mine.context().setOffline(false);
    const note = mine.getByRole('alertdialog');
    await expect(note).toContainText('Ottoline Brack wrote in the same place');
    await expect(note).toContainText('Ottoline was here first');
    await expect(note).toContainText('Wren had another idea');
    await note.getByRole('radio', { name: /Ottoline was here first/ }).check();
    await note.getByRole('button', { name: 'Save this choice' }).click();
    await expectSaved(mine);
    await expect(mine.getByLabel('Quote')).toHaveValue('Ottoline was here first');
  });

  await test.step('words that were not saved yet when the page goes are saved all the same', async () => {
    await mine.getByLabel('Who said it').fill('Somebody in a hurry');
    mine.on('dialog', (dialog) => void dialog.accept());
    await mine.close({ runBeforeUnload: true });
    await expect(theirs.getByLabel('Who said it')).toHaveValue('Somebody in a hurry');
    await expect(theirs.locator('[data-present]')).toBeHidden();
  });

  await test.step('every saved state can be looked at and restored, also after a reload', async () => {
    await theirs.reload();
    await theirs.getByRole('button', { name: 'History' }).click();
    const states = theirs.getByRole('region', { name: 'Saved states' }).getByRole('listitem');
    await expect(states.first()).toContainText('Wren Adeyemi-Holt');
    await expect.poll(() => states.count()).toBeGreaterThan(3);
    await states.last().getByRole('button').click();
    const changes = theirs.getByRole('table');
    await expect(changes).toContainText('Ottoline was here first');
    await theirs.getByRole('button', { name: 'Restore this state' }).click();
    await expect(theirs.getByLabel('Quote')).toHaveValue('');
    await expectSaved(theirs);
    await theirs.getByRole('button', { name: 'Undo' }).click();
    await expect(theirs.getByLabel('Quote')).toHaveValue('Ottoline was here first');
  });
});

test('people keep working while the server is away, and is saved when it is back', async ({ page, context }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Aside');
  await context.setOffline(true);
  await page.getByLabel('Quote').fill('Written in a tunnel');
  await expect(page.locator('[data-save]')).toHaveAttribute('data-save', 'offline');
  await context.setOffline(false);
  await expectSaved(page);
  await page.reload();
  await expect(page.getByLabel('Quote')).toHaveValue('Written in a tunnel');
});

test('what is written without a connection is there again after the page was closed', async ({ page, context }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Aside');
  await expectSaved(page);
  const address = page.url();
  await context.setOffline(true);
  await page.getByLabel('Quote').fill('Written in a tunnel, and the battery went');
  await expect(page.locator('[data-save]')).toHaveAttribute('data-save', 'offline');
  // Without its question, as a machine that is switched off closes it.
  await page.close({ runBeforeUnload: false });
  await context.setOffline(false);
  const later = await context.newPage();
  await later.goto(address);
  await expect(later.getByLabel('Quote')).toHaveValue('Written in a tunnel, and the battery went');
  await expect(later.getByText('could not be saved is back in the piece', { exact: false })).toBeVisible();
  await expectSaved(later);
  await later.reload();
  await expect(later.getByLabel('Quote')).toHaveValue('Written in a tunnel, and the battery went');
  await expect(later.getByText('could not be saved is back', { exact: false })).toHaveCount(0);
});

test('a reviewer sees a piece and cannot change it', async ({ page }) => {
  await comeInAs(page, 'Tove');
  await page.locator('a[href*="/make/pieces/"]').filter({ hasText: 'The hatch is open again' }).click();
  await expect(page.getByLabel('Headline')).not.toBeEditable();
  await page.getByRole('tab', { name: 'Times' }).click();
  await expect(page.getByRole('button', { name: /Schedule/ })).toBeDisabled();
});

test('an access token is shown once and works until it is revoked', async ({ page, request }) => {
  await comeInAs(page, 'Wren', '/account');
  await page.getByLabel('What is it for?').fill('nightly import');
  await page.getByRole('button', { name: 'Make a token' }).click();
  const token = (await page.getByTestId('fresh-token').textContent()) ?? '';
  const me = () => request.get('/api/me', { headers: { authorization: `Bearer ${token}` } });
  expect((await me()).status()).toBe(200);
  await page.reload();
  await expect(page.getByText(token)).toBeHidden();
  await page.getByRole('listitem').filter({ hasText: 'nightly import' }).getByRole('button', { name: 'Revoke' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'nightly import' })).toBeHidden();
  expect((await me()).status()).toBe(401);
});
