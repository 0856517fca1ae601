import { mkdir, rm, stat } from 'node:fs/promises';
import { LRUCache } from 'lru-cache';
import type { FilmFormatName } from '../../contract/film-contracts.ts';
import type { FilmMeasures } from '../../core/video/film-measures.ts';
import { shotMovements } from '../../core/video/movement.ts';
import { VIDEO_FPS } from '../../core/video/shot-times.ts';
import { voiceEndMs } from '../../core/video/speech.ts';
import { toFrames, toMs } from '../../core/video/timeline.ts';
import type { MediaStore } from '../media/media-store.ts';
import { TooHeavyError } from '../render/render-cut.ts';
import type { RenderPool } from '../render/render-pool.ts';
import type { FilmSource } from './film-source.ts';
import { filterGraph, soundGraph, type FilmToHear, type FilmToJoin, type FilterGraph } from './filter-graph.ts';
import { FlashMeter, measureLoudness, METER_SIDE_PX } from './measure-film.ts';
import { runFfmpeg } from './run-ffmpeg.ts';

/** What a film is made as; a cover is made of one. */
export type FilmFormat = Exclude<FilmFormatName, 'jpg'>;
export const filmMimes: Readonly<Record<FilmFormatName, string>> = { mp4: 'video/mp4', webm: 'video/webm', webp: 'image/webp', gif: 'image/gif', jpg: 'image/jpeg' };

export interface FilmOptions {
  readonly format: FilmFormat;
  readonly maxBytes: number;
  /** What the file is called inside. */
  readonly title: string;
  readonly signal: AbortSignal;
  /** Told how much is done, in [0, 1]. */
  readonly onProgress: (share: number) => void;
}

/** Loudness of what networks play (EBU R 128 in LUFS, true peak in dBTP); the peak leaves room for the encoder. */
const LOUDNESS = 'I=-14:TP=-1.5:LRA=11';
const SOUND_KBPS = 160;
/** Filters that leave the number of channels open cannot be encoded. */
const STEREO = 'aresample=48000,aformat=channel_layouts=stereo';
/** Share of the progress that painting the layers takes. */
const PAINTED = 0.1;
const MOST_MS = 60 * 60 * 1000;
/** A file that has to be made smaller is made for this share of what is allowed. */
const AIM_SHARE = 0.94;
const LEAST_KBPS = 300;
/** Share of the progress at which the first of two passes ends, and what the passes leave behind. */
const PASSED = 0.5;
const PASS_FILES = ['-0.log', '-0.log.mbtree', '-0.log.temp', '-0.log.mbtree.temp'] as const;

/** All cuts of a video sound the same: what brings it to its loudness is found out once. */
const levels = new LRUCache<string, string>({ max: 50 });

type PlayedFormat = 'mp4' | 'webm';
const pictureCodecs: Readonly<Record<PlayedFormat, readonly string[]>> = {
  mp4: ['-c:v', 'libx264', '-preset', 'veryfast', '-profile:v', 'high'],
  webm: ['-c:v', 'libvpx-vp9', '-deadline', 'realtime', '-cpu-used', '6', '-row-mt', '1'],
};
/** What two passes need: real-time encoding of VP9 knows no first pass. */
const passCodecs: Readonly<Record<PlayedFormat, readonly string[]>> = { ...pictureCodecs, webm: ['-c:v', 'libvpx-vp9', '-deadline', 'good', '-cpu-used', '5', '-row-mt', '1'] };
const constantQuality: Readonly<Record<PlayedFormat, readonly string[]>> = { mp4: ['-crf', '20'], webm: ['-crf', '32', '-b:v', '0'] };
const soundCodecs: Readonly<Record<PlayedFormat, readonly string[]>> = { mp4: ['-c:a', 'aac', '-b:a', `${SOUND_KBPS}k`], webm: ['-c:a', 'libopus', '-b:a', `${SOUND_KBPS}k`] };
const tags = ['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv'];

/** Moving pictures without sound are short, small and slow: each of their frames weighs as much as a picture. */
const MOVING = { seconds: 6, fps: 15, sidePx: 540 } as const;
const movingPictures: Readonly<Record<'webp' | 'gif', { readonly filter: string; readonly codec: readonly string[] }>> = {
  webp: { filter: '', codec: ['-c:v', 'libwebp_anim', '-quality', '72', '-loop', '0'] },
  gif: { filter: ',split[all][key];[key]palettegen=stats_mode=diff[palette];[all][palette]paletteuse=dither=bayer:bayer_scale=4', codec: ['-loop', '0'] },
};

