import { clearEdges, labAt, labAwaySquared, SIDES, type Lab, type LabPlane } from './lab-plane.ts';
import type { FocalPoint } from './picture-facts.ts';

/** How wide a border a picture's ground is read from, as a share; its colours, and how often one has to come there. */
const BORDER_BAND = 0.1;
const [PALETTE_COLOURS, PALETTE_ROUNDS, RARE_SHARE] = [14, 4, 0.01] as const;
/** Colour distances in OKLab from which a pixel surely is nothing of the ground, and may be none beside one that surely is not. */
const [SURELY_UNLIKE, MAYBE_UNLIKE] = [0.13, 0.08] as const;
/** Things smaller than this share of the picture are dust; share of a thing's edges that have to be clear. */
const DUST_SHARE = 0.0008;
const CLEAR_EDGE = 0.86;
/** How near a thing has to come to the focal point for it to be the subject, as a share of the long side. */
const NEAR_FOCAL = 0.06;
/** Gaps up to this wide, as a share of twice the long side, may take no more than such a share of the things that they are in. */
const [GAP, MOST_GAPS] = [0.025, 0.3] as const;

interface Thing {
  readonly pixels: readonly number[];
  /** It reaches the edge of the picture. */
  readonly isCutOff: boolean;
}

/**
 * Things with clear edges whose colours do not come at the borders of their picture, as a red kite before clouds: 1 a pixel of
 * them. Null unless the subject is one of them.
 */
export function unlikeBorder(plane: LabPlane, focal: FocalPoint): Uint8Array | null {
  const { widthPx, heightPx } = plane;
  const palette = borderPalette(plane);
  const unlike = new Float64Array(widthPx * heightPx);
  for (let index = 0; index < unlike.length; index += 1) unlike[index] = Math.sqrt(nearestOf(palette, plane, index).awaySquared);
  const things = connected(unlike, widthPx, heightPx).filter(({ pixels, isCutOff }) => pixels.length >= DUST_SHARE * unlike.length && !isCutOff);
  const labels = new Int32Array(unlike.length);
  things.forEach(({ pixels }, index) => pixels.forEach((pixel) => (labels[pixel] = index + 1)));
  const edges = clearEdges(plane, labels);
  const clear = things.filter((_, index) => (edges.get(index + 1) ?? 0) >= CLEAR_EDGE);
  if (!clear.some((thing) => isNear(thing, focal, plane))) return null;
  const before = new Uint8Array(unlike.length);
  for (const { pixels } of clear) for (const pixel of pixels) before[pixel] = 1;
  return isWhole(before, plane) ? before : null;
}

/** False where narrow gaps take much of what was found: the white stripes of an awning belong to it as much as its red ones. */
function isWhole(before: Uint8Array, { widthPx, heightPx }: LabPlane): boolean {
  const reachPx = Math.round(GAP * Math.max(widthPx, heightPx));
  const closed = spread(spread(before, widthPx, heightPx, reachPx, 1), widthPx, heightPx, reachPx, 0);
  const area = (mask: Uint8Array): number => mask.reduce((sum, each) => sum + each, 0);
  return area(closed) <= area(before) * (1 + MOST_GAPS);
}

/** Spreads what has a value over all that is within reach of it, along rows and then along columns. */
function spread(mask: Uint8Array, widthPx: number, heightPx: number, reachPx: number, value: 0 | 1): Uint8Array {
  const along = (from: Uint8Array, lines: number, length: number, indexOf: (line: number, at: number) => number): Uint8Array => {
    const made = from.slice();
    for (let line = 0; line < lines; line += 1) {
      let last = -Infinity;
      for (let at = 0; at < length + reachPx; at += 1) {
        if (at < length && from[indexOf(line, at)] === value) last = at;
        const [first, end] = [at - reachPx, at];
        // Within reach behind the last one, and before the next.
        if (end < length && end - last <= reachPx) made[indexOf(line, end)] = value;
        if (first >= 0 && first < length && last >= first && last <= end) made[indexOf(line, first)] = value;
      }
    }
    return made;
  };
  const rows = along(mask, heightPx, widthPx, (line, at) => line * widthPx + at);
  return along(rows, widthPx, heightPx, (line, at) => at * widthPx + line);
}

