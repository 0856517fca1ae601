import type { Piece } from '../../../core/piece/piece.ts';

/** A piece with what its row says now: texts, picture and words of the row; cuts, adjustments and everything else of a person stay. */
export function mergeMade(piece: Piece, made: Piece): Piece {
  if (piece.template.key !== made.template.key || piece.kind !== made.kind) return { ...piece, kind: made.kind, template: made.template, frames: made.frames, cuts: made.cuts, adjustments: {}, words: mergedWords(piece, made) };
  const frames = made.frames.map((frame, index) => {
    const before = piece.frames[index];
    return before && before.slide === frame.slide ? { ...before, slots: { ...before.slots, ...frame.slots }, ...(frame.altText === undefined ? {} : { altText: frame.altText }) } : frame;
  });
  const [first, ...rest] = frames;
  return { ...piece, frames: first ? [first, ...rest] : piece.frames, words: mergedWords(piece, made) };
}

function mergedWords(piece: Piece, made: Piece): Piece['words'] {
  const own = Object.fromEntries([...new Set([...Object.keys(piece.words.own), ...Object.keys(made.words.own)])].map((channelId) => [channelId, { ...piece.words.own[channelId], ...made.words.own[channelId] }]));
  return { shared: { ...piece.words.shared, ...made.words.shared }, own };
}
