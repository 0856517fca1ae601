import { execFileSync, spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { startStandin } from '../../standin/start.ts';

/** Where the seeded data folder lies that every stack begins with a copy of. */
export const SEED_FOLDER = join('.cache', 'test-seed');

/** Builds the programs and seeds the demo's brands once; both are no-ops when nothing has changed. */
export default async function setup(): Promise<void> {
  execFileSync(process.execPath, ['scripts/build.mjs'], { stdio: 'inherit' });
  const stamp = readFileSync(join('dist', '.built-from'), 'utf8');
  const stampFile = join(SEED_FOLDER, '.seeded-from');
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp) return;
  mkdirSync('.cache', { recursive: true });
  const folder = mkdtempSync(join('.cache', 'seeding-'));
  const standin = await startStandin({ dataFolder: join(folder, 'standin'), port: 0, slowMs: 0 });
  try {
    await seed({ CONFETTI_DATA: folder, CONFETTI_DEMO: '1', CONFETTI_STANDIN: standin.origin, CONFETTI_DEMO_VIDEOS: 'drafts', CONFETTI_LOG: 'silent', NODE_ENV: 'production' });
  } finally {
    await standin.close();
  }
  writeFileSync(join(folder, '.seeded-from'), stamp);
  rmSync(SEED_FOLDER, { recursive: true, force: true });
  renameSync(folder, SEED_FOLDER);
}

async function seed(environment: Readonly<Record<string, string>>): Promise<void> {
  const child = spawn(process.execPath, ['dist/seed-demo.mjs'], { env: { ...process.env, ...environment }, stdio: ['ignore', 'ignore', 'inherit'] });
  const code = await new Promise((resolve) => child.once('exit', resolve));
  if (code !== 0) throw new Error('The demo could not be seeded');
}
