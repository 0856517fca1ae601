// Production: the web server and the worker, from a build. Settings are environment variables; see docs/running.md.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { startChild, stopOnSignals } from './processes.mjs';
import { projectRoot, stopWith } from './setup.mjs';

if (!existsSync(join(projectRoot, 'dist', 'web.mjs'))) stopWith('There is no build yet. Run: npm ci && npm run build');
stopOnSignals();
const environment = { NODE_ENV: 'production', HOST: process.env.HOST ?? '127.0.0.1', PORT: process.env.PORT ?? '4321' };
startChild('Confetti', process.execPath, ['dist/web.mjs'], environment);
startChild('The worker', process.execPath, ['dist/worker.mjs'], environment);
