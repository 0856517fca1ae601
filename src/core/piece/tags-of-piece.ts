import { findHashtags } from '../words/count-characters.ts';
import { readHashtags } from '../words/read-hashtags.ts';
import type { Piece } from './piece.ts';

/** All hashtags of a piece's words, shared and own, each once whatever its case, as it was written first. */
export function tagsOfPiece({ words }: Pick<Piece, 'words'>): readonly string[] {
  const rows = [words.shared, ...Object.values(words.own)];
  const tags = rows.flatMap((row) => [...findHashtags(row.caption ?? ''), ...findHashtags(row.firstComment ?? ''), ...readHashtags(row.hashtags ?? '')]);
  return [...new Map(tags.toReversed().map((tag) => [tag.toLowerCase(), tag])).values()].toReversed();
}
