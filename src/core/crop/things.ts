import { barrierDistance } from './barrier-distance.ts';
import { byFocal } from './by-focal.ts';
import { labPlane, SIDES, type LabPlane } from './lab-plane.ts';
import type { Raster } from './picture-facts.ts';
import { boxAroundBoth, type BoxInPicture } from './subject-box.ts';

/** What is less far from the border than this is ground, however even the rest is. */
const LEAST_BARRIER = 0.08;
/** A thing goes on where it is this share of what sets it off: the sky-blue middle of a kite is hardly unlike the sky. */
const GOES_ON = 0.7;
/** Limbs narrower than twice this many pixels are strings and tails. */
const LIMB_PX = 2;
/** Parts that are nearer to each other than twice this share of the long side are one thing. */
const ONE_THING = 0.03;
/** Smaller shares of a picture are dust; so many things are kept. */
const DUST_SHARE = 0.003;
const MOST_THINGS = 12;
/** What fills this share of its box is a thing by itself. */
const WHOLE_FROM = 0.65;
/** Shades that a threshold is looked for in. */
const LEVELS = 64;
/** How near a focal point has to be to a thing, as a share of the long side. */
const NEAR = 0.06;

/**
 * Boxes around the things of a photograph, the largest first: what stands off from all that reaches its border, with its parts
 * together and without its strings. A guess, unlike an outline: a thing may be two, or a part of one.
 *
 * ```
 * small picture -> without specks -> barrier distance -> threshold with hysteresis -> strings off, parts together -> boxes
 * ```
 */
export function thingsIn(raster: Raster): readonly BoxInPicture[] {
  const { widthPx, heightPx } = raster;
  const distance = barrierDistance(withoutSpecks(labPlane(raster)));
  const least = Math.max(LEAST_BARRIER, otsu(distance));
  const grown = grow(distance, least, widthPx, heightPx);
  const solid = spread(spread(grown, 0, LIMB_PX, widthPx, heightPx), 1, LIMB_PX, widthPx, heightPx).map((each, index) => each & (grown[index] ?? 0));
  const reachPx = Math.round(ONE_THING * Math.max(widthPx, heightPx));
  const together = spread(spread(solid, 1, reachPx, widthPx, heightPx), 0, reachPx, widthPx, heightPx);
  const boxes = (mask: Uint8Array): readonly Region[] => regions(mask, widthPx, heightPx).map((pixels) => regionOf(pixels.filter((pixel) => solid[pixel] === 1), widthPx, heightPx)).filter(({ share }) => share >= DUST_SHARE);
  // A lantern is whole by itself, however near the next one hangs; a sail of a kite is not.
  const whole = boxes(solid).filter(({ box, share }) => share >= WHOLE_FROM * box.width * box.height);
  const found = [...boxes(together), ...whole].toSorted((a, b) => b.share - a.share).map(({ box }) => box);
  return found.filter((box, index) => !found.slice(0, index).some((larger) => isSameBox(larger, box))).slice(0, MOST_THINGS);
}

const isSameBox = (one: BoxInPicture, other: BoxInPicture): boolean => one.x === other.x && one.y === other.y && one.width === other.width && one.height === other.height;

/** The thing that a focal point lies on, the smallest of several; else all that it comes near to, as one that lies between parts belongs to both. Null where none was found. */
export const thingBox = byFocal(({ things = [], columns, rows }, focal) => {
  const longSide = Math.max(columns, rows);
  const away = ({ x, y, width, height }: BoxInPicture): number => Math.hypot((outside(focal.x, x, width) * columns) / longSide, (outside(focal.y, y, height) * rows) / longSide);
  const [smallest] = things.filter((box) => away(box) === 0).toSorted((a, b) => a.width * a.height - b.width * b.height);
  const [first, ...others] = things.filter((box) => away(box) <= NEAR);
  return smallest ?? (first ? others.reduce(boxAroundBoth, first) : null);
});

function outside(value: number, from: number, length: number): number {
  return Math.max(0, from - value, value - from - length);
}

/** Each axis of a pixel as the middle value of it and its neighbours: grain is no edge, and what is soft stays as it is. */
function withoutSpecks({ widthPx, heightPx, lab }: LabPlane): LabPlane {
  const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
  const smooth = lab.map((_, at) => {
    const [pixel, axis] = [Math.floor(at / 3), at % 3];
    const [x, y] = [pixel % widthPx, Math.floor(pixel / widthPx)];
    const around = new Float64Array(9);
    for (let each = 0; each < 9; each += 1) around[each] = lab[(within(y + Math.floor(each / 3) - 1, heightPx - 1) * widthPx + within(x + (each % 3) - 1, widthPx - 1)) * 3 + axis] ?? 0;
    return around.sort()[4] ?? 0;
  });
  return { widthPx, heightPx, lab: smooth };
}

