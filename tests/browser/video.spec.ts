import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Page, expect, freshData, test } from './fixtures.ts';
import { chooseOnly, comeInAs, expectSaved, expectSettled, expectStill, sendNow, chooseCell } from './steps.ts';

test.use(freshData(import.meta.url));

const shots = (page: Page) => page.getByRole('listbox', { name: 'Shots in their order' }).getByRole('option');
const frame = async (page: Page): Promise<number> => Number(await page.locator('[data-frame]').getAttribute('data-frame'));

/** Comes in and begins an empty video. */
async function beginVideo(page: Page): Promise<void> {
  await comeInAs(page, 'Wren', '/b/gullwick/make/pieces?new');
  await page.getByRole('button', { name: /^Gust/ }).click();
  await page.waitForURL(/make\/pieces\/[\w-]+$/);
}

/** Brings a clip in for the shot at work. */
async function bringClip(page: Page, file: string): Promise<void> {
  await page.getByRole('button', { name: 'Choose a picture' }).click();
  await page.getByRole('dialog').getByLabel('Upload').setInputFiles(`demo/media/${file}`);
  await expect(page.getByRole('dialog')).toBeHidden();
}

async function setNumber(page: Page, label: string, value: string): Promise<void> {
  await page.getByLabel(label, { exact: true }).fill(value);
  await page.getByLabel(label, { exact: true }).blur();
}

/** Likeness of two pictures, by ffmpeg's SSIM. */
function likeness(one: string, other: string): number {
  const { stderr } = spawnSync('ffmpeg', ['-hide_banner', '-i', one, '-i', other, '-lavfi', '[0:v]format=gbrp[a];[1:v]format=gbrp[b];[a][b]ssim', '-f', 'null', '-'], { encoding: 'utf8' });
  return Number(/All:([\d.]+)/.exec(stderr)?.[1] ?? Number.NaN);
}

/** Compares frames of a recording with what the first cut of the wall shows at the same moments. */
async function expectAlike(page: Page, recording: string, folder: string, frames: readonly number[]): Promise<void> {
  const canvas = page.locator('ul canvas').first();
  for (const at of frames) {
    await page.getByLabel('Moment', { exact: true }).fill(String(at));
    const seen = join(folder, `seen-${at}.png`);
    const exported = join(folder, `exported-${at}.png`);
    // On a busy machine the moment before stands still for a while: what is looked at is what the canvas comes to show.
    const look = async (): Promise<number> => {
      await expectStill(canvas);
      const { picture, width, height } = await canvas.evaluate((each: HTMLCanvasElement) => ({ picture: each.toDataURL('image/png'), width: each.width, height: each.height }));
      writeFileSync(seen, Buffer.from(picture.split(',')[1] ?? '', 'base64'));
      execFileSync('ffmpeg', ['-loglevel', 'error', '-y', '-i', recording, '-vf', `select='eq(n,${at})',scale=${width}:${height}:flags=area`, '-frames:v', '1', exported]);
      return likeness(seen, exported);
    };
    await expect.poll(look, { message: `frame ${at}`, timeout: 30_000 }).toBeGreaterThanOrEqual(0.97);
  }
}

/** Makes the first cut into a file and saves it. */
async function makeRecording(page: Page, recording: string): Promise<string> {
  await page.getByRole('button', { name: 'Download' }).click();
  await page.getByRole('button', { name: 'Make the video' }).click();
  const made = page.getByRole('list', { name: 'Videos' }).getByRole('listitem').first();
  await expect(made).toHaveAttribute('data-export', 'done', { timeout: 240_000 });
  const [download] = await Promise.all([page.waitForEvent('download'), made.getByRole('link', { name: 'Save MP4' }).click()]);
  await download.saveAs(recording);
  await page.keyboard.press('Escape');
  return download.suggestedFilename();
}

