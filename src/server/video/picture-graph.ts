import type { CropWindow } from '../../core/crop/crop-window.ts';
import type { Size } from '../../core/geometry/box.ts';
import type { TransitionKind } from '../../core/piece/shot.ts';
import { VIDEO_FPS } from '../../core/video/shot-times.ts';
import { SWEEP_EDGE } from '../../core/video/sweep.ts';
import { LEAVE_POWER } from '../../core/video/manner.ts';
import type { TextTimes } from '../../core/video/motion.ts';
import type { TextWindow } from '../../core/video/motion-layers.ts';
import type { WindowPath } from '../../core/video/render-plan.ts';
import type { PaintedCue } from '../render/paint-cue.ts';
import type { PaintedInk, PaintedLayer, PaintedShot, RawPicture } from '../render/paint-layers.ts';
import { filterValue, inputFile, seconds } from '../ffmpeg/run-ffmpeg.ts';

/** A clip's working copy. */
export interface ClipFile {
  readonly path: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** A shot, how it takes over from the one before, and where its clip begins. */
export interface ShotToJoin extends PaintedShot {
  readonly into: { readonly kind: TransitionKind; readonly frames: number };
  readonly clip: { readonly fromFrame: number } | null;
}

export interface VideoToJoin {
  readonly size: Size;
  readonly shots: readonly ShotToJoin[];
  /** Subtitles: what is laid over all shots, and when; `toFrame` is not in it. */
  readonly cues: readonly { readonly layer: PaintedCue; readonly fromFrame: number; readonly toFrame: number }[];
  /** What sweeps over transitions of that kind. */
  readonly band: PaintedInk | null;
}

/** Input options and filters as ffmpeg takes them; a picture comes out as `[picture]`, sound as `[sound]`. */
export interface FilterGraph {
  readonly inputs: readonly string[];
  readonly filter: string;
}

/** Our transitions by the names that ffmpeg's xfade has for them. */
const xfades: Readonly<Record<Exclude<TransitionKind, 'cut'>, string>> = { fade: 'fade', push: 'slideleft', wipe: 'wipeleft', sweep: 'wipeleft' };

/** Puts painted layers and clips together. */
export function pictureGraph(recording: VideoToJoin, files: ReadonlyMap<string, ClipFile>): FilterGraph {
  const builder = new GraphBuilder(recording, files);
  const shots = recording.shots.map((shot, index) => builder.shot(shot, index));
  const last = builder.cues(builder.join(shots));
  return { inputs: builder.inputs, filter: [...builder.chains, last].join(';') };
}

class GraphBuilder {
  readonly inputs: string[] = [];
  readonly chains: string[] = [];
  #inputCount = 0;

  constructor(
    readonly recording: VideoToJoin,
    readonly files: ReadonlyMap<string, ClipFile>,
  ) {}

  #input(path: string, ...options: readonly string[]): number {
    this.inputs.push(...inputFile(path, ...options));
    this.#inputCount += 1;
    return this.#inputCount - 1;
  }

