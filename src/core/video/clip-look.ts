import { takePictureFacts, type FocalPoint, type Raster } from '../crop/picture-facts.ts';
import type { RecordingFacts, FocalAt, Span } from './recording.ts';

/** Frames a second that are looked at for blur and shaking. */
export const LOOKS_A_SECOND = 10;

/** What one small frame of a clip tells. */
export interface FrameLook {
  readonly atMs: number;
  /** Mean strength of fine detail (absolute Laplacian of luma), in [0, 1020]. */
  readonly sharpness: number;
  /** Mean luma of every column and of every row: what a shift of the whole picture is found by. */
  readonly columns: Float64Array;
  readonly rows: Float64Array;
  /** What stands out, and the luma that tells what moves; null where the subject was not looked for. */
  readonly subject: { readonly focal: FocalPoint; readonly luma: Uint8Array; readonly widthPx: number } | null;
}

/** @param withSubject finding the subject takes longest and need not be done for every frame */
export function lookAtFrame(raster: Raster, atMs: number, withSubject: boolean): FrameLook {
  const { widthPx, heightPx, rgba } = raster;
  const luma = new Float64Array(widthPx * heightPx);
  for (let index = 0; index < luma.length; index += 1) luma[index] = 0.2126 * (rgba[index * 4] ?? 0) + 0.7152 * (rgba[index * 4 + 1] ?? 0) + 0.0722 * (rgba[index * 4 + 2] ?? 0);
  const at = (x: number, y: number): number => luma[y * widthPx + x] ?? 0;
  const columns = new Float64Array(widthPx);
  const rows = new Float64Array(heightPx);
  let detail = 0;
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      columns[x] = (columns[x] ?? 0) + at(x, y) / heightPx;
      rows[y] = (rows[y] ?? 0) + at(x, y) / widthPx;
      if (x > 0 && y > 0 && x < widthPx - 1 && y < heightPx - 1) detail += Math.abs(4 * at(x, y) - at(x - 1, y) - at(x + 1, y) - at(x, y - 1) - at(x, y + 1));
    }
  }
  return { atMs, sharpness: detail / Math.max(1, (widthPx - 2) * (heightPx - 2)), columns, rows, subject: withSubject ? { focal: takePictureFacts(raster).focal, luma: Uint8Array.from(luma), widthPx } : null };
}

/** Softer than this share of the sharpest frames of its scene is out of focus. */
const BLURRED_SHARE = 0.45;
/** How far a whole picture may jump about its own steady movement, as a share of its side. */
const STEADY_SHARE = 0.011;
/** Movement that lasts this many frames on either side is meant. */
const MEANT_REACH = 3;
const MAX_SHIFT_PX = 12;
const MIN_SPAN_MS = 400;
/** A subject that stays within this share of the picture does not move; a still subject is found less reliably than a moving one. */
const MIN_TRAVEL = { mover: 0.14, salient: 0.3 } as const;
/** A subject's path is reduced to the fewest points that keep it within this share of the picture. */
const PATH_TOLERANCE = 0.05;
const SMOOTHING_REACH = 1;
/** Luma that changes less than this is noise. */
const MIN_CHANGE = 20;
/** A thing that moves takes this share of a picture; more than that is the camera. */
const MOVING_SHARE = { least: 0.0006, most: 0.14 } as const;
const MAX_SPREAD = 0.2;
/** A thing that moves is the subject when it is found in this share of the looks. */
const MIN_SHARE_MOVING = 0.6;

/** Judges frames in order: where a clip is out of focus, where it shakes, and where its subject goes. */
export function judgeFrames(looks: readonly FrameLook[], { durationMs, sceneChangesMs }: { readonly durationMs: number; readonly sceneChangesMs: readonly number[] }): Pick<RecordingFacts, 'blurred' | 'shaking' | 'subject'> {
  const bounds = [0, ...sceneChangesMs, Infinity];
  const scenes = bounds.slice(1).map((end, index) => looks.filter(({ atMs }) => atMs >= (bounds[index] ?? 0) && atMs < end));
  const paths = scenes.map(subjectPath);
  return {
    blurred: scenes.flatMap((scene) => spansWhere(scene, blurredIn(scene), durationMs)),
    shaking: scenes.flatMap((scene) => spansWhere(scene, shakingIn(scene), durationMs)),
    subject: paths.some(({ travels }) => travels) ? paths.flatMap(({ path }, index) => simplified(path, index)) : [],
  };
}

