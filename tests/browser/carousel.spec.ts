import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { type Page, expect, freshData, test } from './fixtures.ts';
import { unzipSync } from 'fflate';
import { comeInAs, expectSaved, sendNow, chooseCell } from './steps.ts';

test.use(freshData(import.meta.url));

const list = ['Three knots and where to tie them', '', '1. Larkshead: on the bridle ring', '2. Bowline: on the reel', '3.', '4. Figure of eight – at the end, so that nothing runs through'].join('\n');

/** The words of the strip's slides, in order. */
const strip = (page: Page): Promise<string[]> => page.getByRole('listbox', { name: 'Slides in their order' }).getByRole('option').evaluateAll((options) => options.map((option) => option.lastElementChild?.textContent ?? ''));
const row = (page: Page, name: string) => page.getByRole('group', { name, exact: true });

test('from a pasted list to the published carousel', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/pieces?new');
  await page.getByRole('button', { name: /^Strand/ }).click();
  await page.waitForURL(/make\/pieces\/[\w-]+/);

  await test.step('a list becomes slides', async () => {
    await page.getByRole('button', { name: 'From a text' }).click();
    // What is copied from a web page keeps its lists in lists.
    await page.getByLabel('The text').evaluate((field) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text/html', '<h2>Winds</h2><ul><li>A breath<ul><li>sleds</li><li>paper</li></ul></li><li><b>A blow</b></li></ul>');
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    });
    await expect(page.getByText('Cover: Winds')).toBeVisible();
    await expect(page.getByRole('dialog').getByRole('listitem')).toHaveText([/A breath\s*sleds, paper/, /A blow/]);
    await page.getByLabel('The text').fill(list);
    await expect(page.getByText('1 empty point was left out.')).toBeVisible();
    await page.getByRole('button', { name: 'Make 3 slides' }).click();
    await expect.poll(() => strip(page)).toEqual(['Three knots and where to tie them', 'Larkshead', 'Bowline', 'Figure of eight', '…']);
    await expect(page.getByLabel('Headline', { exact: true })).toHaveValue('Three knots and where to tie them');
    await expect(row(page, 'Petalry Square').locator('canvas[data-painted]')).toHaveCount(5);
  });

  await test.step('slides are moved by keys, doubled, removed, and all of it can be undone', async () => {
    await page.getByRole('option', { name: /Bowline/ }).click();
    await page.getByRole('button', { name: 'Move the slide to the left' }).click();
    await expect.poll(() => strip(page)).toEqual(['Three knots and where to tie them', 'Bowline', 'Larkshead', 'Figure of eight', '…']);
    await page.getByRole('option', { name: /Larkshead/ }).click({ modifiers: ['ControlOrMeta'] });
    await page.getByRole('button', { name: 'Move 2 slides to the right' }).click();
    await expect.poll(() => strip(page)).toEqual(['Three knots and where to tie them', 'Figure of eight', 'Bowline', 'Larkshead', '…']);
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await expect.poll(async () => (await strip(page)).length).toBe(7);
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(() => strip(page)).toEqual(['Three knots and where to tie them', 'Larkshead', 'Bowline', 'Figure of eight', '…']);
  });

  await test.step('each network takes what it can, and one slide can stay out of one cut', async () => {
    const quipline = row(page, 'Quipline Square');
    await expect(quipline).toContainText('4 of 5');
    await expect(quipline.getByText('no room')).toHaveCount(1);
    await quipline.getByRole('button', { name: /^Leave slide 2 out/ }).click();
    await expect(quipline.getByText('left out')).toHaveCount(2);
    await quipline.getByRole('button', { name: /^Show slide 4 in/ }).click();
    await expect(quipline.locator('canvas[data-painted]')).toHaveCount(4);
    await expect(row(page, 'Guildrow Document')).toContainText('5 of 5, one PDF');
    await expect(row(page, 'Kerbside Update')).toContainText('one picture');
  });

  await test.step('the closing card is written, a point keeps its words as another kind, and a keystroke repaints one slide', async () => {
    await page.getByRole('option').last().click();
    await page.getByLabel('Line', { exact: true }).fill('A knot a day');
    await page.getByLabel('Call', { exact: true }).fill('Learn them all');
    await expect(page.getByText('fits all 13 cuts').first()).toBeVisible();
    const square = row(page, 'Petalry Square').locator('canvas');
    const painted = (): Promise<(string | undefined)[]> => square.evaluateAll((canvases) => canvases.map((canvas) => (canvas as HTMLCanvasElement).dataset['painted']));
    await expectSaved(page);
    const before = await painted();
    await page.getByLabel('Line', { exact: true }).press('End');
    await page.keyboard.type('.');
    await expect.poll(async () => (await painted())[4] !== before[4]).toBe(true);
    expect((await painted()).slice(0, 4)).toEqual(before.slice(0, 4));
  });

  await test.step('preflight asks for alt texts, and writes them from the words', async () => {
    const rail = page.getByRole('complementary', { name: 'Preflight' });
    await expect(rail).toContainText('Slide 2 has no alt text.');
    // What is the same of several slides is one line, mended at once.
    await rail.getByRole('button', { name: /^Take its words, all \d/ }).click();
    await expect(rail.getByText(/has no alt text/)).toHaveCount(0);
    await expect(page.getByLabel('Alt text of this slide')).toHaveValue('A knot a day. Learn them all.');
  });

  await test.step('a slide is looked at large, and the next one', async () => {
    await page.getByRole('button', { name: 'Petalry Portrait, slide 2: look at it large' }).click();
    const place = page.getByRole('group', { name: 'Slides' }).getByRole('status');
    await expect(place).toHaveText('2 of 5');
    await page.getByRole('button', { name: 'The next slide' }).click();
    await expect(place).toHaveText('3 of 5');
    await expect(page.getByLabel('Point', { exact: true })).toHaveValue('Bowline');
    await expect(page.locator('canvas[data-settled="true"]').first()).toBeVisible();
    await page.getByRole('button', { name: 'All cuts' }).click();
    await expectSaved(page);
  });

  await test.step('all slides in one ZIP, numbered', async () => {
    await page.getByRole('button', { name: 'Download all' }).click();
    await page.getByRole('radio', { name: 'JPEG' }).check();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^Download 16 cuts/ }).click()]);
    const names = Object.keys(unzipSync(await readFile(await download.path())));
    expect(names.filter((name) => /petalry-feed-portrait-1080x1350-0\d\.jpg$/.test(name))).toHaveLength(5);
  });

  await test.step('words, time, and out: a carousel on one network, a document on another', async () => {
    await page.getByRole('tab', { name: 'Words' }).click();
    await page.getByLabel('Shared caption').fill('Three knots, all you need.');
    await chooseCell(page, 'Shared', 'link');
    await page.getByLabel('Shared link').fill('https://gullwickkites.example');
    await expectSaved(page);
    await page.getByRole('tab', { name: 'Times' }).click();
    // Until it is known where the piece goes out already, nothing is ticked, and what is to be unticked would count as done.
    await expect(page.getByRole('checkbox', { name: 'All places' })).toBeEnabled();
    await page.getByRole('combobox', { name: /Guildrow.*update: shape/ }).selectOption('Document');
    for (const name of [/Petalry.*story/, /Hearthside.*story/]) await page.getByRole('checkbox', { name }).uncheck();
    await expect(page.getByRole('button', { name: 'Schedule in 7 places' })).toBeEnabled();
    await sendNow(page);
    await expect(page.locator('[data-delivery][data-state="sent"]')).toHaveCount(7);
    const addressOf = async (network: string): Promise<string> => (await page.locator('[data-delivery]').filter({ hasText: network }).locator('a[target="_blank"]').getAttribute('href')) ?? '';
    const [petalry, guildrow] = [await addressOf('Petalry'), await addressOf('Guildrow')];
    await page.goto(petalry);
    await expect(page.locator('[data-carousel="5"] img')).toHaveCount(5);
    await expect(page.locator('[data-carousel] img').nth(2)).toHaveAttribute('alt', 'Bowline. on the reel.');
    await page.goto(guildrow);
    await expect(page.locator('[data-document="5"]')).toBeVisible();
  });
});

