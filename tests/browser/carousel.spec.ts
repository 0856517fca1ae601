import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { comeInAs, expectSaved } from './steps.ts';

const list = ['Three knots and where to tie them', '', '1. Larkshead: on the bridle ring', '2. Bowline: on the reel', '3.', '4. Figure of eight – at the end, so that nothing runs through'].join('\n');

/** The words of the strip's slides, in order. */
const strip = (page: Page): Promise<string[]> => page.getByRole('listbox', { name: 'Slides in their order' }).getByRole('option').evaluateAll((options) => options.map((option) => option.lastElementChild?.textContent ?? ''));
const row = (page: Page, name: string) => page.getByRole('group', { name, exact: true });

test('from a pasted list to the published carousel', async ({ page }) => {
  await comeInAs(page, 'Wren');
  await page.goto('/b/gullwick/make/pieces?new');
  await page.getByRole('button', { name: /^Strand/ }).click();
  await page.waitForURL(/make\/pieces\/[\w-]+/);

  await test.step('a list becomes slides', async () => {
    await page.getByRole('button', { name: 'From a text' }).click();
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
    await quipline.getByRole('button', { name: /^Take slide 4 into/ }).click();
    await expect(quipline.locator('canvas[data-painted]')).toHaveCount(4);
    await expect(row(page, 'Guildrow Document')).toContainText('5 of 5, one PDF');
    await expect(row(page, 'Kerbside Update')).toContainText('one picture');
  });

  await test.step('the closing card is written, a point keeps its words as another kind, and a keystroke repaints one slide', async () => {
    await page.getByRole('option').last().click();
    await page.getByLabel('Line', { exact: true }).fill('A knot a day');
    await page.getByLabel('Call', { exact: true }).fill('Learn them all');
    await expect(page.getByText('fits all 12 cuts').first()).toBeVisible();
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
    for (let index = 0; index < 5; index += 1) await rail.getByRole('button', { name: 'Take its words' }).first().click();
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
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^Download 15 cuts/ }).click()]);
    const names = Object.keys(unzipSync(await readFile(await download.path())));
    expect(names.filter((name) => /petalry-feed-portrait-1080x1350-0\d\.jpg$/.test(name))).toHaveLength(5);
  });

  await test.step('words, time, and out: a carousel on one network, a document on another', async () => {
    await page.getByRole('tab', { name: 'Words' }).click();
    await page.getByLabel('Shared caption').fill('Three knots, all you need.');
    await page.getByLabel('Shared link').fill('https://gullwickkites.example');
    await expectSaved(page);
    await page.getByRole('tab', { name: 'Times' }).click();
    await page.getByRole('group', { name: /Guildrow.*update/ }).getByText('Document').click();
    await page.getByRole('group', { name: /story/ }).first().getByText('leave out').click();
    await page.getByRole('group', { name: /story/ }).last().getByText('leave out').click();
    await expect(page.getByRole('button', { name: 'Schedule 6 posts' })).toBeEnabled();
    await page.getByRole('button', { name: 'Send now', exact: true }).first().click();
    await expect(page.locator('[data-delivery][data-state="sent"]')).toHaveCount(6, { timeout: 60_000 });
    const addressOf = async (network: string): Promise<string> => (await page.locator('[data-delivery]').filter({ hasText: network }).locator('a[target="_blank"]').getAttribute('href')) ?? '';
    const [petalry, guildrow] = [await addressOf('Petalry'), await addressOf('Guildrow')];
    await page.goto(petalry);
    await expect(page.locator('[data-carousel="5"] img')).toHaveCount(5);
    await expect(page.locator('[data-carousel] img').nth(2)).toHaveAttribute('alt', 'Bowline. on the reel.');
    await page.goto(guildrow);
    await expect(page.locator('[data-document="5"]')).toBeVisible();
  });
});