  /** A painted layer as a stream without end. */
  #still({ file, widthPx, heightPx }: RawPicture): string {
    const input = this.#input(file, '-f', 'rawvideo', '-pixel_format', 'rgba', '-video_size', `${widthPx}x${heightPx}`, '-framerate', String(VIDEO_FPS));
    return `[${input}:v]scale=in_range=pc:out_color_matrix=bt709:out_range=tv,format=yuva420p`;
  }

  shot(shot: ShotToJoin, index: number): string {
    const { size } = this.recording;
    const [first, ...rest] = shot.layers;
    const fills = first && first.kind !== 'text' && first.kind !== 'windowed' && first.box.widthPx >= size.widthPx && first.box.heightPx >= size.heightPx;
    const end = `trim=end_frame=${shot.lengthFrames}`;
    let current = `s${index}l0`;
    if (first && fills) this.chains.push(first.kind === 'clip' ? `${this.#recording(first, shot)}[${current}]` : `${first.kind === 'moving' ? this.#moving(first, shot) : `${this.#still(first.picture)},${LOOP}`},${end},format=yuv420p[${current}]`);
    else this.chains.push(`color=c=black:s=${size.widthPx}x${size.heightPx}:r=${VIDEO_FPS},${end},format=yuv420p[${current}]`);
    const over = fills ? rest : shot.layers;
    over.forEach((layer, at) => {
      const name = `s${index}o${at}`;
      const next = `s${index}l${at + 1}`;
      this.chains.push(`${this.#layer(layer, shot)}[${name}]`, `[${current}][${name}]${overlayOf(layer)}[${next}]`);
      current = next;
    });
    this.chains.push(`[${current}]${COUNT_ANEW}[shot${index}]`);
    return `shot${index}`;
  }

  #layer(layer: PaintedLayer, shot: ShotToJoin): string {
    if (layer.kind === 'clip') return this.#recording(layer, shot);
    if (layer.kind === 'moving') return this.#moving(layer, shot);
    if (layer.kind === 'still') return `${this.#still(layer.picture)},${LOOP}`;
    if (layer.kind === 'windowed') return this.#windowed(layer);
    const { enterAt, enterFrames, leaveAt, leaveFrames } = layer.times;
    const enter = enterAt < 0 ? '' : `,fade=t=in:s=${enterAt}:n=${enterFrames}:alpha=1`;
    const leave = Number.isFinite(leaveAt) ? `,fade=t=out:s=${leaveAt}:n=${leaveFrames}:alpha=1` : '';
    return `${this.#still(layer.picture)},${LOOP}${enter}${leave}`;
  }

  /** A text with clear pixels before and behind it, of which its window sees another part with every frame. */
  #windowed({ picture, times, window }: PaintedLayer & { readonly kind: 'windowed' }): string {
    const { widthPx, heightPx } = window.box;
    const [wide, high] = window.along === 'across' ? [3 * widthPx, heightPx] : [widthPx, 3 * heightPx];
    const [x, y] = window.along === 'across' ? [widthPx, 0] : [0, heightPx];
    const seen = passedThrough(times, window, 0);
    const [left, top] = window.along === 'across' ? [seen, '0'] : ['0', seen];
    return `${this.#still(picture)},pad=${wide}:${high}:${x}:${y}:color=black@0,${LOOP},crop=${widthPx}:${heightPx}:'${left}':'${top}'`;
  }

  /** A photograph of which another part is stretched over its box with every frame, to fractions of a pixel. */
  #moving({ picture, from, to }: PaintedLayer & { readonly kind: 'moving' }, { lengthFrames }: ShotToJoin): string {
    const edge = (pick: (part: CropWindow) => number, side: string): string => `'${side}*(${pick(from).toFixed(6)}+${(pick(to) - pick(from)).toFixed(6)}*min(1,(on-${COUNTED})/${lengthFrames}))'`;
    const [left, top] = [edge(({ x }) => x, 'W'), edge(({ y }) => y, 'H')];
    const [right, bottom] = [edge(({ x, width }) => x + width, 'W'), edge(({ y, height }) => y + height, 'H')];
    return `${this.#still(picture)},format=yuv420p,${LOOP},perspective=${[left, top, right, top, left, bottom, right, bottom].map((value, at) => `${at % 2 === 0 ? 'x' : 'y'}${Math.floor(at / 2)}=${value}`).join(':')}:eval=frame:interpolation=linear`;
  }

  #fileOf(mediaId: string): ClipFile {
    const file = this.files.get(mediaId);
    if (!file) throw new RangeError(`No file is at hand for clip '${mediaId}'`);
    return file;
  }

  #recording({ mediaId, box, path, colours }: PaintedLayer & { readonly kind: 'clip' }, shot: ShotToJoin): string {
    const file = this.#fileOf(mediaId);
    const input = this.#input(file.path, '-threads', '1', '-an', '-ss', seconds(shot.clip?.fromFrame ?? 0), '-t', seconds(shot.lengthFrames + VIDEO_FPS));
    const crop = cropAlong(path, file);
    const end = `trim=end_frame=${shot.lengthFrames}`;
    return `[${input}:v]fps=${VIDEO_FPS},${end},setpts=PTS-STARTPTS,crop=${crop},scale=${Math.round(box.widthPx)}:${Math.round(box.heightPx)}:flags=bicubic,setsar=1${colours === undefined ? '' : `,scale=in_color_matrix=bt709:in_range=tv,format=gbrp,lut3d=file=${filterValue(colours)}:interp=tetrahedral,scale=out_color_matrix=bt709:out_range=tv`},tpad=stop_mode=clone:stop=${shot.lengthFrames},${end},format=yuv420p`;
  }

  /**
   * Shots one after the other. Only the frames of a transition go through its filter: it takes colour at full resolution alone, and
   * turning all frames into that and back costs as much as all texts together.
   */
  join(shots: readonly string[]): string {
    const parts = shots.map((name, index) => this.#parts(name, index));
    const row = parts.flatMap(({ head, body }, index) => {
      const before = parts[index - 1]?.tail;
      const passed = before && head ? [this.#transition(before, head, index)] : [];
      return [...passed, ...(body ? [body] : [])];
    });
    this.chains.push(`${row.map((name) => `[${name}]`).join('')}concat=n=${row.length}:v=1:a=0,${COUNT_ANEW}[joined]`);
    return 'joined';
  }

  /** A shot taken apart: what it shares with the shot before, what is its own, what it shares with the next one. */
  #parts(name: string, index: number): { readonly head: string | null; readonly body: string | null; readonly tail: string | null } {
    const { lengthFrames, into } = this.#shotAt(index);
    const tailFrames = this.recording.shots[index + 1]?.into.frames ?? 0;
    const cuts = ([['head', 0, into.frames], ['body', into.frames, lengthFrames - tailFrames], ['tail', lengthFrames - tailFrames, lengthFrames]] as const).filter(([, from, to]) => to > from);
    const names = new Map(cuts.map(([part]) => [part, `${name}${part}`]));
    if (cuts.length > 1) this.chains.push(`[${name}]split=${cuts.length}${cuts.map(([part]) => `[${name}${part}all]`).join('')}`);
    for (const [part, from, to] of cuts) this.chains.push(`[${cuts.length > 1 ? `${name}${part}all` : name}]trim=start_frame=${from}:end_frame=${to},${COUNT_ANEW}[${name}${part}]`);
    return { head: names.get('head') ?? null, body: names.get('body') ?? null, tail: names.get('tail') ?? null };
  }

  #shotAt(index: number): ShotToJoin {
    const shot = this.recording.shots[index];
    if (!shot) throw new RangeError(`There is no shot ${index}`);
    return shot;
  }

  /** The frames in which one shot takes over from the other: as many as both have in common, each as it is in the middle of its time. */
  #transition(tail: string, head: string, index: number): string {
    const { kind, frames } = this.#shotAt(index).into;
    if (kind === 'cut') throw new RangeError('A cut has no frames of its own');
    const [comes, leaves] = kind === 'sweep' ? [SWEEP_EDGE.comes * frames, SWEEP_EDGE.leaves * frames] : [0, frames];
    // Until it begins, xfade takes no frame of the second stream.
    const lead = Math.max(0, Math.ceil(comes - 0.5));
    const mixed = `xfade=transition=${xfades[kind]}:duration=${seconds(leaves - comes)}:offset=${seconds(comes - 0.5)},trim=end_frame=${frames},${COUNT_ANEW},format=yuv420p`;
    const result = `j${index}`;
    this.chains.push(`[${tail}]tpad=stop_mode=clone:stop=${SPARE},${FINE}[${tail}on]`, `[${head}]trim=start_frame=${lead},setpts=PTS-STARTPTS,tpad=stop_mode=clone:stop=${2 * SPARE},${FINE}[${head}on]`);
    this.chains.push(`[${tail}on][${head}on]${mixed}[${kind === 'sweep' ? `${result}wiped` : result}]`);
    if (kind === 'sweep') this.#sweep(frames, result);
    return result;
  }

  /** A band runs over a wipe, whose edge is in its middle. */
  #sweep(frames: number, result: string): void {
    const { band, size } = this.recording;
    if (!band) throw new RangeError('A transition sweeps without a band');
    const progress = `(n-${COUNTED}+0.5)/${frames}`;
    this.chains.push(`${this.#still(band.picture)},${LOOP}[${result}band]`, `[${result}wiped][${result}band]overlay=x='2*floor((${size.widthPx}-${progress}*${size.widthPx + band.box.widthPx})/2)':y=0:shortest=1:format=yuv420[${result}]`);
  }

  cues(joined: string): string {
    let current = joined;
    this.recording.cues.forEach(({ layer, fromFrame, toFrame }, index) => {
      const name = `cue${index}`;
      // A picture stays until the next one, the last one for ever.
      const [shown, ends] = layer.changes.length > 0 ? [`settb=1/${VIDEO_FPS},setpts='${stepsAt(layer.changes)}'`, ''] : [LOOP, ':shortest=1'];
      this.chains.push(`${this.#still(layer.picture)},${shown}[${name}]`, `[${current}][${name}]overlay=x=${layer.box.xPx}:y=${layer.box.yPx}${ends}:enable='between(n,${fromFrame},${toFrame - 1})'[${name}o]`);
      current = `${name}o`;
    });
    return `[${current}]format=yuv420p[picture]`;
  }
}

