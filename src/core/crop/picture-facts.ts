import { convertLrgbToOklab } from 'culori';
import type { BoxInPicture } from './subject-box.ts';
import type { SubjectOutline } from './subject-outline.ts';
import { thingsIn } from './things.ts';
import { LINEAR_OF_BYTE, luminanceOfLinear, srgbToLinear } from '../colour/contrast.ts';

/** A point of a picture as shares of its width and height, in [0, 1] from the upper left. */
export interface FocalPoint {
  readonly x: number;
  readonly y: number;
}

/** A small picture: 4 bytes a pixel (red, green, blue, alpha), rows from the top. */
export interface Raster {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly rgba: Uint8Array | Uint8ClampedArray;
}

/**
 * What layout has to know of a picture without holding its pixels: a grid over it, row by row from the upper left.
 * Luminances and saliency are in [0, 255]; least and most are over the pixels of a cell of the small picture.
 */
export interface PictureFacts {
  readonly columns: number;
  readonly rows: number;
  readonly leastLuminance: readonly number[];
  readonly meanLuminance: readonly number[];
  readonly mostLuminance: readonly number[];
  readonly saliency: readonly number[];
  readonly focal: FocalPoint;
  /** Share of the picture that is see-through; missing in facts taken before it was looked for. */
  readonly clearShare?: number | undefined;
  /** What stands before the ground; null where the one cannot be told from the other, missing where nobody has looked. */
  readonly outline?: SubjectOutline | null | undefined;
  /** Boxes around what stands off from the border, the largest first; missing where nobody has looked. */
  readonly things?: readonly BoxInPicture[] | undefined;
}

/** From this share of see-through pixels on a picture is a cut-out, not a photograph with a soft corner. */
const CUT_OUT_SHARE = 0.08;

/** True for a subject on nothing. */
export function isCutOut({ clearShare }: Pick<PictureFacts, 'clearShare'>): boolean {
  return (clearShare ?? 0) >= CUT_OUT_SHARE;
}

/** Long side, in pixels, of the small picture that facts are taken from, and cells along the long side of the grid. */
export const FACTS_RASTER_PX = 160;
const GRID_CELLS = 32;

/** Pull towards the middle: how much saliency a corner keeps. */
const CORNER_KEEPS = 0.45;
/** How much saliency a wholly blurred part keeps, and how far (in pixels of the small picture) detail counts for its surroundings. */
const BLUR_KEEPS = 0.25;
const SHARPNESS_REACH_PX = 5;
/** Reach of the window that settles on the strongest subject, as a share of the long side. */
const SUBJECT_REACH = 0.2;
const SETTLING_STEPS = 12;
/** Shares of all saliency within reach below which there is no one subject, and above which there clearly is. */
const DIFFUSE_SHARE = 0.24;
const CLEAR_SHARE = 0.42;

/** Works out luminances, saliency and the proposed focal point of a picture from a small copy of it. */
export function takePictureFacts(raster: Raster): PictureFacts {
  const lab = oklabPlanes(raster);
  const saliency = saliencyOf(raster, lab);
  const luminance = luminanceOf(raster);
  const scale = GRID_CELLS / Math.max(raster.widthPx, raster.heightPx);
  const columns = Math.max(1, Math.round(raster.widthPx * scale));
  const rows = Math.max(1, Math.round(raster.heightPx * scale));
  const grid = gridCells(raster, columns, rows);
  const cells = (values: Float64Array, reduce: (cell: readonly number[]) => number): readonly number[] =>
    grid.map((cell) => Math.round(255 * Math.min(1, Math.max(0, reduce(cell.map((index) => values[index] ?? 0))))));
  return {
    columns,
    rows,
    leastLuminance: cells(luminance, (cell) => Math.min(...cell)),
    meanLuminance: cells(luminance, mean),
    mostLuminance: cells(luminance, (cell) => Math.max(...cell)),
    saliency: cells(saliency, mean),
    focal: settleOnSubject(raster, saliency),
    clearShare: clearShareOf(raster),
    things: thingsIn(raster),
  };
}

/** See-through means less than half there. */
function clearShareOf({ widthPx, heightPx, rgba }: Raster): number {
  const count = widthPx * heightPx;
  let clear = 0;
  for (let index = 0; index < count; index += 1) if ((rgba[index * 4 + 3] ?? 255) < 128) clear += 1;
  return clear / Math.max(1, count);
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
}

/** Pixel indices of every cell of the grid, row by row. */
function gridCells({ widthPx, heightPx }: Raster, columns: number, rows: number): readonly (readonly number[])[] {
  const cells: number[][] = Array.from({ length: columns * rows }, () => []);
  for (let y = 0; y < heightPx; y += 1) {
    const row = Math.min(rows - 1, Math.floor((y * rows) / heightPx));
    for (let x = 0; x < widthPx; x += 1) {
      cells[row * columns + Math.min(columns - 1, Math.floor((x * columns) / widthPx))]?.push(y * widthPx + x);
    }
  }
  return cells;
}

