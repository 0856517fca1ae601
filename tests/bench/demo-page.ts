import { spawn } from 'node:child_process';
import { once } from 'node:events';
import type { Page } from '@playwright/test';
import { withPage } from './bench-server.ts';

const PORT = 4480;
/** Where the demo of a measurement keeps its data. */
export const DEMO_FOLDER = '.data/bench';

/** Does something in the real program with fresh demo data, signed in, in headless Chromium. */
export async function withDemo<Result>(work: (page: Page) => Promise<Result>): Promise<Result> {
  const demo = spawn(process.execPath, ['scripts/demo.mjs', '--port', String(PORT), '--data', DEMO_FOLDER, '--fresh', '--draft-videos'], { stdio: ['ignore', 'pipe', 'inherit'] });
  try {
    await new Promise<void>((resolve, reject) => {
      demo.stdout.on('data', (chunk: Buffer) => chunk.toString().includes('Confetti is at') && resolve());
      demo.once('exit', () => reject(new Error('The demo ended before it was up')));
    });
    return await withPage(`http://127.0.0.1:${PORT}`, work);
  } finally {
    demo.kill('SIGTERM');
    await once(demo, 'exit');
  }
}

const STILL_FRAMES = 40;

/** Waits until every picture is there and nothing has been painted for two thirds of a second of frames. */
export async function untilStill(page: Page): Promise<void> {
  await page.waitForFunction(() => document.querySelector('canvas[data-settled="false"]') === null);
  await page.evaluate(
    (frames) =>
      new Promise<void>((resolve) => {
        let [painted, same] = [-1, 0];
        const look = (): void => {
          const now = performance.getEntriesByName('wall', 'measure').length;
          same = now === painted ? same + 1 : 0;
          painted = now;
          if (same >= frames) resolve();
          else requestAnimationFrame(look);
        };
        look();
      }),
    STILL_FRAMES,
  );
}
