import { defineConfig } from '@playwright/test';

/** Files that take longest: begun last, they would leave the other worker with nothing to do. */
const LONG = /(views-plan|views-make|video|bakery|bad-input|journey)\.spec\.ts$/;

export default defineConfig({
  testDir: 'tests/browser',
  globalSetup: './tests/server/seed-once.ts',
  // A busy machine is no failure: what is waited for comes, or it does not.
  timeout: 600_000,
  expect: { timeout: 90_000 },
  // Files side by side, each with programs and data of its own; the tests of a file one after the other.
  workers: 2,
  projects: [
    { name: 'long', testMatch: LONG },
    { name: 'others', testIgnore: LONG },
  ],
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  outputDir: 'test-results/browser',
  use: {
    viewport: { width: 1280, height: 800 },
    // What cannot be pressed within this time never will. A machine shared with others stands still for a minute now and then.
    actionTimeout: 150_000,
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
    },
  },
});
