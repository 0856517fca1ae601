import type { Box } from '../geometry/box.ts';

/** A filled outline of a motif and which ink it takes. */
export interface MotifShape {
  readonly path: string;
  readonly ink: 'surface' | 'accent';
  /** Small boxes that together hold the outline. */
  readonly boxes: readonly Box[];
}

/**
 * Draws a motif into a box.
 * @param unitPx the margin `m` in pixels, so that a motif keeps its grain in every size
 */
export type MotifGenerator = (box: Box, unitPx: number, seed: number) => readonly MotifShape[];
