import type { Draft } from 'immer';
import { adjustmentKeys, differs, differsIn, MAX_TEXT_STEPS, MAX_ZOOM, type Adjustment, type OwnCrop } from './adjustment.ts';
import type { Piece } from './piece.ts';

/**
 * Changes how one cut differs. What becomes equal to the piece again is not kept, so that a cut which differs in nothing
 * follows the piece by itself.
 */
export function adjustCut(draft: Draft<Piece>, key: string, change: (adjustment: Draft<Adjustment>) => void): void {
  const adjustment: Draft<Adjustment> = draft.adjustments[key] ?? {};
  change(adjustment);
  for (const key of adjustmentKeys) if (!differsIn(adjustment, key)) delete adjustment[key];
  if (differs(adjustment)) draft.adjustments[key] = adjustment;
  else delete draft.adjustments[key];
}

/** What can be taken over from one cut by others; an arrangement is made for one shape, a crop for one proportion. */
const SHARED_BY_ALL = ['scheme', 'align', 'swapsSides', 'isPlain', 'textStep', 'hidden'] as const;
const SHARED_BY_SHAPE = [...SHARED_BY_ALL, 'arrangement', 'crops'] as const;

/** Lets other cuts differ as one of them does: those of its shape in all that they can share, others in what any shape can take. */
export function applyToCuts(draft: Draft<Piece>, from: Adjustment, keys: readonly string[], reach: 'shape' | 'all'): void {
  for (const key of keys) {
    adjustCut(draft, key, (adjustment) => {
      for (const field of reach === 'shape' ? SHARED_BY_SHAPE : SHARED_BY_ALL) {
        if (from[field] === undefined) delete adjustment[field];
        else Object.assign(adjustment, { [field]: structuredClone(from[field]) });
      }
    });
  }
}

/** Sets the scheme of all these cuts; undefined: the template's own. */
export function setScheme(draft: Draft<Piece>, keys: readonly string[], scheme: string | undefined): void {
  for (const key of keys) adjustCut(draft, key, (adjustment) => void (adjustment.scheme = scheme));
}

/** How a template is turned, by field. */
export type TurnedField = 'align' | 'swapsSides' | 'isPlain';

/** Turns the template in all these cuts; undefined: as it is drawn. */
export function turnTemplate<Field extends TurnedField>(draft: Draft<Piece>, keys: readonly string[], field: Field, value: Adjustment[Field]): void {
  for (const key of keys) {
    adjustCut(draft, key, (adjustment) => {
      if (value === undefined) delete adjustment[field];
      else Object.assign(adjustment, { [field]: value });
    });
  }
}

/**
 * Lets a cut, or a slide in it, follow the piece in everything again.
 * @param common what the cuts of the piece have in common; a slide has it from its cut
 */
export function rejoinCut(draft: Draft<Piece>, key: string, common: Adjustment = {}): void {
  if (key.includes('/') || !differs(common)) delete draft.adjustments[key];
  else Object.assign(draft.adjustments, { [key]: structuredClone(common) });
}

/** A step larger or smaller, within what is allowed. */
export function stepText(adjustment: Draft<Adjustment>, by: 1 | -1): void {
  adjustment.textStep = Math.max(-MAX_TEXT_STEPS, Math.min(MAX_TEXT_STEPS, (adjustment.textStep ?? 0) + by));
}

/** Leaves a slot out of a cut, or puts it back. */
export function toggleHidden(adjustment: Draft<Adjustment>, slot: string): void {
  const hidden = adjustment.hidden ?? [];
  adjustment.hidden = hidden.includes(slot) ? hidden.filter((each) => each !== slot) : [...hidden, slot];
}

/** Moves or zooms the crop of a picture, kept inside the picture. */
export function moveCrop(adjustment: Draft<Adjustment>, slot: string, crop: OwnCrop): void {
  const share = (value: number): number => Math.round(Math.min(1, Math.max(0, value)) * 1e4) / 1e4;
  adjustment.crops = { ...adjustment.crops, [slot]: { x: share(crop.x), y: share(crop.y), zoom: Math.min(MAX_ZOOM, Math.max(1, Math.round(crop.zoom * 100) / 100)) } };
}

/** Leaves a slide out of one cut. What stays behind there by its limit becomes a choice, too: there is room for another now. */
export function leaveSlideOut(draft: Draft<Piece>, key: string, slideId: string, left: readonly string[]): void {
  adjustCut(draft, key, (adjustment) => void (adjustment.withoutSlides = [...new Set([...left, slideId])]));
}

/** Gathers all slides in the one picture of a cut, or sends the first alone again. */
export function gatherSlides(draft: Draft<Piece>, key: string, gathered: boolean): void {
  adjustCut(draft, key, (adjustment) => {
    if (gathered) adjustment.gathered = true;
    else delete adjustment.gathered;
  });
}

/** What a cut shows and could show. */
export interface SlideRoom {
  readonly left: readonly string[];
  readonly shown: readonly string[];
  readonly most: number;
}

/** Takes a slide into one cut; where there is no room, the last one before the closing slide makes some. */
export function takeSlideIn(draft: Draft<Piece>, key: string, slideId: string, { left, shown, most }: SlideRoom): void {
  const giving = shown.length < most ? undefined : (shown.length > 2 ? shown.at(-2) : shown.at(-1));
  const without = [...left.filter((id) => id !== slideId), ...(giving === undefined ? [] : [giving])];
  adjustCut(draft, key, (adjustment) => {
    if (without.length > 0) adjustment.withoutSlides = without;
    else delete adjustment.withoutSlides;
  });
}
