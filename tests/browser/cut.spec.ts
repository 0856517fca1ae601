import { readFile } from 'node:fs/promises';
import { type Page, expect, freshData, test } from './fixtures.ts';
import { unzipSync } from 'fflate';
import { chooseOnly, comeInAs, expectSaved, expectSettled, sendNow, startPiece } from './steps.ts';

test.use(freshData(import.meta.url));

const canvasOf = (page: Page, cut: string) => page.locator(`canvas[data-cut$="${cut}"]`);
const pixels = (page: Page, cut: string): Promise<string> => canvasOf(page, cut).evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());

test('one cut may differ, says so, stays linked in all else, and can follow the piece again', async ({ page }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Headland');
  await page.getByRole('button', { name: /Choose a picture/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: /beach-hut|beach hut/i }).first().click();
  await page.getByLabel('Headline').fill('The hatch is open');
  await page.getByLabel('Line', { exact: true }).fill('Weekends until dusk');
  await expectSaved(page);
  await expectSettled(page);
  const [square, portrait] = [await pixels(page, 'feed-square'), await pixels(page, 'feed-portrait')];

  await page.getByRole('button', { name: /Petalry Square,/ }).click();
  const controls = page.getByRole('group', { name: 'What differs in this cut' });
  await expect(controls).toContainText('follows the piece');
  await controls.getByRole('radio', { name: 'Bold' }).click();
  await controls.getByRole('button', { name: 'Smaller' }).click();
  await controls.getByLabel('Line').uncheck();
  await controls.getByLabel('Arrangement').selectOption({ label: 'Bluff' });
  const crop = page.getByRole('button', { name: /^Crop/ });
  const box = await crop.boundingBox();
  if (!box) throw new Error('There is no crop to drag');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2, { steps: 3 });
  await page.mouse.up();
  await crop.press('ArrowRight');
  await expectSaved(page);

  await page.getByRole('button', { name: 'All cuts' }).click();
  await expect(page.getByText('differs')).toHaveCount(1);
  await expect.poll(() => pixels(page, 'feed-square')).not.toBe(square);
  expect(await pixels(page, 'feed-portrait')).toBe(portrait);
  const differing = await pixels(page, 'feed-square');
  await page.getByLabel('Headline').fill('The hatch is open again');
  await expect.poll(() => pixels(page, 'feed-square')).not.toBe(differing);
  await page.getByLabel('Headline').fill('The hatch is open');
  await expectSaved(page);
  await page.reload();
  await expect(page.getByText('differs')).toHaveCount(1);

  await page.getByRole('button', { name: /Petalry Square,/ }).click();
  await page.getByRole('button', { name: 'Follow the piece again' }).click();
  await page.getByRole('button', { name: 'All cuts' }).click();
  await expect(page.getByText('differs')).toHaveCount(0);
  await expect.poll(() => pixels(page, 'feed-square')).toBe(square);
});

test('cuts that are painted in parts while a person types look as they do when they are painted whole', async ({ page }) => {
  await comeInAs(page, 'Wren');
  const all = (): Promise<readonly string[]> => page.locator('canvas[data-painted]').evaluateAll((canvases) => (canvases as HTMLCanvasElement[]).map((canvas) => `${canvas.dataset['cut'] ?? ''} ${canvas.toDataURL()}`));
  for (const [template, label] of [['Headland', 'Headline'], ['Lull', 'Headline'], ['Porthole', 'Name']] as const) {
    await startPiece(page, template);
    await page.getByRole('button', { name: /Choose a picture/ }).first().click();
    await page.getByRole('dialog').getByRole('button', { name: /beach-hut|beach hut/i }).first().click();
    await expectSettled(page);
    const field = page.getByLabel(label, { exact: true });
    await field.focus();
    await page.keyboard.press('End');
    // Letters, a word that breaks a line, words that shrink it, and all of it back again.
    await page.keyboard.type('Fly gÅ with us tomorrow', { delay: 60 });
    for (let index = 0; index < 12; index += 1) await page.keyboard.press('Backspace', { delay: 30 });
    // Words beside a mark, whose edges are smoothed.
    await page.getByLabel('Line', { exact: true }).fill('Weekends until dusk');
    await expectSaved(page);
    await expectSettled(page);
    const inParts = await all();
    await page.reload();
    await expect(page.locator('canvas[data-painted]')).toHaveCount(15);
    await expectSettled(page);
    expect(await all()).toEqual(inParts);
  }
});