interface LabPlanes {
  readonly l: Float64Array;
  readonly a: Float64Array;
  readonly b: Float64Array;
}

/** Transparent pixels count as mid grey, so that a cut-out's subject is what stands out. */
function oklabPlanes({ widthPx, heightPx, rgba }: Raster): LabPlanes {
  const count = widthPx * heightPx;
  const planes = { l: new Float64Array(count), a: new Float64Array(count), b: new Float64Array(count) };
  for (let index = 0; index < count; index += 1) {
    const alpha = (rgba[index * 4 + 3] ?? 255) / 255;
    const linear = (offset: number): number => {
      const byte = rgba[index * 4 + offset] ?? 0;
      return alpha === 1 ? (LINEAR_OF_BYTE[byte] ?? 0) : srgbToLinear((byte / 255) * alpha + 0.5 * (1 - alpha));
    };
    const colour = convertLrgbToOklab({ r: linear(0), g: linear(1), b: linear(2) });
    planes.l[index] = colour.l;
    planes.a[index] = colour.a;
    planes.b[index] = colour.b;
  }
  return planes;
}

function luminanceOf({ widthPx, heightPx, rgba }: Raster): Float64Array {
  const luminance = new Float64Array(widthPx * heightPx);
  for (let index = 0; index < luminance.length; index += 1) {
    const linear = (offset: number): number => LINEAR_OF_BYTE[rgba[index * 4 + offset] ?? 0] ?? 0;
    luminance[index] = luminanceOfLinear(linear(0), linear(1), linear(2));
  }
  return luminance;
}

/**
 * Saliency in [0, 1] as colour distance: of a small neighbourhood to the whole picture and to its wider surroundings,
 * with a mild pull to the middle. Chroma counts more than lightness, as clouds are light but dull; what is blurred or
 * transparent counts less, as the lens was not on it.
 * @see Achanta et al., Frequency-tuned Salient Region Detection (2009)
 */
function saliencyOf(raster: Raster, lab: LabPlanes): Float64Array {
  const { widthPx, heightPx } = raster;
  const longSide = Math.max(widthPx, heightPx);
  const whole = (plane: Float64Array): number => plane.reduce((sum, value) => sum + value, 0) / plane.length;
  const means = { l: whole(lab.l), a: whole(lab.a), b: whole(lab.b) };
  const blurs = [lab.l, lab.a, lab.b].map((plane) => boxMeans(plane, widthPx, heightPx));
  const [l, a, b] = blurs as [BoxMean, BoxMean, BoxMean];
  const near = Math.max(1, Math.round(longSide * 0.012));
  const wide = Math.round(longSide * 0.16);
  const cutOut = hasTransparency(raster);
  const sharpness = sharpnessOf(raster, lab.l);
  const saliency = new Float64Array(widthPx * heightPx);
  let most = 1e-9;
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const here = [l(x, y, near), a(x, y, near), b(x, y, near)] as const;
      const around = [l(x, y, wide), a(x, y, wide), b(x, y, wide)] as const;
      const toWhole = labDistance(here[0] - means.l, here[1] - means.a, here[2] - means.b);
      const toAround = labDistance(here[0] - around[0], here[1] - around[1], here[2] - around[2]);
      const offCentre = Math.hypot(x / widthPx - 0.5, y / heightPx - 0.5) / Math.SQRT1_2;
      const index = y * widthPx + x;
      const seen = ((raster.rgba[index * 4 + 3] ?? 255) / 255) * (BLUR_KEEPS + (1 - BLUR_KEEPS) * (sharpness[index] ?? 0));
      const value = (cutOut ? 1 : toWhole * toAround) * seen * (1 - (1 - CORNER_KEEPS) * offCentre ** 2);
      saliency[index] = value;
      most = Math.max(most, value);
    }
  }
  return saliency.map((value) => Math.sqrt(value / most));
}

/** True for a cut-out, whose outline is its subject. */
function hasTransparency({ rgba }: Raster): boolean {
  let clear = 0;
  for (let index = 3; index < rgba.length; index += 4) if ((rgba[index] ?? 255) < 128) clear += 1;
  return clear > rgba.length / 4 / 50;
}

