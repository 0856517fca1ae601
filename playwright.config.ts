import { defineConfig } from '@playwright/test';

export const BROWSER_PORT = 4470;

export default defineConfig({
  testDir: 'tests/browser',
  // A busy machine is no failure: what is waited for comes, or it does not.
  timeout: 240_000,
  expect: { timeout: 25_000 },
  workers: 1,
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  outputDir: 'test-results/browser',
  use: {
    baseURL: `http://127.0.0.1:${BROWSER_PORT}`,
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
    },
  },
  webServer: {
    // The very command a person starts the demo with, on data of its own.
    command: `node scripts/demo.mjs --port ${BROWSER_PORT} --data .data/browser-tests --fresh --draft-videos`,
    url: `http://127.0.0.1:${BROWSER_PORT}/sign-in`,
    timeout: 420_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 10_000 },
  },
});
