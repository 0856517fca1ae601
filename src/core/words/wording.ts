import type { NetworkSheet, WordField, WordFieldKey } from '../network/network-sheet.ts';
import type { Piece } from '../piece/piece.ts';
import { countCharacters, findHashtags, findMentions, LINK_PATTERN } from './count-characters.ts';

/** One cell of the wording sheet: what will be sent and where it comes from. */
export interface WordingCell {
  readonly text: string;
  readonly from: 'shared' | 'own';
}

/** The text of a field for a channel: its own where it has one (even an empty one), else the shared. */
export function wordingCell(piece: Piece, channelId: string, field: WordFieldKey): WordingCell {
  const own = piece.words.own[channelId]?.[field];
  return own === undefined ? { text: piece.words.shared[field], from: 'shared' } : { text: own, from: 'own' };
}

/** What a counter shows: the length as the network counts it. */
export interface Count {
  readonly used: number;
  readonly max: number;
  readonly over: number;
}

export function countField(text: string, field: WordField, sheet: NetworkSheet): Count {
  const used = countCharacters(text, field.counting === 'weighted' ? { kind: 'weighted', linkAs: sheet.words.links.countAs ?? 1 } : { kind: 'graphemes' });
  return { used, max: field.max, over: Math.max(0, used - field.max) };
}

/** Something about a caption that a network would refuse (`stops`) or take badly (`warns`). */
export type WordingFinding =
  | { readonly kind: 'too-long'; readonly severity: 'stops'; readonly field: WordFieldKey; readonly over: number; readonly max: number }
  | { readonly kind: 'too-many-hashtags'; readonly severity: 'stops' | 'warns'; readonly count: number; readonly limit: number }
  | { readonly kind: 'too-many-mentions'; readonly severity: 'stops'; readonly count: number; readonly limit: number }
  | { readonly kind: 'dead-link'; readonly severity: 'warns' };

/** Checks the words that would go to a channel against its network's sheet. */
export function checkWording(piece: Piece, channelId: string, sheet: NetworkSheet): readonly WordingFinding[] {
  const findings: WordingFinding[] = [];
  for (const field of sheet.words.fields) {
    const { over, max } = countField(wordingCell(piece, channelId, field.key).text, field, sheet);
    if (over > 0) findings.push({ kind: 'too-long', severity: 'stops', field: field.key, over, max });
  }
  const caption = wordingCell(piece, channelId, 'caption').text;
  const tags = findHashtags(caption).length;
  const { hashtags, mentions, links } = sheet.words;
  if (hashtags.max !== null && tags > hashtags.max) findings.push({ kind: 'too-many-hashtags', severity: 'stops', count: tags, limit: hashtags.max });
  else if (hashtags.warnOver !== null && tags > hashtags.warnOver) findings.push({ kind: 'too-many-hashtags', severity: 'warns', count: tags, limit: hashtags.warnOver });
  const mentioned = findMentions(caption).length;
  if (mentions.max !== null && mentioned > mentions.max) findings.push({ kind: 'too-many-mentions', severity: 'stops', count: mentioned, limit: mentions.max });
  if (!links.clickable && caption.match(LINK_PATTERN)) findings.push({ kind: 'dead-link', severity: 'warns' });
  return findings;
}
