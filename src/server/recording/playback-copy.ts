import { madeOnce } from '../media/made-once.ts';
import type { MediaStore } from '../media/media-store.ts';
import { inputFile, runFfmpeg } from '../ffmpeg/run-ffmpeg.ts';

/** Longest side of a copy: more than any wall shows. */
const SIDE_PX = 720;
/** Frames from key frame to key frame: short, so that any moment is found at once. */
const KEY_FRAME_EVERY = 6;
const NAME = 'proxy.mp4';
const MAX_MS = 30 * 60 * 1000;

/** Where the copy of a clip or sound lies that browsers play. */
export const playbackCopyPath = (store: MediaStore, storedHash: string): string => store.derivedPathOf(storedHash, NAME);

/**
 * The small copy of a clip or sound that browsers play and scrub in, made where it is not there.
 * @param storedHash of the working copy
 * @returns the path of the file
 */
export function playbackCopy(store: MediaStore, storedHash: string, signal?: AbortSignal): Promise<string> {
  const fit = `scale=w='min(${SIDE_PX},iw)':h='min(${SIDE_PX},ih)':force_original_aspect_ratio=decrease:force_divisible_by=2`;
  return madeOnce(store, playbackCopyPath(store, storedHash), async (to) => {
    await runFfmpeg([...inputFile(store.pathOf(storedHash)), '-map', '0:V:0?', '-map', '0:a:0?', '-vf', fit, '-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '20', '-g', String(KEY_FRAME_EVERY), '-bf', '0', '-c:a', 'aac', '-b:a', '128k', '-movflags', '+faststart', to], { mostMs: MAX_MS, signal });
  });
}
