import { ALONE } from '../../core/piece/slides-of-cut.ts';
import { COVER } from '../../core/template/template.ts';
import type { WantedCut } from '../../workers/wall-protocol.ts';

/** A picture that stands for itself: a graphic, or the cover of a carousel's template. */
export function singlePicture(cut: Omit<WantedCut, 'run' | 'place' | 'family'>): WantedCut {
  return { ...cut, run: cut.key, place: ALONE, family: COVER };
}
