import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { madeOnce } from './made-once.ts';
import { MediaStore } from './media-store.ts';

let folder: string;
let store: MediaStore;
let path: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-made-'));
  store = new MediaStore(folder);
  path = store.derivedPathOf('a'.repeat(64), 'note.txt');
});
afterEach(() => rmSync(folder, { recursive: true }));

const unfinished = (): readonly string[] => readdirSync(join(folder, 'incoming'));

describe('a derived file', () => {
  it('is made once for all who ask for it, at once or later', async () => {
    let count = 0;
    const make = async (to: string): Promise<void> => {
      count += 1;
      await writeFile(to, `made ${count}`);
    };
    expect(await Promise.all([madeOnce(store, path, make), madeOnce(store, path, make)])).toEqual([path, path]);
    await madeOnce(store, path, make);
    expect([count, readFileSync(path, 'utf8'), unfinished()]).toEqual([1, 'made 1', []]);
  });

  it('is made by the one who waits, where the other one was stopped', async () => {
    // Who comes second comes while the first one writes, however busy the disk is.
    const waiting: Promise<string>[] = [];
    const stopped = madeOnce(store, path, async (to) => {
      waiting.push(madeOnce(store, path, (other) => writeFile(other, 'whole')));
      await writeFile(to, 'hal');
      throw new Error('stopped');
    });
    await expect(stopped).rejects.toThrow('stopped');
    expect(await Promise.all(waiting)).toEqual([path]);
    expect([readFileSync(path, 'utf8'), unfinished()]).toEqual(['whole', []]);
  });

  it('is written where its ending is that of its place, so that programs know its kind', async () => {
    await madeOnce(store, path, (to) => writeFile(to, to));
    expect(readFileSync(path, 'utf8')).toMatch(/\.txt$/);
  });
});
