// For developing: Astro's dev server, and the other programs rebuilt on change. Data stays in .data/dev.
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { esbuildOptions } from './build.mjs';
import { readOptions, requireFreePort, runToEnd, startChild, stopOnSignals, waitFor } from './processes.mjs';
import { ensureNodeModules, ensurePrograms, projectRoot, runPackages } from './setup.mjs';

const { port = 4321 } = readOptions({ port: 'number' });
ensurePrograms(runPackages);
ensureNodeModules();
await requireFreePort(port);
const data = join(projectRoot, '.data', 'dev');
const standinPort = port + 1;
const standinOrigin = `http://127.0.0.1:${standinPort}`;
const environment = { CONFETTI_DATA: data, CONFETTI_DEMO: '1', CONFETTI_STANDIN: standinOrigin, ASTRO_TELEMETRY_DISABLED: '1' };
const esbuild = await import('esbuild');
const context = await esbuild.context(esbuildOptions());
await context.rebuild();
await context.watch();
await runToEnd(process.execPath, ['dist/make-emoji.mjs'], environment);
stopOnSignals();
startChild('The stand-in networks', process.execPath, ['--watch', 'dist/standin.mjs'], { STANDIN_DATA: join(data, 'standin'), STANDIN_PORT: String(standinPort) });
await waitFor(standinOrigin);
if (!existsSync(join(data, 'demo.json'))) await runToEnd(process.execPath, ['dist/seed-demo.mjs'], environment);
startChild('The worker', process.execPath, ['--watch', 'dist/worker.mjs'], environment);
startChild('Confetti', join(projectRoot, 'node_modules/.bin/astro'), ['dev', '--host', '127.0.0.1', '--port', String(port)], environment);
process.stdout.write(`Demo password: ${JSON.parse(readFileSync(join(data, 'demo.json'), 'utf8')).password}\n`);
