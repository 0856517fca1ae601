// Measures the figures of docs/figures.md, each as a ratio or a percentile within this one run.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './build.mjs';
import { ensureNodeModules, ensurePrograms, projectRoot, runPackages, testPackages } from './setup.mjs';

ensurePrograms([...runPackages, ...testPackages]);
ensureNodeModules();
await build();
const esbuild = await import('esbuild');
await esbuild.build({ absWorkingDir: projectRoot, entryPoints: { bench: 'tests/bench/bench.ts' }, bundle: true, platform: 'node', format: 'esm', target: 'node20', packages: 'external', outdir: 'dist', outExtension: { '.js': '.mjs' }, logLevel: 'warning' });
process.exit(spawnSync(process.execPath, [join('dist', 'bench.mjs'), ...process.argv.slice(2)], { cwd: projectRoot, stdio: 'inherit' }).status ?? 1);
