import { expect, freshData, test, type Page } from './fixtures.ts';
import { chooseCell, chooseOnly, comeInAs, expectSaved, sendNow, startPiece, wordingRow } from './steps.ts';

test.use(freshData(import.meta.url));

const grid = (page: Page) => page.getByRole('grid', { name: 'Wording sheet' });
const panel = (page: Page) => page.getByRole('complementary', { name: 'Chosen cell' });

/** A quote whose words are open. */
async function openWords(page: Page, quote: string): Promise<void> {
  await startPiece(page, 'Aside');
  await page.getByLabel('Quote').fill(quote);
  await page.getByRole('tab', { name: 'Words' }).click();
  await grid(page).waitFor();
}

test('a caption written once by keyboard alone goes out in the right form to every network', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren');
  await openWords(page, 'Wind is free');
  const press = async (...keys: readonly string[]): Promise<void> => {
    for (const key of keys) await page.keyboard.press(key);
  };

  await test.step('typing begins a text, Enter closes it, Escape takes it back', async () => {
    await grid(page).focus();
    await page.keyboard.type('Up we go with @marlow.');
    await press('Escape');
    await expect(page.getByLabel('Shared caption', { exact: true })).toHaveValue('');
    await page.keyboard.type('Up we go with @marlow. Ring {phone}.');
    await press('Shift+Enter', 'Shift+Enter');
    await page.keyboard.type('Line breaks stay.');
    await press('Enter');
    await expect(page.getByLabel('Shared caption', { exact: true })).toHaveCount(0);
    await expect(wordingRow(page, 'Petalry').locator('[data-field="caption"]')).toContainText('Up we go with @marlow. Ring {phone}.');
  });

  await test.step('a channel differs, and goes back with one key', async () => {
    // Enter has moved to the first channel, Petalry; Quipline is the next.
    await press('ArrowDown');
    await page.keyboard.type('Short for Quipline');
    await press('Enter');
    await expect(wordingRow(page, 'Quipline').locator('[data-field="caption"]')).toContainText('Short for Quipline');
    await press('ArrowUp', 'Delete');
    await expect(wordingRow(page, 'Quipline').locator('[data-field="caption"]')).toContainText('Inherited: Up we go');
    await press('Control+z');
    await expect(wordingRow(page, 'Quipline').locator('[data-field="caption"]')).toContainText('Short for Quipline');
  });

  await test.step('a range is copied, pasted and filled down', async () => {
    await press('Control+Home', 'ArrowRight', 'ArrowRight');
    await page.keyboard.type('#KiteDay');
    await press('Enter', 'ArrowUp', 'Control+c', 'ArrowDown', 'Shift+ArrowDown', 'Control+v');
    await expect(wordingRow(page, 'Quipline').locator('[data-field="hashtags"]')).toHaveText('#KiteDay');
    await press('Delete');
    await expect(wordingRow(page, 'Quipline').locator('[data-field="hashtags"]')).toHaveText('Inherited: in the text: #KiteDay');
  });

  await test.step('a poll and a board are entered beside the sheet', async () => {
    await chooseCell(page, 'Quipline', 'poll');
    await page.getByLabel(/Poll for Quipline.*: question/).fill('Which first?');
    await page.getByLabel(/Poll for Quipline.*: answer 1/).fill('The sled');
    await page.getByLabel(/Poll for Quipline.*: answer 2/).fill('The delta');
    await chooseCell(page, 'Tackboard', 'board');
    await page.getByLabel(/Board for Tackboard/).selectOption('Colour');
    await expect(wordingRow(page, 'Tackboard').locator('[data-field="board"]')).toHaveText('Colour');
    await chooseCell(page, 'Kerbside', 'poll');
    await expect(panel(page)).toContainText('Kerbside has no poll.');
    await chooseCell(page, 'Shared', 'altText');
    await page.getByLabel('Shared alt text').fill('A quote on paper');
    await expectSaved(page);
  });

  await test.step('what goes out is shown whole, and is what the public pages show', async () => {
    await chooseCell(page, 'Petalry', 'caption');
    const out = panel(page).getByRole('region', { name: /What goes out to Petalry/ });
    await expect(out).toContainText('Up we go with @marlow.flies. Ring 01632 960 184.');
    await expect(out).toContainText('#KiteDay');
    await page.getByRole('tab', { name: 'Times' }).click();
    await chooseOnly(page, /Petalry .*feed/, /Quipline/, /Tackboard/, /Own site/);
    await sendNow(page);
    await expect(page.locator('[data-delivery][data-state="sent"]')).toHaveCount(4);
    const addresses = await page.locator('[data-delivery] a[href*="/p/"]').evaluateAll((links) => links.map((link) => (link as HTMLAnchorElement).href));
    const pages = await Promise.all(addresses.map(async (address) => ({ address, html: await (await page.request.get(address)).text() })));
    const of = (network: string): string => pages.find(({ address }) => address.includes(`/${network}/`))?.html ?? '';
    expect(of('petalry')).toContain('Up we go with @marlow.flies. Ring 01632 960 184.\n\nLine breaks stay.');
    expect(of('petalry')).toContain('Gullwick Kite Works: #KiteDay');
    expect(of('quipline')).toContain('<p class="words">Short for Quipline\n\n#KiteDay</p>');
    expect(of('quipline')).toContain('<li>The sled</li><li>The delta</li>');
    expect(of('tackboard')).toContain('Board: Colour');
    expect(of('openweb')).toContain('Categories: KiteDay');
  });
});