function blurredIn(scene: readonly FrameLook[]): readonly boolean[] {
  const sorted = scene.map(({ sharpness }) => sharpness).sort((a, b) => a - b);
  const sharp = sorted[Math.floor(sorted.length * 0.9)] ?? 0;
  return scene.map(({ sharpness }) => sharpness < sharp * BLURRED_SHARE);
}

function shakingIn(scene: readonly FrameLook[]): readonly boolean[] {
  const shiftsOf = (pick: (look: FrameLook) => Float64Array): readonly number[] => scene.map((look, index) => (index === 0 ? 0 : shiftBetween(pick(scene[index - 1] ?? look), pick(look)) / pick(look).length));
  const [across, down] = [shiftsOf(({ columns }) => columns), shiftsOf(({ rows }) => rows)];
  const jumps = across.map((_, index) => Math.hypot(jumpAt(across, index), jumpAt(down, index)));
  // A single jump is a bump or a measuring error; shaking repeats.
  return jumps.map((_, index) => mean(jumps.slice(Math.max(0, index - MEANT_REACH), index + MEANT_REACH + 1)) > STEADY_SHARE);
}

/** How far a shift is from those around it. */
function jumpAt(shifts: readonly number[], index: number): number {
  return Math.abs((shifts[index] ?? 0) - mean(shifts.slice(Math.max(1, index - MEANT_REACH), index + MEANT_REACH + 1)));
}

/** How many pixels a profile has moved, to a fraction: where the sum of absolute differences is least. */
export function shiftBetween(before: Float64Array, after: Float64Array): number {
  const most = Math.min(MAX_SHIFT_PX, Math.floor(before.length / 4));
  const costAt = (shift: number): number => {
    let sum = 0;
    for (let at = most; at < before.length - most; at += 1) sum += Math.abs((before[at] ?? 0) - (after[at + shift] ?? 0));
    return sum;
  };
  const shifts = Array.from({ length: 2 * most + 1 }, (_, index) => index - most);
  const costs = shifts.map(costAt);
  const best = costs.indexOf(Math.min(...costs));
  const [left, here, right] = [costs[best - 1], costs[best] ?? 0, costs[best + 1]];
  const shift = shifts[best] ?? 0;
  if (left === undefined || right === undefined) return shift;
  const bend = left - 2 * here + right;
  return bend <= 0 ? shift : shift + (0.5 * (left - right)) / bend;
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
}

/** Stretches of frames of which something is true, without the very short ones. */
function spansWhere(scene: readonly FrameLook[], isTrue: readonly boolean[], durationMs: number): readonly Span[] {
  const spans: Span[] = [];
  scene.forEach(({ atMs }, index) => {
    if (!isTrue[index]) return;
    const toMs = Math.min(durationMs, atMs + 1000 / LOOKS_A_SECOND);
    const last = spans.at(-1);
    if (last && isTrue[index - 1]) spans[spans.length - 1] = { ...last, toMs };
    else spans.push({ fromMs: atMs, toMs });
  });
  return spans.filter(({ fromMs, toMs }) => toMs - fromMs >= MIN_SPAN_MS);
}