test('from dropped clips to the published video', { tag: '@long' }, async ({ page }) => {
  page.setDefaultTimeout(60_000);
  const folder = mkdtempSync(join(tmpdir(), 'confetti-video-'));
  await beginVideo(page);

  await test.step('three shots are filled in', async () => {
    await expect(shots(page)).toHaveCount(3);
    await bringClip(page, 'clip-turntable.mp4');
    await page.getByLabel('Headline', { exact: true }).fill('Seen from all sides');
    await setNumber(page, 'Lasts', '2.4');
    await shots(page).nth(1).click();
    await bringClip(page, 'clip-reel-spinning.mp4');
    await page.getByLabel('Heading', { exact: true }).fill('Line off the reel');
    await setNumber(page, 'Lasts', '2');
    await setNumber(page, 'Clip begins at', '1');
    await page.getByLabel('Comes in by').selectOption('push');
    await shots(page).nth(2).click();
    await page.getByLabel('Line', { exact: true }).fill('Come and try one');
    await page.getByLabel('Call', { exact: true }).fill('Visit the loft');
    await setNumber(page, 'Lasts', '2.2');
    await expectSaved(page);
    await expect(page.locator('[data-frame]')).toContainText('/ 0:06.2');
  });

  await test.step('music and a voice, with subtitles from a script', async () => {
    await page.locator('summary', { hasText: 'Sound and subtitles' }).click();
    await page.getByLabel('Music', { exact: true }).selectOption({ label: 'audio-tune-loop.m4a (0:24)' });
    await page.getByLabel('Voice', { exact: true }).selectOption({ label: 'voice-over.m4a (0:22)' });
    await page.getByLabel('Script').fill(readFileSync('demo/media/voice-over.txt', 'utf8'));
    await page.getByRole('button', { name: 'Time it' }).click();
    await expect(page.getByLabel('Subtitle 1', { exact: true })).toHaveValue('Come to the workshop this Saturday and build your very own kite.');
    const from = page.getByLabel('Subtitle 2 from');
    const before = Number(await from.inputValue());
    // Regions out of sight are not in the page, so they cannot be counted.
    const onWave = page.getByRole('group', { name: 'Wave form of the voice' }).locator('[part~="region"]').filter({ hasText: /^2$/ });
    await onWave.scrollIntoViewIfNeeded();
    const box = await onWave.boundingBox();
    if (!box) throw new Error('The wave form shows no subtitles');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 15, y, { steps: 5 });
    await page.mouse.up();
    // A second is sixty pixels wide; a drag begins a little after the press.
    await expect.poll(async () => Number(await from.inputValue()) - before).toBeGreaterThan(0.1);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(from).toHaveValue(String(before));
    await expect(page.getByRole('complementary', { name: 'Preflight' })).toContainText('The voice lasts 15.6 seconds longer than the video; it ends with its last whole words there.');
    await expectSaved(page);
  });

  await test.step('it plays in step, is scrubbed by keys, and a shot is undone', async () => {
    await page.getByLabel('Moment', { exact: true }).focus();
    await page.keyboard.press('Home');
    const canvas = page.locator('ul canvas').first();
    await expectStill(canvas);
    const before = await canvas.getAttribute('data-painted');
    await page.getByRole('button', { name: 'Play' }).click();
    await expect.poll(() => frame(page)).toBeGreaterThan(20);
    await expect(canvas).not.toHaveAttribute('data-painted', before ?? '');
    expect(await page.getByRole('button', { name: 'Pause' }).count()).toBe(1);
    await page.getByRole('button', { name: 'Pause' }).click();
    const at = await frame(page);
    // While it stands, nothing is painted.
    await expectSettled(page);
    await page.evaluate(() => performance.clearMeasures('wall'));
    await expectSettled(page);
    expect(await page.evaluate(() => performance.getEntriesByName('wall', 'measure').length)).toBe(0);
    await page.getByLabel('Moment', { exact: true }).focus();
    await page.keyboard.press('ArrowRight');
    expect(await frame(page)).toBe(at + 1);
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await expect(shots(page)).toHaveCount(4);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(shots(page)).toHaveCount(3);
    await expectSaved(page);
  });

  await test.step('what is seen is what the file shows', async () => {
    const recording = join(folder, 'film.mp4');
    expect(await makeRecording(page, recording)).toMatch(/^seen-from-all-sides-petalry-feed-square-1080x1080/);
    const { streams, format } = JSON.parse(execFileSync('ffprobe', ['-loglevel', 'error', '-show_streams', '-show_format', '-of', 'json', recording]).toString()) as { streams: Record<string, unknown>[]; format: { duration: string } };
    expect(streams).toMatchObject([{ codec_name: 'h264', profile: 'High', width: 1080, height: 1080, pix_fmt: 'yuv420p', avg_frame_rate: '30/1', color_space: 'bt709' }, { codec_name: 'aac', channels: 2, sample_rate: '48000' }]);
    expect(Math.abs(Number(format.duration) - 6.2)).toBeLessThan(0.1);
    await expectAlike(page, recording, folder, [9, 50, 76, 110, 170]);
  });

  await test.step('it goes out, and plays on the public page', async () => {
    await page.getByRole('tab', { name: 'Words' }).click();
    await page.getByLabel('Shared caption').fill('Eight panels, four spars.');
    await expect(page.getByRole('complementary', { name: 'Spoken text' })).toContainText('Come to the workshop this Saturday and build your very own kite.');
    await chooseCell(page, 'Shared', 'altText');
    await page.getByLabel('Shared alt text').fill('A box kite turns on its stand; line runs off a reel.');
    await expectSaved(page);
    await chooseOnly(page, /Petalry.*feed/);
    await sendNow(page);
    await expect(page.locator('[data-delivery][data-state="sent"]')).toHaveCount(1, { timeout: 240_000 });
    const address = (await page.locator('[data-delivery] a[target="_blank"]').first().getAttribute('href')) ?? '';
    await page.goto(address);
    await expect(page.locator('video[data-seconds="6.2"]')).toHaveAttribute('aria-label', 'A box kite turns on its stand; line runs off a reel.');
    // A player that cannot go to a moment shows no cover that is one.
    await expect.poll(() => page.locator('video').evaluate((video: HTMLVideoElement) => video.seekable.length > 0 && video.seekable.end(0) > 6)).toBe(true);
    expect(await page.locator('video').evaluate((video: HTMLVideoElement) => new Promise<boolean>((resolve) => { video.addEventListener('playing', () => resolve(true)); video.addEventListener('error', () => resolve(false)); video.muted = true; void video.play(); }))).toBe(true);
  });
  rmSync(folder, { recursive: true });
});

