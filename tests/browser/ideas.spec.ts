import { readdirSync } from 'node:fs';
import sharp from 'sharp';
import { expect, freshData, test, type Page } from './fixtures.ts';
import { comeInAs } from './steps.ts';

test.use(freshData(import.meta.url));

const article = [
  'The kite that lifted a man off the quay',
  'In 1903 the net mender Abel Trewhitt let himself be lifted nine metres above Gullwick Quay by six kites on one line. Nobody had asked him to.',
  'What is left',
  '- Eleven drawings, all of them with tea on them.\n- One bamboo spar, four metres long.\n- A bill from the harbour master for obstructing the air.',
  'The drawings hang in the museum from Saturday until the end of February. Entry is £4, and children do not pay.',
].join('\n\n');

interface Planned {
  readonly pieceId: string | null;
  readonly name: string;
  readonly wall: string;
}

/** Drafts and placeholders of the next eight weeks. */
async function entriesOf(page: Page): Promise<readonly Planned[]> {
  const today = await page.evaluate(() => new Date().toISOString().slice(0, 10));
  const { entries } = (await (await page.request.get(`/api/brands/gullwick/plan/lanes?from=${today}&days=56`)).json()) as { entries: readonly Planned[] };
  return entries;
}

async function open(page: Page, tab: string): Promise<void> {
  await page.getByRole('tab', { name: tab, exact: true }).click();
  await expect(page.getByRole('tabpanel', { name: tab, exact: true })).toBeVisible();
}

const photos = (count: number): Promise<{ name: string; mimeType: string; buffer: Buffer }[]> => {
  const sources = readdirSync('demo/media').filter((name) => name.endsWith('.jpg')).sort();
  return Promise.all(
    Array.from({ length: count }, async (_, index) => ({
      name: `flying-day-${index + 1}.jpg`,
      mimeType: 'image/jpeg',
      buffer: await sharp(`demo/media/${sources[index % sources.length]}`).resize(900, index % 3 === 0 ? 1200 : 680, { fit: 'cover' }).modulate({ hue: 7 * index + 3 }).jpeg({ quality: 78 }).toBuffer(),
    })),
  );
};

