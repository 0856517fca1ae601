// Takes one picture of each main view, at 1280 x 800, from fresh demo data, into docs/screenshots.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './build.mjs';
import { requireFreePort, startChild, stopAll, stopOnSignals, waitFor } from './processes.mjs';
import { ensureNodeModules, ensurePrograms, projectRoot, runPackages, testPackages } from './setup.mjs';

const PORT = 4490;
ensurePrograms([...runPackages, ...testPackages]);
ensureNodeModules();
await build();
await requireFreePort(PORT);
stopOnSignals();
startChild('The demo', process.execPath, ['scripts/demo.mjs', '--port', String(PORT), '--data', join('.data', 'screenshots'), '--fresh', '--draft-videos'], {}, { quiet: true });
const origin = `http://127.0.0.1:${PORT}`;
await waitFor(`${origin}/sign-in`, 900);

const { chromium } = await import('@playwright/test');
const folder = join(projectRoot, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-background-networking'] });
const settled = async (page) => {
  await page.waitForTimeout(1_500);
  // Small pictures are made when they are first looked at; those further down wait until they are.
  await page.waitForFunction(() => [...document.images].every((image) => (image.complete && image.naturalWidth > 0) || image.getBoundingClientRect().top > innerHeight) && [...document.querySelectorAll('video')].every((video) => video.readyState > 0), undefined, { timeout: 60_000 });
  await page.waitForFunction(() => [...document.querySelectorAll('canvas[data-cut]')].every((canvas) => canvas.getBoundingClientRect().top > innerHeight || canvas.dataset.painted !== undefined));
  await page.waitForFunction(() => document.querySelector('canvas[data-settled="false"]') === null);
};

async function open(theme) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: theme });
  await page.goto(`${origin}/sign-in`);
  await page.locator('astro-island:not([ssr])').first().waitFor();
  return page;
}
async function comeIn(page) {
  await page.getByRole('button', { name: /Wren/ }).first().click();
  await page.waitForURL(/\/today/);
}
async function shoot(page, name) {
  await settled(page);
  await page.screenshot({ path: join(folder, `${name}.png`) });
  process.stdout.write(`${name}.png\n`);
}
const piece = async (page, name, sheet) => {
  await page.goto(`${origin}/b/gullwick/make/pieces`);
  await page.locator('a[href*="/make/pieces/"]').filter({ hasText: name }).first().click();
  if (sheet) await page.getByRole('tab', { name: sheet }).click();
};

const light = await open('light');
await comeIn(light);
await light.goto(`${origin}/b/gullwick/make/pieces?new`);
await shoot(light, 'pieces');
await light.goto(`${origin}/b/gullwick/brand/book`);
await shoot(light, 'brand-book');
await light.goto(`${origin}/b/gullwick/brand/templates`);
await shoot(light, 'templates');
await light.locator('[data-template="counter"]').getByRole('button', { name: 'Duplicate' }).click();
await light.waitForURL(/templates\/counter-copy/);
await light.getByRole('list', { name: 'Parts of this arrangement' }).getByRole('button', { name: /^Name/ }).click();
await shoot(light, 'workshop');
await light.goto(`${origin}/b/gullwick/make/media`);
await light.locator('main [role="listitem"] button').nth(1).click();
await shoot(light, 'media');
await piece(light, 'Build your own kite');
await shoot(light, 'piece-look');
await piece(light, 'Five winds');
await light.getByRole('option', { name: /Light breeze|light breeze/ }).click();
await shoot(light, 'carousel');
await light.goto(`${origin}/b/gullwick/make/pieces`);
await light.locator('a[href*="/make/pieces/"]').filter({ hasText: 'Build your own kite' }).last().click();
await light.locator('canvas[data-settled="true"]').first().waitFor();
await shoot(light, 'video');
await piece(light, 'Build your own kite', 'Words');
await shoot(light, 'piece-words');
await piece(light, 'Build your own kite', 'Times');
await shoot(light, 'piece-times');
await light.goto(`${origin}/b/gullwick/today`);
await shoot(light, 'today');
await light.goto(`${origin}/b/gullwick/plan/lanes`);
await shoot(light, 'plan-lanes');
await light.goto(`${origin}/b/gullwick/plan/rota`);
await shoot(light, 'plan-rota');
await light.goto(`${origin}/b/gullwick/send/sign-off`);
await light.locator('[data-review]').filter({ hasText: 'Build your own kite' }).click();
await light.getByRole('button', { name: 'Approve', exact: true }).waitFor();
await shoot(light, 'sign-off');
await light.goto(`${origin}/b/gullwick/send/channels`);
await light.locator('[data-channel]').first().waitFor();
await shoot(light, 'channels');
await light.goto(`${origin}/b/gullwick/learn/results?show=posts`);
await light.getByRole('table', { name: 'Posts' }).getByRole('row').nth(1).getByRole('button').first().click();
await light.getByRole('heading', { name: 'What was different' }).waitFor();
await shoot(light, 'results');
await light.goto(`${origin}/b/gullwick/learn/replies?kind=comment`);
await light.getByRole('list', { name: 'What was said' }).waitFor();
await shoot(light, 'replies');
await light.goto(`${origin}/b/gullwick/make/ideas`);
await shoot(light, 'ideas');

const dark = await open('dark');
await comeIn(dark);
await dark.goto(`${origin}/b/gullwick/send/outbox`);
await shoot(dark, 'outbox-dark');
await browser.close();
await stopAll(0);
