import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { chromium, type Page } from '@playwright/test';

const PORT = 4480;
const KEYSTROKES = 61;
/** A brisk typist; keystrokes do not wait for each other's paint. */
const BETWEEN_MS = 90;
const FRAME_MS = 1000 / 60;

/** Times, in milliseconds, from a keystroke to the moment the last of all fourteen cuts is repainted, in the real program. */
export async function keystrokeTimes(): Promise<readonly number[]> {
  const demo = spawn(process.execPath, ['scripts/demo.mjs', '--port', String(PORT), '--data', '.data/bench', '--fresh'], { stdio: ['ignore', 'pipe', 'inherit'] });
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-background-networking'] });
  try {
    await new Promise<void>((resolve, reject) => {
      demo.stdout.on('data', (chunk: Buffer) => chunk.toString().includes('Confetti is at') && resolve());
      demo.once('exit', () => reject(new Error('The demo ended before it was up')));
    });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await openPiece(page);
    return await measure(page);
  } finally {
    await browser.close();
    demo.kill('SIGTERM');
    await once(demo, 'exit');
  }
}

async function openPiece(page: Page): Promise<void> {
  const origin = `http://127.0.0.1:${PORT}`;
  await page.goto(`${origin}/sign-in`);
  await page.locator('astro-island:not([ssr])').first().waitFor();
  await page.getByRole('button', { name: /Wren/ }).first().click();
  await page.waitForURL(/make\/pieces/);
  await page.locator('a[href*="/make/pieces/"]').filter({ hasText: 'Build your own kite' }).click();
  await page.locator('canvas[data-painted]').nth(13).waitFor();
  await page.waitForTimeout(2_000);
}

async function measure(page: Page): Promise<readonly number[]> {
  await page.getByLabel('Headline').focus();
  await page.keyboard.press('End');
  await page.evaluate(() => performance.clearMeasures('wall'));
  const text = ' and fly it before the tide turns, with all of us on the quay';
  for (let index = 0; index < KEYSTROKES; index += 1) {
    await page.keyboard.type(text[index % text.length] ?? 'x');
    await page.waitForTimeout(BETWEEN_MS);
  }
  return page.evaluate(() => performance.getEntriesByName('wall', 'measure').map((entry) => entry.duration));
}

export const FRAMES_PER_MS = 1 / FRAME_MS;