test('pictures become slides in their order, which two people change at once, and one of them decides', async ({ page, browser }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/pieces?new');
  await page.getByRole('button', { name: /^Sheaf/ }).click();
  await page.waitForURL(/make\/pieces\/[\w-]+/);
  await page.getByLabel('Headline', { exact: true }).fill('Three from the dunes');

  await test.step('by name, as numbers count', async () => {
    await page.getByLabel('From pictures').setInputFiles(['windsocks', 'kite-kits', 'long-shadow'].map((name, index) => ({ name: `${index === 0 ? 10 : index}-${name}.jpg`, mimeType: 'image/jpeg', buffer: readFileSync(`demo/media/${name}.jpg`) })));
    await expect.poll(async () => (await strip(page)).length).toBe(5);
    for (const [number, words] of [[2, 'The kits'], [3, 'A long shadow'], [4, 'Windsocks']] as const) {
      await page.getByRole('option', { name: new RegExp(`^${number} `) }).click();
      await page.getByLabel('Caption', { exact: true }).fill(words);
    }
    await expect.poll(() => strip(page)).toEqual(['Three from the dunes', 'The kits', 'A long shadow', 'Windsocks', '…']);
    await expect(page.locator('aside, main').getByText('Slide 2 has no alt text.')).toHaveCount(0);
  });

  await test.step('a slide is dragged with the mouse', async () => {
    const [from, to] = [await page.getByRole('option', { name: /^4 / }).boundingBox(), await page.getByRole('option', { name: /^2 / }).boundingBox()];
    if (!from || !to) throw new Error('The slides are not shown');
    // A press in the very middle would be taken for one by a screen reader.
    await page.mouse.move(from.x + 20, from.y + 12);
    await page.mouse.down();
    // The browser begins a drag with the first moves, and says where it is with the next ones.
    await page.mouse.move(to.x + 30, to.y + to.height / 2, { steps: 8 });
    await page.mouse.move(to.x + 2, to.y + to.height / 2, { steps: 8 });
    await page.mouse.up();
    await expect.poll(() => strip(page)).toEqual(['Three from the dunes', 'Windsocks', 'The kits', 'A long shadow', '…']);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(() => strip(page)).toEqual(['Three from the dunes', 'The kits', 'A long shadow', 'Windsocks', '…']);
    await expectSaved(page);
  });

  await test.step('where one picture is taken, all are gathered in it', async () => {
    const update = row(page, 'Kerbside Update');
    await expect(update).toContainText('one picture');
    await update.getByRole('button', { name: 'Gather all in one picture' }).click();
    await expect(update).toContainText('all in one');
    await expect(update.locator('canvas[data-settled="true"]')).toHaveCount(1);
    await page.getByRole('button', { name: 'Kerbside Update, all in one: look at it large' }).click();
    await expect(page.locator('canvas[data-settled="true"]').first()).toBeVisible();
    await page.getByRole('button', { name: 'All cuts' }).click();
    await update.getByRole('button', { name: 'Send the first slide alone' }).click();
    await expect(update).toContainText('one picture');
    await expectSaved(page);
  });

  await test.step('two windows', async () => {
    const other = await (await browser.newContext()).newPage();
    await comeInAs(other, 'Wren', page.url());
    await other.getByRole('option', { name: /^2 / }).click();
    await other.getByRole('button', { name: 'Move the slide to the right' }).click();
    await expectSaved(other);
    // What one window moves the other one shows, and moves on from there.
    await expect.poll(() => strip(page)).toEqual(['Three from the dunes', 'A long shadow', 'The kits', 'Windsocks', '…']);
    await page.getByRole('option', { name: /^4 / }).click();
    await page.getByRole('button', { name: 'Move the slide to the left' }).click();
    await expectSaved(page);
    const both = ['Three from the dunes', 'A long shadow', 'Windsocks', 'The kits', '…'];
    await expect.poll(() => strip(other)).toEqual(both);
    await page.reload();
    await expect.poll(() => strip(page)).toEqual(both);
    await other.context().close();
  });
});

test('files picked while the page still waits for its script are not lost', async ({ page }) => {
  await comeInAs(page, 'Wren');
  let letScriptsCome = (): void => undefined;
  const told = new Promise<void>((resolve) => (letScriptsCome = resolve));
  await page.route('**/*.js', (route) => told.then(() => route.continue()));
  await page.goto('/b/gullwick/make/media', { waitUntil: 'commit' });
  await page.getByLabel('Upload files').setInputFiles('demo/media/kite-kits.jpg');
  letScriptsCome();
  await expect(page.getByRole('complementary', { name: 'kite-kits.jpg' })).toBeVisible();
});
