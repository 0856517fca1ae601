import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { band, boxAround, type Point } from './outline.ts';
import { seededNumbers } from './seeded-numbers.ts';

/** Contour lines around a hill in the lower right corner, as on a walker's map. */
export const contoursMotif: MotifGenerator = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const [phase, wobble] = [random() * Math.PI * 2, 0.1 + random() * 0.08];
  const middle: Point = [box.xPx + box.widthPx * 0.98, box.yPx + box.heightPx * 0.98];
  return Array.from({ length: 6 }, (_, ring): MotifShape => {
    const radius = unitPx * (2.8 + ring * 0.95);
    const points = Array.from({ length: 73 }, (__, step): Point => {
      const angle = Math.PI * 0.9 + (step / 72) * Math.PI * 0.75;
      const reach = radius * (1 + wobble * Math.sin(angle * 3 + phase + ring * 0.25) + wobble * 0.6 * Math.sin(angle * 5 - phase));
      return [middle[0] + Math.cos(angle) * reach, middle[1] + Math.sin(angle) * reach];
    });
    const stretches = Array.from({ length: 6 }, (__, stretch) => boxAround(points.slice(stretch * 12, stretch * 12 + 13)));
    return { path: band(points, unitPx * 0.055), ink: ring === 2 ? 'accent' : 'surface', boxes: stretches };
  });
};
