import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { boxAround, polygon, type Point } from './outline.ts';
import { seededNumbers } from './seeded-numbers.ts';

/** A basket weave of short bars along the right edge. */
export const weaveMotif: MotifGenerator = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const cell = unitPx * 1.1;
  const columns = 3;
  const rows = Math.ceil(box.heightPx / cell) + 1;
  const shapes: MotifShape[] = [];
  for (let row = 0; row < rows; row += 1) {
    for (let column = 0; column < columns; column += 1) {
      if (random() < column * 0.28) continue;
      const [x, y] = [box.xPx + box.widthPx - (column + 0.75) * cell, box.yPx + row * cell - cell * 0.3];
      const upright = (row + column) % 2 === 0;
      for (let bar = 0; bar < 3; bar += 1) {
        const offset = (bar * 0.3 + 0.08) * cell;
        const [left, top, width, height] = upright ? [x + offset, y, cell * 0.17, cell * 0.94] : [x, y + offset, cell * 0.94, cell * 0.17];
        const points: readonly Point[] = [[left, top], [left + width, top], [left + width, top + height], [left, top + height]];
        shapes.push({ path: polygon(points), ink: bar === 1 && upright ? 'accent' : 'surface', boxes: [boxAround(points)] });
      }
    }
  }
  return shapes;
};
