import type { Box } from '../geometry/box.ts';
import { arcsMotif } from './arcs.ts';
import { contoursMotif } from './contours.ts';
import { halftoneMotif } from './halftone.ts';
import { scrapsMotif } from './scraps.ts';
import { stripesMotif } from './stripes.ts';
import { tailMotif } from './tail.ts';
import { wavesMotif } from './waves.ts';
import { weaveMotif } from './weave.ts';

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

/** The generators by name: same seed, same picture, in every size. */
export const motifGenerators = {
  tail: tailMotif,
  waves: wavesMotif,
  scraps: scrapsMotif,
  contours: contoursMotif,
  halftone: halftoneMotif,
  arcs: arcsMotif,
  weave: weaveMotif,
  stripes: stripesMotif,
} as const satisfies Readonly<Record<string, MotifGenerator>>;

/** Motifs that are one drawing: they stay away as a whole where words need a part of their room. */
export const wholeMotifs: ReadonlySet<string> = new Set(['tail', 'stripes']);

export type MotifName = keyof typeof motifGenerators;
export const motifNames = Object.keys(motifGenerators) as readonly MotifName[];