/** The frame of the video in which each of a row of pictures is shown, the first from the start: an expression of its number. */
function stepsAt(changes: readonly number[]): string {
  return changes.map((frame, index) => `gte(N,${index + 1})*${frame - (changes[index - 1] ?? 0)}`).join('+');
}

/** A crop of one size along a path: its place is an expression of the frame's number. */
function cropAlong(path: WindowPath, { widthPx, heightPx }: ClipFile): string {
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

/** Powers of a share miss a whole number by less than this. */
const ROUNDING = 1e-6;
/** An overlay, and a perspective, has counted the frame that it is at already, when its place is asked for. */
const COUNTED = 1;

/** Repeats a single picture for ever, at the rate of the video. */
const LOOP = `loop=loop=-1:size=1:start=0,setpts=N/(${VIDEO_FPS}*TB)`;
/** What is joined asks for one clock, with a frame for each of its ticks; the filter for an even rate would fill up what has ended early. */
const COUNT_ANEW = `settb=1/${VIDEO_FPS},setpts=N`;
/** A clock that knows parts of a frame: transitions are timed by it. */
const FINE = `settb=1/${VIDEO_FPS * 1000}`;
/** xfade drops a frame when its first input ends and stalls when its second one does; pad both. */
const SPARE = 2;

function overlayOf(layer: PaintedLayer): string {
  const { xPx, yPx } = layer.box;
  const at = (y: string): string => `overlay=x=${Math.round(xPx)}:y=${y}:shortest=1:format=yuv420`;
  if (layer.kind === 'windowed' && layer.window.along === 'across') {
    // The text stands where it is: the part that is seen of it moves along with the window.
    return `overlay=x='${Math.round(xPx)}+${passedThrough(layer.times, layer.window, COUNTED)}-${layer.window.box.widthPx}':y=${Math.round(yPx)}:shortest=1:format=yuv420`;
  }
  if (layer.kind !== 'text') return at(String(Math.round(yPx)));
  const { enterAt, enterFrames, enterPower } = layer.times;
  return at(`'${Math.round(yPx)}+2*floor(${(layer.risePx / 2).toFixed(3)}*pow(1-clip((n-${enterAt + COUNTED})/${enterFrames},0,1),${enterPower}))'`);
}

/** How far a text has passed through its window, in whole pairs of pixels, as an expression of the frame's number; see `travelAt`. @param counted by how much the filter has counted on already */
function passedThrough({ enterAt, enterFrames, enterPower, leaveAt, leaveFrames }: TextTimes, { box, along, rightToLeft }: TextWindow, counted: number): string {
  const share = (at: number, frames: number): string => `clip((n-${at + counted})/${frames},0,1)`;
  const left = Number.isFinite(leaveAt) ? `+pow(${share(leaveAt, leaveFrames)},${LEAVE_POWER})` : '';
  const travel = `1-pow(1-${share(enterAt, enterFrames)},${enterPower})${left}`;
  const length = along === 'across' ? box.widthPx : box.heightPx;
  return `2*floor(${length / 2}*(${along === 'across' && rightToLeft ? `2-(${travel})` : travel})+${ROUNDING})`;
}
