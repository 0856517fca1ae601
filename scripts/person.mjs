// Adds a person (and, with --brand, a first brand) to a running or stopped Confetti: npm run person -- --email … --name … --brand …
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { projectRoot, stopWith } from './setup.mjs';

if (!existsSync(join(projectRoot, 'dist', 'person.mjs'))) stopWith('There is no build yet. Run: npm ci && npm run build');
process.exit(spawnSync(process.execPath, ['dist/person.mjs', ...process.argv.slice(2)], { cwd: projectRoot, stdio: 'inherit' }).status ?? 1);
