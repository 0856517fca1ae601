import type { CropWindow } from '../../core/crop/crop-window.ts';
import type { Box, Size } from '../../core/geometry/box.ts';
import type { TransitionKind } from '../../core/piece/shot.ts';
import { VIDEO_FPS } from '../../core/video/shot-times.ts';
import { SWEEP_EDGE } from '../../core/video/sweep.ts';
import type { WindowPath } from '../../core/video/render-plan.ts';
import { toMs } from '../../core/video/timeline.ts';
import type { PaintedLayer, PaintedShot } from './paint-layers.ts';
import { inputFile } from './run-ffmpeg.ts';

/** A clip's working copy. */
export interface FilmFile {
  readonly path: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** A shot with its place in time and the sound of its clip. */
export interface ShotToJoin extends PaintedShot {
  readonly startFrame: number;
  readonly into: { readonly kind: TransitionKind; readonly frames: number };
  /** Where its clip begins and how loud it is; null for a shot without a clip. */
  readonly clip: { readonly mediaId: string; readonly fromFrame: number; readonly volume: number; readonly hasSound: boolean } | null;
}

export interface FilmToJoin {
  readonly size: Size;
  readonly lengthFrames: number;
  readonly shots: readonly ShotToJoin[];
  /** Subtitles: what is laid over all shots, and when; `toFrame` is not in it. */
  readonly cues: readonly { readonly layer: PaintedLayer & { readonly kind: 'still' }; readonly fromFrame: number; readonly toFrame: number }[];
  /** What sweeps over transitions of that kind. */
  readonly band: { readonly file: string; readonly box: Box } | null;
  readonly music: { readonly path: string; readonly volume: number } | null;
  /** It ends with its last whole words, where the video is shorter. */
  readonly voice: { readonly path: string; readonly endMs: number } | null;
}

/** What of a film is to be heard. */
export interface FilmToHear extends Pick<FilmToJoin, 'lengthFrames' | 'music' | 'voice'> {
  readonly shots: readonly Omit<ShotToJoin, 'layers'>[];
}

/** Input options and filters as ffmpeg takes them; the picture comes out as `[picture]`, the sound as `[sound]`. */
export interface FilterGraph {
  readonly inputs: readonly string[];
  readonly picture: string;
  readonly sound: string;
}

/** Our transitions by the names that ffmpeg's xfade has for them. */
const xfades: Readonly<Record<Exclude<TransitionKind, 'cut' | 'sweep'>, string>> = { fade: 'fade', push: 'slideleft', wipe: 'wipeleft' };
const SAMPLE_RATE = 48_000;
/** Clip sound comes in and leaves within this, so that cuts do not click. */
const SOFT_EDGE_S = 0.03;
const MUSIC_OUT_S = 0.8;

/** Puts painted layers and clips together. */
export function filterGraph(film: FilmToJoin, files: ReadonlyMap<string, FilmFile>): FilterGraph {
  const builder = new GraphBuilder(film, files);
  const shots = film.shots.map((shot, index) => builder.shot(shot, index));
  const picture = builder.cues(builder.join(shots));
  return { inputs: builder.inputs, picture: [...builder.chains, picture].join(';'), sound: builder.sound() };
}

/** The sound alone, which is known before anything is painted. */
export function soundGraph(film: FilmToHear, files: ReadonlyMap<string, FilmFile>): Pick<FilterGraph, 'inputs' | 'sound'> {
  const builder = new GraphBuilder({ ...film, size: { widthPx: 0, heightPx: 0 }, shots: film.shots.map((shot) => ({ ...shot, layers: [] })), cues: [], band: null }, files);
  return { inputs: builder.inputs, sound: builder.sound() };
}

class GraphBuilder {
  readonly inputs: string[] = [];
  readonly chains: string[] = [];
  #inputCount = 0;

  constructor(
    readonly film: FilmToJoin,
    readonly files: ReadonlyMap<string, FilmFile>,
  ) {}

