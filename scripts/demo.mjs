// Everything for the demo, on a fresh clone and a fresh machine: install, build, seed, start.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { build } from './build.mjs';
import { readOptions, requireFreePort, runToEnd, startChild, stopAll, stopOnSignals, waitFor } from './processes.mjs';
import { ensureNodeModules, ensurePrograms, projectRoot, runPackages, stopWith } from './setup.mjs';

const DEFAULT_PORT = 4321;
const options = readOptions({ port: 'number', data: 'folder', fresh: 'flag', 'draft-videos': 'flag' });
const port = options.port ?? DEFAULT_PORT;
const standinPort = port + 1;
const mailPort = port + 2;
const data = resolve(options.data ?? join(projectRoot, '.data', 'demo'));
const demoFile = join(data, 'demo.json');
/** Marks the folder as a demo's before seeding begins, so that --fresh may empty it after a broken start. */
const mark = join(data, '.demo');

ensurePrograms(runPackages);
ensureNodeModules();
await requireFreePort(port);
await requireFreePort(standinPort);
await requireFreePort(mailPort);
await build();
if (options.fresh && existsSync(data)) {
  if (!existsSync(mark) && !existsSync(demoFile)) stopWith(`${data} does not look like a demo's data folder, so it is not emptied. Remove it by hand if it is meant.`);
  rmSync(data, { recursive: true });
}
mkdirSync(data, { recursive: true });
writeFileSync(mark, '');

stopOnSignals();
const standinOrigin = `http://127.0.0.1:${standinPort}`;
const environment = { CONFETTI_DATA: data, CONFETTI_DEMO: '1', CONFETTI_STANDIN: standinOrigin, CONFETTI_HOOKS: `http://127.0.0.1:${port}`, CONFETTI_SMTP: `smtp://127.0.0.1:${mailPort}`, HOST: '127.0.0.1', PORT: String(port), NODE_ENV: 'production', ...(options['draft-videos'] ? { CONFETTI_DEMO_VIDEOS: 'drafts' } : {}), CONFETTI_LOG: process.env.CONFETTI_LOG ?? 'error' };
startChild('The stand-in networks', process.execPath, ['dist/standin.mjs'], { STANDIN_DATA: join(data, 'standin'), STANDIN_PORT: String(standinPort), STANDIN_MAIL_PORT: String(mailPort) }, { quiet: true });
await waitFor(standinOrigin);
if (!existsSync(demoFile)) {
  process.stdout.write('Seeding the demo brands…\n');
  await runToEnd(process.execPath, ['dist/seed-demo.mjs'], environment).catch(async (error) => {
    process.stderr.write(`${error.message}. The demo stops here; start it again with --fresh.\n`);
    await stopAll(1);
  });
}
startChild('Confetti', process.execPath, ['dist/web.mjs'], environment, { quiet: true });
startChild('The worker', process.execPath, ['dist/worker.mjs'], environment);
await waitFor(`http://127.0.0.1:${port}/sign-in`);
const { people, password, token } = JSON.parse(readFileSync(demoFile, 'utf8'));
process.stdout.write(`Confetti is at http://127.0.0.1:${port} · sign in as ${people.join(', ')} (pick one, or use the password “${password}”) · token for scripts, ${token.person}: ${token.secret} · networks at ${standinOrigin}, its mailbox at ${standinOrigin}/mailbox\n`);
