import { mkdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { VideoFormatName } from '../../contract/video-contracts.ts';
import type { VideoMeasures } from '../../core/video/video-measures.ts';
import { spokenSpans, wordStartsMs } from '../../core/video/said-words.ts';
import { shotEnds } from '../../core/video/shot-ends.ts';
import { shotMovements } from '../../core/video/movement.ts';
import { VIDEO_FPS } from '../../core/video/shot-times.ts';
import { voiceEndMs } from '../../core/video/speech.ts';
import { shotsUnder } from '../../core/video/place-subtitle.ts';
import { toFrames, toMs } from '../../core/video/timeline.ts';
import type { MediaStore } from '../media/media-store.ts';
import { TooHeavyError } from '../render/errors.ts';
import type { RenderPool } from '../render/render-pool.ts';
import type { VideoSource } from './video-source.ts';
import { videoSound, SOUND_KBPS, type VideoSound } from './video-sound.ts';
import { FlashMeter, METER_SIDE_PX } from './measure-video.ts';
import { pictureGraph, type VideoToJoin, type FilterGraph } from './picture-graph.ts';
import { inputFile, runFfmpeg } from '../ffmpeg/run-ffmpeg.ts';
import { soundGraph, type VideoToHear } from './sound-graph.ts';

/** What a video is made as; a cover is made of one. */
export type VideoFormat = Exclude<VideoFormatName, 'jpg'>;

export interface VideoOptions {
  readonly format: VideoFormat;
  readonly maxBytes: number;
  /** What the file is called inside. */
  readonly title: string;
  readonly signal: AbortSignal;
  /** Told how much is done, in [0, 1]. */
  readonly onProgress: (share: number) => void;
}

/** Share of the progress that painting the layers takes. */
const PAINTED = 0.1;
const MAX_MS = 60 * 60 * 1000;
/** A file that has to be made smaller is made for this share of what is allowed. */
const AIM_SHARE = 0.94;
const MIN_KBPS = 300;
/** Second passes with a rate that gets lower each time. */
const MAX_SECOND_PASSES = 3;
/** Share of the progress at which the first of two passes ends. */
const PASSED = 0.5;

type PlayedFormat = 'mp4' | 'webm';
const pictureCodecs: Readonly<Record<PlayedFormat, readonly string[]>> = {
  mp4: ['-c:v', 'libx264', '-preset', 'veryfast', '-profile:v', 'high'],
  webm: ['-c:v', 'libvpx-vp9', '-deadline', 'realtime', '-cpu-used', '6', '-row-mt', '1'],
};
/** What two passes need: real-time encoding of VP9 knows no first pass. */
const passCodecs: Readonly<Record<PlayedFormat, readonly string[]>> = { ...pictureCodecs, webm: ['-c:v', 'libvpx-vp9', '-deadline', 'good', '-cpu-used', '5', '-row-mt', '1'] };
const constantQuality: Readonly<Record<PlayedFormat, readonly string[]>> = { mp4: ['-crf', '20'], webm: ['-crf', '32', '-b:v', '0'] };
/**
 * Each thread keeps frames of its own. With a fixed number of them the memory is the same on every machine: 587 MB for five shots of 1080 x 1920,
 * against 631 MB with as many as two processors ask for, in the same time.
 */
const ENCODER_THREADS = '2';
const FILTER_THREADS = ['-filter_complex_threads', '1'] as const;
const tags = ['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv'];

/** Moving pictures without sound are short, small and slow: each of their frames weighs as much as a picture. */
const MOVING = { seconds: 6, fps: 15, sidePx: 540 } as const;
const movingPictures: Readonly<Record<'webp' | 'gif', { readonly filter: string; readonly codec: readonly string[] }>> = {
  webp: { filter: '', codec: ['-c:v', 'libwebp_anim', '-quality', '72', '-loop', '0'] },
  gif: { filter: ',split[all][key];[key]palettegen=stats_mode=diff[palette];[all][palette]paletteuse=dither=bayer:bayer_scale=4', codec: ['-loop', '0'] },
};

/**
 * One cut of a video as a file. Its sound is made, or found, while its layers are painted and its pictures encoded; then both are put together.
 * @param path where the file goes
 * @returns what was measured; null for moving pictures without sound
 * @throws TooHeavyError when it cannot be made small enough; FfmpegError when it was stopped or failed
 */
export async function renderVideo(source: VideoSource, path: string, { render, media }: { readonly render: RenderPool; readonly media: MediaStore }, options: VideoOptions): Promise<VideoMeasures | null> {
  const folder = await media.temporaryPath();
  await mkdir(folder);
  try {
    const { format } = options;
    if (format === 'webp' || format === 'gif') return await encodeMoving(await paintedGraph(source, folder, render, options), path, format, options);
    const stop = new AbortController();
    const stoppable = { ...options, signal: AbortSignal.any([options.signal, stop.signal]) };
    const sound = videoSound(soundGraph(videoToHear(source), source.clips), format, media, stoppable.signal);
    const video = paintedGraph(source, folder, render, stoppable).then((graph) => encode(graph, sound, { lengthFrames: source.timeline.lengthFrames, pictures: join(folder, `pictures.${format}`), path, format }, stoppable));
    try {
      return (await Promise.all([video, sound]))[0];
    } catch (error) {
      // Where one of both fails, the other one is not wanted any more.
      stop.abort();
      await Promise.allSettled([video, sound]);
      throw error;
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function paintedGraph(source: VideoSource, folder: string, render: RenderPool, { onProgress }: VideoOptions): Promise<FilterGraph> {
  const painted = await paintedVideo(source, folder, render);
  onProgress(PAINTED);
  return pictureGraph(painted, source.clips);
}

function videoToHear({ timeline: { shots, lengthFrames }, track, recordings, musicPath, voicePath }: VideoSource): VideoToHear {
  const voice = track.voice === undefined ? undefined : recordings.get(track.voice);
  return {
    lengthFrames,
    shots,
    music: musicPath === null ? null : { path: musicPath, volume: track.musicVolume ?? 1 },
    voice: voicePath === null ? null : { path: voicePath, endMs: voice ? voiceEndMs(voice, toMs(lengthFrames)) : toMs(lengthFrames) },
  };
}

async function paintedVideo({ cut, timeline, track, clips, recordings, hasCover }: VideoSource, folder: string, render: RenderPool): Promise<VideoToJoin> {
  const { shots, lengthFrames } = timeline;
  const pictures = new Map(cut.pictures.map(({ picture }) => [picture.id, { focal: picture.focal, recording: recordings.get(picture.id) }]));
  const spoken = (track.subtitles ?? []).filter(({ text, fromMs }) => text.trim() !== '' && toFrames(fromMs) < lengthFrames);
  const speech = spokenSpans(track, recordings);
  const painted = await render.layers({
    kind: 'layers',
    source: cut,
    shots: shots.map((shot, index) => ({ ...shotEnds(timeline, index, hasCover), movements: shotMovements(shot, pictures, cut.slides[index]?.adjustment.crops ?? {}) })),
    clips: [...clips.keys()],
    subtitles: spoken.map((cue) => ({ text: cue.text, over: shotsUnder(cue, timeline), wordFrames: wordStartsMs(cue, speech).map(toFrames).filter((frame) => frame < lengthFrames) })),
    sweeps: shots.some(({ into }) => into.kind === 'sweep'),
    folder,
  });
  return {
    size: { widthPx: cut.placement.exportPx.width, heightPx: cut.placement.exportPx.height },
    shots: shots.map(({ lengthFrames: shotFrames, into, clip }, index) => ({ lengthFrames: shotFrames, into, clip, layers: painted.shots[index]?.layers ?? [] })),
    cues: spoken.flatMap(({ fromMs, toMs: endMs }, index) => {
      const layer = painted.subtitles[index];
      return layer ? [{ layer, fromFrame: toFrames(fromMs), toFrame: Math.min(lengthFrames, toFrames(endMs)) }] : [];
    }),
    band: painted.band,
  };
}

/** Encodes the pictures, puts the sound beside them, and does it again in two passes where that is too heavy. */
async function encode(graph: FilterGraph, sound: Promise<VideoSound>, { lengthFrames, pictures, path, format }: { readonly lengthFrames: number; readonly pictures: string; readonly path: string; readonly format: PlayedFormat }, options: VideoOptions): Promise<VideoMeasures> {
  const { maxBytes, signal, onProgress } = options;
  const lengthMs = toMs(lengthFrames);
  const codec = (names: readonly string[], rate: readonly string[]): readonly string[] => ['-map', '[shown]', ...names, ...rate, '-pix_fmt', 'yuv420p', ...tags, '-r', String(VIDEO_FPS), '-threads', ENCODER_THREADS, '-an'];
  const run = (filter: string, outputs: readonly string[], [from, to]: readonly [number, number], onBytes?: (bytes: Buffer) => void): Promise<unknown> =>
    runFfmpeg([...graph.inputs, ...FILTER_THREADS, '-filter_complex', `${graph.filter};${filter}`, ...outputs], { signal, mostMs: MAX_MS, isPatient: true, onBytes, onProgress: (reachedMs) => onProgress(from + (to - from) * Math.min(1, reachedMs / lengthMs)) });
  const meter = new FlashMeter();
  await run(`[picture]split[shown][looked];[looked]scale=${METER_SIDE_PX}:${METER_SIDE_PX}:flags=neighbor,format=gray[cells]`, [...codec(pictureCodecs[format], constantQuality[format]), '-f', format, pictures, '-map', '[cells]', '-f', 'rawvideo', 'pipe:1'], [PAINTED, 1], (bytes) => meter.take(bytes));
  const measures = { ...(await sound).measures, flashesASecond: meter.flashesASecond() };
  /** The size of the whole file, with its sound. */
  const weigh = async (): Promise<number> => {
    await putTogether(pictures, (await sound).path, path, format, options);
    return (await stat(path)).size;
  };
  if ((await weigh()) <= maxBytes) return measures;
  // Two passes: the first one learns where the bits are needed.
  const rate = (pass: 1 | 2, kbps: number): readonly string[] => codec(passCodecs[format], ['-b:v', `${kbps}k`, '-pass', String(pass), '-passlogfile', `${pictures}-passes`]);
  let kbps = Math.floor(((maxBytes * AIM_SHARE * 8) / (lengthMs / 1000) - SOUND_KBPS * 1000) / 1000);
  for (let pass = 1; kbps >= MIN_KBPS && pass <= MAX_SECOND_PASSES; pass += 1) {
    if (pass === 1) await run('[picture]null[shown]', [...rate(1, kbps), '-f', 'null', '-'], [PAINTED, PASSED]);
    await run('[picture]null[shown]', [...rate(2, kbps), '-f', format, pictures], [PASSED, 1]);
    const bytes = await weigh();
    if (bytes <= maxBytes) return measures;
    // A short video overshoots its rate. Aim lower by as much as it did.
    kbps = Math.floor(kbps * (maxBytes / bytes) * AIM_SHARE);
  }
  throw new TooHeavyError(maxBytes);
}

/** Pictures and sound in one file, as they are. */
async function putTogether(pictures: string, sound: string, path: string, format: PlayedFormat, { signal, title }: VideoOptions): Promise<void> {
  await runFfmpeg([...inputFile(pictures), ...inputFile(sound), '-map', '0:v', '-map', '1:a', '-c', 'copy', '-map_metadata', '-1', '-metadata', `title=${title}`, '-movflags', '+faststart', '-f', format, path], { signal, mostMs: MAX_MS });
}

async function encodeMoving(graph: FilterGraph, path: string, format: 'webp' | 'gif', { signal, onProgress }: VideoOptions): Promise<null> {
  const { filter, codec } = movingPictures[format];
  const fit = `scale=w='min(${MOVING.sidePx},iw)':h='min(${MOVING.sidePx},ih)':force_original_aspect_ratio=decrease`;
  await runFfmpeg([...graph.inputs, '-filter_complex', `${graph.filter};[picture]trim=end=${MOVING.seconds},fps=${MOVING.fps},${fit}${filter}[moving]`, '-map', '[moving]', ...codec, '-f', format, path], {
    signal,
    mostMs: MAX_MS,
    isPatient: true,
    onProgress: (reachedMs) => onProgress(PAINTED + (1 - PAINTED) * Math.min(1, reachedMs / (MOVING.seconds * 1000))),
  });
  return null;
}
