// Sends deliveries while everything goes wrong: npm run faults [-- --deliveries 2000 --seed 1 --calm]. As root, a full disk is among it.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './build.mjs';
import { ensureNodeModules, ensurePrograms, projectRoot, runPackages } from './setup.mjs';

ensurePrograms(runPackages);
ensureNodeModules();
await build();
const esbuild = await import('esbuild');
await esbuild.build({ absWorkingDir: projectRoot, entryPoints: { faults: 'tests/trouble/faults.ts' }, bundle: true, platform: 'node', format: 'esm', target: 'node20', packages: 'external', outdir: 'dist', outExtension: { '.js': '.mjs' }, logLevel: 'warning' });
process.exit(spawnSync(process.execPath, [join('dist', 'faults.mjs'), ...process.argv.slice(2)], { cwd: projectRoot, stdio: 'inherit' }).status ?? 1);
