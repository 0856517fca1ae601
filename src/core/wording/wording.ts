import type { NetworkSheet, WordField } from '../network/network-sheet.ts';
import type { BrandBook, Fact } from '../brand/brand-book.ts';
import { fillFacts } from '../brand/facts.ts';
import { avoidedWords } from '../brand/voice.ts';
import { firstWords, type CutRef, type Piece } from '../piece/piece.ts';
import { countCharacters, findHashtags, findMentions, LINK_PATTERN } from '../words/count-characters.ts';
import { fieldOf, fields, isValidIn, type FieldKey, type Words } from '../words/fields.ts';

/** One cell of the wording sheet: what will be sent and where it comes from. `piece`: the piece's own name, as its title. */
export interface WordingCell {
  readonly text: string;
  readonly from: 'shared' | 'own' | 'piece';
}

/** The text of a field for a channel: its own where it has one (even an empty one), else the shared. */
export function wordingCell(piece: Piece, channelId: string, field: FieldKey): WordingCell {
  const own = piece.words.own[channelId]?.[field];
  if (own !== undefined) return { text: own, from: 'own' };
  const shared = piece.words.shared[field];
  return fieldOf(field).standsIn === 'first-words' && shared === undefined ? { text: titleOfPiece(piece), from: 'piece' } : { text: shared ?? '', from: 'shared' };
}

/** Until somebody writes a title, what leads the picture is one. */
function titleOfPiece(piece: Piece): string {
  return firstWords(piece).replace(/\s+/g, ' ');
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

/** The fields that a piece has for a channel: some belong to certain placements alone. */
export function fieldsOfChannel(piece: Pick<Piece, 'cuts'>, channelId: string, sheet: NetworkSheet): readonly WordField[] {
  const placements = piece.cuts.filter((cut) => cut.channelId === channelId).map((cut) => cut.placement);
  return sheet.words.fields.filter((field) => field.placements === undefined || field.placements.some((each) => placements.includes(each)));
}

/** A field's text for a channel, own or shared, with the brand's facts filled in. */
export function composedText(piece: Piece, channelId: string, field: FieldKey, facts: readonly Fact[]): string {
  return fillFacts(wordingCell(piece, channelId, field).text, facts).text;
}

/** The words that go out with one cut: of each field that the network takes in that placement, and of no other. */
export function composeWords(piece: Piece, { channelId, placement }: CutRef, sheet: NetworkSheet, facts: readonly Fact[]): Words {
  const taken = sheet.words.fields.filter(({ placements }) => placements === undefined || placements.includes(placement));
  return Object.fromEntries(taken.flatMap(({ key }) => {
    const text = composedText(piece, channelId, key, facts);
    return text === '' ? [] : [[key, text]];
  }));
}

/** Something about a caption that a network would refuse (`stops`) or take badly (`warns`). */
export type WordingFinding =
  | { readonly kind: 'too-long'; readonly severity: 'stops'; readonly field: FieldKey; readonly over: number; readonly max: number }
  | { readonly kind: 'missing-fact'; readonly severity: 'stops'; readonly fact: string; readonly reason: 'unknown' | 'empty' }
  | { readonly kind: 'avoided-word'; readonly severity: 'warns'; readonly field: FieldKey; readonly word: string; readonly prefer: string }
  | { readonly kind: 'missing'; readonly severity: 'stops'; readonly field: FieldKey }
  | { readonly kind: 'no-address'; readonly severity: 'stops'; readonly field: FieldKey }
  | { readonly kind: 'too-many-hashtags'; readonly severity: 'stops' | 'warns'; readonly count: number; readonly limit: number }
  | { readonly kind: 'too-many-mentions'; readonly severity: 'stops'; readonly count: number; readonly limit: number }
  | { readonly kind: 'dead-link'; readonly severity: 'warns' };

/** Checks the words that would go to a channel against its network's sheet. */
export function checkWording(piece: Piece, channelId: string, sheet: NetworkSheet, { facts, voice }: Pick<BrandBook, 'facts' | 'voice'>): readonly WordingFinding[] {
  const findings: WordingFinding[] = [];
  for (const field of fieldsOfChannel(piece, channelId, sheet)) {
    const { text, missing } = fillFacts(wordingCell(piece, channelId, field.key).text, facts);
    for (const fact of missing) findings.push({ kind: 'missing-fact', severity: 'stops', fact: fact.key, reason: fact.reason });
    for (const avoided of avoidedWords(text, voice)) findings.push({ kind: 'avoided-word', severity: 'warns', field: field.key, ...avoided });
    const { over, max } = countField(text, field, sheet);
    if (field.required && text.trim() === '') findings.push({ kind: 'missing', severity: 'stops', field: field.key });
    if (!isValidIn(field.key, text)) findings.push({ kind: 'no-address', severity: 'stops', field: field.key });
    if (over > 0) findings.push({ kind: 'too-long', severity: 'stops', field: field.key, over, max });
  }
  const caption = fields.filter(({ key, carriesTags }) => carriesTags && sheet.words.fields.some((field) => field.key === key)).map(({ key }) => composedText(piece, channelId, key, facts)).join('\n');
  const tags = findHashtags(caption).length;
  const { hashtags, mentions, links } = sheet.words;
  if (hashtags.max !== null && tags > hashtags.max) findings.push({ kind: 'too-many-hashtags', severity: 'stops', count: tags, limit: hashtags.max });
  else if (hashtags.warnOver !== null && tags > hashtags.warnOver) findings.push({ kind: 'too-many-hashtags', severity: 'warns', count: tags, limit: hashtags.warnOver });
  const mentioned = findMentions(caption).length;
  if (mentions.max !== null && mentioned > mentions.max) findings.push({ kind: 'too-many-mentions', severity: 'stops', count: mentioned, limit: mentions.max });
  if (!links.clickable && caption.match(LINK_PATTERN)) findings.push({ kind: 'dead-link', severity: 'warns' });
  return findings;
}
