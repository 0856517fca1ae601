import type { Readable } from 'node:stream';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import { ProblemError } from '../errors.ts';

const MAX_ENTRIES = 300_000;

/** The files of a ZIP from outside, by name. Each is no longer than it says; what it says is checked against the limit before it is read. */
export interface OpenZip {
  readonly names: ReadonlySet<string>;
  /** Bytes of a file when it is unpacked; 0 when there is none. */
  sizeOf(name: string): number;
  /** @throws ProblemError 422 when there is no such file, or it is larger than `mostBytes` */
  open(name: string, mostBytes: number): Promise<Readable>;
  close(): void;
}

/** @throws ProblemError 422 when the file is no whole ZIP */
export async function openZip(path: string): Promise<OpenZip> {
  let zip: ZipFile;
  try {
    zip = await openPromise(path, { lazyEntries: true, autoClose: false, strictFileNames: true, validateEntrySizes: true });
  } catch (error) {
    throw damaged(error);
  }
  try {
    const entries = await readEntries(zip);
    return {
      names: new Set(entries.keys()),
      sizeOf: (name) => entries.get(name)?.uncompressedSize ?? 0,
      async open(name, mostBytes) {
        const entry = entries.get(name);
        if (!entry) throw new ProblemError(422, 'file-missing', `The package has no file “${name}”. Export it again.`);
        if (entry.uncompressedSize > mostBytes) throw new ProblemError(422, 'file-too-large', `“${name}” in the package is larger than ${Math.floor(mostBytes / 1024 / 1024)} MB.`);
        return zip.openReadStreamPromise(entry);
      },
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw error instanceof ProblemError ? error : damaged(error);
  }
}

function readEntries(zip: ZipFile): Promise<ReadonlyMap<string, Entry>> {
  const entries = new Map<string, Entry>();
  return new Promise((resolve, reject) => {
    zip.on('entry', (entry: Entry) => {
      if (entries.size >= MAX_ENTRIES) return reject(new ProblemError(422, 'too-many-files', `A package has at most ${MAX_ENTRIES.toLocaleString('en-GB')} files.`));
      if (entries.has(entry.fileName)) return reject(new ProblemError(422, 'damaged-package', `The package has “${entry.fileName}” twice. Export it again.`));
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.once('end', () => resolve(entries));
    zip.once('error', reject);
    zip.readEntry();
  });
}

function damaged(error: unknown): ProblemError {
  return new ProblemError(422, 'damaged-package', 'This is no whole ZIP file. Export the package again, and see that it arrives whole.', { reason: error instanceof Error ? error.message.replaceAll(/\/\S+/g, '…') : String(error) });
}
