import { convertLrgbToOklab } from 'culori';
import { LINEAR_OF_BYTE } from '../colour/contrast.ts';
import type { Raster } from './picture-facts.ts';

/** OKLab of the pixels of a small picture: three numbers a pixel, rows from the top. */
export interface LabPlane {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly lab: Float64Array;
}

export type Lab = readonly [l: number, a: number, b: number];

/** The neighbours of a pixel. */
export const SIDES = [[1, 0], [-1, 0], [0, 1], [0, -1]] as const;

export function labPlane({ widthPx, heightPx, rgba }: Raster): LabPlane {
  const lab = new Float64Array(widthPx * heightPx * 3);
  const linear = (at: number): number => LINEAR_OF_BYTE[rgba[at] ?? 0] ?? 0;
  for (let index = 0; index < widthPx * heightPx; index += 1) {
    const { l, a, b } = convertLrgbToOklab({ r: linear(index * 4), g: linear(index * 4 + 1), b: linear(index * 4 + 2) });
    lab[index * 3] = l;
    lab[index * 3 + 1] = a;
    lab[index * 3 + 2] = b;
  }
  return { widthPx, heightPx, lab };
}

export const labAt = ({ lab }: LabPlane, index: number): Lab => [lab[index * 3] ?? 0, lab[index * 3 + 1] ?? 0, lab[index * 3 + 2] ?? 0];

/** How far the colour of a pixel is from another one. */
export const labAway = (plane: LabPlane, index: number, colour: Lab): number => Math.sqrt(labAwaySquared(plane, index, colour));

/** The square of that distance, which tells the nearer of two colours without a root. */
export function labAwaySquared({ lab }: LabPlane, index: number, colour: Lab): number {
  const l = (lab[index * 3] ?? 0) - colour[0];
  const a = (lab[index * 3 + 1] ?? 0) - colour[1];
  const b = (lab[index * 3 + 2] ?? 0) - colour[2];
  return l * l + a * a + b * b;
}

/** Colour distance in OKLab across a clear edge, and how far to either side of it that is looked for. */
const EDGE_STEP = 0.09;
const EDGE_REACH_PX = 3;

/**
 * For each label the share of its edges across which the colour changes at once.
 * @param labels a number a pixel; 0 is the ground
 */
export function clearEdges(plane: LabPlane, labels: Int32Array): ReadonlyMap<number, number> {
  const { widthPx, heightPx } = plane;
  const counts = new Map<number, { clear: number; all: number }>();
  for (let y = EDGE_REACH_PX; y < heightPx - EDGE_REACH_PX; y += 1) {
    for (let x = EDGE_REACH_PX; x < widthPx - EDGE_REACH_PX; x += 1) {
      const here = y * widthPx + x;
      for (const step of [1, widthPx]) {
        const [one = 0, other = 0] = [labels[here], labels[here + step]];
        if (one === other) continue;
        const isClear = labAway(plane, here - (EDGE_REACH_PX - 1) * step, labAt(plane, here + EDGE_REACH_PX * step)) >= EDGE_STEP;
        for (const label of [one, other]) {
          const count = counts.get(label) ?? { clear: 0, all: 0 };
          counts.set(label, { clear: count.clear + (isClear ? 1 : 0), all: count.all + 1 });
        }
      }
    }
  }
  return new Map([...counts].map(([label, { clear, all }]) => [label, clear / all]));
}
