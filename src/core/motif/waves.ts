import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { band, boxAround, type Point } from './outline.ts';
import { seededNumbers } from './seeded-numbers.ts';

/** Rows of one rolling line, like a sea drawn by a child, along the bottom edge: the higher the box, the more of them. */
export const wavesMotif: MotifGenerator = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const rows = Math.max(3, Math.min(5, Math.floor(box.heightPx / (unitPx * 5))));
  const spacing = unitPx * 1.05;
  return Array.from({ length: rows }, (_, row): MotifShape => {
    const phase = random() * Math.PI * 2;
    const y = box.yPx + box.heightPx - unitPx * 0.5 - row * spacing;
    const steps = Math.max(24, Math.round(box.widthPx / (unitPx * 0.35)));
    const points = Array.from({ length: steps + 1 }, (__, step): Point => {
      const x = box.xPx - unitPx + ((box.widthPx + unitPx * 2) * step) / steps;
      return [x, y + Math.sin((x - box.xPx) / (unitPx * 1.3) + phase) * unitPx * 0.3];
    });
    return { path: band(points, unitPx * (0.13 - row * 0.015)), ink: row === 1 ? 'accent' : 'surface', boxes: [boxAround(points)] };
  });
};
