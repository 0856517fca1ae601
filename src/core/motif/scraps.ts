import type { Box } from '../geometry/box.ts';
import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { boxAround, polygon, type Point } from './outline.ts';
import { seededNumbers } from './seeded-numbers.ts';

/** Side of a grid cell, in units. Each cell gets at most one scrap, so that scraps spread evenly and do not overlap. */
const CELL = 3.2;
/** Shares of the way from the middle to the edge: up to the first no cell has a scrap, from the second on every cell has one. */
const FREE_TO = 0.4;
const FULL_FROM = 0.86;
/** Room that a scrap keeps to words and marks above and below it, and beside it, where it would be read as a dash. Units. */
const CLEAR = { y: 1.3, x: 3 } as const;

/** Paper scraps that have fallen towards the edges and left the middle free. */
export const scrapsMotif: MotifGenerator = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const [columns, rows] = [box.widthPx, box.heightPx].map((side) => Math.max(1, Math.round(side / (unitPx * CELL)))) as [number, number];
  const [cellWidth, cellHeight] = [box.widthPx / columns, box.heightPx / rows];
  const shapes: MotifShape[] = [];
  for (let cell = 0; cell < columns * rows; cell += 1) {
    const x = ((cell % columns) + 0.12 + 0.76 * random()) * cellWidth;
    const y = (Math.floor(cell / columns) + 0.12 + 0.76 * random()) * cellHeight;
    const turn = random() * Math.PI;
    const length = unitPx * (0.26 + random() * 0.34);
    const isAccent = random() < 0.4;
    const falls = random();
    const off = Math.max(Math.abs(x / box.widthPx - 0.5), Math.abs(y / box.heightPx - 0.5)) * 2;
    if (falls >= (off - FREE_TO) / (FULL_FROM - FREE_TO)) continue;
    const corner = (along: number, across: number): Point => [box.xPx + x + Math.cos(turn) * along - Math.sin(turn) * across, box.yPx + y + Math.sin(turn) * along + Math.cos(turn) * across];
    const points = [corner(-length, -length * 0.42), corner(length * 0.8, -length * 0.5), corner(length, length * 0.4), corner(-length * 0.9, length * 0.5)];
    shapes.push({ path: polygon(points), ink: isAccent ? 'accent' : 'surface', boxes: [clearAround(boxAround(points), unitPx)] });
  }
  return shapes;
};

function clearAround({ xPx, yPx, widthPx, heightPx }: Box, unitPx: number): Box {
  const [x, y] = [CLEAR.x * unitPx, CLEAR.y * unitPx];
  return { xPx: xPx - x, yPx: yPx - y, widthPx: widthPx + 2 * x, heightPx: heightPx + 2 * y };
}
