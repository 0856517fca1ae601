// Child processes that start together and stop together.
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import { projectRoot, stopWith } from './setup.mjs';

const children = new Set();
let stopping = false;

/** First and longest pause before a program is started again, and how long it has to run to count as well. */
const FIRST_PAUSE_MS = 500;
const MAX_PAUSE_MS = 30_000;
const RAN_WELL_MS = 60_000;

/**
 * Starts a program of ours. When it ends without being asked to, it is started again after a pause, and the others go on: a worker
 * that breaks must not take the web server with it.
 */
export function startChild(name, command, args, environment = {}, { quiet = false } = {}) {
  let pauseMs = FIRST_PAUSE_MS;
  const start = () => {
    const startedMs = Date.now();
    const child = spawn(command, args, { cwd: projectRoot, env: { ...process.env, ...environment }, stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'] });
    children.add(child);
    child.once('exit', (code, signal) => {
      children.delete(child);
      if (stopping) return;
      pauseMs = Date.now() - startedMs > RAN_WELL_MS ? FIRST_PAUSE_MS : Math.min(MAX_PAUSE_MS, pauseMs * 2);
      process.stderr.write(`\n${name} has ended (${signal ?? code}). It starts again in ${pauseMs / 1000} s.\n`);
      setTimeout(() => stopping || start(), pauseMs);
    });
  };
  start();
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

/** The options of the command line; ends with a clear sentence where one is unknown or has no value. */
export function readOptions(allowed) {
  const options = Object.fromEntries(Object.entries(allowed).map(([name, kind]) => [name, { type: kind === 'flag' ? 'boolean' : 'string' }]));
  let values;
  try {
    ({ values } = parseArgs({ options, allowPositionals: false }));
  } catch (error) {
    const named = /--([\w-]+)/.exec(error.message)?.[1];
    if (error.code === 'ERR_PARSE_ARGS_INVALID_OPTION_VALUE') stopWith(allowed[named] === 'flag' ? `--${named} takes no value.` : `--${named} needs a ${allowed[named]}.`);
    stopWith(`${error.message.split('. ')[0]}. There are: ${Object.keys(allowed).map((each) => `--${each}`).join(', ')}.`);
  }
  for (const [name, kind] of Object.entries(allowed)) {
    if (kind !== 'number' || values[name] === undefined) continue;
    if (!/^\d+$/.test(values[name])) stopWith(`--${name} needs a number.`);
    values[name] = Number(values[name]);
  }
  return values;
}
