// One build at a time: two in one folder would take each other's files away.
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { projectRoot } from './setup.mjs';

const LOCK = join(projectRoot, '.building');
const LOOK_AGAIN_MS = 500;

/** Whether the program that holds the lock still runs: one that was killed leaves its file behind. */
function isHeld(lockPath) {
  try {
    process.kill(Number(readFileSync(lockPath, 'utf8')), 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

function take(lockPath) {
  try {
    writeFileSync(lockPath, String(process.pid), { flag: 'wx' });
    return true;
  } catch (error) {
    if (error.code !== 'EEXIST') throw error;
    if (!isHeld(lockPath)) rmSync(lockPath, { force: true });
    return false;
  }
}

/** Runs a build once no other one is under way. */
export async function withBuildLock(build, lockPath = LOCK) {
  for (let turn = 0; !take(lockPath); turn += 1) {
    if (turn === 1) process.stdout.write('Another build is under way in this folder; waiting for it…\n');
    await setTimeout(LOOK_AGAIN_MS);
  }
  try {
    return await build();
  } finally {
    rmSync(lockPath, { force: true });
  }
}