test('hashtags, snippets and the desk help to write, and each says what it did', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren');
  await openWords(page, 'Build your own kite');
  const caption = page.getByLabel('Shared caption', { exact: true });
  await caption.fill('Come and build a kite on Saturday from 2 pm, it costs £24. ');

  await test.step('# and @ are completed from lists, by keyboard', async () => {
    await caption.press('End');
    await page.keyboard.type('#Build');
    await expect(page.getByRole('option', { name: /#BuildAKite/ })).toBeVisible();
    await page.keyboard.press('Enter');
    await page.keyboard.type('@mar');
    await expect(page.getByRole('option', { name: /Marlow Tregear/ })).toBeVisible();
    await page.keyboard.press('Tab');
    await expect(caption).toHaveValue(/#BuildAKite @marlow $/);
  });

  await test.step('a set goes in with one press, proposals have fit and reach', async () => {
    await page.getByRole('tab', { name: 'Hashtags' }).click();
    await panel(page).getByRole('button', { name: 'Saturday workshop' }).click();
    await expect(wordingRow(page, 'Shared').locator('[data-field="hashtags"]')).toHaveText(/#KiteMaking #SaturdayWorkshop #MadeByHand/);
    const proposed = panel(page).getByRole('list', { name: 'Proposed hashtags' });
    await expect(proposed.getByRole('listitem').first()).toBeVisible();
    await expect(proposed.getByRole('img').first()).toHaveAttribute('aria-label', /fits \d of 5/);
  });

  await test.step('the desk shortens without a loss, and says what it left out', async () => {
    await caption.fill('In fact, Marlow will really show you (over tea) how to build a kite on Saturday from 2 pm. It costs £24. We look forward to it. There is room for all.');
    await page.getByRole('tab', { name: 'Writing desk' }).click();
    await panel(page).getByRole('button', { name: 'Shorter' }).click();
    await panel(page).getByRole('button', { name: 'Rewrite' }).click();
    const first = panel(page).locator('[data-version]').first();
    for (const fact of ['Marlow', 'Saturday', '2 pm', '£24']) await expect(first).toContainText(fact);
    await first.getByText('Left out').click();
    await expect(first.getByRole('list')).toContainText('In fact');
    await first.getByRole('button', { name: 'Keep as a variant' }).click();
    await expect(panel(page).getByText('1 variant of this caption')).toBeVisible();
    await first.getByRole('button', { name: 'Use', exact: true }).click();
    await expect(caption).not.toHaveValue(/In fact/);
    await expect(caption).toHaveValue(/£24/);
    await expectSaved(page);
  });

  await test.step('preflight cares for the words', async () => {
    const rail = page.getByRole('complementary', { name: 'Preflight' });
    await caption.fill('COME ALL AND FLY wiht us!!! Click here. #build-a-kite');
    await expect(rail).toContainText('shouts');
    await expect(rail).toContainText('exclamation marks');
    await expect(rail).toContainText('“Click here” says nothing');
    await expect(rail).toContainText('The dictionary does not know “wiht”');
    await rail.getByRole('button', { name: /Write #BuildAKite/ }).first().click();
    await expect(caption).toHaveValue(/#BuildAKite/);
  });
});

test('odd input stays what it is, and breaks nothing', async ({ page }) => {
  await comeInAs(page, 'Wren');
  await openWords(page, 'Odd input');
  const caption = page.getByLabel('Shared caption', { exact: true });
  const script = '<script>window.broken = true</script><b>bold</b>';
  await caption.fill(script);
  await expect(panel(page).getByRole('region', { name: /What goes out/ })).toContainText(script);
  expect(await page.evaluate(() => (globalThis as { broken?: boolean }).broken)).toBeUndefined();
  await caption.fill('a\u0000b\u0007c\u202bعربي\u202c #وسم 👨‍👩‍👧‍👦');
  await expect(caption).toHaveValue('abc\u202bعربي\u202c #وسم 👨‍👩‍👧‍👦');
  // A column of a spreadsheet goes into a column, and a copied column of the sheet as well.
  await grid(page).focus();
  for (const key of ['Control+Home', 'ArrowRight']) await page.keyboard.press(key);
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'First line and second\nThe other cell');
    data.setData('text/html', '<style>td {}</style><table><tr><td>First line<br>\n and second</td></tr><tr><td>The other cell</td></tr></table>');
    document.activeElement?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  const captionOf = (row: string) => wordingRow(page, row).locator('[data-field="caption"]');
  await expect(captionOf('Shared')).toContainText('First line\nand second', { useInnerText: true });
  await expect(captionOf('Petalry')).toContainText('The other cell');
  for (const key of ['Control+Home', 'ArrowRight', 'Shift+ArrowDown', 'Control+c', 'ArrowDown', 'Control+v']) await page.keyboard.press(key);
  await expect(captionOf('Quipline')).toContainText('First line\nand second', { useInnerText: true });
  await expect(captionOf('Hearthside')).toContainText('The other cell');
  await chooseCell(page, 'Shared', 'caption');
  // A table that is larger than the sheet: what has no place is said.
  await grid(page).focus();
  await page.keyboard.press('Control+End');
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'a\tb\tc\nd\te\tf');
    document.activeElement?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(page.getByText(/cells of what was pasted had no place/)).toBeVisible();
  // A million letters: the piece keeps a hundred thousand, and the page answers.
  await caption.waitFor({ state: 'detached' }).catch(() => undefined);
  await chooseCell(page, 'Shared', 'caption');
  await caption.evaluate((field: HTMLTextAreaElement) => {
    const setter = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')?.set;
    setter?.call(field, 'kite '.repeat(200_000));
    field.dispatchEvent(new Event('input', { bubbles: true }));
  });
  await expect.poll(async () => (await caption.inputValue()).length).toBe(100_000);
  await caption.fill('Fine again');
  await expectSaved(page);
});

test('two people write in neighbouring cells, and both are kept; in one cell they are asked', async ({ page, browser }) => {
  await comeInAs(page, 'Wren');
  await openWords(page, 'Two people');
  await expectSaved(page);
  const other = await (await browser.newContext({ baseURL: new URL(page.url()).origin })).newPage();
  await comeInAs(other, 'Caspian', new URL(page.url()).pathname);
  await other.getByRole('tab', { name: 'Words' }).click();
  await chooseCell(page, 'Petalry', 'caption');
  await chooseCell(other, 'Quipline', 'caption');
  await Promise.all([page.getByLabel(/Caption for Petalry/).fill('From Wren'), other.getByLabel(/Caption for Quipline/).fill('From Caspian')]);
  for (const each of [page, other]) {
    await expect(wordingRow(each, 'Petalry').locator('[data-field="caption"]')).toContainText('From Wren');
    await expect(wordingRow(each, 'Quipline').locator('[data-field="caption"]')).toContainText('From Caspian');
    await expectSaved(each);
  }
  await chooseCell(other, 'Petalry', 'caption');
  await page.context().setOffline(true);
  await page.getByLabel(/Caption for Petalry/).fill('Wren again');
  await other.getByLabel(/Caption for Petalry/).fill('Caspian too');
  await expectSaved(other);
  await page.context().setOffline(false);
  const note = page.getByRole('alertdialog');
  await expect(note).toContainText('Caspian Muir wrote in the same place');
  await expect(note).toContainText('Wren again');
  await note.getByRole('radio', { name: /Wren again/ }).check();
  await note.getByRole('button', { name: 'Save this choice' }).click();
  await expectSaved(page);
  await expect(wordingRow(other, 'Petalry').locator('[data-field="caption"]')).toContainText('Wren again');
});
