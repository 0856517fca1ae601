import { networkVoiceOf, type BrandBook } from '../brand/brand-book.ts';
import { fillFacts, type MissingFact } from '../brand/facts.ts';
import { fillSnippets } from '../brand/snippets.ts';
import type { NetworkSheet, WordField } from '../network/network-sheet.ts';
import { pieceName, type CutRef } from '../piece/piece.ts';
import { withCampaign } from '../words/campaign.ts';
import { countCharacters, findHashtags, findMentions, type Counting } from '../words/count-characters.ts';
import { fieldOf, type FieldKey, type Words } from '../words/fields.ts';
import type { Language } from '../words/language.ts';
import { readHashtags } from '../words/read-hashtags.ts';
import { slugOf } from '../words/slug.ts';
import { splitThread, writeThread } from '../words/thread.ts';
import { addressPeople } from './mentions.ts';
import { cellOf, fieldsOfRow, type Row, type RowField } from './row.ts';

/** A text with everything filled in that stands for something else. */
export interface FilledWords {
  readonly text: string;
  readonly missing: readonly MissingFact[];
  /** People who are named, and whom the network does not know. */
  readonly plain: readonly string[];
}

/** Fills a text for one network: snippets, then the brand's facts, then the handles of people. */
export function fillWords(text: string, { facts, voice }: Pick<BrandBook, 'facts' | 'voice'>, network: string): FilledWords {
  const { text: filled, missing } = fillFacts(fillSnippets(text, voice.snippets), facts);
  const { text: addressed, plain } = addressPeople(filled, voice.people, network);
  return { text: addressed, missing, plain };
}

/** What a row's words become: exactly what goes out, with what it is counted by. */
export interface ComposedRow {
  readonly fields: readonly RowField[];
  /** By field, with the link and the hashtags in their places, and a thread as one text. */
  readonly words: Words;
  /** The posts that the text goes out as; one where it is not split. Null: it cannot be split. */
  readonly parts: readonly string[] | null;
  readonly missing: readonly MissingFact[];
  readonly plain: readonly string[];
  readonly hashtags: readonly string[];
  readonly mentions: readonly string[];
}

/**
 * Composes the words of a row: what goes out is the caption with the link and the hashtags in the order that the brand has for the network.
 * @param placement the words of one cut alone; null takes all fields that the channel has in this piece
 */
export function composeRow(row: Row, placement: string | null = null): ComposedRow {
  const { sheet, book } = row;
  const taken = fieldsOfRow(row).filter(({ rule }) => placement === null || rule.placements === undefined || rule.placements.includes(placement));
  const filled = new Map<FieldKey, FilledWords>(taken.map(({ key }) => [key, fillWords(cellOf(row, key).text, book, sheet.key)]));
  const campaign = { network: sheet.key, channel: row.channel.id, piece: slugOf(pieceName(row.piece)) };
  const textOf = (key: FieldKey): string => {
    const text = filled.get(key)?.text ?? '';
    return key === 'link' ? withCampaign(text, book.voice.link, book.voice.campaign, campaign) : text;
  };
  const { order, hashtagsIn } = networkVoiceOf(book.voice, sheet.key);
  const tags = readHashtags(textOf('hashtags'));
  const tagsWithin = taken.some(({ key, within }) => key === 'hashtags' && within);
  const goesToComment = hashtagsIn === 'firstComment' && filled.has('firstComment');
  const blocks: Readonly<Record<(typeof order)[number], string>> = {
    caption: textOf('caption'),
    link: taken.some(({ key, within }) => key === 'link' && within) && !textOf('caption').includes(filled.get('link')?.text.trim() ?? '') ? textOf('link').trim() : '',
    hashtags: tagsWithin && !goesToComment ? missingTags(tags, textOf('caption')).join(' ') : '',
  };
  const caption = joined([...new Set([...order, 'caption' as const])].map((part) => blocks[part]));
  const firstComment = tagsWithin && goesToComment ? joined([textOf('firstComment'), missingTags(tags, textOf('caption')).join(' ')]) : textOf('firstComment');
  const words: Partial<Record<FieldKey, string>> = {};
  for (const { key, within } of taken) {
    if (within) continue;
    const text = key === 'caption' ? caption : key === 'firstComment' ? firstComment : key === 'hashtags' ? tags.join(' ') : textOf(key);
    if (text !== '') words[key] = text;
  }
  const parts = threadOf(words, sheet, book.language);
  if (words.thread !== undefined) {
    if (parts && parts.length > 1) words.thread = writeThread({ parts, pictureEach: words.thread === 'pictures' });
    else delete words.thread;
  }
  const body = [words.caption ?? '', goesToComment ? missingTags(tags, '').join(' ') : '', sheet.words.hashtags.asField ? tags.join(' ') : ''].join('\n');
  return {
    fields: taken,
    words,
    parts,
    missing: [...filled.values()].flatMap(({ missing }) => missing),
    plain: [...new Set([...filled.values()].flatMap(({ plain }) => plain))],
    hashtags: findHashtags(body),
    mentions: findMentions(words.caption ?? ''),
  };
}

