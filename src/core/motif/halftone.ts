import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { boxAround, circle, type Point } from './outline.ts';
import { seededNumbers } from './seeded-numbers.ts';

/** Dots that shrink away from the upper right corner, as in a coarse print. */
export const halftoneMotif: MotifGenerator = (box, unitPx, seed) => {
  const offset = seededNumbers(seed)() * 0.3;
  const spacing = unitPx * 0.62;
  const reach = Math.min(box.widthPx, box.heightPx) * 0.62;
  const corner: Point = [box.xPx + box.widthPx, box.yPx];
  const shapes: MotifShape[] = [];
  for (let row = 0; row * spacing < reach; row += 1) {
    for (let column = 0; column * spacing < reach; column += 1) {
      const x = corner[0] - (column + (row % 2) / 2 + offset) * spacing;
      const y = corner[1] + (row + 0.2) * spacing * 0.87;
      const radius = spacing * 0.46 * Math.max(0, 1 - Math.hypot(x - corner[0], y - corner[1]) / reach);
      if (radius < unitPx * 0.04) continue;
      shapes.push({ path: circle(x, y, radius), ink: 'surface', boxes: [boxAround([[x, y]], radius)] });
    }
  }
  return shapes;
};
