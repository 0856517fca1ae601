import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { lock } from 'proper-lockfile';
import { runToEnd } from '../fixtures/programs.ts';
import { SEED_FOLDER, SEED_STAMP } from '../fixtures/seed-folder.ts';

/** How long another run of tests may take to build and to seed, in tries of half a second. */
const WAIT_FOR_OTHERS = { retries: 600, factor: 1, minTimeout: 500, maxTimeout: 500 };

/** Builds the programs and seeds the demo's brands once; both are no-ops when nothing has changed. Runs that begin together wait for the first. */
export default async function setup(): Promise<void> {
  mkdirSync('.cache', { recursive: true });
  const unlock = await lock('.cache', { retries: WAIT_FOR_OTHERS });
  try {
    await runToEnd('The programs could not be built', 'scripts/build.mjs');
    const stamp = readFileSync(join('dist', '.built-from'), 'utf8');
    const seededFrom = join(SEED_FOLDER, SEED_STAMP);
    if (existsSync(seededFrom) && readFileSync(seededFrom, 'utf8') === stamp) return;
    // Loads the whole server, which takes longer than all of the above when there is nothing to do.
    const { seedDemoData } = await import('./seed-demo-data.ts');
    await seedDemoData(stamp);
  } finally {
    await unlock();
  }
}
