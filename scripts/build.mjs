// Builds everything that runs: the web server by Astro, the other programs by esbuild.
import { createHash } from 'node:crypto';
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { pathToFileURL } from 'node:url';
import { withBuildLock } from './build-lock.mjs';
import { ensureNodeModules, projectRoot } from './setup.mjs';

/** Programs beside what Astro builds: name in dist, and where each starts. */
export const programs = {
  web: 'src/server/web/main.ts',
  worker: 'src/server/worker/main.ts',
  'read-worker': 'src/server/readers/read-worker.ts',
  'word-worker': 'src/server/words/word-task.ts',
  'render-worker': 'src/server/render/render-worker.ts',
  backup: 'src/server/backup/main.ts',
  person: 'src/server/auth/add-person.ts',
  standin: 'standin/main.ts',
  'seed-demo': 'demo/seed.ts',
  'make-emoji': 'src/server/render/make-emoji.ts',
};

const sources = ['src', 'standin', 'demo', 'public', 'astro.config.mjs', 'package-lock.json', 'tsconfig.json', 'scripts/build.mjs'];
const stampPath = join(projectRoot, 'dist', '.built-from');

/** A hash over names, sizes and times of all sources: cheap to take, changes when anything does. */
function sourceStamp() {
  const hash = createHash('sha256');
  const visit = (path) => {
    const info = statSync(path);
    if (info.isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else hash.update(`${relative(projectRoot, path)}:${info.size}:${info.mtimeMs}\n`);
  };
  for (const source of sources) if (existsSync(join(projectRoot, source))) visit(join(projectRoot, source));
  return hash.digest('hex');
}

export function esbuildOptions() {
  return {
    absWorkingDir: projectRoot,
    entryPoints: Object.fromEntries(Object.entries(programs)),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    // What is imported when it is needed stays out of what a program begins with.
    splitting: true,
    chunkNames: 'chunks/[name]-[hash]',
    outdir: 'dist',
    outExtension: { '.js': '.mjs' },
    sourcemap: 'linked',
    logLevel: 'warning',
  };
}

/** A test runner's own variables (MODE, DEV …) would be taken for the build's and turn its checks for a dev server around. */
function buildEnvironment() {
  const foreign = new Set(['MODE', 'DEV', 'PROD', 'SSR', 'BASE_URL', 'VITEST', 'TEST']);
  return { ...Object.fromEntries(Object.entries(process.env).filter(([name]) => !foreign.has(name))), NODE_ENV: 'production', ASTRO_TELEMETRY_DISABLED: '1' };
}

/** Builds if anything has changed since the last time. */
export function build() {
  return withBuildLock(buildIfChanged);
}

async function buildIfChanged() {
  const stamp = sourceStamp();
  if (existsSync(stampPath) && readFileSync(stampPath, 'utf8') === stamp) return;
  process.stdout.write('Building…\n');
  execFileSync(join(projectRoot, 'node_modules/.bin/astro'), ['build', '--silent'], { cwd: projectRoot, stdio: ['ignore', 'ignore', 'inherit'], env: buildEnvironment() });
  // Chunks are called after what is in them: those of the build before would stay for ever.
  rmSync(join(projectRoot, 'dist', 'chunks'), { recursive: true, force: true });
  const esbuild = await import('esbuild');
  await esbuild.build(esbuildOptions());
  mkdirSync(join(projectRoot, 'dist'), { recursive: true });
  execFileSync(process.execPath, ['dist/make-emoji.mjs'], { cwd: projectRoot, stdio: 'inherit' });
  writeFileSync(stampPath, stamp);
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  ensureNodeModules();
  await build();
}
