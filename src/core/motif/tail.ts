import type { Box } from '../geometry/box.ts';
import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { band, boxAround, polygon, type Point } from './outline.ts';
import { seededNumbers } from './seeded-numbers.ts';

const SAMPLES = 64;

const BOWS = 5;

/**
 * A kite's tail: a thin line that comes in at the top and swings out at the right edge, with bows at even distances along
 * it. It keeps to the quiet corner opposite a text that starts at the left.
 * @param box the cut
 * @param unitPx the margin `m` in pixels
 */
export const tailMotif: MotifGenerator = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const phase = random() * 0.6;
  const shortSide = Math.min(box.widthPx, box.heightPx);
  const point: Curve = (t) => {
    const along = (t - 0.04) * shortSide * 0.66;
    const swing = Math.sin((t * 1.45 + phase) * Math.PI) * unitPx * 0.95;
    return [box.xPx + box.widthPx - shortSide * 0.56 + along * 0.92 + swing * 0.4, box.yPx + along * 0.42 - swing * 0.8];
  };
  const places = evenPlaces(point, BOWS);
  return [
    { path: band(along(point), unitPx * 0.045), ink: 'surface', boxes: ribbonBoxes(point) },
    ...places.map(([x, y, angle], index): MotifShape => {
      const reach = unitPx * (0.5 + index * 0.07 + random() * 0.06);
      return { path: bowPath(x, y, angle + Math.PI / 2, reach), ink: index % 2 === 0 ? 'accent' : 'surface', boxes: [{ xPx: x - reach, yPx: y - reach, widthPx: reach * 2, heightPx: reach * 2 }] };
    }),
  ];
};

/** Points at even distances along a curve, with the direction of the curve there. */
function evenPlaces(point: Curve, count: number): readonly (readonly [number, number, number])[] {
  const samples = Array.from({ length: SAMPLES + 1 }, (_, index) => point(index / SAMPLES));
  const lengths = samples.map((here, index) => {
    const before = samples[index - 1] ?? here;
    return Math.hypot(here[0] - before[0], here[1] - before[1]);
  });
  const total = lengths.reduce((sum, length) => sum + length, 0);
  return Array.from({ length: count }, (_, index) => {
    const wanted = (total * (index + 0.75)) / (count + 0.5);
    let [walked, at] = [0, 1];
    while (at < SAMPLES && walked + (lengths[at] ?? 0) < wanted) walked += lengths[at++] ?? 0;
    const [x, y] = samples[at] ?? [0, 0];
    const [fromX, fromY] = samples[at - 1] ?? [0, 0];
    return [x, y, Math.atan2(y - fromY, x - fromX)] as const;
  });
}

type Curve = (t: number) => Point;

const along = (point: Curve): readonly Point[] => Array.from({ length: SAMPLES + 1 }, (_, sample) => point(sample / SAMPLES));

/** A curve's box in stretches: one box around all of it would claim room that it leaves free. */
function ribbonBoxes(point: Curve): readonly Box[] {
  const points = along(point);
  const perBox = SAMPLES / 8;
  return Array.from({ length: 8 }, (_, stretch) => boxAround(points.slice(stretch * perBox, (stretch + 1) * perBox + 1)));
}

/** Two triangles that meet in a knot. */
function bowPath(x: number, y: number, angle: number, reach: number): string {
  const corner = (turn: number): Point => [x + Math.cos(angle + turn) * reach, y + Math.sin(angle + turn) * reach];
  const spread = 0.5;
  return polygon([[x, y], corner(-spread), corner(spread)]) + polygon([[x, y], corner(Math.PI - spread), corner(Math.PI + spread)]);
}
