import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openDatabase } from '../db/connection.ts';
import { backUp, restore } from './backup.ts';

let root: string;
const at = (...parts: string[]): string => join(root, ...parts);
beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), 'confetti-backup-'));
});
afterEach(() => rmSync(root, { recursive: true }));

async function fill(folder: string): Promise<void> {
  const db = await openDatabase(folder);
  await db('settings').insert({ key: 'a', value: 'kept' });
  mkdirSync(join(folder, 'media', 'ab'), { recursive: true });
  writeFileSync(join(folder, 'media', 'ab', 'abc'), 'picture');
  writeFileSync(join(folder, 'confetti.key'), 'key');
  // It goes on running.
  await db('settings').insert({ key: 'b', value: 'late' });
  await db.destroy();
}

describe('a backup', () => {
  it('is taken while Confetti runs, without its key, and brings all of it back', async () => {
    await fill(at('data'));
    const running = await openDatabase(at('data'));
    expect(await backUp(at('data'), at('copy'), 7)).toEqual({ version: 1, takenMs: 7, files: 1 });
    await running.destroy();
    expect(existsSync(at('copy', 'confetti.key'))).toBe(false);
    await restore(at('copy'), at('again'));
    const db = await openDatabase(at('again'));
    expect(await db('settings').orderBy('key').pluck('value')).toEqual(['kept', 'late']);
    await db.destroy();
    expect(readFileSync(at('again', 'media', 'ab', 'abc'), 'utf8')).toBe('picture');
    expect(statSync(at('again')).mode & 0o077).toBe(0);
  });

  it('is refused where something is in the way, and where it is not whole', async () => {
    await fill(at('data'));
    await expect(backUp(at('nowhere'), at('copy'), 0)).rejects.toThrow(/There is no Confetti/);
    await backUp(at('data'), at('copy'), 0);
    await expect(backUp(at('data'), at('copy'), 0)).rejects.toThrow(/not empty/);
    await expect(restore(at('copy'), at('data'))).rejects.toThrow(/holds a Confetti already/);
    truncateSync(at('copy', 'confetti.db'), statSync(at('copy', 'confetti.db')).size - 9_000);
    await expect(restore(at('copy'), at('again'))).rejects.toThrow();
    expect(existsSync(at('again', 'confetti.db'))).toBe(false);
    rmSync(at('copy', 'backup.json'));
    await expect(restore(at('copy'), at('again'))).rejects.toThrow(/holds no whole backup/);
  });
});
