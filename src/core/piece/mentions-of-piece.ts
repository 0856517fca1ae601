import { findMentions } from '../words/count-characters.ts';
import type { Piece } from './piece.ts';

/** All people whom a piece's words mention, shared and own, each once whatever its case, as it was written first. */
export function mentionsOfPiece({ words }: Pick<Piece, 'words'>): readonly string[] {
  const rows = [words.shared, ...Object.values(words.own)];
  const mentions = rows.flatMap((row) => [...findMentions(row.caption ?? ''), ...findMentions(row.firstComment ?? '')]);
  return [...new Map(mentions.toReversed().map((mention) => [mention.toLowerCase(), mention])).values()].toReversed();
}