test('a month is filled from an article, a table, twenty photographs, days and a feed, and each post says why it stands where it stands', { tag: '@long' }, async ({ page, stack }) => {
  test.setTimeout(400_000);
  await comeInAs(page, 'Wren', '/b/gullwick/make/ideas');
  const before = await entriesOf(page);

  // An article becomes pieces, and each text says which sentence it comes from.
  await open(page, 'From a text');
  await page.getByLabel('Text', { exact: true }).fill(article);
  await page.getByRole('button', { name: 'Propose pieces' }).click();
  const proposals = page.getByRole('article', { name: /^Proposal/ });
  await expect(proposals.first()).toBeVisible();
  const proposed = await proposals.count();
  expect(proposed).toBeGreaterThanOrEqual(3);
  await expect(proposals.first().locator('canvas[data-painted]').first()).toBeVisible();
  await proposals.first().getByRole('button', { name: 'Where from' }).click();
  await expect(proposals.first().getByText(/sentence \d|Sentence \d/).first()).toBeVisible();
  await page.getByRole('button', { name: `Keep all ${proposed}` }).click();
  await expect(page.getByText(`${proposed} pieces made`)).toBeVisible();

  // A table: what is wrong stands at its row, is mended in place, and rows become drafts.
  await open(page, 'From a table');
  await page.getByLabel('Pasted table').fill('Date\tTime\tChannels\tHeadline\tCaption\n31/02/2027\t10:00\tPetalry\tNo such day\tIt will be mended.\n2027-01-12\t18:00\tQuipline\tThe line sings\tCome down before it does.');
  await page.getByRole('button', { name: 'Read it' }).click();
  const [first, second] = [page.getByRole('article', { name: 'Row 1', exact: true }), page.getByRole('article', { name: 'Row 2', exact: true })];
  await expect(second.getByText('ready')).toBeVisible();
  await expect(first.getByText('1 fault')).toBeVisible();
  await first.getByLabel('Date').fill('2027-01-11');
  await first.getByLabel('Date').press('Enter');
  await expect(first.getByText('ready')).toBeVisible();
  await page.getByRole('button', { name: /^Make 2/ }).click();
  await expect(page.getByText('✓ made')).toHaveCount(2);

  // Twenty photographs become twenty pieces over the open slots.
  await open(page, 'From files');
  await page.getByLabel('Choose files').setInputFiles(await photos(20));
  await expect(page.getByRole('button', { name: 'Make 20 pieces' })).toBeEnabled({ timeout: 150_000 });
  // Two are sent at once, and all stand in the order in which they were chosen.
  const inOrder = await page.getByRole('region', { name: 'Files' }).getByRole('listitem').allTextContents();
  expect(inOrder.map((text) => /flying-day-(\d+)/.exec(text)?.[1])).toEqual(Array.from({ length: 20 }, (_, index) => String(index + 1)));
  await page.getByRole('button', { name: 'Make 20 pieces' }).click();
  await expect(page.getByText(/20 pieces made, \d+ planned/)).toBeVisible();

  // A feed is found at a site's address, and its items stand there.
  await open(page, 'Feeds');
  await page.getByLabel('Address of a site or a feed').fill(`${stack.standinOrigin}/sites/quay-museum`);
  await page.getByRole('button', { name: 'Add a feed' }).click();
  await expect(page.getByText('Five knots that every kite needs').last()).toBeVisible();

  // A day that comes stands in the plan as a placeholder.
  await open(page, 'Shelf');
  await page.getByLabel('Kind').selectOption('date');
  const day = page.getByRole('article').first();
  await expect(day.getByText('Day', { exact: true })).toBeVisible();
  const name = (await day.getByRole('heading').textContent()) ?? '';
  await day.getByRole('button', { name: 'Plan it' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/A placeholder stands in the plan/)).toBeVisible();
  await expect(page.getByRole('article', { name }).getByText(/In the plan/)).toBeVisible();

  // What is open still is proposed with a reason, and taken in one press.
  await comeInAs(page, 'Wren', '/b/gullwick/plan/lanes');
  await page.getByRole('button', { name: 'Fill open slots' }).click();
  const pane = page.getByRole('complementary', { name: 'Proposal for the open slots' });
  await pane.getByRole('button', { name: '8 weeks' }).click();
  await expect(pane.getByRole('status')).toContainText('can be filled');
  const offered = await pane.getByRole('checkbox').count();
  expect(offered).toBeGreaterThan(0);
  for (const placing of await pane.getByRole('listitem').all()) expect(((await placing.textContent()) ?? '').length).toBeGreaterThan(40);
  await pane.getByRole('checkbox').first().uncheck();
  const taken = offered - 1;
  if (taken > 0) {
    await pane.getByRole('button', { name: `Put ${taken} in the plan` }).click();
    await expect(page.getByText(/stand in the plan\./)).toBeVisible();
  }
  await expect(pane).toBeHidden();
  const after = await entriesOf(page);
  expect(after.length - before.length).toBeGreaterThanOrEqual(10);
});

test('the keys open a note, a quick post, a boilerplate and the shortcuts, and are quiet while one writes', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/ideas');
  await expect(page.getByRole('article').first()).toBeVisible();
  await page.getByLabel('Search ideas').fill('tail is p?');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByLabel('Search ideas').fill('');
  await page.getByLabel('Search ideas').blur();
  for (const [key, title] of [['?', 'Shortcuts'], ['b', 'Begin from a boilerplate'], ['p', 'A quick post'], ['i', 'A note for the shelf']] as const) {
    await page.keyboard.press(key);
    await expect(page.getByRole('dialog', { name: new RegExp(title) })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
});

test('a quick post goes out once, however often it is pressed', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/today');
  await expect(page.locator('[data-need]').first()).toBeVisible();
  await page.keyboard.press('p');
  const dialog = page.getByRole('dialog', { name: 'A quick post' });
  await dialog.getByLabel('Words').fill('The wind has turned. Come before four.');
  await dialog.getByRole('checkbox', { name: /Petalry/ }).check();
  await dialog.getByRole('radio', { name: 'Not yet' }).check();
  await dialog.getByRole('button', { name: 'Keep', exact: true }).dblclick();
  await expect(dialog).toBeHidden();
  const { items } = (await (await page.request.get('/api/brands/gullwick/pieces?limit=100')).json()) as { items: readonly { name: string }[] };
  expect(items.filter(({ name }) => name.startsWith('The wind has turned'))).toHaveLength(1);
});

