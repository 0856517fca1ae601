import { intersectBoxes, type Box } from '../geometry/box.ts';
import type { Mirror } from '../motif/mirrored.ts';
import type { MotifShape } from '../motif/motif-shape.ts';
import { drawMotif, fewestShapes, floatingMotifs, layeredMotifs, wholeMotifs, type MotifName } from '../motif/motif.ts';

/** Ornaments that lie across the cut look for a place in steps of this many margins, up and down. */
const MOVE_M = 0.4;
const MOVES = 40;
/** Room that they leave above and below, in margins: at best, and at least where there is no more. */
const CLEARS_M = [0.9, 0.4] as const;
/** Room that ornaments in layers leave: words may stand on a tab, which comes nearer. */
const CLEAR_OF_LAYERS_M = 0.7;

/** Where an ornament stands: the height of the cut and its margin in pixels, and the boxes of words and marks that it keeps clear of. */
interface MotifPlace {
  readonly cutHeightPx: number;
  readonly marginPx: number;
  readonly kept: readonly Box[];
}

/**
 * The shapes of an ornament, none of them over words or marks. One that lies across the cut moves to the nearest free place, or stays
 * away as a whole; one whose shapes lie one on the other keeps those up to the first that is in the way. Too few shapes are none.
 */
export function placeMotif({ generator, seed, mirror }: { readonly generator: MotifName; readonly seed: number; readonly mirror?: Mirror | undefined }, box: Box, { cutHeightPx, marginPx, kept }: MotifPlace): readonly MotifShape[] {
  const shapes = drawMotif(generator, box, marginPx, seed, mirror);
  // What lies on an edge belongs there; a rope lies nowhere in particular.
  const belowPx = cutHeightPx - box.yPx - box.heightPx;
  const floats = !mirror && floatingMotifs.has(generator) && (belowPx >= marginPx || wholeMotifs.has(generator));
  const isLayered = layeredMotifs.has(generator);
  const isFree = ({ boxes }: MotifShape, clearM: number, downPx = 0): boolean => !boxes.some((each) => kept.some((other) => intersectBoxes({ ...each, yPx: each.yPx + downPx - clearM * marginPx, heightPx: each.heightPx + 2 * clearM * marginPx }, other)));
  if (floats) {
    for (const clearM of CLEARS_M) {
      if (shapes.every((shape) => isFree(shape, clearM))) return shapes;
      const movedPx = freeMove(belowPx, marginPx, (downPx) => shapes.every((shape) => isFree(shape, clearM, downPx)));
      if (movedPx !== null) return drawMotif(generator, { ...box, yPx: box.yPx + movedPx }, marginPx, seed);
    }
    return [];
  }
  const clearM = isLayered ? CLEAR_OF_LAYERS_M : 0;
  if (shapes.every((shape) => isFree(shape, clearM))) return shapes;
  if (wholeMotifs.has(generator)) return [];
  const left = isLayered ? shapes.slice(0, shapes.findIndex((shape) => !isFree(shape, clearM))) : shapes.filter((shape) => isFree(shape, clearM));
  return left.length < (fewestShapes.get(generator) ?? 1) ? [] : left;
}

/** How far an ornament moves down, in pixels, to be whole between words and marks: as little as it can; null where there is no such place. */
function freeMove(belowPx: number, marginPx: number, isFree: (downPx: number) => boolean): number | null {
  const steps = Array.from({ length: MOVES }, (_, index) => ((index >> 1) + 1) * (index % 2 === 0 ? -1 : 1) * MOVE_M * marginPx);
  return steps.find((downPx) => downPx <= belowPx && isFree(downPx)) ?? null;
}
