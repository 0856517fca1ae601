import type { Box } from '../geometry/box.ts';

/** A filled outline of a motif and which ink it takes. */
export interface MotifShape {
  readonly path: string;
  readonly ink: 'surface' | 'accent';
  /** Small boxes that together hold the outline. */
  readonly boxes: readonly Box[];
}

/** Seeded numbers in [0, 1): the same seed gives the same motif in every size. */
function* seededNumbers(seed: number): Generator<number, never> {
  let state = seed >>> 0;
  for (;;) {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    yield ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  }
}

const SAMPLES = 64;

const BOWS = 5;

/**
 * A kite's tail: a thin line that comes in at the top and swings out at the right edge, with bows at even distances along
 * it. It keeps to the quiet corner opposite a text that starts at the left.
 * @param box the cut
 * @param unitPx the margin `m` in pixels
 */
export function tailMotif(box: Box, unitPx: number, seed: number): readonly MotifShape[] {
  const random = seededNumbers(seed);
  const phase = random.next().value * 0.6;
  const shortSide = Math.min(box.widthPx, box.heightPx);
  const point: Curve = (t) => {
    const along = (t - 0.04) * shortSide * 0.66;
    const swing = Math.sin((t * 1.45 + phase) * Math.PI) * unitPx * 0.95;
    return [box.xPx + box.widthPx - shortSide * 0.56 + along * 0.92 + swing * 0.4, box.yPx + along * 0.42 - swing * 0.8];
  };
  const places = evenPlaces(point, BOWS);
  return [
    { path: ribbon(point, unitPx * 0.045), ink: 'surface', boxes: ribbonBoxes(point) },
    ...places.map(([x, y, angle], index): MotifShape => {
      const reach = unitPx * (0.5 + index * 0.07 + random.next().value * 0.06);
      return { path: bowPath(x, y, angle + Math.PI / 2, reach), ink: index % 2 === 0 ? 'accent' : 'surface', boxes: [{ xPx: x - reach, yPx: y - reach, widthPx: reach * 2, heightPx: reach * 2 }] };
    }),
  ];
}

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

type Curve = (t: number) => readonly [number, number];

function ribbon(point: Curve, halfWidthPx: number): string {
  const left: string[] = [];
  const right: string[] = [];
  for (let sample = 0; sample <= SAMPLES; sample += 1) {
    const t = sample / SAMPLES;
    const [x, y] = point(t);
    const [aheadX, aheadY] = point(t + 0.004);
    const length = Math.hypot(aheadX - x, aheadY - y) || 1;
    const [nx, ny] = [(-(aheadY - y) / length) * halfWidthPx, ((aheadX - x) / length) * halfWidthPx];
    left.push(`${fixed(x + nx)} ${fixed(y + ny)}`);
    right.unshift(`${fixed(x - nx)} ${fixed(y - ny)}`);
  }
  return `M${[...left, ...right].join('L')}Z`;
}

function ribbonBoxes(point: Curve): readonly Box[] {
  const perBox = SAMPLES / 8;
  return Array.from({ length: 8 }, (_, stretch) => {
    const points = Array.from({ length: perBox + 1 }, (__, sample) => point((stretch * perBox + sample) / SAMPLES));
    const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
    const [xPx, yPx] = [Math.min(...xs), Math.min(...ys)];
    return { xPx, yPx, widthPx: Math.max(...xs) - xPx, heightPx: Math.max(...ys) - yPx };
  });
}

/** Two triangles that meet in a knot. */
function bowPath(x: number, y: number, angle: number, reach: number): string {
  const corner = (turn: number): string => `${fixed(x + Math.cos(angle + turn) * reach)} ${fixed(y + Math.sin(angle + turn) * reach)}`;
  const spread = 0.5;
  return `M${fixed(x)} ${fixed(y)}L${corner(-spread)}L${corner(spread)}ZM${fixed(x)} ${fixed(y)}L${corner(Math.PI - spread)}L${corner(Math.PI + spread)}Z`;
}

function fixed(value: number): string {
  return value.toFixed(2);
}
