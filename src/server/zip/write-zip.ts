import { Readable } from 'node:stream';
import type { ReadableStream as WebStream } from 'node:stream/web';
import { ZipFile } from 'yazl';

/** A file of a ZIP. It is opened when its turn is near. */
export interface ZipEntry {
  readonly name: string;
  readonly open: () => Promise<Readable>;
  /** Texts are packed; pictures and clips are already, and packing them again would take time and save nothing. */
  readonly isText?: boolean;
}

/** Entries that are opened while the one before them is on its way. */
const AHEAD = 2;

/** An entry of bytes that are made when they are needed. */
export function madeEntry(name: string, make: () => Promise<Uint8Array>): ZipEntry {
  return { name, open: async () => Readable.from([Buffer.from(await make())]) };
}

/** A ZIP that goes out while its files are still being made, in the order given. Stopping the reader, or the signal, stops the making. */
export function writeZip(entries: readonly ZipEntry[], signal: AbortSignal): ReadableStream<Uint8Array<ArrayBuffer>> {
  const zip = new ZipFile();
  const output = zip.outputStream as Readable;
  const opening = new Map<number, Promise<Readable>>();
  const open = (index: number): Promise<Readable> | null => {
    const entry = entries[index];
    if (!entry || output.destroyed) return null;
    const known = opening.get(index) ?? entry.open();
    opening.set(index, known);
    return known;
  };
  entries.forEach(({ name, isText }, index) => {
    zip.addReadStreamLazy(name, { compress: isText ?? false }, (give) => {
      const stream = open(index);
      // Failures of those opened ahead are met when their turn comes.
      for (let ahead = 1; ahead < AHEAD; ahead += 1) open(index + ahead)?.catch(() => undefined);
      if (!stream) return;
      stream.then(
        (opened) => {
          opened.once('error', (error) => output.destroy(error));
          opened.once('close', () => opening.delete(index));
          give(null, opened);
        },
        (error: unknown) => output.destroy(error instanceof Error ? error : new Error(String(error))),
      );
    });
  });
  zip.end();
  const stop = (): void => void output.destroy(signal.reason instanceof Error ? signal.reason : new Error('stopped'));
  signal.addEventListener('abort', stop, { once: true });
  output.once('close', () => {
    signal.removeEventListener('abort', stop);
    for (const stream of opening.values()) stream.then((opened) => opened.destroy(), () => undefined);
  });
  return Readable.toWeb(output) as WebStream<Uint8Array<ArrayBuffer>> as ReadableStream<Uint8Array<ArrayBuffer>>;
}
