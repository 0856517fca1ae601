import type { Locator } from '@playwright/test';
import { expect, freshData, test, type Page } from './fixtures.ts';
import { comeInAs } from './steps.ts';

test.use(freshData(import.meta.url));

const LANTERNFALL = '/b/lanternfall/plan';

/** Drags with the mouse as a hand does: press, move a little, go there, let go. */
async function drag(from: Locator, to: Locator): Promise<void> {
  await from.dragTo(to, { sourcePosition: { x: 12, y: 10 }, targetPosition: { x: 14, y: 12 } });
}

const hour = (page: Page, day: string, at: string) => page.getByRole('group', { name: `${day}, ${at}`, exact: true });

/** Takes the rota apart, so that a plan begins from nothing. */
async function emptyRota(page: Page, brand: string): Promise<void> {
  const { plan, revision } = (await (await page.request.get(`/api/brands/${brand}/plan`)).json()) as { plan: { rota: object }; revision: number };
  const answer = await page.request.post(`/api/brands/${brand}/plan`, { data: { revision, plan: { ...plan, rota: { ...plan.rota, rules: [] }, themes: [] } }, headers: { origin: new URL(page.url()).origin } });
  expect(answer.status()).toBe(200);
  const { items } = (await (await page.request.get(`/api/brands/${brand}/plan/queue`)).json()) as { items: { id: string }[] };
  for (const { id } of items) await page.request.delete(`/api/brands/${brand}/plan/queue/${id}`, { headers: { origin: new URL(page.url()).origin } });
}

test('a month is planned from an empty rota with the mouse: themes, slots, a what-if, pieces into slots, and back', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', `${LANTERNFALL}/rota`);
  await emptyRota(page, 'lanternfall');
  const headers = { origin: new URL(page.url()).origin };
  const made = (await (await page.request.post('/api/brands/lanternfall/pieces', { data: { template: 'aside' }, headers })).json()) as { id: string; revision: number };
  const patches = [{ op: 'add', path: '/frames/0/slots/headline', value: { kind: 'text', text: 'Stall 9 has moved to the steps' } }, { op: 'replace', path: '/words/shared/altText', value: 'A quote' }, { op: 'add', path: '/words/shared/link', value: 'https://lanternfall.example' }, { op: 'add', path: '/words/shared/title', value: 'Stall 9' }];
  expect((await page.request.patch(`/api/brands/lanternfall/pieces/${made.id}`, { data: { revision: made.revision, patches }, headers })).status()).toBe(200);
  await page.reload();

  await test.step('themes are named and dragged onto the week', async () => {
    await page.getByLabel('New theme').fill('Stalls');
    await page.getByRole('button', { name: 'Add', exact: true }).first().click();
    await page.getByLabel('New theme').fill('Music');
    await page.getByRole('button', { name: 'Add', exact: true }).first().click();
    await drag(page.locator('[data-theme-row]').nth(0), hour(page, 'Tuesday', '18:00'));
    await drag(page.locator('[data-theme-row]').nth(1), hour(page, 'Friday', '16:00'));
    await expect(page.locator('[data-rule]')).toHaveCount(2);
    await drag(page.getByRole('button', { name: /^Stalls, Tuesday 18:00/ }), hour(page, 'Wednesday', '19:00'));
    await expect(page.getByRole('button', { name: 'Stalls, Wednesday 19:00, 5 channels' })).toBeVisible();
  });

  await test.step('it is a what-if until it is kept: the runway of both stands side by side', async () => {
    await expect(page.getByText('A what-if: nothing of it holds yet')).toBeVisible();
    await expect(page.getByRole('columnheader', { name: 'Then' })).toBeVisible();
    await expect(page.getByRole('region', { name: 'How long it lasts' })).toContainText('no slots');
    await page.getByRole('button', { name: 'Keep this rota' }).click();
    await expect(page.getByText('The rota is kept.', { exact: false })).toBeVisible();
    await page.reload();
    await expect(page.locator('[data-rule]')).toHaveCount(2);
  });

  await test.step('a month of open slots stands in the lanes, and a piece is dragged into one', async () => {
    await page.goto(`${LANTERNFALL}/lanes?days=28`);
    await expect(page.locator('[data-plan-state="open"]').nth(20)).toBeAttached();
    await page.goto(`${LANTERNFALL}/lanes`);
    const open = page.locator('[data-plan-state="open"]');
    await expect(open.first()).toBeVisible();
    // The campaigns' row comes with the plan and moves what is below it.
    await expect(page.getByText('Summer evenings').first()).toBeVisible();
    const before = await open.count();
    await drag(page.locator(`[data-waiting="${made.id}"]`), open.first());
    await expect(page.locator('[data-plan-state="scheduled"]').first()).toBeVisible();
    await expect(open).toHaveCount(before - 1);
  });

  await test.step('a post is dragged to another day, which Undo takes back', async () => {
    const tile = page.locator('[data-plan-state="scheduled"]').first();
    const name = (await tile.getAttribute('aria-label')) ?? '';
    const day = /\d{4}-\d{2}-\d{2}/.exec(name)?.[0] ?? '';
    const cell = page.locator(`[data-cell]:has([data-plan-state="scheduled"])`).first();
    const [channelId = ''] = ((await cell.getAttribute('data-cell')) ?? '').split(' ');
    const next = new Date(Date.parse(`${day}T00:00Z`) + 86_400_000).toISOString().slice(0, 10);
    await drag(tile, page.locator(`[data-cell="${channelId} ${next}"]`));
    await expect(page.locator(`[data-cell="${channelId} ${next}"] [data-plan-state="scheduled"]`).first()).toBeVisible();
    await expect(page.getByText(/^Moved to /)).toBeVisible();
    await page.getByRole('button', { name: 'Undo', exact: true }).last().click();
    await expect(page.locator(`[data-cell="${channelId} ${day}"] [data-plan-state="scheduled"]`).first()).toBeVisible();
  });
});