test('a clip is trimmed, followed and split; a photograph moves; a shorter cut and a cover are chosen', { tag: '@long' }, async ({ page }) => {
  page.setDefaultTimeout(60_000);
  const folder = mkdtempSync(join(tmpdir(), 'confetti-choosing-'));
  await beginVideo(page);
  const length = page.locator('[data-frame]');

  await test.step('the clip is trimmed on a strip of its frames', async () => {
    await expect(shots(page)).toHaveCount(3);
    await page.getByRole('button', { name: 'Choose a picture' }).click();
    await page.getByRole('dialog').getByRole('button', { name: /clip-figure-of-eight/ }).click();
    await page.getByLabel('Headline', { exact: true }).fill('Watch it turn');
    await page.getByRole('slider', { name: 'Shot begins' }).focus();
    await page.keyboard.press('Shift+ArrowRight');
    await page.getByRole('slider', { name: 'Shot ends' }).focus();
    for (let press = 0; press < 4; press += 1) await page.keyboard.press('ArrowLeft');
    await expect(page.getByLabel('Clip begins at')).toHaveValue('1');
    await expect(page.getByLabel('Lasts')).toHaveValue('2.6');
  });

  await test.step('a photograph moves', async () => {
    await shots(page).nth(1).click();
    await page.getByRole('button', { name: 'Choose a picture' }).click();
    await page.getByRole('dialog').getByRole('button', { name: /windsocks/ }).click();
    await page.getByLabel('The picture moves').selectOption('left');
    await setNumber(page, 'Lasts', '2');
    await shots(page).nth(2).click();
    await page.getByLabel('Comes in by').selectOption('sweep');
    await setNumber(page, 'Within', '0.8');
    await page.getByLabel('Line', { exact: true }).fill('Fly one');
    await page.getByLabel('Call', { exact: true }).fill('Book');
    await expectSaved(page);
    await expect(length).toContainText('/ 0:06.3');
  });

  await test.step('what follows and what moves is exported as it is seen', async () => {
    const recording = join(folder, 'film.mp4');
    await makeRecording(page, recording);
    await expectAlike(page, recording, folder, [30, 60, 90, 126]);
  });

  await test.step('the shot at the playhead is the one whose fields are shown', async () => {
    const moment = page.getByLabel('Moment', { exact: true });
    await moment.focus();
    await page.keyboard.press('Home');
    await expect(shots(page).nth(0)).toHaveAttribute('aria-selected', 'true');
    await page.keyboard.press('End');
    await expect(page.getByLabel('Call', { exact: true })).toBeVisible();
  });

  await test.step('the clip is split where the video is', async () => {
    await page.getByLabel('Moment', { exact: true }).fill('45');
    await page.getByRole('button', { name: 'Split here' }).click();
    await expect(shots(page)).toHaveCount(4);
    await expect(length).toContainText('/ 0:06.3');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(shots(page)).toHaveCount(3);
  });

  await test.step('one cut becomes shorter, and is played by itself', async () => {
    await page.getByRole('button', { name: 'Length' }).click();
    const dialog = page.getByRole('dialog', { name: 'Length of the video' });
    await dialog.getByLabel('For').selectOption({ label: 'Petalry Story alone' });
    await dialog.getByLabel('Seconds').fill('6');
    await expect(dialog.getByRole('status')).toContainText(/^Makes it [56]\.\d s, with all shots\.$/);
    await dialog.getByRole('button', { name: 'Make it 6 s' }).click();
    await page.getByRole('button', { name: /^Its own [56]\.\d s$/ }).click();
    await expect(length).toContainText(/\/ 0:0[56]\.\d/);
    await page.getByRole('button', { name: 'Back to the others' }).click();
    await expect(length).toContainText('/ 0:06.3');
  });

  await test.step('the moment at hand becomes the cover', async () => {
    const preflight = page.getByRole('complementary', { name: 'Preflight' });
    await expect(preflight).toContainText('No cover is chosen');
    await page.getByLabel('Moment', { exact: true }).fill('30');
    await page.getByRole('button', { name: 'Cover from here' }).click();
    await expect(preflight).not.toContainText('No cover is chosen');
    await page.locator('summary', { hasText: 'Cover' }).click();
    await expect(page.getByLabel('What stands for the video')).toHaveValue('frame');
    await expect(page.getByLabel('At, in seconds')).toHaveValue('1');
    await expectSaved(page);
  });
  rmSync(folder, { recursive: true });
});

