import { mkdir, rm, stat } from 'node:fs/promises';
import { shotMovements } from '../../core/video/movement.ts';
import { VIDEO_FPS } from '../../core/video/shot-times.ts';
import { voiceEndMs } from '../../core/video/speech.ts';
import { toFrames, toMs } from '../../core/video/timeline.ts';
import type { MediaStore } from '../media/media-store.ts';
import type { RenderPool } from '../render/render-pool.ts';
import { TooHeavyError } from '../render/render-cut.ts';
import type { FilmSource } from './film-source.ts';
import { filterGraph, type FilmToJoin, type FilterGraph } from './filter-graph.ts';
import { runFfmpeg } from './run-ffmpeg.ts';

export type FilmFormat = 'mp4' | 'webm';
export const filmMimes: Readonly<Record<FilmFormat, string>> = { mp4: 'video/mp4', webm: 'video/webm' };

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

const pictureCodecs: Readonly<Record<FilmFormat, readonly string[]>> = {
  mp4: ['-c:v', 'libx264', '-preset', 'veryfast', '-profile:v', 'high'],
  webm: ['-c:v', 'libvpx-vp9', '-deadline', 'realtime', '-cpu-used', '6', '-row-mt', '1'],
};
const constantQuality: Readonly<Record<FilmFormat, readonly string[]>> = { mp4: ['-crf', '20'], webm: ['-crf', '32', '-b:v', '0'] };
const soundCodecs: Readonly<Record<FilmFormat, readonly string[]>> = { mp4: ['-c:a', 'aac', '-b:a', `${SOUND_KBPS}k`], webm: ['-c:a', 'libopus', '-b:a', `${SOUND_KBPS}k`] };
const tags = ['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv'];

/**
 * One cut of a video as a file: its layers are painted, the loudness of its sound is measured, then ffmpeg puts all of it together.
 * @param path where the file goes
 * @throws TooHeavyError when it cannot be made small enough; FfmpegError when it was stopped or failed
 */
export async function renderFilm(source: FilmSource, path: string, { render, media }: { readonly render: RenderPool; readonly media: MediaStore }, options: FilmOptions): Promise<void> {
  const folder = await media.temporaryPath();
  await mkdir(folder);
  try {
    const graph = filterGraph(await paintedFilm(source, folder, render), source.clips);
    options.onProgress(PAINTED);
    await encode(graph, source.timeline.lengthFrames, path, options);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function paintedFilm({ cut, timeline, track, clips, films, musicPath, voicePath }: FilmSource, folder: string, render: RenderPool): Promise<FilmToJoin> {
  const { shots, lengthFrames } = timeline;
  const pictures = new Map(cut.pictures.map(({ picture }) => [picture.id, { focal: picture.focal, film: films.get(picture.id) }]));
  const voice = track.voice === undefined ? undefined : films.get(track.voice);
  const spoken = (track.subtitles ?? []).filter(({ text, fromMs }) => text.trim() !== '' && toFrames(fromMs) < lengthFrames);
  const painted = await render.layers({
    kind: 'layers',
    source: cut,
    shots: shots.map((shot, index) => ({ lengthFrames: shot.lengthFrames, isLast: index === shots.length - 1, movements: shotMovements(shot, pictures, cut.slides[index]?.adjustment.crops ?? {}) })),
    clips: [...clips.keys()],
    subtitles: spoken.map(({ text }) => text),
    folder,
  });
  return {
    size: { widthPx: cut.placement.exportPx.width, heightPx: cut.placement.exportPx.height },
    lengthFrames,
    shots: shots.map(({ startFrame, into, clip }, index) => ({ startFrame, into, clip, layers: painted.shots[index]?.layers ?? [], lengthFrames: painted.shots[index]?.lengthFrames ?? 0 })),
    cues: spoken.flatMap(({ fromMs, toMs: endMs }, index) => {
      const layer = painted.subtitles[index];
      return layer ? [{ layer: { kind: 'still' as const, ...layer }, fromFrame: toFrames(fromMs), toFrame: Math.min(lengthFrames, toFrames(endMs)) }] : [];
    }),
    music: musicPath === null ? null : { path: musicPath, volume: track.musicVolume ?? 1 },
    voice: voicePath === null ? null : { path: voicePath, endMs: voice ? voiceEndMs(voice, toMs(lengthFrames)) : toMs(lengthFrames) },
  };
}

async function encode(graph: FilterGraph, lengthFrames: number, path: string, options: FilmOptions): Promise<void> {
  const { format, maxBytes, signal, title, onProgress } = options;
  const lengthMs = toMs(lengthFrames);
  const sound = `${graph.sound};[sound]${await levelled(graph, signal)},${STEREO}[level]`;
  const run = (rate: readonly string[], from: number): Promise<unknown> =>
    runFfmpeg(
      [...graph.inputs, '-filter_complex', `${graph.picture};${sound}`, '-map', '[picture]', '-map', '[level]', ...pictureCodecs[format], ...rate, '-pix_fmt', 'yuv420p', ...tags, '-r', String(VIDEO_FPS), ...soundCodecs[format], '-ar', '48000', '-map_metadata', '-1', '-metadata', `title=${title}`, '-movflags', '+faststart', '-f', format, path],
      { signal, mostMs: MOST_MS, onProgress: (reachedMs) => onProgress(from + (1 - from) * Math.min(1, reachedMs / lengthMs)) },
    );
  await run(constantQuality[format], PAINTED);
  if ((await stat(path)).size <= maxBytes) return;
  const kbps = Math.floor(((maxBytes * AIM_SHARE * 8) / (lengthMs / 1000) - SOUND_KBPS * 1000) / 1000);
  if (kbps < LEAST_KBPS) throw new TooHeavyError(maxBytes);
  await run(['-b:v', `${kbps}k`, '-maxrate', `${kbps}k`, '-bufsize', `${kbps * 2}k`], PAINTED);
  if ((await stat(path)).size > maxBytes) throw new TooHeavyError(maxBytes);
}

/** The filter that brings the sound to its loudness, by what was measured in a pass over the sound alone. */
async function levelled(graph: FilterGraph, signal: AbortSignal): Promise<string> {
  const { messages } = await runFfmpeg([...graph.inputs, '-filter_complex', `${graph.sound};[sound]loudnorm=${LOUDNESS}:print_format=json[level]`, '-map', '[level]', '-f', 'null', '-'], { signal, mostMs: MOST_MS });
  const found = /\{[^{}]*"input_i"[^{}]*\}/.exec(messages);
  const measured = found ? (JSON.parse(found[0]) as Readonly<Record<string, string>>) : {};
  // Silence has no loudness: there is nothing to bring anywhere.
  if (!Number.isFinite(Number(measured['input_i']))) return 'anull';
  return `loudnorm=${LOUDNESS}:measured_I=${measured['input_i']}:measured_TP=${measured['input_tp']}:measured_LRA=${measured['input_lra']}:measured_thresh=${measured['input_thresh']}:offset=${measured['target_offset']}:linear=true`;
}
