import { clearEdges, labAt, labAway, SIDES, type Lab, type LabPlane } from './lab-plane.ts';

/** Colour distance in OKLab up to which a pixel belongs to the ground that grows towards it, and to the usual colour along the upper edge. */
const GROWS = 0.045;
const SEEDS = 0.12;
/** How fast the reference colour of a growing ground follows it: a sky may go from blue to white, an edge may not be crossed. */
const FOLLOWS = 0.06;
/** Share of the upper edge that has to be ground, and of the ground's edges that have to be clear. */
const OPEN_ABOVE = 0.9;
const CLEAR_EDGE = 0.86;

/**
 * Where an even ground is that begins at the upper edge of a picture: 1 a pixel of it. Null where nothing clearly stands before it.
 * Seeded region growing after Adams and Bischof (1994), with a reference colour that follows the ground.
 */
export function evenGround(plane: LabPlane): Uint8Array | null {
  const { widthPx } = plane;
  const ground = grown(plane);
  const open = ground.subarray(0, widthPx).reduce((sum, each) => sum + each, 0) / widthPx;
  if (open < OPEN_ABOVE) return null;
  const before = new Int32Array(ground.length);
  for (let index = 0; index < ground.length; index += 1) before[index] = 1 - (ground[index] ?? 0);
  const edges = clearEdges(plane, before).get(1) ?? 0;
  return edges >= CLEAR_EDGE ? ground : null;
}

function grown(plane: LabPlane): Uint8Array {
  const { widthPx, heightPx, lab } = plane;
  const ground = new Uint8Array(widthPx * heightPx);
  const reference = new Float64Array(lab.length);
  const usual = usualAbove(plane);
  const references = { ...plane, lab: reference };
  const reached: number[] = [];
  const join = (index: number, colour: Lab): void => {
    ground[index] = 1;
    reference.set(colour, index * 3);
    reached.push(index);
  };
  for (let x = 0; x < widthPx; x += 1) if (labAway(plane, x, usual) <= SEEDS) join(x, labAt(plane, x));
  for (let next = 0; next < reached.length; next += 1) {
    const from = reached[next] ?? 0;
    const [x, y] = [from % widthPx, Math.floor(from / widthPx)];
    const colour = labAt(references, from);
    for (const [dx, dy] of SIDES) {
      if (x + dx < 0 || x + dx >= widthPx || y + dy < 0 || y + dy >= heightPx) continue;
      const to = from + dx + dy * widthPx;
      if (ground[to] === 1 || labAway(plane, to, colour) > GROWS) continue;
      const [l, a, b] = labAt(plane, to);
      join(to, [colour[0] + FOLLOWS * (l - colour[0]), colour[1] + FOLLOWS * (a - colour[1]), colour[2] + FOLLOWS * (b - colour[2])]);
    }
  }
  return ground;
}

/** The median colour along the upper edge. */
function usualAbove({ widthPx, lab }: LabPlane): Lab {
  const median = (channel: number): number => Array.from({ length: widthPx }, (_, x) => lab[x * 3 + channel] ?? 0).toSorted((a, b) => a - b)[Math.floor(widthPx / 2)] ?? 0;
  return [median(0), median(1), median(2)];
}