test('a photograph that cannot be cropped holds back no words of other cuts, and is asked for again with the next letter', async ({ page }) => {
  // Stands before the painter: from a word on, no bitmap can be cropped any more, as where memory runs out. Its clock stands still, so that nothing is sent because time has passed.
  await page.route(/\/wall-worker[^/]*\.js$/, async (route) => {
    if (route.request().url().includes('?')) return route.continue();
    const body = `const crop = self.createImageBitmap.bind(self);
      let isBroken = false;
      performance.now = () => 0;
      self.createImageBitmap = (source, ...how) => (isBroken && source instanceof ImageBitmap ? Promise.reject(new Error('No room for a bitmap')) : crop(source, ...how));
      new BroadcastChannel('crops').onmessage = ({ data }) => { isBroken = data; };
      const early = [];
      self.onmessage = (event) => early.push(event);
      import('${route.request().url()}?painter').then(() => early.forEach((event) => self.onmessage(event)));`;
    return route.fulfill({ contentType: 'text/javascript', body });
  });
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Headland');
  await page.getByRole('button', { name: /Choose a picture/ }).first().click();
  await page.getByRole('dialog').getByRole('button', { name: /beach-hut|beach hut/i }).first().click();
  await expectSettled(page);
  const shown = (): Promise<readonly string[]> => page.locator('canvas[data-painted]').evaluateAll((canvases) => (canvases as HTMLCanvasElement[]).map((canvas) => canvas.toDataURL()));
  const breakCrops = (isBroken: boolean): Promise<void> => page.evaluate((data) => new BroadcastChannel('crops').postMessage(data), isBroken);
  const before = await shown();
  await breakCrops(true);
  const headline = page.getByLabel('Headline', { exact: true });
  await headline.fill('Fly with us tomorrow, on the quay');
  await expect(page.getByText('No room for a bitmap')).toBeVisible();
  const changed = (await shown()).filter((pixels, index) => pixels !== before[index]).length;
  expect(changed).toBeGreaterThan(0);
  expect(changed).toBeLessThan(before.length);
  await breakCrops(false);
  await headline.press('End');
  await page.keyboard.type('!');
  await expectSettled(page);
  const after = await shown();
  await expectSaved(page);
  await page.reload();
  await expect(page.locator('canvas[data-painted]')).toHaveCount(15);
  await expectSettled(page);
  expect(await shown()).toEqual(after);
});

test('a list is entered once, a line an item, and is laid out in every cut', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Ledger');
  await page.getByLabel('Title').fill('Before your first flight');
  await page.getByLabel('Points').fill('1. Check the wind\n2. Stand with your back to it\n\n- Walk, do not run');
  await expect(page.getByText('fits all 15 cuts')).toHaveCount(2);
  await page.getByLabel('Points').fill(Array.from({ length: 60 }, (_, index) => `Point number ${index + 1} of many`).join('\n'));
  await expect(page.getByRole('complementary', { name: 'Preflight' })).toContainText(/Points is too long for Petalry Square by \d+ characters/);
});

test('a scheduled cut goes out as it differs', { tag: '@long' }, async ({ page, request }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Tally');
  await page.getByLabel('Number').fill('7');
  await page.getByLabel('Sentence').fill('places left');
  await page.getByRole('button', { name: /Quipline Square,/ }).click();
  await page.getByRole('group', { name: 'What differs in this cut' }).getByRole('radio', { name: 'Light' }).click();
  await expectSaved(page);
  await chooseOnly(page, /^Quipline/);
  await sendNow(page);
  const row = page.locator('[data-delivery]').filter({ hasText: 'Quipline' });
  await expect(row).toHaveAttribute('data-state', 'sent');
  const address = (await row.locator('a[target="_blank"]').getAttribute('href')) ?? '';
  const picture = /<img src="([^"]+)"/.exec(await (await request.get(address)).text())?.[1] ?? '';
  const bytes = await (await request.get(new URL(picture, address).href)).body();
  const { default: sharp } = await import('sharp');
  const corner = await sharp(bytes).extract({ left: 4, top: 4, width: 1, height: 1 }).removeAlpha().raw().toBuffer();
  // Foam, the ground of the light scheme; the template's own is Sea Ink.
  expect([...corner]).toEqual([244, 247, 245]);
  await test.step('places that were left out stay out until somebody ticks them', async () => {
    await page.reload();
    await page.getByRole('tab', { name: 'Times' }).click();
    await expect(page.getByRole('button', { name: 'Schedule in 0 places' })).toBeVisible();
    await page.getByRole('button', { name: /^Tick the \d+ others$/ }).click();
    await expect(page.getByRole('checkbox', { name: /^Quipline/ })).not.toBeChecked();
    await expect(page.getByRole('button', { name: 'Schedule in 8 places' })).toBeEnabled();
  });
});

