import type { Draft } from 'immer';
import type { Frame, Piece } from '../../core/piece/piece.ts';

/** A slide of a draft, to be written to; a graphic's only frame is one. */
export function draftFrame(draft: Draft<Piece>, id: string): Draft<Frame> {
  const frame = draft.frames.find((each) => each.id === id);
  if (!frame) throw new RangeError('The slide is no longer there');
  return frame;
}
