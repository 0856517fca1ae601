import { readFile } from 'node:fs/promises';
import { expect, freshData, test } from './fixtures.ts';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { comeInAs, expectSaved, expectSettled, chooseCell } from './steps.ts';

test.use(freshData(import.meta.url));

/** A photo as a phone takes it: large, turned by its orientation, with its place in it. */
async function phonePhoto(): Promise<Buffer> {
  return sharp('demo/media/beach-hut-shop.jpg').resize(4032, 3024, { fit: 'cover' }).rotate(90).jpeg({ quality: 88 }).withMetadata({ orientation: 8 }).toBuffer();
}

test('a newcomer goes from a web page to a ZIP of every cut in under three minutes', { tag: '@long' }, async ({ page, stack }) => {
  const photo = await phonePhoto();
  const started = Date.now();
  await comeInAs(page, 'Caspian');

  await test.step('a brand from its web page', async () => {
    await page.getByRole('button', { name: /^Brand: / }).click();
    await page.getByRole('menuitem', { name: 'New brand' }).click();
    await page.getByLabel('The brand’s web page').fill(`${stack.standinOrigin}/sites/salt-and-rye/`);
    await page.getByRole('button', { name: 'Read the page' }).click();
    await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Salt & Rye');
    await expect(page.getByText('Wine', { exact: true })).toBeVisible();
    await expect(page.getByText('15 cuts of every piece')).toBeVisible();
    await page.getByRole('button', { name: 'Begin this brand' }).click();
    await page.waitForURL(/\/b\/salt-rye[\w-]*\/make\/pieces/);
  });

  await test.step('a template, a photo, a headline', async () => {
    await page.getByRole('button', { name: /^Headland/ }).click();
    await page.waitForURL(/make\/pieces\/[\w-]+$/);
    await page.getByRole('button', { name: /Choose a picture/ }).click();
    await page.getByRole('dialog').locator('input[type=file]').setInputFiles({ name: 'IMG_2041.jpg', mimeType: 'image/jpeg', buffer: photo });
    await expect(page.getByText('IMG_2041.jpg')).toBeVisible();
    await page.getByLabel('Headline').fill('Rye, out of the oven at seven');
    await expect(page.getByText('fits all 15 cuts')).toHaveCount(1);
    await expectSettled(page);
  });

  await test.step('preflight says what is missing, and what a machine can mend is mended', async () => {
    const rail = page.getByRole('complementary', { name: 'Preflight' });
    await expect(rail).toContainText('has no alt text');
    await page.getByRole('tab', { name: 'Words' }).click();
    await chooseCell(page, 'Shared', 'altText');
    await page.getByLabel('Shared alt text').fill('A loaf of rye bread on a hatch by the sea.');
    await chooseCell(page, 'Shared', 'caption');
    await page.getByLabel('Shared caption').fill('Seven o’clock, the crust still singing. #SaltAndRye');
    await expect(rail).toContainText('1 hashtag for Kerbside');
    await rail.getByRole('button', { name: 'Leave them out here' }).click();
    await expect(rail).toContainText('Ready to go out');
    await chooseCell(page, 'Kerbside', 'caption');
    await expect(page.getByLabel(/Caption for Kerbside/)).toHaveValue('Seven o’clock, the crust still singing.');
    await expectSaved(page);
  });

  await test.step('every cut in one ZIP', async () => {
    await page.getByRole('tab', { name: 'Look' }).click();
    await page.getByRole('button', { name: 'Download all' }).click();
    await page.getByRole('radio', { name: 'JPEG' }).check();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Download 15 cuts' }).click()]);
    const files = unzipSync(await readFile(await download.path()));
    expect(Object.keys(files)).toHaveLength(15);
    for (const bytes of Object.values(files)) {
      const { format, xmp } = await sharp(bytes).metadata();
      expect(format).toBe('jpeg');
      expect(xmp?.toString('utf8')).toContain('A loaf of rye bread');
    }
  });
  expect(Date.now() - started).toBeLessThan(180_000);
});
