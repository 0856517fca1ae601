import type { Size } from './box.ts';

/** Room around boxes that stand in rows, in pixels: between them, and below each for its caption. */
export interface RowGaps {
  readonly acrossPx: number;
  readonly downPx: number;
  readonly captionPx: number;
}

/** The height that boxes take in rows of a width, in their order, each row as high as its highest; Infinity where one is too wide. */
export function packedHeight(sizes: readonly Size[], scale: number, widthPx: number, { acrossPx, downPx, captionPx }: RowGaps): number {
  let [usedPx, rowPx, totalPx] = [0, 0, 0];
  for (const size of sizes) {
    const [ownPx, highPx] = [Math.round(size.widthPx * scale), Math.round(size.heightPx * scale) + captionPx];
    if (ownPx > widthPx) return Infinity;
    if (usedPx > 0 && usedPx + acrossPx + ownPx > widthPx) {
      totalPx += rowPx + downPx;
      [usedPx, rowPx] = [0, 0];
    }
    usedPx += (usedPx > 0 ? acrossPx : 0) + ownPx;
    rowPx = Math.max(rowPx, highPx);
  }
  return totalPx + rowPx;
}

/** Steps of scale that are tried: finer than one can see. */
const STEP = 0.005;

/** The largest scale at which all boxes stand in a room at once, within limits; the least one where they do not at any. */
export function scaleToFit(sizes: readonly Size[], room: Size, gaps: RowGaps, limits: { readonly least: number; readonly most: number }): number {
  // A larger scale may break rows otherwise and take less height, so each step is looked at.
  for (let scale = limits.most; scale > limits.least; scale -= STEP) if (packedHeight(sizes, scale, room.widthPx, gaps) <= room.heightPx) return scale;
  return limits.least;
}