/** The words that go out with one cut: of each field that the network takes in that placement, and of no other. */
export function composeWords(row: Row, { placement }: Pick<CutRef, 'placement'>): Words {
  return composeRow(row, placement).words;
}

/** What a counter shows: the length as the network counts it. Without a limit nothing is over. */
export interface Count {
  readonly used: number;
  readonly max: number | null;
  readonly over: number;
}

/** The length of a field's text, as the network counts it. */
export function countField(text: string, field: Pick<WordField, 'max' | 'counting'>, sheet: NetworkSheet): Count {
  const used = countCharacters(text, countingOf(field, sheet));
  return { used, max: field.max, over: field.max === null ? 0 : Math.max(0, used - field.max) };
}

export function countingOf({ counting }: Pick<WordField, 'counting'>, sheet: NetworkSheet): Counting {
  return counting === 'weighted' ? { kind: 'weighted', linkAs: sheet.words.links.countAs ?? 1 } : { kind: counting };
}

/** What of a network's limits is left for a row. Null: there is no limit. */
export interface LeftOver {
  readonly characters: number | null;
  readonly hashtags: number | null;
  readonly mentions: number | null;
  /** Posts that the text goes out as. */
  readonly parts: number;
}

export function leftOver({ words, parts, hashtags, mentions }: ComposedRow, sheet: NetworkSheet): LeftOver {
  const rule = sheet.words.fields.find(({ key }) => key === 'caption');
  const count = rule && countField(longest(parts && parts.length > 1 ? parts : [words.caption ?? ''], rule, sheet), rule, sheet);
  return {
    characters: count?.max === undefined || count.max === null ? null : count.max - count.used,
    hashtags: sheet.words.hashtags.max === null ? null : sheet.words.hashtags.max - hashtags.length,
    mentions: sheet.words.mentions.max === null ? null : sheet.words.mentions.max - mentions.length,
    parts: parts?.length ?? 1,
  };
}

function longest(texts: readonly string[], rule: WordField, sheet: NetworkSheet): string {
  return texts.reduce((most, text) => (countField(text, rule, sheet).used > countField(most, rule, sheet).used ? text : most), '');
}

function threadOf(words: Words, sheet: NetworkSheet, language: Language | undefined): readonly string[] | null {
  const text = words.caption ?? '';
  const rule = sheet.words.fields.find(({ key }) => key === 'caption');
  if (words.thread === undefined || !sheet.words.thread || !rule || rule.max === null) return [text];
  return splitThread(text, { max: rule.max, maxParts: sheet.words.thread.maxParts, counting: countingOf(rule, sheet), numbered: words.thread !== 'plain', language });
}

/** Tags that a text does not have already. */
function missingTags(tags: readonly string[], text: string): readonly string[] {
  const there = new Set(findHashtags(text).map((tag) => tag.toLowerCase()));
  return tags.filter((tag) => !there.has(tag.toLowerCase()));
}

function joined(blocks: readonly string[]): string {
  return blocks.filter((block) => block !== '').join('\n\n');
}

/** The hashtags of a row's caption and of its field for them, as they are written. */
export function writtenTags(row: Row): readonly string[] {
  return [...findHashtags(cellOf(row, 'caption').text), ...readHashtags(cellOf(row, 'hashtags').text)];
}

/** What a field is called in a row: as the network calls it. */
export function labelOf(sheet: NetworkSheet, key: FieldKey): string {
  return sheet.words.fields.find((field) => field.key === key)?.label ?? fieldOf(key).name;
}
