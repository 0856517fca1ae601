import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { comeInAs, expectSaved } from './steps.ts';

const shots = (page: Page) => page.getByRole('listbox', { name: 'Shots in their order' }).getByRole('option');
const frame = async (page: Page): Promise<number> => Number(await page.locator('[data-frame]').getAttribute('data-frame'));

/** Brings a clip in for the shot at work. */
async function bringClip(page: Page, file: string): Promise<void> {
  await page.getByRole('button', { name: 'Choose a picture' }).click();
  await page.getByRole('dialog').getByLabel('Bring in').setInputFiles(`demo/media/${file}`);
  await expect(page.getByRole('dialog')).toBeHidden({ timeout: 40_000 });
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

test('from dropped clips to the published video', async ({ page }) => {
  test.setTimeout(240_000);
  page.setDefaultTimeout(30_000);
  const folder = mkdtempSync(join(tmpdir(), 'confetti-video-'));
  await comeInAs(page, 'Wren');
  await page.goto('/b/gullwick/make/pieces?new');
  await page.getByRole('button', { name: /^Gust/ }).click();
  await page.waitForURL(/make\/pieces\/[\w-]+$/);

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
    await expect(page.getByRole('complementary', { name: 'Preflight' })).toContainText('The voice lasts 15.6 seconds longer than the video and is cut off.');
    await expectSaved(page);
  });

  await test.step('it plays in step, is scrubbed by keys, and a shot is undone', async () => {
    await page.getByLabel('Moment').focus();
    await page.keyboard.press('Home');
    await page.getByRole('button', { name: 'Play' }).click();
    await expect.poll(() => frame(page)).toBeGreaterThan(20);
    await page.getByRole('button', { name: 'Pause' }).click();
    const at = await frame(page);
    await page.getByLabel('Moment').focus();
    await page.keyboard.press('ArrowRight');
    expect(await frame(page)).toBe(at + 1);
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await expect(shots(page)).toHaveCount(4);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(shots(page)).toHaveCount(3);
    await expectSaved(page);
  });

  await test.step('what is seen is what the file shows', async () => {
    await page.getByRole('button', { name: 'Download' }).click();
    await page.getByRole('button', { name: 'Make the video' }).click();
    const made = page.getByRole('list', { name: 'Videos' }).getByRole('listitem').first();
    await expect(made).toHaveAttribute('data-film', 'made', { timeout: 120_000 });
    const [download] = await Promise.all([page.waitForEvent('download'), made.getByRole('link', { name: 'Save MP4' }).click()]);
    const film = join(folder, 'film.mp4');
    await download.saveAs(film);
    expect(download.suggestedFilename()).toMatch(/^seen-from-all-sides-petalry-feed-square-1080x1080/);
    const { streams, format } = JSON.parse(execFileSync('ffprobe', ['-loglevel', 'error', '-show_streams', '-show_format', '-of', 'json', film]).toString()) as { streams: Record<string, unknown>[]; format: { duration: string } };
    expect(streams).toMatchObject([{ codec_name: 'h264', profile: 'High', width: 1080, height: 1080, pix_fmt: 'yuv420p', avg_frame_rate: '30/1', color_space: 'bt709' }, { codec_name: 'aac', channels: 2, sample_rate: '48000' }]);
    expect(Math.abs(Number(format.duration) - 6.2)).toBeLessThan(0.1);
    await page.keyboard.press('Escape');
    const canvas = page.locator('ul canvas').first();
    for (const at of [9, 50, 76, 110, 170]) {
      await page.getByLabel('Moment').fill(String(at));
      await expect(canvas).toHaveAttribute('data-settled', 'true');
      await page.waitForTimeout(700);
      const seen = join(folder, `seen-${at}.png`);
      writeFileSync(seen, Buffer.from((await canvas.evaluate((each: HTMLCanvasElement) => each.toDataURL('image/png'))).split(',')[1] ?? '', 'base64'));
      const { width, height } = await canvas.evaluate(({ width: w, height: h }: HTMLCanvasElement) => ({ width: w, height: h }));
      const exported = join(folder, `exported-${at}.png`);
      execFileSync('ffmpeg', ['-loglevel', 'error', '-y', '-i', film, '-vf', `select='eq(n,${at})',scale=${width}:${height}:flags=area`, '-frames:v', '1', exported]);
      expect(likeness(seen, exported), `frame ${at}`).toBeGreaterThanOrEqual(0.97);
    }
  });

  await test.step('it goes out, and plays on the public page', async () => {
    await page.getByRole('tab', { name: 'Words' }).click();
    await page.getByLabel('Shared caption').fill('Eight panels, four spars.');
    await page.getByLabel('Shared alt text').fill('A box kite turns on its stand; line runs off a reel.');
    await expectSaved(page);
    await page.getByRole('tab', { name: 'Times' }).click();
    for (const name of [/Petalry.*story/, /Quipline/, /Hearthside.*page/, /Hearthside.*story/, /Guildrow/, /Tackboard/]) await page.getByRole('group', { name }).getByText('leave out').click();
    await page.getByRole('button', { name: 'Send now', exact: true }).first().click();
    await expect(page.locator('[data-delivery][data-state="sent"]')).toHaveCount(1, { timeout: 120_000 });
    const address = (await page.locator('[data-delivery] a[target="_blank"]').first().getAttribute('href')) ?? '';
    await page.goto(address);
    await expect(page.locator('video[data-seconds="6.2"]')).toHaveAttribute('aria-label', 'A box kite turns on its stand; line runs off a reel.');
    expect(await page.locator('video').evaluate((video: HTMLVideoElement) => new Promise<boolean>((resolve) => { video.addEventListener('playing', () => resolve(true)); video.addEventListener('error', () => resolve(false)); video.muted = true; void video.play(); }))).toBe(true);
  });
  rmSync(folder, { recursive: true });
});
