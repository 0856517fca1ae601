import { mkdtempSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { runDueJobs } from '../../src/server/jobs/job-runner.ts';
import { findBrandById } from '../../src/server/db/brand-repository.ts';
import { findPiece } from '../../src/server/db/piece-repository.ts';
import { requestDerived } from '../../src/server/derived/derived-file.ts';
import { pieceThumbnail } from '../../src/server/derived/piece-thumbnail.ts';
import { closeServices, openServices } from '../../src/server/services.ts';
import { readSettings } from '../../src/server/settings.ts';
import { workHandlers } from '../../src/server/worker/handlers.ts';
import { startStandin } from '../../standin/start.ts';
import { runToEnd } from '../fixtures/programs.ts';
import { SEED_FOLDER, SEED_STAMP } from '../fixtures/seed-folder.ts';

/** Seeds the demo's brands into the folder that tests copy, and finishes the work that the seed leaves. */
export async function seedDemoData(stamp: string): Promise<void> {
  const folder = mkdtempSync(join('.cache', 'seeding-'));
  const standin = await startStandin({ dataFolder: join(folder, 'standin'), port: 0, slowMs: 0 });
  const environment = { CONFETTI_DATA: folder, CONFETTI_DEMO: '1', CONFETTI_STANDIN: standin.origin, CONFETTI_DEMO_VIDEOS: 'drafts', CONFETTI_LOG: 'silent', NODE_ENV: 'production' };
  try {
    await runToEnd('The demo could not be seeded', 'dist/seed-demo.mjs', environment);
    await finishWork(environment);
  } finally {
    await standin.close();
  }
  writeFileSync(join(folder, SEED_STAMP), stamp);
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
