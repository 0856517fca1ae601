import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { boxAround, polygon, type Point } from './outline.ts';
import { seededNumbers } from './seeded-numbers.ts';

/** Paper scraps that have fallen towards the edges and left the middle free. */
export const scrapsMotif: MotifGenerator = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const middle: Point = [box.xPx + box.widthPx / 2, box.yPx + box.heightPx / 2];
  const count = Math.round((box.widthPx * box.heightPx) / (unitPx * unitPx * 9));
  const shapes: MotifShape[] = [];
  for (let attempt = 0; attempt < count * 2; attempt += 1) {
    const [x, y] = [box.xPx + random() * box.widthPx, box.yPx + random() * box.heightPx];
    const off = Math.max(Math.abs(x - middle[0]) / (box.widthPx / 2), Math.abs(y - middle[1]) / (box.heightPx / 2));
    const turn = random() * Math.PI;
    const length = unitPx * (0.28 + random() * 0.3);
    const isAccent = random() < 0.4;
    if (off < 0.78) continue;
    const corner = (along: number, across: number): Point => [x + Math.cos(turn) * along - Math.sin(turn) * across, y + Math.sin(turn) * along + Math.cos(turn) * across];
    const points = [corner(-length, -length * 0.42), corner(length * 0.8, -length * 0.5), corner(length, length * 0.4), corner(-length * 0.9, length * 0.5)];
    shapes.push({ path: polygon(points), ink: isAccent ? 'accent' : 'surface', boxes: [boxAround(points)] });
  }
  return shapes;
};
