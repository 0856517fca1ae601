import type { LabPlane } from './lab-plane.ts';

/** Passes over a picture, each from the upper left and back: more change next to nothing. */
const PASSES = 3;
/** What OKLab's axes count: clouds are light but dull, and what has a colour of its own stands out. */
export const AXIS_WEIGHTS = [0.6, 2.2, 2.2] as const;

/**
 * How far each pixel is from the border of its picture: over all ways there, the least by which colour has to go up and down on the
 * way. The even change of a sky costs next to nothing, however far it reaches; an edge has to be climbed.
 * @returns sums over the three axes, a number a pixel
 * @see Zhang et al., Minimum Barrier Salient Object Detection at 80 FPS (2015)
 */
export function barrierDistance({ widthPx, heightPx, lab }: LabPlane): Float64Array {
  const distance = new Float64Array(widthPx * heightPx);
  AXIS_WEIGHTS.forEach((weight, axis) => {
    const values = distance.map((_, index) => (lab[index * 3 + axis] ?? 0) * weight);
    onAxis(values, widthPx, heightPx).forEach((away, index) => (distance[index] = (distance[index] ?? 0) + away));
  });
  return distance;
}

function onAxis(values: Float64Array, widthPx: number, heightPx: number): Float64Array {
  const [highest, lowest] = [values.slice(), values.slice()];
  const away = values.map((_, index) => (isBorder(index, widthPx, heightPx) ? 0 : Infinity));
  const relax = (at: number, from: number): void => {
    const value = values[at] ?? 0;
    const [high, low] = [Math.max(highest[from] ?? value, value), Math.min(lowest[from] ?? value, value)];
    if (high - low >= (away[at] ?? 0)) return;
    away[at] = high - low;
    highest[at] = high;
    lowest[at] = low;
  };
  for (let pass = 0; pass < PASSES; pass += 1) {
    for (let y = 1; y < heightPx - 1; y += 1) {
      for (let x = 1; x < widthPx - 1; x += 1) {
        relax(y * widthPx + x, y * widthPx + x - 1);
        relax(y * widthPx + x, (y - 1) * widthPx + x);
      }
    }
    for (let y = heightPx - 2; y > 0; y -= 1) {
      for (let x = widthPx - 2; x > 0; x -= 1) {
        relax(y * widthPx + x, y * widthPx + x + 1);
        relax(y * widthPx + x, (y + 1) * widthPx + x);
      }
    }
  }
  return away;
}

function isBorder(index: number, widthPx: number, heightPx: number): boolean {
  const [x, y] = [index % widthPx, Math.floor(index / widthPx)];
  return x === 0 || y === 0 || x === widthPx - 1 || y === heightPx - 1;
}
