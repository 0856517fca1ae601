import { castDraft, type Draft } from 'immer';
import { commonAdjustment } from './common-adjustment.ts';
import { adjustmentOf, cutKey, type CutRef, type Piece } from './piece.ts';

/** Adds cuts to a piece. They look as most of the others do: with their scheme, and turned as they are. */
export function addCuts(draft: Draft<Piece>, refs: readonly CutRef[]): void {
  const common = commonAdjustment(draft.cuts.map((cut) => adjustmentOf(draft, cut)));
  for (const ref of refs) {
    if (draft.cuts.some((cut) => cutKey(cut) === cutKey(ref))) continue;
    draft.cuts.push({ ...ref });
    if (Object.keys(common).length > 0) draft.adjustments[cutKey(ref)] = castDraft({ ...common });
  }
}
