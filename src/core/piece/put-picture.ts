import type { Draft } from 'immer';
import { adjustCut } from './adjust.ts';
import { slideKey, cutKey, type Piece } from './piece.ts';

/** What a piece takes of a picture beside its id. */
export interface PutPicture {
  readonly id: string;
  readonly altText: string;
}

/**
 * Puts a picture into a slot. Crops of the picture before are dropped in every cut: they were made for what it shows. An alt text that was that
 * picture's own, or is empty, becomes the new one's; what a person has written stays.
 * @param before the picture that was there; null for none
 * @returns whether an alt text stays that was written while another picture was there
 */
export function putPicture(draft: Draft<Piece>, { frameId, slot, before, picture }: { readonly frameId: string; readonly slot: string; readonly before: PutPicture | null; readonly picture: PutPicture }): { readonly keepsOtherAltText: boolean } {
  const frame = draft.frames.find(({ id }) => id === frameId);
  if (!frame || before?.id === picture.id) return { keepsOtherAltText: false };
  frame.slots[slot] = { kind: 'picture', mediaId: picture.id };
  const dropCrop = (key: string): void =>
    adjustCut(draft, key, (adjustment) => {
      if (adjustment.crops) delete adjustment.crops[slot];
    });
  for (const cut of draft.cuts) for (const key of draft.kind === 'graphic' ? [cutKey(cut)] : [slideKey(cut, frameId)]) if (draft.adjustments[key]?.crops?.[slot]) dropCrop(key);
  const written = (draft.kind === 'carousel' ? (frame.altText ?? '') : draft.words.shared.altText).trim();
  if (written !== '' && written !== before?.altText.trim()) return { keepsOtherAltText: before !== null && written !== picture.altText.trim() };
  if (draft.kind === 'carousel') frame.altText = picture.altText;
  else draft.words.shared.altText = picture.altText;
  return { keepsOtherAltText: false };
}