/**
 * The threshold that parts values best into two groups.
 * @see Otsu, A Threshold Selection Method from Gray-Level Histograms (1979)
 */
function otsu(values: Float64Array): number {
  const most = values.reduce((highest, value) => Math.max(highest, value), 1e-9);
  const counts = new Array<number>(LEVELS).fill(0);
  for (const value of values) {
    const level = Math.min(LEVELS - 1, Math.floor((value / most) * LEVELS));
    counts[level] = (counts[level] ?? 0) + 1;
  }
  const all = counts.reduce((sum, count, level) => sum + count * level, 0);
  let [below, sumBelow, best, bestLevel] = [0, 0, -1, 0];
  counts.forEach((count, level) => {
    below += count;
    sumBelow += count * level;
    const above = values.length - below;
    if (below === 0 || above === 0) return;
    const apart = below * above * (sumBelow / below - (all - sumBelow) / above) ** 2;
    if (apart > best) [best, bestLevel] = [apart, level];
  });
  return ((bestLevel + 1) / LEVELS) * most;
}

/** What is far enough, and what of lesser distance hangs together with it. */
function grow(distance: Float64Array, least: number, widthPx: number, heightPx: number): Uint8Array {
  const mask = Uint8Array.from(distance, (each) => (each >= least ? 1 : 0));
  const waiting = [...mask.keys()].filter((pixel) => mask[pixel] === 1);
  for (let at = 0; at < waiting.length; at += 1) {
    for (const next of neighbours(waiting[at] ?? 0, widthPx, heightPx)) {
      if (mask[next] === 1 || (distance[next] ?? 0) < least * GOES_ON) continue;
      mask[next] = 1;
      waiting.push(next);
    }
  }
  return mask;
}

/** Spreads a value of a mask over a disc around each pixel that has it. */
function spread(mask: Uint8Array, value: 0 | 1, reachPx: number, widthPx: number, heightPx: number): Uint8Array {
  const made = mask.slice();
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      if (mask[y * widthPx + x] !== value) continue;
      for (let down = -reachPx; down <= reachPx; down += 1) {
        const row = y + down;
        if (row < 0 || row >= heightPx) continue;
        const across = Math.floor(Math.sqrt(reachPx ** 2 - down ** 2));
        made.fill(value, row * widthPx + Math.max(0, x - across), row * widthPx + Math.min(widthPx - 1, x + across) + 1);
      }
    }
  }
  return made;
}

/** Pixels of a mask that hang together. */
function regions(mask: Uint8Array, widthPx: number, heightPx: number): readonly (readonly number[])[] {
  const seen = new Uint8Array(mask.length);
  const found: number[][] = [];
  for (const start of mask.keys()) {
    if (mask[start] !== 1 || seen[start] === 1) continue;
    seen[start] = 1;
    const pixels = [start];
    for (let at = 0; at < pixels.length; at += 1) {
      for (const next of neighbours(pixels[at] ?? 0, widthPx, heightPx)) {
        if (mask[next] !== 1 || seen[next] === 1) continue;
        seen[next] = 1;
        pixels.push(next);
      }
    }
    found.push(pixels);
  }
  return found;
}

function neighbours(pixel: number, widthPx: number, heightPx: number): readonly number[] {
  const [x, y] = [pixel % widthPx, Math.floor(pixel / widthPx)];
  return SIDES.flatMap(([right, down]) => (x + right < 0 || y + down < 0 || x + right >= widthPx || y + down >= heightPx ? [] : [pixel + right + down * widthPx]));
}

/** Pixels that hang together: the box around them, and the share of the picture that they take. */
interface Region {
  readonly box: BoxInPicture;
  readonly share: number;
}

function regionOf(pixels: readonly number[], widthPx: number, heightPx: number): Region {
  let [left, right, top, bottom] = [widthPx, 0, heightPx, 0];
  for (const pixel of pixels) {
    const [x, y] = [pixel % widthPx, Math.floor(pixel / widthPx)];
    [left, right, top, bottom] = [Math.min(left, x), Math.max(right, x), Math.min(top, y), Math.max(bottom, y)];
  }
  const share = (value: number, sidePx: number): number => Math.round((value / sidePx) * 1000) / 1000;
  const box = { x: share(left, widthPx), y: share(top, heightPx), width: share(right - left + 1, widthPx), height: share(bottom - top + 1, heightPx) };
  return { box, share: pixels.length / (widthPx * heightPx) };
}
