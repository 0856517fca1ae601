import { Zip, ZipPassThrough } from 'fflate';

export interface ZipEntry {
  readonly name: string;
  readonly bytes: () => Promise<Uint8Array>;
}

/** Entries that are made while the one before them is on its way. */
const AHEAD = 2;

/**
 * A ZIP that goes out while its files are still being made, in the order given. Stopping the reader, or the signal, stops
 * the making. Pictures are packed already; packing them again would take time and save nothing.
 */
export function streamZip(entries: readonly ZipEntry[], signal: AbortSignal): ReadableStream<Uint8Array<ArrayBuffer>> {
  const making = new Map<number, Promise<Uint8Array>>();
  const make = (index: number): Promise<Uint8Array> | null => {
    const entry = entries[index];
    if (!entry) return null;
    const known = making.get(index) ?? entry.bytes();
    making.set(index, known);
    return known;
  };
  let next = 0;
  let zip: Zip;
  return new ReadableStream({
    start(controller) {
      zip = new Zip((error, chunk, final) => {
        if (error) return controller.error(error);
        controller.enqueue(chunk as Uint8Array<ArrayBuffer>);
        if (final) controller.close();
      });
    },
    async pull(controller) {
      if (signal.aborted) return controller.error(signal.reason);
      const entry = entries[next];
      if (!entry) return zip.end();
      // Failures of those made ahead are met when their turn comes.
      for (let ahead = 1; ahead < AHEAD; ahead += 1) make(next + ahead)?.catch(() => undefined);
      const bytes = await make(next);
      making.delete(next);
      next += 1;
      const file = new ZipPassThrough(entry.name);
      zip.add(file);
      file.push(bytes ?? new Uint8Array(), true);
    },
    cancel() {
      next = entries.length;
      making.clear();
    },
  });
}
