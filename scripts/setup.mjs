// Brings a fresh machine and a fresh clone to where Confetti can run. Uses nothing but Node itself.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const projectRoot = dirname(dirname(fileURLToPath(import.meta.url)));

/** What running needs from Debian, as [program, package]. */
export const runPackages = [
  ['ffmpeg', 'ffmpeg'],
  ['g++', 'g++'],
  ['make', 'make'],
  ['python3', 'python3'],
];
/** What the tests need on top. */
export const testPackages = [
  ['chromium', 'chromium'],
  ['pg_createcluster', 'postgresql'],
  ['pdftoppm', 'poppler-utils'],
];

/** Ends the program with a sentence for the person. */
export function stopWith(sentence) {
  process.stderr.write(`\n${sentence}\n`);
  process.exit(1);
}

function hasProgram(name) {
  return spawnSync('sh', ['-c', `command -v ${name}`], { stdio: 'ignore' }).status === 0;
}

/** Installs Debian's packages whose programs are missing; says clearly when that is not allowed or not possible. */
export function ensurePrograms(wanted) {
  const missing = wanted.filter(([program]) => !hasProgram(program)).map(([, name]) => name);
  if (missing.length === 0) return;
  const command = `apt-get install -y ${missing.join(' ')}`;
  if (!hasProgram('apt-get')) stopWith(`Confetti needs ${missing.join(', ')}, and this machine has no apt-get to install them with. Install them and start again.`);
  const asRoot = process.getuid?.() === 0 ? [] : hasProgram('sudo') && spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0 ? ['sudo', '-n'] : null;
  if (asRoot === null) stopWith(`Confetti needs ${missing.join(', ')} and may not install them as this user. Run this once as root, then start again:\n\n  ${command}`);
  process.stdout.write(`Installing ${missing.join(', ')} (Debian packages)…\n`);
  const run = (args) => spawnSync([...asRoot, 'apt-get', ...args][0], [...asRoot, 'apt-get', ...args].slice(1), { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
  run(['update', '-qq']);
  if (run(['install', '-y', '-qq', '--no-install-recommends', ...missing]).status !== 0) stopWith(`Debian's packages could not be installed. Try it by hand to see why:\n\n  ${command}`);
}

/** Runs `npm ci` when the installed packages are not those of the lock file. */
export function ensureNodeModules() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) stopWith(`Confetti needs Node.js 20.19 or later; this is ${process.versions.node}.`);
  const installed = join(projectRoot, 'node_modules', '.package-lock.json');
  if (existsSync(installed) && isSameLock(installed)) return;
  process.stdout.write('Installing npm packages (about three minutes the first time)…\n');
  const prefix = dirname(dirname(process.execPath));
  // Native packages are compiled; without Node's own headers they would be fetched from afar.
  const headers = existsSync(join(prefix, 'include', 'node')) ? { npm_config_nodedir: prefix } : {};
  try {
    execFileSync('npm', ['ci', '--no-audit', '--no-fund'], { cwd: projectRoot, stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, ...headers } });
  } catch {
    stopWith('npm ci did not succeed; what it said stands above.');
  }
}

function isSameLock(installed) {
  const versions = (path) =>
    Object.entries(JSON.parse(readFileSync(path, 'utf8')).packages)
      .filter(([name, entry]) => name !== '' && !entry.optional && !entry.peer)
      .map(([name, entry]) => `${name}@${entry.version}`);
  const present = new Set(versions(installed));
  return versions(join(projectRoot, 'package-lock.json')).every((each) => present.has(each));
}
