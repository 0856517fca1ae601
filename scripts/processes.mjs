// Child processes that start together and stop together.
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';
import { projectRoot, stopWith } from './setup.mjs';

const children = new Set();
let stopping = false;

/** Starts a program of ours; when it ends without being asked to, everything ends. */
export function startChild(name, command, args, environment = {}, { quiet = false } = {}) {
  const child = spawn(command, args, { cwd: projectRoot, env: { ...process.env, ...environment }, stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'] });
  children.add(child);
  child.once('exit', (code, signal) => {
    children.delete(child);
    if (stopping) return;
    process.stderr.write(`\n${name} has ended (${signal ?? code}).\n`);
    void stopAll(1);
  });
  return child;
}

/** Asks every child to end, waits for it, and ends this program. */
export async function stopAll(code = 0) {
  if (stopping) return;
  stopping = true;
  for (const child of children) child.kill('SIGTERM');
  const giveUp = Date.now() + 8_000;
  while (children.size > 0 && Date.now() < giveUp) await sleep(50);
  for (const child of children) child.kill('SIGKILL');
  process.exit(code);
}

/** Ctrl-C and a polite kill stop everything cleanly. */
export function stopOnSignals() {
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stopAll(0));
}

/** Ends with a clear sentence where a port is taken. */
export async function requireFreePort(port) {
  await new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => stopWith(`Port ${port} is in use. Choose another with --port.`));
    probe.listen(port, '127.0.0.1', () => probe.close(resolve));
  });
}

/** Waits until an address answers at all. */
export async function waitFor(address, seconds = 150) {
  for (const end = Date.now() + seconds * 1000; Date.now() < end; ) {
    try {
      await fetch(address, { redirect: 'manual', signal: AbortSignal.timeout(2_000) });
      return;
    } catch {
      await sleep(150);
    }
  }
  stopWith(`${address} did not come up within ${seconds} seconds.`);
}

/** Runs a program of ours to its end and answers what it printed. */
export function runToEnd(command, args, environment = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: projectRoot, env: { ...process.env, ...environment }, stdio: ['ignore', 'pipe', 'inherit'] });
    let printed = '';
    child.stdout.on('data', (chunk) => (printed += chunk));
    child.once('exit', (code) => (code === 0 ? resolve(printed) : reject(new Error(`${args.join(' ')} ended with ${code}`))));
  });
}

/** Values of `--name value` and `--name` on the command line. */
export function readOptions(allowed) {
  const options = {};
  const args = process.argv.slice(2);
  while (args.length > 0) {
    const name = args.shift();
    const kind = allowed[name?.replace(/^--/, '')];
    if (!name?.startsWith('--') || kind === undefined) stopWith(`Unknown option ${name}. There are: ${Object.keys(allowed).map((each) => `--${each}`).join(', ')}.`);
    const key = name.slice(2);
    if (kind === 'flag') options[key] = true;
    else {
      const value = args.shift();
      if (value === undefined || (kind === 'number' && !/^\d+$/.test(value))) stopWith(`--${key} needs a ${kind}.`);
      options[key] = kind === 'number' ? Number(value) : value;
    }
  }
  return options;
}
