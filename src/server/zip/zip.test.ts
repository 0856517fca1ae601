import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { unzipSync, zipSync } from 'fflate';
import { afterAll, describe, expect, it } from 'vitest';
import { openZip } from './read-zip.ts';
import { madeEntry, writeZip, type ZipEntry } from './write-zip.ts';

const folder = mkdtempSync(join(tmpdir(), 'confetti-zip-'));
afterAll(() => rmSync(folder, { recursive: true }));

const never = new AbortController().signal;
const bytesOf = async (entries: readonly ZipEntry[]): Promise<Uint8Array> => new Uint8Array(await new Response(writeZip(entries, never)).arrayBuffer());
const text = (name: string, content: string): ZipEntry => ({ name, isText: true, open: async () => Readable.from([content]) });
const kept = (name: string, bytes: Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
};
const read = async (stream: Readable): Promise<string> => Buffer.concat(await stream.toArray()).toString('utf8');

describe('a ZIP that goes out', () => {
  it('has its files in their order, texts packed and pictures as they are', async () => {
    const noise = new Uint8Array(200_000).map((_, index) => (index * 7919) % 251);
    const zip = await bytesOf([text('a/first.jsonl', 'word '.repeat(40_000)), madeEntry('b/second.png', async () => noise)]);
    const files = unzipSync(zip);
    expect(Object.keys(files)).toEqual(['a/first.jsonl', 'b/second.png']);
    expect(files['b/second.png']).toEqual(noise);
    expect(zip.length).toBeLessThan(noise.length + 20_000);
  });

  it('opens a file only when its turn is near', async () => {
    const opened: number[] = [];
    const entries = Array.from({ length: 40 }, (_, index): ZipEntry => ({ name: `${index}.bin`, open: async () => { opened.push(index); return Readable.from([Buffer.alloc(100_000)]); } }));
    const reader = writeZip(entries, never).getReader();
    await reader.read();
    expect(opened.length).toBeLessThan(10);
    await reader.cancel();
  });

  it('breaks off with the error of a file that cannot be made', async () => {
    const entries = [text('a.txt', 'a'), madeEntry('b.png', async () => { throw new Error('no paint'); })];
    await expect(bytesOf(entries)).rejects.toThrow('no paint');
  });

  it('lets go of the file at hand when the reader leaves, and opens no more', async () => {
    let isClosed = false;
    const opened: string[] = [];
    const endless: ZipEntry = { name: 'endless.bin', open: async () => { opened.push('endless'); return new Readable({ read() { this.push(Buffer.alloc(65_536)); }, destroy(error, done) { isClosed = true; done(error); } }); } };
    const later: ZipEntry = { name: 'later.bin', open: async () => { opened.push('later'); return Readable.from(['x']); } };
    const reader = writeZip([endless, text('between.txt', ''), later], never).getReader();
    await reader.read();
    await reader.cancel();
    await expect.poll(() => isClosed).toBe(true);
    expect(opened).not.toContain('later');
  });

  it('stops with its signal', async () => {
    const stop = new AbortController();
    const entries = [{ name: 'endless.bin', open: async () => new Readable({ read() { this.push(Buffer.alloc(65_536)); } }) }];
    const reader = writeZip(entries, stop.signal).getReader();
    await reader.read();
    stop.abort(new Error('gone'));
    await expect((async () => { for (;;) if ((await reader.read()).done) return; })()).rejects.toThrow();
  });
});

describe('a ZIP from outside', () => {
  it('gives its files by name, and no more of each than it may have', async () => {
    const zip = await openZip(kept('whole.zip', await bytesOf([text('a.jsonl', 'one\ntwo\n'), text('b.jsonl', 'x'.repeat(5_000))])));
    expect([...zip.names]).toEqual(['a.jsonl', 'b.jsonl']);
    expect(zip.sizeOf('b.jsonl')).toBe(5_000);
    expect(await read(await zip.open('a.jsonl', 100))).toBe('one\ntwo\n');
    await expect(zip.open('b.jsonl', 4_999)).rejects.toMatchObject({ code: 'file-too-large' });
    await expect(zip.open('c.jsonl', 100)).rejects.toMatchObject({ code: 'file-missing' });
    zip.close();
  });

  it.each([
    ['no ZIP', () => Buffer.from('not a zip at all, though long enough to be looked at')],
    ['cut off', async () => Buffer.from((await bytesOf([text('a.txt', 'a'.repeat(90_000))])).slice(0, -30))],
    ['with a name that leads out', () => Buffer.from(zipSync({ '../../out.txt': new Uint8Array([1]) }))],
    ['with a name from the root', () => Buffer.from(zipSync({ '/etc/passwd': new Uint8Array([1]) }))],
    ['with a name of the other kind of slashes', () => Buffer.from(zipSync({ 'a\\..\\b': new Uint8Array([1]) }))],
  ])('%s is refused', async (name, make) => {
    await expect(openZip(kept(`${name}.zip`, await make()))).rejects.toMatchObject({ status: 422, code: 'damaged-package' });
  });

  it('that unpacks to more than it says breaks off', async () => {
    const bytes = Buffer.from(zipSync({ 'a.txt': new Uint8Array(50_000) }));
    // The size in the central directory: 24 bytes behind its signature.
    const directory = bytes.indexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02]));
    bytes.writeUInt32LE(10, directory + 24);
    const zip = await openZip(kept('liar.zip', bytes));
    await expect((async () => read(await zip.open('a.txt', 100)))()).rejects.toThrow();
    zip.close();
  });
});
