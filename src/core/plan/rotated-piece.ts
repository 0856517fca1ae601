import { cutKey, type Piece, type SlotValue } from '../piece/piece.ts';
import type { Pair } from './rotation.ts';

/** The wording that a piece has without its variants. */
export const OWN_WORDING = 'own';

/** The captions of a piece that can take turns: its own, and the variants that are kept beside it. */
export function wordingsOf({ words, variants }: Pick<Piece, 'words' | 'variants'>): readonly { readonly id: string; readonly text: string }[] {
  return [{ id: OWN_WORDING, text: words.shared.caption }, ...(variants ?? [])];
}

/** The picture of a piece that turns: the first that its first frame shows; null where it shows none. */
export function turningPicture({ frames: [frame] }: Pick<Piece, 'frames'>): { readonly slot: string; readonly mediaId: string } | null {
  const found = Object.entries(frame.slots).find((entry): entry is [string, Extract<SlotValue, { kind: 'picture' }>] => entry[1].kind === 'picture');
  return found ? { slot: found[0], mediaId: found[1].mediaId } : null;
}

/**
 * A piece as one turn of its rotation shows it: with another caption, and another picture in the place of its own. Captions that a
 * channel has of its own stand only with the piece's own wording; how a cut shows the picture that went stays out.
 */
export function rotatedPiece(piece: Piece, { wording, picture }: Pair): Piece {
  const variant = wording === OWN_WORDING ? null : (piece.variants?.find(({ id }) => id === wording) ?? null);
  const turning = turningPicture(piece);
  const worded: Piece = variant === null ? piece : { ...piece, words: { shared: { ...piece.words.shared, caption: variant.text }, own: Object.fromEntries(Object.entries(piece.words.own).map(([channelId, { caption: _, ...others }]) => [channelId, others])) } };
  if (!turning || picture === '' || turning.mediaId === picture) return worded;
  const [first, ...others] = worded.frames;
  const keys = new Set(worded.cuts.map(cutKey));
  return {
    ...worded,
    frames: [{ ...first, slots: { ...first.slots, [turning.slot]: { kind: 'picture', mediaId: picture } } }, ...others],
    adjustments: Object.fromEntries(Object.entries(worded.adjustments).map(([key, adjustment]) => [key, keys.has(key) && adjustment.crops ? { ...adjustment, crops: Object.fromEntries(Object.entries(adjustment.crops).filter(([slot]) => slot !== turning.slot)) } : adjustment])),
  };
}