test('the same with the keyboard alone: a slot, a placeholder, a piece in a slot, a move, several at once', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/plan/rota');
  await page.getByRole('button', { name: 'Add a slot for Owners’ skies' }).focus();
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'New slot' });
  await dialog.getByRole('button', { name: 'Add the slot' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Owners’ skies, Monday 09:00, 3 channels/ })).toBeVisible();
  await page.getByRole('button', { name: 'Keep this rota' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('The rota is kept.', { exact: false })).toBeVisible();

  await page.goto('/b/gullwick/plan/lanes');
  const grid = page.getByRole('grid', { name: 'Lanes' });
  await expect(grid.locator('[data-item]').first()).toBeVisible();
  await grid.locator('[tabindex="0"]').first().focus();
  const focused = (): Promise<string> => page.evaluate(() => document.activeElement?.closest('[data-cell]')?.getAttribute('data-cell') ?? '');
  const dayOf = async (): Promise<string> => (await focused()).split(' ')[1] ?? '';
  const before = await dayOf();
  await page.keyboard.press('ArrowRight');
  // The focus follows the key a moment later.
  await expect.poll(dayOf).not.toBe(before);
  const first = await dayOf();
  expect(first).not.toBe('');
  await page.keyboard.press('ArrowRight');
  await expect.poll(dayOf).toBe(new Date(Date.parse(`${first}T00:00Z`) + 86_400_000).toISOString().slice(0, 10));
  await page.keyboard.press('ArrowLeft');
  await expect.poll(dayOf).toBe(first);

  // An open slot is filled by its own dialog.
  const open = grid.locator('[data-plan-state="open"]').first();
  await open.focus();
  await page.keyboard.press('Enter');
  const fill = page.getByRole('dialog', { name: 'Open slot' });
  await fill.getByLabel('Or keep it free for').fill('Something about Big Blow here');
  await page.keyboard.press('Enter');
  await expect(fill).toBeHidden();
  const holder = grid.locator('[data-plan-state="placeholder"]').filter({ hasText: 'Something about Big Blow here' }).first();
  await expect(holder).toBeVisible();

  // Alt and an arrow move what is focused, and Ctrl Z brings it back.
  const cellOf = (): Promise<string | null> => holder.evaluate((tile) => tile.closest('[data-cell]')?.getAttribute('data-cell') ?? null);
  const was = await cellOf();
  await holder.focus();
  await page.keyboard.press('Alt+ArrowRight');
  await expect.poll(cellOf).not.toBe(was);
  await expect(page.getByText('Moved by 1 day.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(cellOf).toBe(was);

  // Several at once, through the list.
  await page.goto('/b/gullwick/plan/list?state=scheduled');
  const boxes = page.getByRole('checkbox', { name: /^Choose / });
  await expect(boxes.nth(2)).toBeVisible();
  await boxes.nth(1).focus();
  await page.keyboard.press('Space');
  await boxes.nth(2).focus();
  await page.keyboard.press('Space');
  const bar = page.getByRole('toolbar', { name: 'Chosen posts' });
  await expect(bar).toContainText('2 posts chosen');
  await bar.getByLabel('Label').fill('night');
  await page.keyboard.press('Enter');
  await expect(page.getByText('2 labelled.')).toBeVisible();
  await page.goto('/b/gullwick/plan/list?label=night');
  await expect(page.getByRole('row')).not.toHaveCount(1);

  // The queue of a piece, by the key of its strip.
  await page.goto('/b/gullwick/plan/lanes');
  const waiting = page.locator('[data-waiting]').first();
  await waiting.focus();
  await page.keyboard.press('s');
  // What was out before is asked about.
  const again = page.getByRole('button', { name: 'Once more' });
  const done = page.getByText(/^(?:Scheduled for|It stands as a draft on|The rota has no open slot)/);
  await expect(again.or(done).first()).toBeVisible();
  if (await again.isVisible()) await again.click();
  await expect(done).toBeVisible();
});

test('the plans of two brands stand in one view: each moves within its own, and every view says whose a post is', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/plan/lanes');
  await page.getByRole('button', { name: 'This brand' }).click();
  await page.getByRole('checkbox', { name: /Lanternfall/ }).check();
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/brands=lanternfall/);
  const grid = page.getByRole('grid', { name: 'Lanes' });
  await expect(grid.getByRole('rowheader', { name: /^Gullwick/ })).toBeVisible();
  const others = (await (await page.request.get('/api/brands/lanternfall')).json()) as { channels: { id: string }[] };
  const own = (await (await page.request.get('/api/brands/gullwick')).json()) as { channels: { id: string }[] };

  await test.step('a post of the other brand is moved by a key, and taken back', async () => {
    const other = page.locator(others.channels.map(({ id }) => `[data-cell^="${id} "] [data-plan-state="scheduled"]`).join(', ')).first();
    await grid.evaluate((element) => element.scrollTo(0, element.scrollHeight));
    await expect(grid.getByRole('rowheader', { name: /^Lanternfall/ })).toBeVisible();
    await other.focus();
    const name = (await other.getAttribute('aria-label')) ?? '';
    await page.keyboard.press('Alt+ArrowRight');
    await expect(page.getByText('Moved by 1 day.')).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(page.getByText('Undone: Moved by 1 day.')).toBeVisible();
    await expect(page.getByRole('button', { name }).first()).toBeVisible();
  });

  await test.step('it does not go to a channel of this brand', async () => {
    const tile = (channelIds: readonly string[]): Locator => page.locator(channelIds.map((id) => `[data-cell^="${id} "] [data-plan-state="scheduled"]`).join(', ')).first();
    const key = await tile(others.channels.map(({ id }) => id)).evaluate((element) => element.closest('[data-cell]')?.getAttribute('data-cell') ?? '');
    const [from = '', day = ''] = key.split(' ');
    const to = own.channels[0]?.id ?? '';
    await page.goto(`/b/gullwick/plan/lanes?brands=lanternfall&channels=${to},${from}`);
    await drag(tile([from]), page.locator(`[data-cell="${to} ${day}"]`));
    await expect(page.getByText('It belongs to another brand', { exact: false })).toBeVisible();
  });

  for (const view of ['month', 'week', 'list'] as const)
    await test.step(`the ${view} has both`, async () => {
      await page.goto(`/b/gullwick/plan/${view}?brands=lanternfall`);
      await expect(page.getByRole('button', { name: '2 brands' })).toBeVisible();
      await expect(view === 'list' ? page.getByRole('cell', { name: /Lanternfall/ }).first() : page.getByRole('button', { name: /^Lanternfall.*: / }).first()).toBeVisible();
    });
});