function isNear({ pixels }: Thing, focal: FocalPoint, { widthPx, heightPx }: LabPlane): boolean {
  const reachPx = NEAR_FOCAL * Math.max(widthPx, heightPx);
  return pixels.some((pixel) => Math.hypot((pixel % widthPx) - focal.x * widthPx, Math.floor(pixel / widthPx) - focal.y * heightPx) <= reachPx);
}

/** The colours of a picture's border, by k-means from the colours that lie furthest apart. */
function borderPalette(plane: LabPlane): readonly Lab[] {
  const border = borderPixels(plane);
  let palette: Lab[] = [labAt(plane, border[0] ?? 0)];
  const nearest = new Float64Array(border.length).fill(Infinity);
  while (palette.length < PALETTE_COLOURS) {
    const newest = palette.at(-1) ?? [0, 0, 0];
    let furthest = 0;
    border.forEach((index, at) => {
      nearest[at] = Math.min(nearest[at] ?? Infinity, labAwaySquared(plane, index, newest));
      if ((nearest[at] ?? 0) > (nearest[furthest] ?? 0)) furthest = at;
    });
    palette.push(labAt(plane, border[furthest] ?? 0));
  }
  for (let round = 0; round < PALETTE_ROUNDS; round += 1) {
    const sums = palette.map(() => ({ l: 0, a: 0, b: 0, many: 0 }));
    for (const index of border) {
      const sum = sums[nearestOf(palette, plane, index).place];
      if (!sum) continue;
      const [l, a, b] = labAt(plane, index);
      sum.l += l;
      sum.a += a;
      sum.b += b;
      sum.many += 1;
    }
    // A colour that few pixels have is something that only touches the border.
    palette = sums.filter(({ many }) => many >= border.length * RARE_SHARE).map(({ l, a, b, many }) => [l / many, a / many, b / many]);
  }
  return palette;
}

/** Where in a palette the colour lies that is nearest to that of a pixel, and the square of how far it is. */
function nearestOf(palette: readonly Lab[], plane: LabPlane, index: number): { readonly place: number; readonly awaySquared: number } {
  let place = -1;
  let awaySquared = Infinity;
  for (let at = 0; at < palette.length; at += 1) {
    const squared = labAwaySquared(plane, index, palette[at] ?? [0, 0, 0]);
    if (squared >= awaySquared) continue;
    place = at;
    awaySquared = squared;
  }
  return { place, awaySquared };
}

/** Every second pixel of every second row of the border. */
function borderPixels({ widthPx, heightPx }: LabPlane): readonly number[] {
  const [bandX, bandY] = [Math.ceil(widthPx * BORDER_BAND), Math.ceil(heightPx * BORDER_BAND)];
  const border: number[] = [];
  for (let y = 0; y < heightPx; y += 2) {
    for (let x = 0; x < widthPx; x += 2) if (x < bandX || y < bandY || x >= widthPx - bandX || y >= heightPx - bandY) border.push(y * widthPx + x);
  }
  return border;
}

/** Connected pixels that are surely unlike the ground, grown into those that may be. */
function connected(unlike: Float64Array, widthPx: number, heightPx: number): readonly Thing[] {
  const seen = new Uint8Array(unlike.length);
  const things: Thing[] = [];
  for (let seed = 0; seed < unlike.length; seed += 1) {
    if (seen[seed] === 1 || (unlike[seed] ?? 0) < SURELY_UNLIKE) continue;
    seen[seed] = 1;
    const pixels = [seed];
    let isCutOff = false;
    for (let next = 0; next < pixels.length; next += 1) {
      const from = pixels[next] ?? 0;
      const [x, y] = [from % widthPx, Math.floor(from / widthPx)];
      for (const [dx, dy] of SIDES) {
        if (x + dx < 0 || x + dx >= widthPx || y + dy < 0 || y + dy >= heightPx) {
          isCutOff = true;
          continue;
        }
        const to = from + dx + dy * widthPx;
        if (seen[to] === 1 || (unlike[to] ?? 0) < MAYBE_UNLIKE) continue;
        seen[to] = 1;
        pixels.push(to);
      }
    }
    things.push({ pixels, isCutOff });
  }
  return things;
}
