import { LRUCache } from 'lru-cache';
import type { Box } from '../geometry/box.ts';
import { arcsMotif } from './arcs.ts';
import { contoursMotif } from './contours.ts';
import { fanMotif } from './fan.ts';
import { halftoneMotif } from './halftone.ts';
import type { MotifGenerator, MotifShape } from './motif-shape.ts';
import { ropeMotif } from './rope.ts';
import { scrapsMotif } from './scraps.ts';
import { stripesMotif } from './stripes.ts';
import { tailMotif } from './tail.ts';
import { mirrored, type Mirror } from './mirrored.ts';
import { wavesMotif } from './waves.ts';
import { weaveMotif } from './weave.ts';

/** The generators by name: same seed, same picture, in every size. */
export const motifGenerators = {
  tail: tailMotif,
  waves: wavesMotif,
  scraps: scrapsMotif,
  contours: contoursMotif,
  halftone: halftoneMotif,
  arcs: arcsMotif,
  fan: fanMotif,
  rope: ropeMotif,
  weave: weaveMotif,
  stripes: stripesMotif,
} as const satisfies Readonly<Record<string, MotifGenerator>>;

/** Motifs that are one drawing: they stay away as a whole where words need a part of their room. */
export const wholeMotifs: ReadonlySet<string> = new Set(['tail', 'stripes', 'rope']);

/** Motifs whose shapes lie one on the other, from an edge or a corner on: rings without their inner ones look like leftovers. */
export const layeredMotifs: ReadonlySet<string> = new Set(['waves', 'contours', 'fan', 'arcs']);

/** The fewest shapes of a motif that look like one; of others, one is enough. */
export const fewestShapes: ReadonlyMap<string, number> = new Map([['contours', 2], ['fan', 2], ['arcs', 3], ['scraps', 5]]);

/** Motifs that lie across the cut, and may lie a little higher or lower as well. */
export const floatingMotifs: ReadonlySet<string> = new Set(['waves', 'rope']);

export type MotifName = keyof typeof motifGenerators;

const kept = new LRUCache<string, readonly MotifShape[]>({ max: 200 });

/**
 * Draws a motif. A drawing does not depend on the words around it, so it is kept: while somebody types, the same ones are asked
 * for with every key.
 * @param unitPx the margin `m` in pixels
 * @param mirror how it is turned around the middle of its box; missing: as it is drawn
 */
export function drawMotif(name: MotifName, box: Box, unitPx: number, seed: number, mirror?: Mirror): readonly MotifShape[] {
  const key = [name, box.xPx, box.yPx, box.widthPx, box.heightPx, unitPx, seed, mirror?.isAcross, mirror?.isUpDown].join(' ');
  const drawn = kept.get(key) ?? mirrored(motifGenerators[name](box, unitPx, seed), box, mirror);
  kept.set(key, drawn);
  return drawn;
}

export const motifNames = Object.keys(motifGenerators) as readonly MotifName[];
