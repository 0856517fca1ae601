import { readFile } from 'node:fs/promises';
import { expect, freshData, test } from './fixtures.ts';
import { comeInAs } from './steps.ts';

test.use(freshData(import.meta.url));

test('a designer sees what eight weeks came to, why one post did well, and plans by it', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/learn/results');
  await test.step('the overview adds up accounts, beside the days before', async () => {
    await expect(page.getByText('By account')).toBeVisible();
    await expect(page.locator('dl')).toContainText('Followers');
    await page.getByLabel('Period').selectOption('Last 13 weeks');
    await expect(page).toHaveURL(/span=91/);
  });
  await test.step('posts are sorted by any measure, and one opens with what was different about it', async () => {
    await page.getByRole('tab', { name: 'Posts' }).click();
    const table = page.getByRole('table', { name: 'Posts' });
    await table.getByRole('button', { name: 'Reach' }).click();
    await expect(table.getByRole('columnheader', { name: 'Reach' })).toHaveAttribute('aria-sort', 'descending');
    await page.getByRole('button', { name: 'Columns' }).click();
    await page.getByRole('dialog', { name: 'Columns' }).getByLabel('Shares').check();
    await page.keyboard.press('Escape');
    await expect(table.getByRole('columnheader', { name: 'Shares' })).toBeVisible();
    await page.reload();
    await expect(table.getByRole('columnheader', { name: 'Shares' })).toBeVisible();
    await table.getByRole('row').nth(1).getByRole('button').first().click();
    const panel = page.getByRole('complementary', { name: 'The chosen post' });
    await expect(panel).toContainText('What was different');
    await expect(panel.getByText(/over a week/).first()).toBeVisible();
    await page.goBack();
    await expect(panel).toHaveCount(0);
  });
  await test.step('what works is told with intervals, and claims no cause', async () => {
    await page.getByRole('tab', { name: 'What works' }).click();
    await expect(page.getByRole('row', { name: /with an answer in the first two hours/ })).toContainText(/\+\d+% to \+\d+%/);
    await expect(page.getByText('these are differences, not causes')).toBeVisible();
  });
  await test.step('the suggestions of Plan give it as a reason', async () => {
    const { items } = (await (await page.request.get('/api/brands/gullwick/pieces?limit=100')).json()) as { items: { id: string; name: string }[] };
    const { channels } = (await (await page.request.get('/api/brands/gullwick')).json()) as { channels: { id: string; network: string }[] };
    expect(items.length).toBeGreaterThan(0);
    const origin = new URL(page.url()).origin;
    const { suggestions } = (await (await page.request.post('/api/brands/gullwick/plan/suggestions', { data: { channelIds: [channels[0]?.id], themeId: null }, headers: { origin } })).json()) as { suggestions: { reasons: string[] }[] };
    expect(suggestions.some(({ reasons }) => reasons.some((reason) => /posts around then had [+−]\d+% engagement \(n \d+\)/.test(reason)))).toBe(true);
  });
});

test('replies are worked down to none with the keyboard', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/learn/replies');
  const list = page.getByRole('listbox', { name: 'Conversations' });
  await expect(list.getByRole('option').first()).toBeVisible();
  await list.focus();
  await test.step('the arrows move, A goes to the answer, Control and Enter sends it and closes', async () => {
    await page.getByLabel('Kind').selectOption('Comments');
    await expect(list.getByRole('option').first()).toBeVisible();
    await list.focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('a');
    const box = page.getByRole('textbox', { name: /^Answer to/ });
    await expect(box).toBeFocused();
    await page.keyboard.type('Gladly, see you on Saturday.');
    await expect(page.getByText(/\d+ left/)).toBeVisible();
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('status').filter({ hasText: 'Answered and closed' })).toBeVisible();
    await expect(list).toBeFocused();
    await page.getByLabel('Kind').selectOption('All kinds');
  });
  await test.step('C closes what stands open, one after the other, until there is none', async () => {
    await list.focus();
    for (let left = 60; left > 0 && (await list.getByRole('option').count()) > 0; left -= 1) {
      await list.focus();
      await page.keyboard.press('Home');
      // Replies come in meanwhile: which one is the first is asked once it is chosen.
      await expect(list).toHaveAttribute('aria-activedescendant', /reply-/);
      const first = await list.getAttribute('aria-activedescendant');
      await page.keyboard.press('c');
      await expect(page.locator(`#${first ?? ''}`)).toHaveCount(0);
    }
    await expect(list).toContainText('Nothing waits.');
  });
  await test.step('what was answered is sent, and stands under closed', async () => {
    await page.getByRole('button', { name: /^Closed/ }).click();
    await page.getByLabel('Search in replies').fill('');
    await expect(list.getByRole('option').first()).toBeVisible();
  });
});

