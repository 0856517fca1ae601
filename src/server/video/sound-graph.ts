import { toMs } from '../../core/video/timeline.ts';
import type { FilterGraph, ClipFile } from './picture-graph.ts';
import { inputFile, seconds } from '../ffmpeg/run-ffmpeg.ts';

/** What of a video is to be heard. */
export interface VideoToHear {
  readonly lengthFrames: number;
  /** Where each shot is, where its clip begins and how loud it is; null for a shot without a clip. */
  readonly shots: readonly { readonly startFrame: number; readonly lengthFrames: number; readonly clip: { readonly mediaId: string; readonly fromFrame: number; readonly volume: number; readonly hasSound: boolean } | null }[];
  readonly music: { readonly path: string; readonly volume: number } | null;
  /** It ends with its last whole words, where the video is shorter. */
  readonly voice: { readonly path: string; readonly endMs: number } | null;
}

export const SAMPLE_RATE = 48_000;
/** Clip sound comes in and leaves within this, so that cuts do not click. */
const SOFT_EDGE_S = 0.03;
const MUSIC_OUT_S = 0.8;

/** Mixes clip sound, voice and music into `[sound]`. Music gets quieter under the voice; where nothing sounds there is silence. */
export function soundGraph({ lengthFrames, shots, music, voice }: VideoToHear, files: ReadonlyMap<string, ClipFile>): FilterGraph {
  const inputs: (readonly string[])[] = [];
  const input = (path: string, ...options: readonly string[]): number => inputs.push(inputFile(path, ...options)) - 1;
  const even = `aresample=${SAMPLE_RATE},aformat=channel_layouts=stereo`;
  const chains: string[] = [];
  const mixed: string[] = [];
  shots.forEach(({ clip, startFrame, lengthFrames: shotFrames }, index) => {
    if (!clip?.hasSound || clip.volume === 0) return;
    const file = files.get(clip.mediaId);
    if (!file) throw new RangeError(`No file is at hand for clip '${clip.mediaId}'`);
    const at = input(file.path, '-vn', '-ss', seconds(clip.fromFrame), '-t', seconds(shotFrames));
    const length = toMs(shotFrames) / 1000;
    chains.push(`[${at}:a]atrim=end=${length},asetpts=PTS-STARTPTS,${even},volume=${clip.volume},afade=t=in:d=${SOFT_EDGE_S},afade=t=out:st=${Math.max(0, length - SOFT_EDGE_S)}:d=${SOFT_EDGE_S},adelay=${Math.round(toMs(startFrame))}:all=1[a${index}]`);
    mixed.push(`[a${index}]`);
  });
  if (voice) {
    chains.push(`[${input(voice.path)}:a]${even},atrim=end=${(voice.endMs / 1000).toFixed(3)}${music ? ',asplit[voice][key]' : '[voice]'}`);
    mixed.push('[voice]');
  }
  const total = seconds(lengthFrames);
  if (music) {
    const out = Math.max(0, toMs(lengthFrames) / 1000 - MUSIC_OUT_S);
    chains.push(`[${input(music.path, '-stream_loop', '-1')}:a]${even},atrim=end=${total},volume=${music.volume},afade=t=out:st=${out}:d=${MUSIC_OUT_S}[${voice ? 'loud' : 'music'}]`);
    // The key is padded: where nobody speaks any more, the music comes back and does not end.
    if (voice) chains.push('[key]apad[always]', '[loud][always]sidechaincompress=threshold=0.02:ratio=9:attack=25:release=350[music]');
    mixed.push('[music]');
  }
  const filter = mixed.length === 0 ? `anullsrc=r=${SAMPLE_RATE}:cl=stereo,atrim=end=${total}[sound]` : [...chains, `${mixed.join('')}amix=inputs=${mixed.length}:normalize=0:duration=longest,apad,atrim=end=${total}[sound]`].join(';');
  return { inputs: inputs.flat(), filter };
}
