import { createHash } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import type { VideoMeasures } from '../../core/video/video-measures.ts';
import type { MediaStore } from '../media/media-store.ts';
import { madeOnce } from '../media/made-once.ts';
import { measureLoudness } from './measure-video.ts';
import type { FilterGraph } from './picture-graph.ts';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg.ts';
import { SAMPLE_RATE } from './sound-graph.ts';

/** What sound is kept in beside pictures. */
export type SoundFormat = 'mp4' | 'webm';

/** The sound of a video as a file, and what was measured on it. */
export interface VideoSound {
  readonly path: string;
  readonly measures: Pick<VideoMeasures, 'loudnessLufs' | 'truePeakDb'>;
}

export const SOUND_KBPS = 160;
const codecs: Readonly<Record<SoundFormat, string>> = { mp4: 'aac', webm: 'libopus' };
/** Loudness of what networks play (EBU R 128 in LUFS, true peak in dBTP); the peak leaves room for the encoder. */
const LOUDNESS = 'I=-14:TP=-1.5:LRA=11';
/** Filters that leave the number of channels open cannot be encoded. */
const STEREO = `aresample=${SAMPLE_RATE},aformat=channel_layouts=stereo`;
const MAX_MS = 30 * 60 * 1000;

/**
 * The sound of a video, mixed, brought to its loudness, encoded and measured. All cuts of a video sound alike: theirs is made once.
 * @throws FfmpegError when it was stopped or failed
 */
export async function videoSound(graph: FilterGraph, format: SoundFormat, store: MediaStore, signal: AbortSignal): Promise<VideoSound> {
  const key = createHash('sha256').update(JSON.stringify([graph, LOUDNESS, SOUND_KBPS])).digest('hex');
  const path = await madeOnce(store, store.derivedPathOf(key, `sound.${format}`), (to) => encodeSound(graph, format, to, signal));
  const noted = await madeOnce(store, store.derivedPathOf(key, `${format}-sound.json`), async (to) => writeFile(to, JSON.stringify(await measureLoudness(path, signal))));
  return { path, measures: JSON.parse(await readFile(noted, 'utf8')) as VideoSound['measures'] };
}

async function encodeSound(graph: FilterGraph, format: SoundFormat, to: string, signal: AbortSignal): Promise<void> {
  const level = await levelOf(graph, signal);
  await runFfmpeg([...graph.inputs, '-filter_complex', `${graph.filter};[sound]${level},${STEREO}[level]`, '-map', '[level]', '-c:a', codecs[format], '-b:a', `${SOUND_KBPS}k`, '-map_metadata', '-1', '-f', format, to], { signal, mostMs: MAX_MS, isPatient: true });
}

/** The filter that brings the sound to its loudness, by what was measured in a pass over it. */
async function levelOf({ inputs, filter }: FilterGraph, signal: AbortSignal): Promise<string> {
  const { messages } = await runFfmpeg([...inputs, '-filter_complex', `${filter};[sound]loudnorm=${LOUDNESS}:print_format=json[level]`, '-map', '[level]', '-f', 'null', '-'], { signal, mostMs: MAX_MS, isPatient: true });
  const found = /\{[^{}]*"input_i"[^{}]*\}/.exec(messages);
  const measured = found ? (JSON.parse(found[0]) as Readonly<Record<string, string>>) : {};
  // Silence has no loudness: there is nothing to bring anywhere.
  if (!Number.isFinite(Number(measured['input_i']))) return 'anull';
  return `loudnorm=${LOUDNESS}:measured_I=${measured['input_i']}:measured_TP=${measured['input_tp']}:measured_LRA=${measured['input_lra']}:measured_thresh=${measured['input_thresh']}:offset=${measured['target_offset']}:linear=true`;
}
