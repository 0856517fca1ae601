import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { band, boxAround, type Point } from './outline.ts';
import { seededNumbers } from './seeded-numbers.ts';

const RINGS = 5;
const INNER_M = 1.6;
/** How far apart rings are, in margins: as far as the box has room, within these. */
const STEP_M = { least: 1.15, most: 2.1 } as const;
/** The share of the box's shorter way that the outermost ring takes. */
const REACH_SHARE = 0.92;

/** Quarter rings around the lower right corner that fill the room they get, like a fan laid open beside the words. */
export const fanMotif: MotifGenerator = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const corner: Point = [box.xPx + box.widthPx, box.yPx + box.heightPx];
  const accented = Math.floor(random() * 3) + 1;
  const roomM = (Math.min(box.heightPx, box.widthPx * 0.6) * REACH_SHARE) / unitPx;
  const stepM = Math.min(STEP_M.most, Math.max(STEP_M.least, (roomM - INNER_M) / (RINGS - 1)));
  return Array.from({ length: RINGS }, (_, ring): MotifShape => {
    const radius = unitPx * (INNER_M + ring * stepM);
    const points = Array.from({ length: 49 }, (__, step): Point => {
      const angle = Math.PI + (step / 48) * (Math.PI / 2);
      return [corner[0] + Math.cos(angle) * radius, corner[1] + Math.sin(angle) * radius];
    });
    const stretches = Array.from({ length: 4 }, (__, stretch) => boxAround(points.slice(stretch * 12, stretch * 12 + 13)));
    return { path: band(points, unitPx * 0.2 * stepM), ink: ring === accented ? 'accent' : 'surface', boxes: stretches };
  });
};
