// Copies the data folder while Confetti runs, or puts such a copy back: npm run backup -- FOLDER, npm run restore -- FOLDER
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { projectRoot, stopWith } from './setup.mjs';

if (!existsSync(join(projectRoot, 'dist', 'backup.mjs'))) stopWith('There is no build yet. Run: npm ci && npm run build');
process.exit(spawnSync(process.execPath, [join(projectRoot, 'dist', 'backup.mjs'), ...process.argv.slice(2)], { stdio: 'inherit' }).status ?? 1);