test('each page of the guide stands by itself and is led to from the view that it is about', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/ideas');
  await open(page, 'From a text');
  await expect(page.getByRole('link', { name: 'How this works' })).toHaveAttribute('href', '/guide/ideas');
  await page.getByRole('link', { name: 'Guide to this view' }).click();
  await page.waitForURL(/\/guide\/ideas/);
  const pages = page.getByRole('navigation', { name: 'Guide' }).getByRole('link');
  for (const address of await pages.evaluateAll((all) => all.map((each) => (each as HTMLAnchorElement).href))) {
    await page.goto(address);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    for (const picture of await page.locator('main img').all()) expect(await picture.evaluate((each) => (each as HTMLImageElement).naturalWidth), address).toBeGreaterThan(400);
  }
});

test('a note that is kept without a connection says that it waits, and is there once when the connection is back', async ({ page, context }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/ideas');
  await expect(page.getByRole('article').first()).toBeVisible();
  await page.keyboard.press('i');
  const what = page.getByLabel('What is the idea?');
  await what.fill('A note written in a tunnel');
  await context.setOffline(true);
  await what.press('Enter');
  await expect(page.getByText('There is no connection.', { exact: false })).toBeVisible();
  await expect(what).toHaveValue('A note written in a tunnel');
  await context.setOffline(false);
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByText('There is no connection.', { exact: false })).toHaveCount(0);
  await expect(page.getByRole('article', { name: 'A note written in a tunnel' })).toHaveCount(1);
});

test.describe('before the script of a view is there', () => {
  /** Opens a view whose script waits until it is let go. */
  async function openWithout(page: Page, script: string, address: string): Promise<() => void> {
    let letGo = (): void => undefined;
    const told = new Promise<void>((resolve) => (letGo = resolve));
    await page.route(new RegExp(`/_astro/${script}\\.`), (route) => told.then(() => route.continue()));
    await page.goto(address, { waitUntil: 'domcontentloaded' });
    return letGo;
  }

  test('a tab that is pressed is shown, and a filter that is chosen stands', { tag: '@long' }, async ({ page }) => {
    await comeInAs(page, 'Wren');
    const letIdeasCome = await openWithout(page, 'IdeasView', '/b/gullwick/make/ideas');
    await page.getByRole('tab', { name: 'From a table', exact: true }).click();
    await expect(page.getByRole('tab', { name: 'From a table', exact: true })).toHaveAttribute('aria-selected', 'false');
    letIdeasCome();
    await expect(page.getByRole('tabpanel', { name: 'From a table', exact: true })).toBeVisible();

    const letPiecesCome = await openWithout(page, 'PiecesView', '/b/gullwick/make/pieces');
    await page.getByLabel('Kind').selectOption({ label: 'Carousels' });
    await page.getByRole('searchbox').fill('kite');
    letPiecesCome();
    await expect(page).toHaveURL(/words=kite/);
    await expect(page).toHaveURL(/kind=carousel/);
    await expect(page.getByLabel('Kind')).toHaveValue('carousel');
    await expect(page.getByRole('searchbox')).toHaveValue('kite');
  });

  test('the key of a shortcut opens what it stands for, and one that was meant for a field does not', async ({ page }) => {
    await comeInAs(page, 'Wren');
    const letBarCome = await openWithout(page, 'Bar', '/b/gullwick/make/ideas');
    await page.waitForLoadState();
    await page.keyboard.press('p');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    letBarCome();
    await expect(page.getByRole('dialog', { name: 'A quick post' })).toBeVisible();

    const letBarComeAgain = await openWithout(page, 'Bar', '/b/gullwick/make/ideas');
    await page.waitForLoadState();
    await page.getByLabel('Search ideas').pressSequentially('p');
    letBarComeAgain();
    await open(page, 'From a text');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  });

  test('a press on a slow machine counts while the view comes to life', { tag: '@long' }, async ({ page }) => {
    await comeInAs(page, 'Wren');
    await (await page.context().newCDPSession(page)).send('Emulation.setCPUThrottlingRate', { rate: 6 });
    for (const tab of ['From a text', 'Feeds', 'From files']) {
      await page.goto('/b/gullwick/make/ideas', { waitUntil: 'domcontentloaded' });
      await open(page, tab);
    }
  });
});
