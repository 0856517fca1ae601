import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';

let folder: string;
let lock: string;
let notes: string;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-lock-'));
  [lock, notes] = [join(folder, '.building'), join(folder, 'notes')];
});
afterEach(() => rmSync(folder, { recursive: true }));

/** A program that builds under the lock: it notes when it begins and ends, with some time between. */
const building = (name: string, end = ''): readonly string[] => [
  '--input-type=module',
  '-e',
  `import { appendFileSync } from 'node:fs';
   import { setTimeout } from 'node:timers/promises';
   import { withBuildLock } from './scripts/build-lock.mjs';
   await withBuildLock(async () => {
     appendFileSync(${JSON.stringify(notes)}, '${name} begins\\n');
     await setTimeout(150);
     ${end}
     appendFileSync(${JSON.stringify(notes)}, '${name} ends\\n');
   }, ${JSON.stringify(lock)});`,
];
const noted = (): readonly string[] => readFileSync(notes, 'utf8').trim().split('\n');

describe('builds in one folder', () => {
  it('take turns', async () => {
    const programs = ['a', 'b', 'c'].map((name) => spawn(process.execPath, building(name), { stdio: 'ignore' }));
    const ends = await Promise.all(programs.map((program) => once(program, 'exit')));
    expect(ends.map(([code]) => code as number)).toEqual([0, 0, 0]);
    const lines = noted();
    expect(lines).toHaveLength(6);
    for (let at = 0; at < lines.length; at += 2) expect(lines[at + 1]).toBe(lines[at]?.replace('begins', 'ends'));
    expect(existsSync(lock)).toBe(false);
  });

  it('let the next one in after one that failed, and after one that was killed', () => {
    expect(spawnSync(process.execPath, building('failed', "throw new Error('no');")).status).toBe(1);
    expect(existsSync(lock)).toBe(false);
    const gone = spawnSync(process.execPath, ['-e', '']).pid;
    writeFileSync(lock, String(gone));
    expect(spawnSync(process.execPath, building('next')).status).toBe(0);
    expect(noted()).toEqual(['failed begins', 'next begins', 'next ends']);
  });
});