test('everything is held with one action, and let go by a rule that one sees first', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/plan/month');
  await page.getByRole('button', { name: 'Hold everything' }).click();
  await page.getByRole('dialog', { name: 'Hold everything' }).getByRole('button', { name: 'Hold everything' }).click();
  await expect(page.getByText(/posts are held/)).toBeVisible();
  await page.goto('/b/gullwick/today');
  await expect(page.locator('[data-need="held"]')).toContainText('Everything is held');
  await page.goto('/b/gullwick/plan/lanes?state=held');
  await expect(page.locator('[data-plan-state="held"]').first()).toBeVisible();
  await page.getByRole('button', { name: 'Held: let go…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Let go' });
  await dialog.getByLabel('In their order, from now on').check();
  await expect(dialog).toContainText('others keep their moments');
  await dialog.getByRole('button', { name: 'Let go' }).click();
  await expect(page.getByRole('button', { name: 'Hold everything' })).toBeVisible();
  await page.goto('/b/gullwick/today');
  await expect(page.locator('[data-need="failed"]').first()).toBeVisible();
  await expect(page.locator('[data-need="held"]')).toHaveCount(0);
});

test('a piece gets its times: typed, into a slot, repeated and in rotation; views are kept with their filters', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/pieces');
  const { items } = (await (await page.request.get('/api/brands/gullwick/pieces?words=hatch')).json()) as { items: { id: string }[] };
  await page.goto(`/b/gullwick/make/pieces/${items[0]?.id ?? ''}`);
  // What reads a typed moment comes late: until then nothing is scheduled, for it would go out at the moment before.
  let letReaderCome = (): void => undefined;
  const told = new Promise<void>((resolve) => (letReaderCome = resolve));
  await page.route('**/typed-moment*.js', (route) => told.then(() => route.continue()));
  // What is out already comes late too: a box that is ticked meanwhile would lose its tick.
  let letDeliveriesCome = (): void => undefined;
  const asked = new Promise<void>((resolve) => (letDeliveriesCome = resolve));
  await page.route('**/deliveries?*', (route) => asked.then(() => route.continue()));
  await page.getByRole('tab', { name: 'Times' }).click();
  await expect(page.getByRole('checkbox', { name: /^All places/ })).toBeDisabled();
  await expect(page.getByRole('checkbox', { name: /^All places/ })).not.toBeChecked();
  letDeliveriesCome();
  await page.getByRole('checkbox', { name: /^All places/ }).check();
  const schedule = page.getByRole('button', { name: /^Schedule in \d+ places?$/ });
  await expect(schedule).toBeEnabled();
  await page.getByLabel('Type a moment').fill('23.12. 8:00');
  await page.keyboard.press('Enter');
  await page.getByLabel('Type a moment').fill('24.12. 9:00');
  await page.keyboard.press('Enter');
  await expect(schedule).toBeDisabled();
  letReaderCome();
  await expect(page.locator('[data-moment="fine"]').first()).toContainText('24 Dec');
  await expect(page.getByLabel('Type a moment')).toHaveValue('');
  await expect(schedule).toBeEnabled();
  await expect(schedule).toBeFocused();
  await page.getByLabel('Type a moment').fill('some time soon');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'Type a day and a time' })).toBeVisible();
  await page.getByLabel('Type a moment').fill('');

  await page.getByRole('button', { name: /^Schedule in the slot of/ }).first().click();
  await page.getByRole('button', { name: 'Schedule it once more' }).click();
  await expect(page.getByText(/^Scheduled in the slot of|^It keeps the slot of/)).toBeVisible();

  await page.getByRole('button', { name: 'Repeat…' }).click();
  const repeat = page.getByRole('dialog', { name: 'Repeat' });
  await repeat.getByLabel('Rhythm').selectOption({ label: 'Every second Thursday' });
  await repeat.getByRole('button', { name: 'Start the repeat' }).click();
  await expect(page.getByRole('region', { name: 'Repeats' })).toContainText('every 2 weeks on Thursday');

  await page.getByRole('button', { name: 'Into rotation…' }).click();
  const rotation = page.getByRole('dialog', { name: 'Rotation' });
  await rotation.getByRole('button', { name: /kite-kits\.jpg/ }).click();
  await expect(rotation).toContainText('1 wording × 2 pictures = 2 different posts');
  await rotation.getByRole('button', { name: /^Rotate in/ }).click();
  await expect(page.getByText('In rotation: 2 different posts.')).toBeVisible();
  await page.goto('/b/gullwick/plan/rotation');
  await expect(page.getByRole('listitem').filter({ hasText: 'The hatch is open again' })).toContainText('2 different posts');

  await page.goto('/b/gullwick/plan/lanes');
  await page.getByLabel('Theme').selectOption({ label: 'In the loft' });
  await expect(page).toHaveURL(/theme=loft/);
  await page.getByRole('button', { name: 'Saved views' }).click();
  await page.getByLabel('Name of the view').fill('Loft only');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Loft only' })).toHaveAttribute('href', /theme=loft/);
});