test('all cuts are exported in one ZIP, and the template of a piece can change without losing a word', async ({ page }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Headland');
  await page.getByLabel('Label').fill('Saturday');
  await page.getByLabel('Headline').fill('Kites for everyone');
  const changeTemplate = async (name: string): Promise<void> => {
    await page.getByRole('button', { name: 'Change template' }).click();
    await page.getByRole('dialog').getByRole('button', { name: new RegExp(`^${name}`) }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
  };
  await changeTemplate('Aside');
  await expect(page.getByLabel('Quote')).toHaveValue('Kites for everyone');
  await expect(page.getByText('Kept aside')).toBeVisible();
  await expect(page.getByText('“Saturday”')).toBeVisible();
  await page.getByRole('button', { name: 'Download all' }).click();
  await page.getByRole('radio', { name: 'JPEG' }).check();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^Download 15/ }).click()]);
  expect(download.suggestedFilename()).toBe('kites-for-everyone-jpeg.zip');
  expect(Object.keys(unzipSync(await readFile(await download.path())))).toHaveLength(15);
  await changeTemplate('Headland');
  await expect(page.getByLabel('Label')).toHaveValue('Saturday');
  await expect(page.getByLabel('Headline')).toHaveValue('Kites for everyone');
  await expectSaved(page);
});

test('what differs in one cut is applied to its shape or to all, and a scheme is set for the whole piece', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Tally');
  const isOwn = (): Promise<number> => page.getByText('differs', { exact: true }).count();
  await page.getByRole('button', { name: /Quipline Square,/ }).click();
  await page.getByRole('button', { name: 'The next cut' }).click();
  await page.getByRole('button', { name: 'The cut before' }).click();
  await expect(page.getByRole('region', { name: 'Quipline Square, large' })).toBeVisible();
  const differing = page.getByRole('group', { name: 'What differs in this cut' });
  await differing.getByRole('button', { name: 'Smaller' }).click();
  await page.getByRole('button', { name: 'Apply to…' }).click();
  await page.getByRole('menuitem', { name: /more cuts? of this shape/ }).click();
  await page.goBack();
  const ofShape = await isOwn();
  expect(ofShape).toBeGreaterThan(1);
  expect(ofShape).toBeLessThan(15);
  await page.getByRole('button', { name: /Quipline Square,/ }).click();
  await page.getByRole('button', { name: 'Apply to…' }).click();
  await page.getByRole('menuitem', { name: /^All \d+ others/ }).click();
  await page.goBack();
  expect(await isOwn()).toBe(15);
  await page.keyboard.press('Control+z');
  expect(await isOwn()).toBe(ofShape);
  const all = page.getByRole('radiogroup', { name: 'Scheme of all cuts' });
  await all.getByRole('radio', { name: 'Light' }).click();
  await expect(all.getByRole('radio', { name: 'Light' })).toBeChecked();
  // What is chosen for all is the piece's own: only the smaller texts differ.
  expect(await isOwn()).toBe(ofShape);
  await page.getByRole('button', { name: /Quipline Square,/ }).click();
  await page.getByRole('button', { name: 'Follow the piece again' }).click();
  await expect(differing.getByRole('radio', { name: 'Light' })).toBeChecked();
  await page.goBack();
  expect(await isOwn()).toBe(ofShape - 1);
  await expectSaved(page);
});