  #input(path: string, ...options: readonly string[]): number {
    this.inputs.push(...inputFile(path, ...options));
    this.#inputCount += 1;
    return this.#inputCount - 1;
  }

  /** A painted layer as a stream without end. */
  #still(file: string, more = ''): string {
    const input = this.#input(file, '-framerate', String(VIDEO_FPS));
    return `[${input}:v]format=rgba${more},scale=in_range=pc:out_color_matrix=bt709:out_range=tv,format=yuva420p`;
  }

  shot(shot: ShotToJoin, index: number): string {
    const { size } = this.film;
    const [first, ...rest] = shot.layers;
    const fills = first && first.kind !== 'text' && first.box.widthPx >= size.widthPx && first.box.heightPx >= size.heightPx;
    const end = `trim=end_frame=${shot.lengthFrames}`;
    let current = `s${index}l0`;
    if (first && fills) this.chains.push(first.kind === 'film' ? `${this.#film(first, shot)}[${current}]` : `${first.kind === 'moving' ? this.#moving(first, shot) : `${this.#still(first.file)},${LOOP}`},${end},format=yuv420p[${current}]`);
    else this.chains.push(`color=c=black:s=${size.widthPx}x${size.heightPx}:r=${VIDEO_FPS},${end},format=yuv420p[${current}]`);
    const over = fills ? rest : shot.layers;
    over.forEach((layer, at) => {
      const name = `s${index}o${at}`;
      const next = `s${index}l${at + 1}`;
      this.chains.push(`${this.#layer(layer, shot)}[${name}]`, `[${current}][${name}]${overlayOf(layer)}[${next}]`);
      current = next;
    });
    this.chains.push(`[${current}]${STEADY}[shot${index}]`);
    return `shot${index}`;
  }

  #layer(layer: PaintedLayer, shot: ShotToJoin): string {
    if (layer.kind === 'film') return this.#film(layer, shot);
    if (layer.kind === 'moving') return this.#moving(layer, shot);
    if (layer.kind === 'still') return `${this.#still(layer.file)},${LOOP}`;
    const { enterAt, enterFrames, leaveAt, leaveFrames } = layer.times;
    const leave = Number.isFinite(leaveAt) ? `,fade=t=out:s=${leaveAt}:n=${leaveFrames}:alpha=1` : '';
    return `${this.#still(layer.file)},${LOOP},fade=t=in:s=${enterAt}:n=${enterFrames}:alpha=1${leave}`;
  }

  /** A photograph of which another part is stretched over its box with every frame, to fractions of a pixel. */
  #moving({ file, from, to }: PaintedLayer & { readonly kind: 'moving' }, { lengthFrames }: ShotToJoin): string {
    const edge = (pick: (part: CropWindow) => number, side: string): string => `'${side}*(${pick(from).toFixed(6)}+${(pick(to) - pick(from)).toFixed(6)}*min(1,(on-${COUNTED})/${lengthFrames}))'`;
    const [left, top] = [edge(({ x }) => x, 'W'), edge(({ y }) => y, 'H')];
    const [right, bottom] = [edge(({ x, width }) => x + width, 'W'), edge(({ y, height }) => y + height, 'H')];
    return `${this.#still(file)},format=yuv420p,${LOOP},perspective=${[left, top, right, top, left, bottom, right, bottom].map((value, at) => `${at % 2 === 0 ? 'x' : 'y'}${Math.floor(at / 2)}=${value}`).join(':')}:eval=frame:interpolation=linear`;
  }

  #fileOf(mediaId: string): FilmFile {
    const file = this.files.get(mediaId);
    if (!file) throw new RangeError(`No file is at hand for clip '${mediaId}'`);
    return file;
  }

  /**
   * Opens the clip of a shot where the shot begins in it, for its pictures or for its sound. One input for both would be read ahead for
   * the sound, which is mixed from all clips at once, and all its pictures would wait in memory.
   */
  #clip(file: FilmFile, { clip, lengthFrames }: Pick<ShotToJoin, 'clip' | 'lengthFrames'>, only: 'pictures' | 'sound'): number {
    return this.#input(file.path, ...(only === 'pictures' ? ['-threads', '1', '-an'] : ['-vn']), '-ss', seconds(clip?.fromFrame ?? 0), '-t', seconds(lengthFrames + VIDEO_FPS));
  }

  #film({ mediaId, box, path }: PaintedLayer & { readonly kind: 'film' }, shot: ShotToJoin): string {
    const file = this.#fileOf(mediaId);
    const input = this.#clip(file, shot, 'pictures');
    const crop = cropAlong(path, file);
    const end = `trim=end_frame=${shot.lengthFrames}`;
    return `[${input}:v]fps=${VIDEO_FPS},${end},setpts=PTS-STARTPTS,crop=${crop},scale=${Math.round(box.widthPx)}:${Math.round(box.heightPx)}:flags=bicubic,setsar=1,tpad=stop_mode=clone:stop=${shot.lengthFrames},${end},format=yuv420p`;
  }

  /** Shots one after the other, by their transitions. */
  join(shots: readonly string[]): string {
    return shots.reduce((joined, name, index) => {
      const shot = this.film.shots[index];
      if (index === 0 || !shot) return name;
      const result = `j${index}`;
      const { kind, frames } = shot.into;
      if (kind === 'cut') this.chains.push(`[${joined}][${name}]concat=n=2:v=1:a=0,${STEADY}[${result}]`);
      else if (kind === 'sweep') this.#sweep(joined, name, shot, result);
      else this.chains.push(`[${joined}][${name}]xfade=transition=${xfades[kind]}:duration=${seconds(frames)}:offset=${seconds(shot.startFrame)},${STEADY}[${result}]`);
      return result;
    });
  }

  /** One shot takes over from the other by a wipe while its edge is in the picture, under the middle of a band that runs over both. */
  #sweep(joined: string, name: string, { startFrame, into: { frames } }: ShotToJoin, result: string): void {
    const lead = Math.round(frames * SWEEP_EDGE.comes);
    const wipe = Math.max(1, frames - 2 * lead);
    this.chains.push(`[${name}]trim=start_frame=${lead},setpts=PTS-STARTPTS,${STEADY}[${name}late]`, `[${joined}][${name}late]xfade=transition=${xfades.wipe}:duration=${seconds(wipe)}:offset=${seconds(startFrame + lead)},${STEADY}[${result}wiped]`);
    const { band, size } = this.film;
    if (!band) throw new RangeError('A transition sweeps without a band');
    const progress = `(n-${startFrame + COUNTED}+0.5)/${frames}`;
    this.chains.push(`${this.#still(band.file)},${LOOP}[${result}band]`, `[${result}wiped][${result}band]overlay=x='2*floor((${size.widthPx}-${progress}*${size.widthPx + band.box.widthPx})/2)':y=0:shortest=1:format=yuv420:enable='between(n,${startFrame},${startFrame + frames - 1})'[${result}]`);
  }

  cues(joined: string): string {
    let current = joined;
    this.film.cues.forEach(({ layer, fromFrame, toFrame }, index) => {
      const name = `cue${index}`;
      this.chains.push(`${this.#still(layer.file)},${LOOP}[${name}]`, `[${current}][${name}]overlay=x=${layer.box.xPx}:y=${layer.box.yPx}:shortest=1:enable='between(n,${fromFrame},${toFrame - 1})'[${name}o]`);
      current = `${name}o`;
    });
    return `[${current}]format=yuv420p[picture]`;
  }

  /** Clip sound, voice and music, which gives way to the voice; silence where there is nothing. */
  sound(): string {
    const total = seconds(this.film.lengthFrames);
    const even = `aresample=${SAMPLE_RATE},aformat=channel_layouts=stereo`;
    const chains: string[] = [];
    const mixed: string[] = [];
    this.film.shots.forEach((shot, index) => {
      if (!shot.clip?.hasSound || shot.clip.volume === 0) return;
      const input = this.#clip(this.#fileOf(shot.clip.mediaId), shot, 'sound');
      const length = toMs(shot.lengthFrames) / 1000;
      chains.push(`[${input}:a]atrim=end=${length},asetpts=PTS-STARTPTS,${even},volume=${shot.clip.volume},afade=t=in:d=${SOFT_EDGE_S},afade=t=out:st=${Math.max(0, length - SOFT_EDGE_S)}:d=${SOFT_EDGE_S},adelay=${Math.round(toMs(shot.startFrame))}:all=1[a${index}]`);
      mixed.push(`[a${index}]`);
    });
    const { voice, music } = this.film;
    if (voice) {
      const input = this.#input(voice.path);
      chains.push(`[${input}:a]${even},atrim=end=${(voice.endMs / 1000).toFixed(3)}${music ? ',asplit[voice][key]' : '[voice]'}`);
      mixed.push('[voice]');
    }
    if (music) {
      const input = this.#input(music.path, '-stream_loop', '-1');
      const out = Math.max(0, toMs(this.film.lengthFrames) / 1000 - MUSIC_OUT_S);
      chains.push(`[${input}:a]${even},atrim=end=${total},volume=${music.volume},afade=t=out:st=${out}:d=${MUSIC_OUT_S}[${voice ? 'loud' : 'music'}]`);
      // The key is padded: where nobody speaks any more, the music comes back and does not end.
      if (voice) chains.push('[key]apad[always]', '[loud][always]sidechaincompress=threshold=0.02:ratio=9:attack=25:release=350[music]');
      mixed.push('[music]');
    }
    if (mixed.length === 0) return `anullsrc=r=${SAMPLE_RATE}:cl=stereo,atrim=end=${total}[sound]`;
    return [...chains, `${mixed.join('')}amix=inputs=${mixed.length}:normalize=0:duration=longest,apad,atrim=end=${total}[sound]`].join(';');
  }
}

