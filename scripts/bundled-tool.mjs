import { spawnSync } from 'node:child_process';
import { basename, join } from 'node:path';
import { build } from './build.mjs';
import { ensureNodeModules, ensurePrograms, projectRoot } from './setup.mjs';

/**
 * Builds the product and a tool that works on its parts, and runs the tool with the arguments of this command.
 * @param entry source of the tool, from the root of the project
 * @param packages Debian's packages that it needs
 */
export async function runTool(entry, packages) {
  ensurePrograms(packages);
  ensureNodeModules();
  await build();
  const esbuild = await import('esbuild');
  const name = basename(entry, '.ts');
  await esbuild.build({ absWorkingDir: projectRoot, entryPoints: { [name]: entry }, bundle: true, platform: 'node', format: 'esm', target: 'node20', packages: 'external', outdir: 'dist', outExtension: { '.js': '.mjs' }, logLevel: 'warning' });
  process.exit(spawnSync(process.execPath, [join('dist', `${name}.mjs`), ...process.argv.slice(2)], { cwd: projectRoot, stdio: 'inherit' }).status ?? 1);
}
