// Paints every content in every template, placement and brand, and measures the pixels. Templates can be named.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './build.mjs';
import { ensureNodeModules, ensurePrograms, projectRoot, runPackages } from './setup.mjs';

ensurePrograms(runPackages);
ensureNodeModules();
await build();
const esbuild = await import('esbuild');
await esbuild.build({ absWorkingDir: projectRoot, entryPoints: { corpus: 'tests/corpus/corpus.ts' }, bundle: true, platform: 'node', format: 'esm', target: 'node20', packages: 'external', outdir: 'dist', outExtension: { '.js': '.mjs' }, logLevel: 'warning' });
process.exit(spawnSync(process.execPath, [join('dist', 'corpus.mjs'), ...process.argv.slice(2)], { cwd: projectRoot, stdio: 'inherit' }).status ?? 1);
