import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { boxAround, polygon, type Point } from './outline.ts';
import { seededNumbers } from './seeded-numbers.ts';

/** Awning stripes that hang from the top edge, with scalloped ends. */
export const stripesMotif: MotifGenerator = (box, unitPx, seed) => {
  const offset = seededNumbers(seed)() < 0.5 ? 0 : 1;
  const count = Math.max(5, Math.round(box.widthPx / (unitPx * 2)) | 1);
  const width = box.widthPx / count;
  const drop = unitPx * 1.5;
  return Array.from({ length: count }, (_, stripe): MotifShape => {
    const [x, y] = [box.xPx + stripe * width, box.yPx];
    const scallop = Array.from({ length: 13 }, (__, step): Point => {
      const angle = (step / 12) * Math.PI;
      return [x + width / 2 + (Math.cos(angle) * width) / 2, y + drop + (Math.sin(angle) * width) / 2.6];
    });
    const points: readonly Point[] = [[x, y], [x + width, y], ...scallop];
    return { path: polygon(points), ink: (stripe + offset) % 2 === 0 ? 'accent' : 'surface', boxes: [boxAround(points)] };
  });
};
