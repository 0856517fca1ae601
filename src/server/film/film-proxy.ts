import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname } from 'node:path';
import { exists } from '../media/derivatives.ts';
import type { MediaStore } from '../media/media-store.ts';
import { inputFile, runFfmpeg } from './run-ffmpeg.ts';

/** Longest side of a proxy: more than any wall shows. */
const SIDE_PX = 720;
/** Frames from key frame to key frame: short, so that any moment is found at once. */
const KEY_FRAME_EVERY = 6;
const NAME = 'proxy.mp4';
const MOST_MS = 30 * 60 * 1000;

const making = new Map<string, Promise<string>>();

/**
 * The small copy of a clip that browsers play and scrub in, made when it is first asked for.
 * @param storedHash of the working copy
 * @returns the path of the file
 */
export async function filmProxy(store: MediaStore, storedHash: string): Promise<string> {
  const path = store.derivedPathOf(storedHash, NAME);
  if (await exists(path)) return path;
  const made = making.get(storedHash) ?? makeProxy(store, storedHash, path).finally(() => making.delete(storedHash));
  making.set(storedHash, made);
  return made;
}

async function makeProxy(store: MediaStore, storedHash: string, path: string): Promise<string> {
  const temporary = `${await store.temporaryPath()}.mp4`;
  const fit = `scale=w='min(${SIDE_PX},iw)':h='min(${SIDE_PX},ih)':force_original_aspect_ratio=decrease:force_divisible_by=2`;
  try {
    await runFfmpeg([...inputFile(store.pathOf(storedHash)), '-map', '0:V:0?', '-map', '0:a:0?', '-vf', fit, '-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '20', '-g', String(KEY_FRAME_EVERY), '-bf', '0', '-c:a', 'aac', '-b:a', '128k', '-movflags', '+faststart', temporary], { mostMs: MOST_MS });
    await mkdir(dirname(path), { recursive: true });
    await rename(temporary, path);
  } finally {
    await rm(temporary, { force: true });
  }
  return path;
}
