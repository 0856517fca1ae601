import type { Mirror } from './mirrored.ts';
import { motifNames, type MotifName } from './motif.ts';

/** What a template asks for: a motif by its name, or the one that is the brand's own. */
export type MotifChoice = MotifName | 'brand';
export const motifChoices: readonly MotifChoice[] = [...motifNames, 'brand'];

/** Motifs that a brand can have as its own: those that keep to a corner or the edges, and leave room for a sign beside them. */
export const ownMotifs = ['halftone', 'arcs', 'fan', 'contours', 'scraps', 'tail'] as const satisfies readonly MotifName[];
export type OwnMotif = (typeof ownMotifs)[number];

/** Quiet, and at home beside any mark. */
export const USUAL_MOTIF: OwnMotif = 'halftone';

/** The brand's own motif comes from the upper right, which words leave free; these are drawn from elsewhere. */
const towardsUpperRight: Readonly<Partial<Record<OwnMotif, Mirror>>> = {
  fan: { isAcross: false, isUpDown: true },
  arcs: { isAcross: true, isUpDown: true },
  contours: { isAcross: false, isUpDown: true },
};

/** Which motif is drawn for what a template asks, and how it is turned. */
export function motifFor(choice: MotifChoice, own: OwnMotif | undefined): { readonly generator: MotifName; readonly mirror?: Mirror | undefined } {
  if (choice !== 'brand') return { generator: choice };
  const generator = own ?? USUAL_MOTIF;
  return { generator, mirror: towardsUpperRight[generator] };
}
