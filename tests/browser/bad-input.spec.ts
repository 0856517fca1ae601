import { mkdtempSync, openSync, closeSync, ftruncateSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, freshData, test } from './fixtures.ts';
import { comeInAs, expectSaved, sendNow, startPiece } from './steps.ts';

test.use(freshData(import.meta.url));

test('files that cannot be used are each refused with a sentence, and the good one among them comes in', async ({ page }) => {
  const folder = mkdtempSync(join(tmpdir(), 'confetti-files-'));
  const recording = join(folder, 'film.jpg');
  const handle = openSync(recording, 'w');
  ftruncateSync(handle, 200 * 1024 * 1024);
  closeSync(handle);
  await comeInAs(page, 'Wren', '/b/gullwick/make/media');
  const photo = readFileSync('demo/media/windsocks.jpg');
  await page.getByLabel('Upload files').setInputFiles(recording);
  await page.getByLabel('Upload files').setInputFiles([
    { name: 'half.jpg', mimeType: 'image/jpeg', buffer: photo.subarray(0, 150_000) },
    { name: 'list.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('1. spars 2. line') },
    { name: 'socks.jpg', mimeType: 'image/jpeg', buffer: photo },
  ]);
  const list = page.getByRole('list', { name: 'Uploads' });
  await expect(list.getByRole('listitem').filter({ hasText: 'film.jpg' })).toContainText('It has 200 MB; the most is 50 MB');
  await expect(list.getByRole('listitem').filter({ hasText: 'half.jpg' })).toContainText('damaged or cut off');
  await expect(list.getByRole('listitem').filter({ hasText: 'list.jpg' })).toContainText('not a JPEG, PNG or WebP');
  await expect(list.getByRole('listitem').filter({ hasText: 'socks.jpg' })).toBeHidden();
  await expect(page.getByRole('complementary')).toContainText('windsocks.jpg');
  rmSync(folder, { recursive: true });
});

test('a picture dropped on the page comes in, and its focal point can be dragged', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/media');
  await expect(page.locator('main [role="listitem"] button').first()).toBeVisible();
  const bytes = [...readFileSync('demo/media/delta-backlit.jpg')];
  const transfer = await page.evaluateHandle((data) => {
    const dropped = new DataTransfer();
    dropped.items.add(new File([new Uint8Array([...data, 0])], 'dropped.jpg', { type: 'image/jpeg' }));
    return dropped;
  }, bytes);
  await page.dispatchEvent('main', 'drop', { dataTransfer: transfer });
  const panel = page.getByRole('complementary', { name: 'dropped.jpg' });
  const point = panel.getByRole('button', { name: /Focal point/ });
  await expect(point).toBeVisible();
  const box = await panel.locator('img').first().boundingBox();
  if (!box) throw new Error('The picture is not shown');
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.5);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.2, box.y + box.height * 0.75, { steps: 4 });
  await page.mouse.up();
  await expect(point).toHaveAccessibleName(/20% from the left, 75% from the top/);
  await expect(panel).toContainText('placed by hand');
  await page.reload();
  await page.locator('main [role="listitem"] button').filter({ hasText: 'dropped.jpg' }).click();
  await expect(page.getByRole('button', { name: /Focal point, 20% from the left, 75%/ })).toBeVisible();
});

test('a picture can be dropped on the slot that wants it, and a drop beside it does not leave the page', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Headland');
  const transfer = await page.evaluateHandle(
    (data) => {
      const dropped = new DataTransfer();
      dropped.items.add(new File([new Uint8Array([...data, 0, 0])], 'Süße Grüße.jpg', { type: 'image/jpeg' }));
      return dropped;
    },
    [...readFileSync('demo/media/delta-backlit.jpg')],
  );
  const isRefused = await page.evaluate((dataTransfer) => !document.body.dispatchEvent(new DragEvent('drop', { dataTransfer, bubbles: true, cancelable: true })), transfer);
  expect(isRefused).toBe(true);
  await page.getByRole('button', { name: /Choose a picture/ }).dispatchEvent('drop', { dataTransfer: transfer });
  await expect(page.getByText('Süße Grüße.jpg')).toBeVisible();
  await expectSaved(page);
});

test('an empty piece and a caption of 3,000 characters are stopped before they are scheduled', { tag: '@long' }, async ({ page }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Aside');
  await page.getByRole('tab', { name: 'Times' }).click();
  await page.getByRole('button', { name: /Schedule in \d/ }).click();
  await expect(page.getByRole('alert')).toHaveText(/Quote is empty\. Aside cannot go out without it\./);
  await page.getByRole('complementary', { name: 'Preflight' }).getByRole('button', { name: 'Go to Look' }).click();
  await page.getByLabel('Quote').fill('Wind is free');
  await page.getByRole('tab', { name: 'Words' }).click();
  await page.getByLabel('Shared caption').fill('y'.repeat(3_000));
  await expect(page.getByRole('complementary', { name: 'Preflight' })).toContainText('800 characters over the 2200 that Petalry takes');
  await page.getByRole('tab', { name: 'Times' }).click();
  await sendNow(page);
  await expect(page.getByRole('alert')).toHaveText(/800 characters over the 2200/);
  await page.getByRole('tab', { name: 'Words' }).click();
  await expect(page.getByLabel('Shared caption')).toHaveValue('y'.repeat(3_000));
  await expectSaved(page);
});

test('a network that is down is waited for, with the reason and the next attempt in sight', { tag: '@long' }, async ({ page, request, stack }) => {
  await comeInAs(page, 'Wren');
  await startPiece(page, 'Aside');
  await page.getByLabel('Quote').fill('Patience is a line on a reel');
  await expectSaved(page);
  const setFault = (kind: 'busy' | 'none') => request.post(`${stack.standinOrigin}/switchboard/faults`, { data: { network: 'quipline', kind, times: 1_000 } });
  await setFault('busy');
  await page.getByRole('tab', { name: 'Times' }).click();
  await sendNow(page);
  const quipline = page.locator('[data-delivery]').filter({ hasText: 'Quipline' });
  await expect(quipline).toContainText(/asks to come back later/);
  await setFault('none');
  await expect(quipline).toHaveAttribute('data-state', 'sent', { timeout: 90_000 });
  await expect(quipline).not.toContainText('later');
});

test('the look follows the theme that a person chooses, and stays with it', async ({ page }) => {
  await comeInAs(page, 'Wren');
  const ground = () => page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor);
  const light = await ground();
  await page.getByRole('button', { name: /account and look/ }).click();
  await page.getByRole('menuitem', { name: 'Dark' }).click();
  const dark = await ground();
  expect(dark).not.toBe(light);
  await page.reload();
  expect(await ground()).toBe(dark);
});

test('another brand is another place, with its own pieces and its own clock', async ({ page }) => {
  await comeInAs(page, 'Wren');
  await page.getByRole('button', { name: /Brand: Gullwick/ }).click();
  await page.getByRole('menuitem', { name: /Lanternfall/ }).click();
  await page.waitForURL(/\/b\/lanternfall\//);
  await expect(page.getByText('Sixty lanterns, one tide table')).toBeVisible();
  await expect(page.getByText('The hatch is open again')).toBeHidden();
  await expect(page.getByRole('button', { name: /Demo clock/ })).toContainText('Auckland');
});