test('where the subject of a clip is can be placed by hand, and reset to what was found', async ({ page }) => {
  await comeInAs(page, 'Wren', '/b/gullwick/make/media');
  await page.getByRole('searchbox').fill('figure-of-eight');
  const clip = page.locator('main [role="listitem"] button').filter({ hasText: 'clip-figure-of-eight' });
  await clip.click();
  const panel = page.getByRole('complementary', { name: 'clip-figure-of-eight.mp4' });
  await expect(panel).toContainText(/Found at \d+ moments; every crop follows/);
  await panel.getByRole('button', { name: /^Go to the point at/ }).nth(1).click();
  const subject = panel.getByRole('button', { name: /^Subject at/ });
  const leftOf = async (): Promise<number> => Number(/(\d+)% from the left/.exec((await subject.getAttribute('aria-label')) ?? '')?.[1]);
  const found = await leftOf();
  await subject.focus();
  for (let press = 0; press < 3; press += 1) await page.keyboard.press('ArrowLeft');
  expect(await leftOf()).toBe(found - 3);
  await expect(panel).toContainText('Placed by hand');
  await page.reload();
  await page.getByRole('searchbox').fill('figure-of-eight');
  await clip.click();
  await expect(panel).toContainText('Placed by hand');
  await panel.getByRole('button', { name: 'Back to what was found' }).click();
  await expect(panel).toContainText(/Found at \d+ moments/);
  await panel.getByRole('button', { name: /^Go to the point at/ }).nth(1).click();
  expect(await leftOf()).toBe(found);
});
