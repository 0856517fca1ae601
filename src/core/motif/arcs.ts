import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { band, boxAround, type Point } from './outline.ts';
import { seededNumbers } from './seeded-numbers.ts';

/** Quarter rings that meet in the lower left corner, like the ribs of a sail. */
export const arcsMotif: MotifGenerator = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const corner: Point = [box.xPx, box.yPx + box.heightPx];
  const accented = Math.floor(random() * 3) + 1;
  return Array.from({ length: 5 }, (_, ring): MotifShape => {
    const radius = unitPx * (1.4 + ring * 1.15);
    const points = Array.from({ length: 49 }, (__, step): Point => {
      const angle = -Math.PI / 2 + (step / 48) * (Math.PI / 2);
      return [corner[0] + Math.cos(angle) * radius, corner[1] + Math.sin(angle) * radius];
    });
    const stretches = Array.from({ length: 4 }, (__, stretch) => boxAround(points.slice(stretch * 12, stretch * 12 + 13)));
    return { path: band(points, unitPx * 0.24), ink: ring === accented ? 'accent' : 'surface', boxes: stretches };
  });
};
