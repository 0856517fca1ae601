import { CLIP_STRIP_FRAMES } from '../../contract/media-contracts.ts';
import { madeOnce } from '../media/made-once.ts';
import type { MediaStore } from '../media/media-store.ts';
import { playbackCopy } from './playback-copy.ts';
import { inputFile, runFfmpeg } from '../ffmpeg/run-ffmpeg.ts';

/** The middle of each frame, as narrow as its place in the strip. */
const FRAME = { widthPx: 48, heightPx: 96 } as const;
const MAX_MS = 5 * 60 * 1000;

/** Where the strip of a clip lies. */
export const clipStripPath = (store: MediaStore, storedHash: string): string => store.derivedPathOf(storedHash, 'strip.jpg');

/**
 * Frames of a clip side by side in one JPEG, evenly spread over its length.
 * @returns the path of the file
 */
export function clipStrip(store: MediaStore, { storedHash, durationMs }: { readonly storedHash: string; readonly durationMs: number }, signal?: AbortSignal): Promise<string> {
  const rate = (CLIP_STRIP_FRAMES * 1000) / durationMs;
  return madeOnce(store, clipStripPath(store, storedHash), async (to) => {
    await runFfmpeg([...inputFile(await playbackCopy(store, storedHash, signal)), '-vf', `fps=${rate.toFixed(6)}:start_time=0:round=down,scale=${FRAME.widthPx}:${FRAME.heightPx}:force_original_aspect_ratio=increase,crop=${FRAME.widthPx}:${FRAME.heightPx},tile=${CLIP_STRIP_FRAMES}x1`, '-frames:v', '1', '-q:v', '4', to], { mostMs: MAX_MS, signal });
  });
}