/** Fine detail of lightness in [0, 1], as a share of the picture's sharpest parts, gathered over a small neighbourhood. */
function sharpnessOf({ widthPx, heightPx }: Raster, lightness: Float64Array): Float64Array {
  const smooth = boxMeans(lightness, widthPx, heightPx);
  const detail = lightness.map((value, index) => Math.abs(value - smooth(index % widthPx, Math.floor(index / widthPx), 1)));
  const gathered = boxMeans(detail, widthPx, heightPx);
  const local = detail.map((_, index) => gathered(index % widthPx, Math.floor(index / widthPx), SHARPNESS_REACH_PX));
  const sharpest = local.toSorted().at(-1 - Math.floor(local.length * 0.05)) ?? 0;
  return local.map((value) => Math.min(1, value / Math.max(sharpest, 1e-6)));
}

function labDistance(l: number, a: number, b: number): number {
  return Math.sqrt((l * 0.6) ** 2 + (a * 2.2) ** 2 + (b * 2.2) ** 2);
}

type BoxMean = (x: number, y: number, reach: number) => number;

/** Means over square windows in constant time, from a summed-area table. */
function boxMeans(plane: Float64Array, widthPx: number, heightPx: number): BoxMean {
  const stride = widthPx + 1;
  const sums = new Float64Array(stride * (heightPx + 1));
  for (let y = 0; y < heightPx; y += 1) {
    let row = 0;
    for (let x = 0; x < widthPx; x += 1) {
      row += plane[y * widthPx + x] ?? 0;
      sums[(y + 1) * stride + x + 1] = (sums[y * stride + x + 1] ?? 0) + row;
    }
  }
  return (x, y, reach) => {
    const x0 = Math.max(0, x - reach);
    const x1 = Math.min(widthPx, x + reach + 1);
    const above = Math.max(0, y - reach) * stride;
    const below = Math.min(heightPx, y + reach + 1) * stride;
    const sum = (sums[below + x1] ?? 0) - (sums[below + x0] ?? 0) - (sums[above + x1] ?? 0) + (sums[above + x0] ?? 0);
    return sum / ((x1 - x0) * ((below - above) / stride));
  };
}

/** Mean shift: from the window that holds most saliency, moves to the weighted middle until it rests. */
function settleOnSubject({ widthPx, heightPx }: Raster, saliency: Float64Array): FocalPoint {
  const reach = Math.round(Math.max(widthPx, heightPx) * SUBJECT_REACH);
  const strength = saliency.map((value) => value ** 2);
  const window = boxMeans(strength, widthPx, heightPx);
  let [x, y, most] = [widthPx / 2, heightPx / 2, -1];
  for (let row = 0; row < heightPx; row += 4) {
    for (let column = 0; column < widthPx; column += 4) {
      const held = window(column, row, Math.round(reach / 2));
      if (held > most) [x, y, most] = [column, row, held];
    }
  }
  for (let step = 0; step < SETTLING_STEPS; step += 1) {
    let [sum, sumX, sumY] = [1e-12, 0, 0];
    for (let row = Math.max(0, Math.floor(y - reach)); row < Math.min(heightPx, y + reach); row += 1) {
      for (let column = Math.max(0, Math.floor(x - reach)); column < Math.min(widthPx, x + reach); column += 1) {
        const weight = (strength[row * widthPx + column] ?? 0) * Math.max(0, 1 - Math.hypot(column - x, row - y) / reach);
        sum += weight;
        sumX += weight * column;
        sumY += weight * row;
      }
    }
    if (sum < 1e-9) break;
    [x, y] = [sumX / sum, sumY / sum];
  }
  const held = concentration({ x, y }, reach, strength, widthPx);
  const trust = Math.min(1, Math.max(0, (held - DIFFUSE_SHARE) / (CLEAR_SHARE - DIFFUSE_SHARE)));
  const middle = centroid(saliency, widthPx);
  return { x: round3((middle.x + (x - middle.x) * trust + 0.5) / widthPx), y: round3((middle.y + (y - middle.y) * trust + 0.5) / heightPx) };
}

/** Share of all saliency that lies within `reach` of a point: near 1 for one clear subject, low for a pattern. */
function concentration(point: FocalPoint, reach: number, strength: Float64Array, widthPx: number): number {
  let [inside, all] = [0, 1e-12];
  strength.forEach((value, index) => {
    all += value;
    if (Math.hypot((index % widthPx) - point.x, Math.floor(index / widthPx) - point.y) <= reach) inside += value;
  });
  return inside / all;
}

function centroid(weights: Float64Array, widthPx: number): FocalPoint {
  let [sum, x, y] = [1e-12, 0, 0];
  weights.forEach((value, index) => {
    sum += value;
    x += value * (index % widthPx);
    y += value * Math.floor(index / widthPx);
  });
  return { x: x / sum, y: y / sum };
}

function round3(value: number): number {
  return Math.round(Math.min(1, Math.max(0, value)) * 1000) / 1000;
}