/** A crop of one size along a path: its place is an expression of the frame's number. */
function cropAlong(path: WindowPath, { widthPx, heightPx }: FilmFile): string {
  const [first] = path;
  if (!first) throw new RangeError('A clip is shown without a window');
  const size = [first.window.width * widthPx, first.window.height * heightPx].map(Math.round).join(':');
  const place = (pick: (window: CropWindow) => number, side: number): string => {
    const at = path.map(({ frame, window }) => ({ frame, px: Math.round(pick(window) * side) }));
    if (at.every(({ px }) => px === at[0]?.px)) return String(at[0]?.px ?? 0);
    const later = at.slice(1).reduceRight((rest, { frame, px }, index) => {
      const before = at[index] ?? { frame, px };
      return `if(lt(n,${frame}),${before.px}+${px - before.px}*(n-${before.frame})/${frame - before.frame},${rest})`;
    }, String(at.at(-1)?.px ?? 0));
    return `'${later}'`;
  };
  return `${size}:${place(({ x }) => x, widthPx)}:${place(({ y }) => y, heightPx)}`;
}

/** An overlay, and a perspective, has counted the frame that it is at already, when its place is asked for. */
const COUNTED = 1;

/** Repeats a single picture for ever, at the rate of the video. */
const LOOP = `loop=loop=-1:size=1:start=0,setpts=N/(${VIDEO_FPS}*TB)`;
/** Transitions ask for an even rate and one clock. */
const STEADY = `fps=${VIDEO_FPS},settb=1/${VIDEO_FPS}`;

function overlayOf(layer: PaintedLayer): string {
  const { xPx, yPx } = layer.box;
  const at = (y: string): string => `overlay=x=${Math.round(xPx)}:y=${y}:shortest=1:format=yuv420`;
  if (layer.kind !== 'text') return at(String(Math.round(yPx)));
  const { enterAt, enterFrames } = layer.times;
  return at(`'${Math.round(yPx)}+2*floor(${(layer.risePx / 2).toFixed(3)}*pow(1-clip((n-${enterAt + COUNTED})/${enterFrames},0,1),3))'`);
}

const seconds = (frames: number): string => (frames / VIDEO_FPS).toFixed(5);