test('a large cut has an address: Escape and Back lead to all cuts, and both habits of redoing work', async ({ page }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Tally');
  const large = page.getByRole('region', { name: 'Quipline Square, large' });
  const open = (): Promise<void> => page.getByRole('button', { name: /Quipline Square,/ }).click();
  await open();
  await expect(large).toBeVisible();
  expect(new URL(page.url()).hash).toMatch(/^#look\/.*post-square$/);
  // Twice in a row is one step: nobody leaves the piece by it.
  await page.evaluate(() => [1, 2].forEach(() => document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }))));
  await expect(large).toHaveCount(0);
  // The keyboard goes on where it was.
  await expect(page.getByRole('button', { name: /Quipline Square,/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(large.getByRole('button', { name: 'All cuts' })).toBeFocused();
  await page.goBack();
  await expect(large).toHaveCount(0);
  await page.goForward();
  await expect(large).toBeVisible();
  await page.reload();
  await expect(large).toBeVisible();

  const number = page.getByLabel('Number');
  await number.fill('7');
  await number.press('Escape');
  await expect(large).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(number).toHaveValue('');
  await page.keyboard.press('Control+y');
  await expect(number).toHaveValue('7');
});

test('words stand in the calmest place of a photograph, which the large view explains, and all cuts are seen at once', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/pieces?new');
  await test.step('templates are chosen by what they are for', async () => {
    const families = page.getByRole('group', { name: 'What it is for' });
    await families.getByRole('button', { name: /^Quote/ }).click();
    await expect(page.locator('[data-template="shade"]')).toBeVisible();
    await expect(page.locator('[data-template="plaque"]')).toHaveCount(0);
    await families.getByRole('button', { name: /^All/ }).click();
  });
  await startPiece(page, 'Lull');
  await page.getByRole('button', { name: /Choose a picture/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: /red-diamond|red diamond/i }).first().click();
  await page.getByLabel('Headline').fill('The hatch is open');
  await expectSaved(page);
  await expectSettled(page);
  await test.step('all fifteen fit the wall, smaller, and go back to their size', async () => {
    const wall = page.getByRole('region', { name: 'Proof wall' });
    const canvases = wall.locator('canvas');
    const before = await canvases.first().boundingBox();
    await page.getByRole('button', { name: 'See all' }).click();
    await expect(canvases).toHaveCount(15);
    await expect.poll(async () => {
      const room = await wall.boundingBox();
      const boxes = await canvases.evaluateAll((all) => all.map((each) => each.getBoundingClientRect().bottom));
      return Math.max(...boxes) <= (room?.y ?? 0) + (room?.height ?? 0);
    }).toBe(true);
    await page.getByRole('button', { name: 'See all' }).click();
    await expect.poll(async () => (await canvases.first().boundingBox())?.width).toBe(before?.width);
  });
  await page.getByRole('button', { name: /Petalry Square,/ }).click();
  await expect(page.getByText(/Words at the [a-z ]+, the calmest place of this crop/)).toBeVisible();
  await test.step('a hut that fills its photograph leaves them no place on it: they stand beside', async () => {
    await page.getByRole('button', { name: 'Change', exact: true }).click();
    await page.getByRole('dialog').getByRole('button', { name: /beach-hut|beach hut/i }).first().click();
    await expect(page.getByText(/Words beside the photograph: \d+% of its subject can be seen, with words on it \d+%/)).toBeVisible();
  });
});

test('a template is turned in all cuts at once, and otherwise in one of them', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Headland');
  await page.getByLabel('Headline', { exact: true }).fill('Sixty lanterns, one tide table');
  const all = page.getByRole('group', { name: 'How the template is turned in all cuts' });
  const differing = page.getByText('differs', { exact: true });
  await expect(differing).toHaveCount(0);
  await all.getByLabel('Set text').selectOption('centred');
  await expect(all.getByLabel('Set text')).toHaveValue('centre');
  await expect(differing).toHaveCount(0);
  await page.getByRole('button', { name: /Quipline Wide,/ }).click();
  const one = page.getByRole('group', { name: 'How the template is turned', exact: true });
  await expect(one.getByLabel('Set text')).toHaveValue('centre');
  await one.getByLabel('Set text').selectOption('as drawn');
  await one.getByLabel('Picture at the other side').check();
  await expect(all.getByLabel('Set text')).toHaveValue('mixed');
  await expect(all.getByLabel('Picture at the other side')).not.toBeChecked();
  await page.getByRole('button', { name: 'All cuts' }).click();
  await expect(differing).toHaveCount(1);
  await all.getByLabel('Set text').selectOption('as drawn');
  await expect(differing).toHaveCount(1);
  await expectSaved(page);
  await page.reload();
  await expect(differing).toHaveCount(1);
});
