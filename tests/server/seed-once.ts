import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { lock } from 'proper-lockfile';
import { runDueJobs } from '../../src/server/jobs/job-runner.ts';
import { findBrandById } from '../../src/server/db/brand-repository.ts';
import { findPiece } from '../../src/server/db/piece-repository.ts';
import { requestDerived } from '../../src/server/derived/derived-file.ts';
import { pieceThumbnail } from '../../src/server/derived/piece-thumbnail.ts';
import { closeServices, openServices } from '../../src/server/services.ts';
import { readSettings } from '../../src/server/settings.ts';
import { workHandlers } from '../../src/server/worker/handlers.ts';
import { startStandin } from '../../standin/start.ts';

/** Where the seeded data folder lies that every stack begins with a copy of. */
export const SEED_FOLDER = join('.cache', 'test-seed');

/** How long another run of tests may take to build and to seed, in tries of half a second. */
const WAIT_FOR_OTHERS = { retries: 600, factor: 1, minTimeout: 500, maxTimeout: 500 };

/** Builds the programs and seeds the demo's brands once; both are no-ops when nothing has changed. Runs that begin together wait for the first. */
export default async function setup(): Promise<void> {
  mkdirSync('.cache', { recursive: true });
  const unlock = await lock('.cache', { retries: WAIT_FOR_OTHERS });
  try {
    await run('The programs could not be built', 'scripts/build.mjs');
    await seedOnce(readFileSync(join('dist', '.built-from'), 'utf8'));
  } finally {
    await unlock();
  }
}

async function seedOnce(stamp: string): Promise<void> {
  const stampFile = join(SEED_FOLDER, '.seeded-from');
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp) return;
  const folder = mkdtempSync(join('.cache', 'seeding-'));
  const standin = await startStandin({ dataFolder: join(folder, 'standin'), port: 0, slowMs: 0 });
  const environment = { CONFETTI_DATA: folder, CONFETTI_DEMO: '1', CONFETTI_STANDIN: standin.origin, CONFETTI_DEMO_VIDEOS: 'drafts', CONFETTI_LOG: 'silent', NODE_ENV: 'production' };
  try {
    await run('The demo could not be seeded', 'dist/seed-demo.mjs', environment);
    await finishWork(environment);
  } finally {
    await standin.close();
  }
  writeFileSync(join(folder, '.seeded-from'), stamp);
  rmSync(SEED_FOLDER, { recursive: true, force: true });
  renameSync(folder, SEED_FOLDER);
}

/** What each of many copies would send, and paint as soon as a view shows it. */
async function finishWork(environment: NodeJS.ProcessEnv): Promise<void> {
  const services = await openServices(readSettings(environment), 2);
  try {
    const handlers = workHandlers(services);
    await runDueJobs(services, handlers, ['send']);
    for (const { id, brand_id } of await services.db<{ id: string; brand_id: string }>('pieces').select('id', 'brand_id')) {
      const [brand, piece] = await Promise.all([findBrandById(services.db, brand_id), findPiece(services.db, brand_id, id)]);
      if (brand && piece) await requestDerived(services, (await pieceThumbnail(services, brand, piece)).job);
    }
    await Promise.all([1, 2].map(() => runDueJobs(services, handlers, ['picture'])));
  } finally {
    await closeServices(services);
  }
}

async function run(problem: string, program: string, environment: Readonly<Record<string, string>> = {}): Promise<void> {
  const child = spawn(process.execPath, [program], { env: { ...process.env, ...environment }, stdio: ['ignore', 'inherit', 'inherit'] });
  const ended = await new Promise<number | NodeJS.Signals | null>((resolve) => child.once('exit', (code, signal) => resolve(code ?? signal)));
  if (ended !== 0) throw new Error(`${problem}: ${program} ended with ${String(ended)}`);
}
