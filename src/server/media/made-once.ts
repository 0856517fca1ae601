import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname, extname } from 'node:path';
import { exists } from './derivatives.ts';
import type { MediaStore } from './media-store.ts';

/** Derived files that are being made in this process: whoever asks for the same one meanwhile waits for it. */
const making = new Map<string, Promise<void>>();

/**
 * A derived file. What has been made is found again; it comes to its place whole or not at all.
 * @param path where it goes; its ending says of which kind it is
 * @param make writes the file to the given path
 * @returns the path
 */
export async function madeOnce(store: MediaStore, path: string, make: (temporaryPath: string) => Promise<void>): Promise<string> {
  if (await exists(path)) return path;
  const under = making.get(path);
  // Another's work may be stopped by that other: then it is done here.
  if (under) return under.then(
    () => path,
    () => madeOnce(store, path, make),
  );
  const made = makeWhole(store, path, make).finally(() => making.delete(path));
  making.set(path, made);
  await made;
  return path;
}

async function makeWhole(store: MediaStore, path: string, make: (temporaryPath: string) => Promise<void>): Promise<void> {
  const temporary = `${await store.temporaryPath()}${extname(path)}`;
  try {
    await make(temporary);
    await mkdir(dirname(path), { recursive: true });
    await rename(temporary, path);
  } finally {
    await rm(temporary, { force: true });
  }
}
