import { createHash } from 'node:crypto';
import { access, copyFile, mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { nanoid } from 'nanoid';
import { readMedia, type MediaReading } from '../src/server/imports/keep-media.ts';
import type { MediaStore } from '../src/server/media/media-store.ts';

/** Beside the build; may be deleted. */
const FOLDER = join('.cache', 'demo-media');

/**
 * What is known of a demo file. Reading clips takes seconds each, and every test and every fresh demo begins with the same ones, so it
 * is kept between runs, for as long as the program that reads them stays the same.
 */
export async function readDemoMedia(store: MediaStore, path: string, fileHash: string, name: string): Promise<MediaReading> {
  const program = createHash('sha256').update(await readFile(fileURLToPath(import.meta.url))).digest('hex').slice(0, 16);
  const folder = join(FOLDER, program, fileHash);
  const noted = join(folder, 'reading.json');
  const known = await readFile(noted, 'utf8').then((text) => JSON.parse(text) as MediaReading, () => null);
  if (known) {
    await Promise.all(hashesOf(known).map((hash) => copyWhole(join(folder, hash), store.pathOf(hash))));
    return known;
  }
  const reading = await readMedia(store, path, name);
  await mkdir(folder, { recursive: true });
  await Promise.all(hashesOf(reading).map((hash) => copyWhole(store.pathOf(hash), join(folder, hash))));
  // Written last and whole: another run finds all of it or nothing.
  const temporary = `${noted}-${nanoid(6)}`;
  await writeFile(temporary, JSON.stringify(reading));
  await rename(temporary, noted);
  return reading;
}

function hashesOf({ storedHash, recording }: MediaReading): readonly string[] {
  return [storedHash, ...(recording ? [recording.storedHash] : [])];
}

async function copyWhole(from: string, to: string): Promise<void> {
  if (await access(to).then(() => true, () => false)) return;
  await mkdir(dirname(to), { recursive: true });
  const temporary = `${to}-${nanoid(6)}`;
  await copyFile(from, temporary);
  await rename(temporary, to);
}
