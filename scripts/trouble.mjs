// Two people work while the machine is in trouble: npm run trouble [-- --minutes 5 --seed 1]. As root, disk trouble is among it.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './build.mjs';
import { ensureNodeModules, ensurePrograms, projectRoot, runPackages } from './setup.mjs';

ensurePrograms(runPackages);
ensureNodeModules();
await build();
const esbuild = await import('esbuild');
await esbuild.build({ absWorkingDir: projectRoot, entryPoints: { trouble: 'tests/trouble/trouble.ts' }, bundle: true, platform: 'node', format: 'esm', target: 'node20', packages: 'external', outdir: 'dist', outExtension: { '.js': '.mjs' }, logLevel: 'warning' });
process.exit(spawnSync(process.execPath, [join('dist', 'trouble.mjs'), ...process.argv.slice(2)], { cwd: projectRoot, stdio: 'inherit' }).status ?? 1);