test('two people on one conversation see each other', async ({ page, browser, stack }) => {
  // Whatever its state: those of before may have been worked down.
  await comeInAs(page, 'Wren', '/b/gullwick/learn/replies?state=closed');
  await expect(page.getByRole('list', { name: 'What was said' })).toBeVisible();
  await expect(page).toHaveURL(/c=/);
  const other = await (await browser.newContext({ baseURL: stack.origin })).newPage();
  await comeInAs(other, 'Caspian', `/b/gullwick/learn/replies${new URL(page.url()).search}`);
  await other.getByRole('textbox', { name: /^Answer to/ }).fill('I am on it');
  await expect(page.getByText('Caspian Muir is writing an answer now.')).toBeVisible();
  await page.getByRole('textbox', { name: /^Answer to/ }).fill('So am I');
  await other.getByRole('button', { name: 'Answer', exact: true }).last().click();
  await expect(other.getByRole('list', { name: 'What was said' })).toContainText('I am on it');
  // Wren has seen it by now: it came in by itself.
  await expect(page.getByRole('list', { name: 'What was said' })).toContainText('I am on it');
  await expect(page.getByText('Caspian Muir is writing an answer now.')).toHaveCount(0);
  await expect(page.getByRole('textbox', { name: /^Answer to/ })).toHaveValue('So am I');
});

test('a report is saved, downloaded, and lands in the mailbox as PDF and table', { tag: '@long' }, async ({ page, request, stack }) => {
  await comeInAs(page, 'Ottoline', '/b/gullwick/learn/results');
  await page.getByRole('button', { name: 'Reports' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'New report' }).click();
  await dialog.getByLabel('Name').fill('The week');
  await dialog.getByLabel('Days').fill('14');
  await dialog.getByLabel('It goes out by itself').check();
  await dialog.getByLabel('To', { exact: true }).fill('ottoline@gullwickkites.example');
  await dialog.getByRole('button', { name: 'Save' }).click();
  const line = dialog.getByRole('listitem').filter({ hasText: 'The week' });
  await expect(line).toContainText('goes out Mon');
  const download = page.waitForEvent('download');
  await line.getByRole('link', { name: 'PDF' }).click();
  const bytes = await readFile(await (await download).path());
  expect([bytes.subarray(0, 5).toString(), bytes.length > 20_000]).toEqual(['%PDF-', true]);
  await line.getByRole('button', { name: 'Send now' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Sent to 1 address' })).toBeVisible();
  const mailbox = await (await request.get(`${stack.standinOrigin}/mailbox`)).text();
  expect(mailbox).toMatch(/The week: Gullwick Kite Works/);
  expect(mailbox).toMatch(/gullwick-[\d-]+\.pdf[\s\S]*gullwick-[\d-]+\.xlsx/);
});

test('links tell their clicks, what leads nowhere, and make a QR code; the archive makes a new piece', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/learn/links');
  await expect(page.getByRole('table', { name: 'Short links' })).toContainText('/l/');
  await page.getByRole('button', { name: 'QR code' }).first().click();
  const dialog = page.getByRole('dialog');
  const download = page.waitForEvent('download');
  await dialog.getByRole('link', { name: 'Download SVG' }).click();
  expect(await readFile(await (await download).path(), 'utf8')).toContain('<svg');
  await page.keyboard.press('Escape');
  await page.goto('/b/gullwick/learn/archive');
  await page.getByLabel('Search in what went out').fill('tide is in');
  const card = page.getByRole('list', { name: 'What went out' }).getByRole('article').first();
  await expect(card).toContainText('The loft is open');
  await card.getByRole('button', { name: 'New piece of it' }).click();
  await page.waitForURL(/make\/pieces\/[\w-]+/);
  const made = (await (await page.request.get(`/api/brands/gullwick/pieces/${page.url().split('/').at(-1) ?? ''}`)).json()) as { document: { title: string; words: { shared: { caption: string } } } };
  expect([made.document.title, made.document.words.shared.caption.includes('tide is in')]).toEqual(['The loft is open again', true]);
});

test('the address of a place alone leads to its first view, that of a brand to its day', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/learn/results');
  for (const [address, view] of [['/b/gullwick/learn', /\/learn\/results$/], ['/b/gullwick/send', /\/send\/sign-off$/], ['/b/gullwick', /\/b\/gullwick\/today$/]] as const) {
    await page.goto(address);
    await expect(page).toHaveURL(view);
  }
  expect((await page.request.get('/b/gullwick/nowhere')).status()).toBe(404);
});
