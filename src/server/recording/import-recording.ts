import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, rename, rm, stat } from 'node:fs/promises';
import { dirname } from 'node:path';
import type { Recording } from '../../core/video/recording.ts';
import { ProblemError } from '../errors.ts';
import { importPicture, type ImportedPicture } from '../media/import-picture.ts';
import type { MediaStore } from '../media/media-store.ts';
import { analyseRecording } from './analyse-recording.ts';
import { damagedRecording, RECORDING_FPS, probeRecording, WORK_SIDE_PX, type RecordingProbe } from './probe-recording.ts';
import { FfmpegError, inputFile, runFfmpeg } from '../ffmpeg/run-ffmpeg.ts';

/** A clip or sound as it is kept: its working copy, and a picture that stands for it. */
export interface ImportedRecording {
  readonly recording: Recording;
  readonly storedHash: string;
  readonly bytes: number;
  readonly mime: string;
  /** A frame of a clip, the wave form of a sound. */
  readonly still: ImportedPicture;
}

export interface ImportOptions {
  readonly signal?: AbortSignal | undefined;
  /** Told how much is done, in [0, 1]. */
  readonly onProgress?: ((share: number) => void) | undefined;
}

/** With more than this share of the announced length missing the file is cut off; the last frame's own time is never reached. */
const MAX_SHARE_MISSING = 0.1;
const MAX_MISSING_MS = 250;
const MAX_MS_A_MS = 20;
const MIN_LIMIT_MS = 120_000;
/** Share of the progress that the working copy takes; the rest is looking at it. */
const COPIED = 0.7;
const WAVE = { size: '1200x400', colour: '0x5b3fd6' } as const;

/**
 * Reads a clip or sound and makes its working copy: upright, 30 frames a second, 8 bit BT.709, stereo. Everything later begins from
 * there, so odd rates, rotation flags, high dynamic range and surround sound are dealt with once. What is so already is taken as it is.
 * @throws ProblemError saying what is wrong with the file
 */
export async function importRecording(path: string, name: string, store: MediaStore, { signal, onProgress }: ImportOptions = {}): Promise<ImportedRecording> {
  const probe = await probeRecording(path, name);
  const work = `${await store.temporaryPath()}.mp4`;
  const still = `${work}.${probe.video ? 'jpg' : 'png'}`;
  try {
    await makeWorkingCopy({ path, work, name }, probe, { signal, onProgress: (share) => onProgress?.(share * COPIED) });
    await makeStill(work, still, probe, signal);
    const { durationMs, hasSound, video } = probe;
    const facts = await analyseRecording(work, { size: video, hasSound, durationMs }, signal);
    const picture = await importPicture(still, name);
    // What stands before a ground in one frame does not in the next.
    const { outline: _, ...stillFacts } = picture.facts;
    const { size } = await stat(work);
    return { recording: { kind: video ? 'clip' : 'sound', durationMs, hasSound, facts }, storedHash: await keepFile(store, work), bytes: size, mime: video ? 'video/mp4' : 'audio/mp4', still: { ...picture, facts: stillFacts } };
  } finally {
    await Promise.all([work, still].map((each) => rm(each, { force: true })));
  }
}

async function makeWorkingCopy({ path, work, name }: { readonly path: string; readonly work: string; readonly name: string }, { durationMs, video, hasSound, isSoundReady }: RecordingProbe, { signal, onProgress }: ImportOptions): Promise<void> {
  const toneMap = video?.isHdr ? 'zscale=t=linear:npl=100,format=gbrpf32le,zscale=p=bt709,tonemap=hable:desat=0,zscale=t=bt709:m=bt709:r=tv,' : '';
  const fit = `scale=w='min(${WORK_SIDE_PX},iw)':h='min(${WORK_SIDE_PX},ih)':force_original_aspect_ratio=decrease:force_divisible_by=2:out_color_matrix=bt709:out_range=tv`;
  const pictures = !video
    ? ['-vn']
    : video.isReady
      ? ['-map', '0:V:0', '-c:v', 'copy']
      : ['-map', '0:V:0', '-vf', `${toneMap}fps=${RECORDING_FPS},${fit},setsar=1,format=yuv420p`, '-c:v', 'libx264', '-preset', 'veryfast', '-crf', '16', '-profile:v', 'high', '-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709'];
  const sound = !hasSound ? [] : ['-map', '0:a:0', ...(isSoundReady ? ['-c:a', 'copy'] : ['-c:a', 'aac', '-b:a', '192k', '-ar', '48000', '-ac', '2'])];
  let reachedMs = 0;
  try {
    await runFfmpeg([...inputFile(path), ...pictures, ...sound, '-map_metadata', '-1', '-movflags', '+faststart', work], {
      mostMs: Math.max(MIN_LIMIT_MS, durationMs * MAX_MS_A_MS),
      signal,
      onProgress: (ms) => {
        reachedMs = Math.max(reachedMs, ms);
        onProgress?.(Math.min(1, reachedMs / durationMs));
      },
    });
  } catch (error) {
    throw error instanceof FfmpegError && !signal?.aborted ? damagedRecording(name, error) : error;
  }
  if (durationMs - reachedMs > Math.max(durationMs * MAX_SHARE_MISSING, MAX_MISSING_MS)) {
    throw new ProblemError(422, 'damaged-recording', `“${name}” breaks off after ${(reachedMs / 1000).toFixed(1)} of ${(durationMs / 1000).toFixed(1)} seconds. Get a whole copy and import it again.`);
  }
}

/** A frame that shows what the clip is about: the most usual one around its first third. */
async function makeStill(work: string, still: string, { durationMs, video }: RecordingProbe, signal: AbortSignal | undefined): Promise<void> {
  const args = video
    ? [...inputFile(work, '-ss', String(durationMs / 3000)), '-vf', `thumbnail=n=${RECORDING_FPS}`, '-frames:v', '1', '-q:v', '2', still]
    : [...inputFile(work), '-filter_complex', `aformat=channel_layouts=mono,showwavespic=s=${WAVE.size}:colors=${WAVE.colour}`, '-frames:v', '1', still];
  await runFfmpeg(args, { mostMs: MIN_LIMIT_MS, signal });
}

async function keepFile(store: MediaStore, path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer);
  const name = hash.digest('hex');
  const kept = store.pathOf(name);
  await mkdir(dirname(kept), { recursive: true });
  await rename(path, kept);
  return name;
}
