import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { band, boxAround, type Point } from './outline.ts';
import { seededNumbers } from './seeded-numbers.ts';

/** Room for one loop, and how far the rope swings up and down from its middle, in margins. */
const PITCH_M = 5.4;
const SWING_M = 1.5;
const MAX_LOOPS = 5;
/** How far the rope swings forth and back, against what would just bring it to a halt: above 1 it crosses itself. */
const LOOSENESS = 1.75;
/** Half of the thickness of the rope, and of the yarn that shows which way it runs where it crosses itself. */
const [ROPE_M, YARN_M] = [0.15, 0.035];
const STEPS = 64;
const BOXES = 8;

/**
 * A rope that comes in at the left, makes loops, and leaves at the right, in the middle of its box: a trochoid, which crosses itself once a
 * turn.
 * @see https://en.wikipedia.org/wiki/Trochoid
 */
export const ropeMotif: MotifGenerator = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const loops = Math.max(1, Math.min(MAX_LOOPS, Math.floor(box.widthPx / (PITCH_M * unitPx))));
  const pitchPx = box.widthPx / loops;
  const swingPx = Math.min(SWING_M * unitPx, box.heightPx * 0.45) * (0.92 + random() * 0.08);
  const point = (turn: number): Point => [
    box.xPx + (turn + 0.5) * pitchPx + Math.sin(turn * Math.PI * 2) * ((pitchPx * LOOSENESS) / (Math.PI * 2)),
    box.yPx + box.heightPx / 2 + Math.cos(turn * Math.PI * 2) * swingPx,
  ];
  // A turn more at each end takes it out of the cut.
  return Array.from({ length: loops + 2 }, (_, index) => index - 1).flatMap((turn): readonly MotifShape[] => {
    const points = Array.from({ length: STEPS + 1 }, (__, step) => point(turn + step / STEPS));
    const perBox = STEPS / BOXES;
    const boxes = Array.from({ length: BOXES }, (__, stretch) => boxAround(points.slice(stretch * perBox, (stretch + 1) * perBox + 1), ROPE_M * unitPx));
    return [
      { path: band(points, ROPE_M * unitPx), ink: 'accent', boxes },
      { path: band(points, YARN_M * unitPx), ink: 'surface', boxes },
    ];
  });
};
