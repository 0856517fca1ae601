import { expect, freshData, test, type Page } from './fixtures.ts';
import { chooseOnly, comeInAs, expectSaved, sendNow, startPiece } from './steps.ts';

test.use(freshData(import.meta.url));

/** Writes a quote and waits until it is kept. */
async function writeQuote(page: Page, text: string): Promise<void> {
  await page.getByLabel('Quote').fill(text);
  await expectSaved(page);
}

test('a channel is connected at the network, says what it can, pauses, ends and is connected again', { tag: '@long' }, async ({ page, request, stack }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/send/channels');
  await page.getByRole('button', { name: 'Connect a channel' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Quipline' }).click();
  await test.step('the network asks, and a second account is opened there', async () => {
    await page.waitForURL(new RegExp(`^${stack.standinOrigin}/quipline/consent`));
    await expect(page.getByRole('heading')).toContainText('asks to post for you');
    await page.getByLabel('Handle').fill('@gullwick.loft');
    await page.getByLabel('Name').fill('Gullwick Loft');
    await page.getByRole('button', { name: 'Allow' }).click();
  });
  await test.step('back in Confetti the accounts say what they can do before one is chosen', async () => {
    const dialog = page.getByRole('dialog', { name: 'Accounts on Quipline' });
    await expect(dialog).toContainText('Confetti posts by itself');
    await expect(dialog.getByRole('checkbox', { name: /@gullwickkites/ })).toBeChecked();
    await dialog.getByRole('checkbox', { name: /@gullwickkites/ }).uncheck();
    await dialog.getByRole('checkbox', { name: /Gullwick Loft/ }).check();
    await dialog.getByRole('button', { name: 'Connect this account' }).click();
    await expect(page.getByRole('status')).toContainText('1 channel is connected');
  });
  const row = page.locator('[data-channel]').filter({ hasText: '@gullwick.loft' });
  await expect(row).toHaveAttribute('data-state', 'connected');
  expect(page.url()).not.toContain('connection=');
  await test.step('it is named, grouped and found', async () => {
    await row.getByRole('button', { name: 'Change…' }).click();
    await page.getByLabel('Name').fill('Loft news');
    await page.getByLabel('Group').fill('Short texts');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByLabel('Search channels').fill('loft');
    await expect(page.locator('[data-channel]')).toHaveCount(1);
    await expect(page.getByRole('heading', { name: 'Short texts' })).toBeVisible();
    await page.getByLabel('Search channels').fill('');
  });
  await test.step('a piece that was made before has no cut there, and gets it with one press', async () => {
    await page.goto('/b/gullwick/make/pieces');
    await page.getByRole('link', { name: /Build your own kite in an afternoon/ }).first().click();
    const offer = page.getByRole('region', { name: 'Channels without a cut' });
    await expect(offer).toContainText('This piece has no cuts for Quipline Loft news yet.');
    const before = await page.locator('canvas[data-cut]').count();
    await offer.getByRole('button', { name: /^Add/ }).click();
    await expect(offer).toBeHidden();
    await expect.poll(() => page.locator('canvas[data-cut]').count()).toBeGreaterThan(before);
    await expectSaved(page);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(offer).toBeVisible();
    await offer.getByRole('button', { name: 'Not now' }).click();
    await expect(offer).toBeHidden();
    await expectSaved(page);
  });
  await test.step('a post goes out there; when the network ends the access the next one fails, and says what to do', async () => {
    await startPieceOf(page, 17);
    await writeQuote(page, 'The loft has news of its own');
    await chooseOnly(page, /^Loft news post/);
    await sendNow(page);
    await expect(page.locator('[data-delivery]')).toHaveAttribute('data-state', 'sent');
    await request.post(`${stack.standinOrigin}/switchboard/end-access`, { data: { network: 'quipline', handle: '@gullwick.loft' } });
    await startPieceOf(page, 17);
    await writeQuote(page, 'The loft has more news');
    await chooseOnly(page, /^Loft news post/);
    await sendNow(page);
    await expect(page.locator('[data-delivery]')).toContainText('The access to Loft news has ended. Connect it again in Send > Channels, then retry.');
  });
  await test.step('it is connected again, and the failed post is retried', async () => {
    await page.goto('/b/gullwick/today');
    await expect(page.locator('[data-need="access"]')).toContainText('The access to Loft news has ended');
    await page.locator('[data-need="access"]').getByRole('link', { name: 'Open Channels' }).click();
    await expect(row).toHaveAttribute('data-state', 'ended');
    await row.getByRole('button', { name: 'Reconnect' }).click();
    await page.getByRole('checkbox', { name: /@gullwickkites/ }).uncheck();
    await page.getByRole('button', { name: 'Allow' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Connect this account' }).click();
    await page.getByRole('status').getByRole('button', { name: 'Open the outbox' }).click();
    await page.waitForURL(/outbox\?state=failed/);
    await page.locator('[data-post]').filter({ hasText: 'The loft has more news' }).getByRole('button', { name: 'Retry' }).click();
    await page.getByRole('button', { name: /^All/ }).click();
    await expect(page.locator('[data-post]').filter({ hasText: 'The loft has more news' }).locator('[data-delivery]')).toHaveAttribute('data-state', 'sent');
  });
  await test.step('what is out is taken down', async () => {
    const post = page.locator('[data-post]').filter({ hasText: 'The loft has more news' });
    await post.getByRole('button', { name: /^More about/ }).click();
    await page.getByRole('menuitem', { name: 'Take it down…' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Take it down' }).click();
    await expect(post.locator('[data-delivery]')).toHaveAttribute('data-state', 'removed');
  });
  await test.step('and the channel leaves, once it is clear what that does', async () => {
    await page.goto('/b/gullwick/send/channels');
    await row.getByRole('button', { name: 'Disconnect…' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog).toContainText('Nothing waits on this channel.');
    await dialog.getByRole('button', { name: 'Disconnect' }).click();
    await expect(row).toHaveCount(0);
  });
});

/** Starts a quote where the brand has so many cuts. */
async function startPieceOf(page: Page, cuts: number): Promise<void> {
  await page.goto('/b/gullwick/make/pieces?new');
  await page.getByRole('button', { name: /^Aside/ }).click();
  await page.waitForURL(/make\/pieces\/[\w-]+/);
  await expect(page.locator('canvas[data-painted]')).toHaveCount(cuts);
}

test('a writer asks for sign-off, a reviewer sends it back, it is changed, approved, and goes out', { tag: '@long' }, async ({ page, browser, stack }) => {
  await comeInAs(page, 'Caspian');
  await startPiece(page, 'Aside');
  await writeQuote(page, 'Forty kites left the loft');
  await chooseOnly(page, /^Quipline/);
  await expect(page.getByText('As writer you ask for sign-off')).toBeVisible();
  await page.getByRole('button', { name: 'Ask for sign-off in 1 place' }).click();
  await expect(page.locator('[data-delivery]')).toHaveAttribute('data-state', 'in review');
  const piece = page.url().replace(/#.*/, '');
  const other = await browser.newContext({ baseURL: stack.origin, viewport: { width: 1280, height: 800 } });
  const tove = await other.newPage();
  await tove.goto('/sign-in');
  await tove.getByRole('button', { name: /Tove/ }).click();
  await tove.waitForURL(/\/today/);
  await test.step('the reviewer finds it in Today, remarks on a spot, and sends it back', async () => {
    await tove.locator('[data-need="sign-off"]').filter({ hasText: 'Forty kites' }).getByRole('link', { name: 'Review' }).click();
    await expect(tove.getByRole('heading', { name: 'Forty kites left the loft' })).toBeVisible();
    await tove.getByRole('button', { name: /^Remark on Quipline/ }).first().click({ position: { x: 40, y: 60 } });
    await tove.getByLabel('New remark').fill('Is it forty, or forty-one?');
    await tove.getByRole('button', { name: 'Add remark' }).click();
    await expect(tove.locator('[data-remark]')).toContainText('Is it forty, or forty-one?');
    await tove.getByRole('button', { name: 'Request changes' }).click();
    await tove.getByLabel('What should change?').fill('Count again');
    await tove.getByRole('button', { name: 'Send back' }).click();
    await expect(tove.getByRole('status')).toContainText('went back to Caspian Muir');
  });
  await test.step('the writer changes the piece and asks again', async () => {
    await page.goto('/b/gullwick/today');
    await page.locator('[data-need="sent-back"]').filter({ hasText: 'Forty kites' }).getByRole('link', { name: 'See what' }).click();
    await expect(page.getByText('Count again')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Ask again with the piece as it is now' })).toBeDisabled();
    await page.goto(piece);
    await writeQuote(page, 'Forty-one kites left the loft');
    await page.goBack();
    await page.getByRole('button', { name: 'Ask again with the piece as it is now' }).click();
    await expect(page.getByRole('heading', { name: 'Forty-one kites left the loft' })).toBeVisible();
  });
  await test.step('the reviewer sees it change by itself, approves, and it is scheduled', async () => {
    await expect(tove.getByRole('heading', { name: 'Forty-one kites left the loft' })).toBeVisible();
    await tove.getByRole('button', { name: 'Approve', exact: true }).click();
    await expect(tove.getByRole('status')).toContainText('is approved and goes out at its time');
    await page.goto(`${piece}#times`);
    await expect(page.locator('[data-delivery]')).toHaveAttribute('data-state', 'scheduled');
  });
  await other.close();
});

test('somebody outside approves by a link, on a phone, without an account', async ({ page, browser, stack }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/send/sign-off');
  await page.locator('[data-review]').filter({ hasText: '312' }).or(page.locator('[data-review]').filter({ hasText: 'kites left the loft' })).first().click();
  await page.getByRole('button', { name: 'Link for someone outside…' }).click();
  await page.getByLabel('Who is it for?').fill('The harbour master');
  // Pressed twice, it is one link.
  await page.getByRole('button', { name: 'Make the link' }).dblclick();
  const link = await page.getByLabel('The link').inputValue();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).last().click();
  await expect(page.getByText(/^Link for The harbour master ends/)).toHaveCount(1);
  const outside = await browser.newContext({ baseURL: stack.origin, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const phone = await outside.newPage();
  await phone.goto(link);
  await expect(phone.getByText('Gullwick Kite Works asks you, The harbour master, to look at this post.')).toBeVisible();
  await expect.poll(() => phone.locator('figure img').first().evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(100);
  expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await phone.getByLabel('New remark').fill('Mind the tide');
  await phone.getByRole('button', { name: 'Add remark' }).click();
  await expect(phone.locator('[data-remark]')).toContainText('Mind the tide');
  await phone.getByRole('button', { name: 'Approve', exact: true }).click();
  await expect(phone.getByText('You have answered. Thank you.')).toBeVisible();
  await expect(page.getByText(/Approved\. It goes out on/)).toBeVisible();
  await outside.close();
});

test('a personal account gets a hand-off: a file to save, a text to copy, and done', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/lanternfall/today');
  await page.locator('[data-need="hand-off"]').getByRole('link', { name: 'Place it' }).click();
  const item = page.locator('[data-hand-off]').first();
  await expect(item).toContainText('Sixty lanterns, one tide table');
  const [download] = await Promise.all([page.waitForEvent('download'), item.getByRole('link', { name: 'Save the file' }).click()]);
  expect(download.suggestedFilename()).toMatch(/^Sixty lanterns, one tide table .*\.(png|jpg)$/);
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await item.getByRole('button', { name: 'Copy Caption' }).click();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain('Sixty lanterns go up along the jetty');
  await item.getByRole('button', { name: 'Open on a phone' }).click();
  await expect(page.getByRole('img', { name: /opens this post on a phone/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await item.getByRole('button', { name: 'Later…' }).click();
  await page.getByRole('menuitem', { name: 'Half an hour' }).click();
  await expect(page.getByRole('heading', { name: 'Put off' })).toBeVisible();
  await page.getByRole('button', { name: /Demo clock/ }).click();
  await page.getByRole('button', { name: '+ 1 hour' }).click();
  await page.keyboard.press('Escape');
  await expect(item).toContainText('Overdue');
  await item.getByLabel('Address of the post').fill('https://hearthside.example/hemi/1');
  await item.getByRole('button', { name: 'It is out' }).click();
  await expect(page.getByText('Nothing to place by hand')).toBeVisible();
});

test('a network sheet is changed, held against what is scheduled, and goes back', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/send/networks');
  await test.step('a file that is no sheet, or half of one, is refused with what is wrong', async () => {
    const files = page.locator('input[type="file"]');
    await files.setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from('{"key": 3') });
    await expect(page.getByRole('status')).toContainText('broken.json is no network sheet. It is not valid JSON.');
    await files.setInputFiles({ name: 'half.json', mimeType: 'application/json', buffer: Buffer.from('{"key":"pond","placements":[]}') });
    await expect(page.getByRole('status')).toContainText('half.json is no network sheet.');
    await expect(page.getByLabel('Width of Square')).toBeVisible();
  });
  await page.getByRole('button', { name: /^Quipline/ }).click();
  await page.getByLabel('Longest Text').or(page.getByLabel('Longest Caption')).first().fill('20');
  await page.getByRole('button', { name: 'Check what is scheduled' }).click();
  await expect(page.getByRole('region', { name: 'What is scheduled' })).toContainText('would not pass');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('status')).toContainText('is kept');
  await page.getByRole('button', { name: 'Back to what ships' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Go back' }).click();
  await expect(page.getByLabel(/^Longest (Text|Caption)/).first()).toHaveValue('280');
  await page.getByRole('link', { name: 'History' }).click();
  await expect(page.getByText('Changed the network sheet of Quipline')).toBeVisible();
});