/** Where the subject of a scene is: medians over a few looks, so that one mistaken look moves nothing. What moves by itself is the subject; else what stands out. */
function subjectPath(scene: readonly FrameLook[]): { readonly path: readonly FocalAt[]; readonly travels: boolean } {
  const looked = scene.flatMap(({ atMs, subject }) => (subject ? [{ atMs, ...subject }] : []));
  const movers = looked.map((here, index) => movingThing(looked[index - 1], here, looked[index + 1]));
  const hasMover = movers.filter((mover) => mover !== null).length >= looked.length * MIN_SHARE_MOVING;
  const found = looked.flatMap(({ atMs, focal }, index): FocalAt[] => {
    const at = hasMover ? movers[index] : focal;
    return at ? [{ atMs, ...at }] : [];
  });
  const path = found.map(({ atMs }, index): FocalAt => {
    const around = found.slice(Math.max(0, index - SMOOTHING_REACH), index + SMOOTHING_REACH + 1);
    return { atMs, x: median(around.map(({ x }) => x)), y: median(around.map(({ y }) => y)) };
  });
  return { path, travels: travelOf(path) >= (hasMover ? MIN_TRAVEL.mover : MIN_TRAVEL.salient) };
}

interface Looked {
  readonly luma: Uint8Array;
  readonly widthPx: number;
}

/** What is different from the look before as well as from the one after is where the moving thing is now; null where all moves, or nothing. */
function movingThing(before: Looked | undefined, here: Looked, after: Looked | undefined): FocalPoint | null {
  const [first, last] = [before ?? after, after ?? before];
  if (!first || !last) return null;
  const { luma, widthPx } = here;
  const heightPx = luma.length / widthPx;
  let [weight, sumX, sumY, sumXX, sumYY, count] = [0, 0, 0, 0, 0, 0];
  luma.forEach((value, index) => {
    const change = Math.min(Math.abs(value - (first.luma[index] ?? value)), Math.abs(value - (last.luma[index] ?? value)));
    if (change < MIN_CHANGE) return;
    const [x, y] = [(index % widthPx) / widthPx, Math.floor(index / widthPx) / heightPx];
    weight += change;
    sumX += change * x;
    sumY += change * y;
    sumXX += change * x * x;
    sumYY += change * y * y;
    count += 1;
  });
  const share = count / luma.length;
  if (share < MOVING_SHARE.least || share > MOVING_SHARE.most) return null;
  const [x, y] = [sumX / weight, sumY / weight];
  const spread = Math.sqrt(Math.max(0, sumXX / weight - x * x) + Math.max(0, sumYY / weight - y * y));
  return spread > MAX_SPREAD ? null : { x: round3(x), y: round3(y) };
}

function round3(value: number): number {
  return Math.round(value * 1000) / 1000;
}

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0.5;
}

function travelOf(path: readonly FocalAt[]): number {
  const range = (values: readonly number[]): number => (values.length === 0 ? 0 : Math.max(...values) - Math.min(...values));
  return Math.max(range(path.map(({ x }) => x)), range(path.map(({ y }) => y)));
}

/** As few points as tell a path. A scene begins at once where its subject is: the change from the scene before is not a movement. */
function simplified(path: readonly FocalAt[], scene: number): readonly FocalAt[] {
  const kept = douglasPeucker(path);
  const [first] = kept;
  return scene === 0 || !first ? kept : [{ ...first, atMs: Math.max(0, first.atMs - 1000 / LOOKS_A_SECOND) }, ...kept];
}

/** @see Douglas and Peucker, Algorithms for the reduction of the number of points required to represent a digitized line (1973) */
function douglasPeucker(path: readonly FocalAt[]): readonly FocalAt[] {
  const [first, last] = [path[0], path.at(-1)];
  if (!first || !last || path.length < 3) return path;
  let [worst, worstOff] = [0, 0];
  path.forEach((point, index) => {
    const share = (point.atMs - first.atMs) / (last.atMs - first.atMs);
    const off = Math.hypot(point.x - first.x - (last.x - first.x) * share, point.y - first.y - (last.y - first.y) * share);
    if (off > worstOff) [worst, worstOff] = [index, off];
  });
  if (worstOff <= PATH_TOLERANCE) return [first, last];
  return [...douglasPeucker(path.slice(0, worst + 1)).slice(0, -1), ...douglasPeucker(path.slice(worst))];
}