/**
 * One cut of a video as a file: the loudness of its sound is measured while its layers are painted, then ffmpeg puts all of it
 * together, and the finished film is measured.
 * @param path where the file goes
 * @returns what was measured; null for moving pictures without sound
 * @throws TooHeavyError when it cannot be made small enough; FfmpegError when it was stopped or failed
 */
export async function renderFilm(source: FilmSource, path: string, { render, media }: { readonly render: RenderPool; readonly media: MediaStore }, options: FilmOptions): Promise<FilmMeasures | null> {
  const folder = await media.temporaryPath();
  const { format, signal } = options;
  await mkdir(folder);
  try {
    const heard = filmToHear(source);
    const [painted, level] = await Promise.all([paintedFilm(source, heard, folder, render), format === 'webp' || format === 'gif' ? null : levelled(soundGraph(heard, source.clips), signal)]);
    options.onProgress(PAINTED);
    const graph = filterGraph(painted, source.clips);
    if (format === 'webp' || format === 'gif') return await encodeMoving(graph, path, format, options);
    const flashesASecond = await encode(graph, level ?? 'anull', { lengthFrames: source.timeline.lengthFrames, path, format }, options);
    return { ...(await measureLoudness(path, signal)), flashesASecond };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

function filmToHear({ timeline: { shots, lengthFrames }, track, films, musicPath, voicePath }: FilmSource): FilmToHear {
  const voice = track.voice === undefined ? undefined : films.get(track.voice);
  return {
    lengthFrames,
    shots: shots.map(({ startFrame, lengthFrames: shotFrames, into, clip }) => ({ startFrame, lengthFrames: shotFrames, into, clip })),
    music: musicPath === null ? null : { path: musicPath, volume: track.musicVolume ?? 1 },
    voice: voicePath === null ? null : { path: voicePath, endMs: voice ? voiceEndMs(voice, toMs(lengthFrames)) : toMs(lengthFrames) },
  };
}

async function paintedFilm({ cut, timeline, track, clips, films }: FilmSource, heard: FilmToHear, folder: string, render: RenderPool): Promise<FilmToJoin> {
  const { shots, lengthFrames } = timeline;
  const pictures = new Map(cut.pictures.map(({ picture }) => [picture.id, { focal: picture.focal, film: films.get(picture.id) }]));
  const spoken = (track.subtitles ?? []).filter(({ text, fromMs }) => text.trim() !== '' && toFrames(fromMs) < lengthFrames);
  const painted = await render.layers({
    kind: 'layers',
    source: cut,
    shots: shots.map((shot, index) => ({ lengthFrames: shot.lengthFrames, isLast: index === shots.length - 1, movements: shotMovements(shot, pictures, cut.slides[index]?.adjustment.crops ?? {}) })),
    clips: [...clips.keys()],
    subtitles: spoken.map(({ text }) => text),
    sweeps: shots.some(({ into }) => into.kind === 'sweep'),
    folder,
  });
  return {
    ...heard,
    size: { widthPx: cut.placement.exportPx.width, heightPx: cut.placement.exportPx.height },
    shots: heard.shots.map((shot, index) => ({ ...shot, layers: painted.shots[index]?.layers ?? [] })),
    cues: spoken.flatMap(({ fromMs, toMs: endMs }, index) => {
      const layer = painted.subtitles[index];
      return layer ? [{ layer: { kind: 'still' as const, ...layer }, fromFrame: toFrames(fromMs), toFrame: Math.min(lengthFrames, toFrames(endMs)) }] : [];
    }),
    band: painted.band,
  };
}

/** @returns the most flashes in any second, seen on the pictures as they are encoded */
async function encode(graph: FilterGraph, level: string, { lengthFrames, path, format }: { readonly lengthFrames: number; readonly path: string; readonly format: PlayedFormat }, options: FilmOptions): Promise<number> {
  const { maxBytes, signal, title, onProgress } = options;
  const lengthMs = toMs(lengthFrames);
  const picture = (codec: readonly string[], rate: readonly string[]): readonly string[] => ['-map', '[shown]', ...codec, ...rate, '-pix_fmt', 'yuv420p', ...tags, '-r', String(VIDEO_FPS)];
  const sound = ['-map', '[level]', ...soundCodecs[format], '-ar', '48000', '-map_metadata', '-1', '-metadata', `title=${title}`, '-movflags', '+faststart', '-f', format, path];
  const heard = `${graph.sound};[sound]${level},${STEREO}[level]`;
  const run = (filter: string, outputs: readonly string[], [from, to]: readonly [number, number], onBytes?: (bytes: Buffer) => void): Promise<unknown> =>
    runFfmpeg([...graph.inputs, '-filter_complex', filter, ...outputs], { signal, mostMs: MOST_MS, isPatient: true, onBytes, onProgress: (reachedMs) => onProgress(from + (to - from) * Math.min(1, reachedMs / lengthMs)) });
  const meter = new FlashMeter();
  await run(`${graph.picture};[picture]split[shown][looked];[looked]scale=${METER_SIDE_PX}:${METER_SIDE_PX}:flags=neighbor,format=gray[cells];${heard}`, [...picture(pictureCodecs[format], constantQuality[format]), ...sound, '-map', '[cells]', '-f', 'rawvideo', 'pipe:1'], [PAINTED, 1], (bytes) => meter.take(bytes));
  if ((await stat(path)).size <= maxBytes) return meter.flashesASecond();
  const kbps = Math.floor(((maxBytes * AIM_SHARE * 8) / (lengthMs / 1000) - SOUND_KBPS * 1000) / 1000);
  if (kbps < LEAST_KBPS) throw new TooHeavyError(maxBytes);
  // Two passes: the first one learns where the bits are needed.
  const log = `${path}-passes`;
  const rate = (pass: 1 | 2): readonly string[] => picture(passCodecs[format], ['-b:v', `${kbps}k`, '-pass', String(pass), '-passlogfile', log]);
  const seen = `${graph.picture};[picture]null[shown]`;
  try {
    await run(seen, [...rate(1), '-an', '-f', 'null', '-'], [PAINTED, PASSED]);
    await run(`${seen};${heard}`, [...rate(2), ...sound], [PASSED, 1]);
  } finally {
    await Promise.all(PASS_FILES.map((end) => rm(`${log}${end}`, { force: true })));
  }
  if ((await stat(path)).size > maxBytes) throw new TooHeavyError(maxBytes);
  return meter.flashesASecond();
}

async function encodeMoving(graph: FilterGraph, path: string, format: 'webp' | 'gif', { signal, onProgress }: FilmOptions): Promise<null> {
  const { filter, codec } = movingPictures[format];
  const fit = `scale=w='min(${MOVING.sidePx},iw)':h='min(${MOVING.sidePx},ih)':force_original_aspect_ratio=decrease`;
  await runFfmpeg([...graph.inputs, '-filter_complex', `${graph.picture};[picture]trim=end=${MOVING.seconds},fps=${MOVING.fps},${fit}${filter}[moving]`, '-map', '[moving]', ...codec, '-f', format, path], {
    signal,
    mostMs: MOST_MS,
    isPatient: true,
    onProgress: (reachedMs) => onProgress(PAINTED + (1 - PAINTED) * Math.min(1, reachedMs / (MOVING.seconds * 1000))),
  });
  return null;
}

/** The filter that brings the sound to its loudness, by what was measured in a pass over the sound alone. */
async function levelled({ inputs, sound }: Pick<FilterGraph, 'inputs' | 'sound'>, signal: AbortSignal): Promise<string> {
  const key = JSON.stringify([inputs, sound]);
  const filter = levels.get(key) ?? (await measuredLevel({ inputs, sound }, signal));
  levels.set(key, filter);
  return filter;
}

async function measuredLevel({ inputs, sound }: Pick<FilterGraph, 'inputs' | 'sound'>, signal: AbortSignal): Promise<string> {
  const { messages } = await runFfmpeg([...inputs, '-filter_complex', `${sound};[sound]loudnorm=${LOUDNESS}:print_format=json[level]`, '-map', '[level]', '-f', 'null', '-'], { signal, mostMs: MOST_MS, isPatient: true });
  const found = /\{[^{}]*"input_i"[^{}]*\}/.exec(messages);
  const measured = found ? (JSON.parse(found[0]) as Readonly<Record<string, string>>) : {};
  // Silence has no loudness: there is nothing to bring anywhere.
  if (!Number.isFinite(Number(measured['input_i']))) return 'anull';
  return `loudnorm=${LOUDNESS}:measured_I=${measured['input_i']}:measured_TP=${measured['input_tp']}:measured_LRA=${measured['input_lra']}:measured_thresh=${measured['input_thresh']}:offset=${measured['target_offset']}:linear=true`;
}
