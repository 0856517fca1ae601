import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createServer, type AddressInfo } from 'node:net';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';

/** Runs the built programs on a data folder while the work lasts. */
export async function withServer<Result>(dataFolder: string, work: (origin: string) => Promise<Result>, files: readonly string[] = ['web.mjs', 'worker.mjs']): Promise<Result> {
  const probe = createServer().listen(0, '127.0.0.1');
  await once(probe, 'listening');
  const { port } = probe.address() as AddressInfo;
  probe.close();
  await once(probe, 'close');
  const origin = `http://127.0.0.1:${port}`;
  const environment = { ...process.env, CONFETTI_DATA: dataFolder, CONFETTI_DEMO: '1', CONFETTI_LOG: 'error', HOST: '127.0.0.1', PORT: String(port), NODE_ENV: 'production' };
  const programs = files.map((file) => spawn(process.execPath, [join('dist', file)], { env: environment, stdio: ['ignore', 'ignore', 'inherit'] }));
  try {
    for (const end = Date.now() + 30_000; Date.now() < end; ) if (await fetch(`${origin}/sign-in`).then(({ ok }) => ok, () => false)) break;
    return await work(origin);
  } finally {
    for (const program of programs) {
      program.kill('SIGTERM');
      await once(program, 'exit');
    }
  }
}

/** Opens headless Chromium, signs the designer in, and does the work there. */
export async function withPage<Result>(origin: string, work: (page: Page) => Promise<Result>): Promise<Result> {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-background-networking'] });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await page.goto(`${origin}/sign-in`);
    await page.locator('astro-island:not([ssr])').first().waitFor();
    await page.getByRole('button', { name: /Wren/ }).first().click();
    await page.waitForURL(/\/today/);
    return await work(page);
  } finally {
    await browser.close();
  }
}
