import { contours } from 'd3-contour';
import simplify from 'simplify-js';
import { evenGround } from './even-ground.ts';
import { labPlane } from './lab-plane.ts';
import type { FocalPoint, Raster } from './picture-facts.ts';
import { unlikeBorder } from './unlike-border.ts';

/**
 * Rings around all that stands before the ground of a picture, even-odd: x and y in turn, as shares of its width and height times
 * `OUTLINE_UNITS`.
 */
export type SubjectOutline = readonly (readonly number[])[];

export const OUTLINE_UNITS = 4_096;
/** Long side, in pixels, of the small picture that an outline is taken from. */
export const OUTLINE_RASTER_PX = 360;

/** Shares of the picture between which there is something that stands before a ground. */
const [LEAST_SHARE, MOST_SHARE] = [0.02, 0.72];
/** Rings around less than this share of the picture are dust. */
const DUST_SHARE = 0.0008;
/** How far a simplified outline may lie from the exact one, in pixels of the small picture, and how many points it may have. */
const TOLERANCE_PX = 0.4;
const MAX_POINTS = 700;
/** Where on the soft edge the outline lies, from 0 outside to 1 inside: a rim of the ground would be seen on what lies behind. */
const INSIDE = 0.62;

/**
 * The outline of what stands before its ground: a kite in the sky, a cup before a wall, dunes below the air, a cut-out. Null where
 * the one cannot be told from the other.
 *
 * ```
 * small picture -> even ground from the upper edge, else things unlike the border -> contour -> simplified rings
 * ```
 */
export function subjectOutline(raster: Raster, focal: FocalPoint): SubjectOutline | null {
  const before = standsBefore(raster, focal);
  const share = before.reduce((sum, each) => sum + each, 0) / Math.max(1, before.length);
  return share >= LEAST_SHARE && share <= MOST_SHARE ? ringsOf(before, raster) : null;
}

/** For each pixel how much of it stands before the ground, in [0, 1]; empty where that cannot be told. */
function standsBefore(raster: Raster, focal: FocalPoint): Float64Array {
  const alpha = new Float64Array(raster.widthPx * raster.heightPx);
  let clear = 0;
  for (let index = 0; index < alpha.length; index += 1) {
    alpha[index] = (raster.rgba[index * 4 + 3] ?? 0) / 255;
    if ((alpha[index] ?? 0) < 0.5) clear += 1;
  }
  if (clear > alpha.length * LEAST_SHARE) return alpha;
  const plane = labPlane(raster);
  const ground = evenGround(plane);
  if (ground) return Float64Array.from(ground).map((each) => 1 - each);
  return Float64Array.from(unlikeBorder(plane, focal) ?? []);
}

function ringsOf(before: Float64Array, { widthPx, heightPx }: Raster): SubjectOutline | null {
  const soft = widenedAndSmoothed(before, widthPx, heightPx);
  const shape = contours().size([widthPx + 2, heightPx + 2]).smooth(true).contour(soft, INSIDE);
  const rings = shape.coordinates.flat().filter((ring) => Math.abs(areaOf(ring)) >= DUST_SHARE * widthPx * heightPx);
  const simple = rings.map((ring) => simplify(ring.map(([x = 0, y = 0]) => ({ x, y })), TOLERANCE_PX, true));
  const points = simple.reduce((sum, ring) => sum + ring.length, 0);
  if (points === 0 || points > MAX_POINTS) return null;
  const unit = (value: number, sidePx: number): number => Math.round(Math.min(1, Math.max(0, (value - 1) / sidePx)) * OUTLINE_UNITS);
  return simple.map((ring) => ring.flatMap(({ x, y }) => [unit(x, widthPx), unit(y, heightPx)]));
}

/** Means over each pixel and its neighbours, as a contour of whole pixels has steps; a pixel wider on all sides, as a hill that leaves its picture has no edge there. */
function widenedAndSmoothed(before: Float64Array, widthPx: number, heightPx: number): number[] {
  const at = (x: number, y: number): number => before[Math.min(heightPx - 1, Math.max(0, y)) * widthPx + Math.min(widthPx - 1, Math.max(0, x))] ?? 0;
  const row = (x: number, y: number): number => at(x - 1, y) + at(x, y) + at(x + 1, y);
  const values: number[] = [];
  for (let y = -1; y <= heightPx; y += 1) {
    for (let x = -1; x <= widthPx; x += 1) values.push((row(x, y - 1) + row(x, y) + row(x, y + 1)) / 9);
  }
  return values;
}

/** Area of a ring in square pixels; negative where it runs the other way. */
function areaOf(ring: readonly (readonly number[])[]): number {
  let twice = 0;
  ring.forEach(([x = 0, y = 0], index) => {
    const [nextX = 0, nextY = 0] = ring[(index + 1) % ring.length] ?? [];
    twice += x * nextY - nextX * y;
  });
  return twice / 2;
}
