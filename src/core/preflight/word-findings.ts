import { cutShort } from '../words/cut-short.ts';
import type { BrandBook } from '../brand/brand-book.ts';
import { avoidedWords, replaceAvoided } from '../brand/voice.ts';
import type { NetworkSheet } from '../network/network-sheet.ts';
import { mediaOfPiece, type Piece } from '../piece/piece.ts';
import { dropHashtags, findHashtags } from '../words/count-characters.ts';
import type { FieldKey } from '../words/fields.ts';
import { checkWording, type WordingFinding } from '../wording/check.ts';
import { labelOf } from '../wording/compose.ts';
import { cellOf, type Row } from '../wording/row.ts';
import { editHashtags, hashtagsIn, isSameTag } from './edit-hashtags.ts';
import { plural, type CutToCheck, type Finding, type PictureTerms } from './finding.ts';

/** What a network would say to the words that go to one channel. */
export function wordFindings(piece: Piece, book: BrandBook, pictures: readonly PictureTerms[], { ref, channelName, offers, sheet }: CutToCheck): readonly Finding[] {
  const row: Row = { piece, book, sheet, channel: { id: ref.channelId, offers } };
  const found = checkWording(row).map(
    (finding): Finding => ({
      severity: finding.severity,
      sentence: wordingSentence(finding, channelName, sheet),
      cut: null,
      view: finding.kind === 'missing-fact' && finding.reason === 'empty' ? 'facts' : 'words',
      fix: wordingFix(finding, row),
    }),
  );
  // Slides have an alt text each, and are asked for it one by one.
  const takesAltText = piece.kind === 'graphic' && sheet.words.fields.some((field) => field.key === 'altText');
  if (takesAltText && cellOf(row, 'altText').text.trim() === '') {
    found.push({ severity: 'warns', sentence: `${channelName} has no alt text: people who cannot see the picture get nothing.`, cut: null, view: 'words', fix: altTextFix(row, piece, pictures) });
  }
  return found;
}

/** Alt text that somebody has written for the picture itself is there to be taken. */
function altTextFix(row: Row, piece: Piece, pictures: readonly PictureTerms[]): Finding['fix'] {
  const [first] = mediaOfPiece(piece);
  const text = pictures.find((picture) => picture.id === first)?.altText.trim() ?? '';
  return text === '' ? null : { label: 'Take the picture’s alt text', change: writeWhereItIs(row, 'altText', () => text) };
}

/** A change of a cell's text in the place that it comes from: a channel's own stays its own, what is shared stays shared. */
function writeWhereItIs(row: Row, field: FieldKey, change: (text: string) => string): NonNullable<Finding['fix']>['change'] {
  const cell = cellOf(row, field);
  return { kind: 'write-words', channelId: cell.from === 'shared' || cell.from === 'piece' ? null : row.channel.id, field, text: change(cell.text) };
}

function wordingFix(finding: WordingFinding, row: Row): Finding['fix'] {
  const { channel } = row;
  switch (finding.kind) {
    case 'avoided-word': {
      // Hashtags may go out at the end of another field, and a fact says what it says.
      const field = [finding.field, 'hashtags' as const].find((each) => avoidedWords(cellOf(row, each).text, { words: [{ avoid: finding.word, prefer: '' }] }).length > 0);
      if (finding.prefer === '' || field === undefined) return null;
      return { label: `Say “${finding.prefer}”`, change: writeWhereItIs(row, field, (text) => replaceAvoided(text, finding.word, finding.prefer)) };
    }
    case 'too-many-hashtags':
      return { label: finding.limit === 0 ? 'Leave them out here' : `Keep the first ${finding.limit} here`, change: keepHashtags(row, finding.limit) };
    case 'too-long':
      return finding.field === 'caption' ? tooLongFix(row) : null;
    case 'double-hashtag': {
      const field = fieldWithTag(row, finding.tag, true);
      let left = field === 'hashtags' && hasTag(row, 'caption', finding.tag) ? 0 : 1;
      return { label: `Keep ${finding.tag} once`, change: writeWhereItIs(row, field, (text) => editHashtags(field, text, (tag) => (isSameTag(tag, finding.tag) && (left -= 1) < 0 ? null : tag))) };
    }
    case 'avoided-hashtag': {
      const field = fieldWithTag(row, finding.tag);
      return { label: `Remove ${finding.tag}`, change: writeWhereItIs(row, field, (text) => editHashtags(field, text, (tag) => (isSameTag(tag, finding.tag) ? null : tag))) };
    }
    case 'broken-hashtag': {
      const { mended } = finding;
      return mended === null ? null : { label: `Write ${mended}`, change: writeWhereItIs(row, 'caption', (text) => text.replaceAll(wholeWord(finding.tag), mended)) };
    }
    case 'hashtag-capitals': {
      const field = fieldWithTag(row, finding.tag);
      return { label: `Write ${finding.proposed}`, change: writeWhereItIs(row, field, (text) => editHashtags(field, text, (tag) => (tag === finding.tag ? finding.proposed : tag))) };
    }
    case 'missing': {
      const [first] = channel.offers?.[finding.field] ?? [];
      return first === undefined ? null : { label: `Take “${first}”`, change: { kind: 'write-words', channelId: channel.id, field: finding.field, text: first } };
    }
    default:
      return null;
  }
}

/** What a machine can do about a text that is too long without taking words from it. */
function tooLongFix(row: Row): Finding['fix'] {
  const { sheet, channel } = row;
  if (sheet.words.thread) return { label: 'Split it into a thread here', change: { kind: 'write-words', channelId: channel.id, field: 'thread', text: 'numbered' } };
  const { text } = cellOf(row, 'caption');
  const tags = findHashtags(text);
  if (tags.length === 0 || !sheet.words.fields.some(({ key }) => key === 'firstComment')) return null;
  const comment = [cellOf(row, 'firstComment').text.trim(), tags.join(' ')].filter((part) => part !== '').join('\n\n');
  return { label: 'Move the hashtags to the first comment', change: { kind: 'write-row', channelId: channel.id, words: { caption: dropHashtags(text, 0), firstComment: comment } } };
}

/** The first few hashtags of a row stay: first those of the caption, then those of the field for them. */
function keepHashtags(row: Row, limit: number): NonNullable<Finding['fix']>['change'] {
  const [caption, field] = [cellOf(row, 'caption').text, cellOf(row, 'hashtags').text];
  const inCaption = findHashtags(caption).length;
  const words = { caption: dropHashtags(caption, limit), ...(field.trim() === '' ? {} : { hashtags: editHashtags('hashtags', field, (tag, index) => (index < limit - inCaption ? tag : null)) }) };
  return { kind: 'write-row', channelId: row.channel.id, words };
}

function fieldWithTag(row: Row, tag: string, isLast = false): FieldKey {
  return hasTag(row, 'hashtags', tag) && (isLast || !hasTag(row, 'caption', tag)) ? 'hashtags' : 'caption';
}

function hasTag(row: Row, field: FieldKey, tag: string): boolean {
  return hashtagsIn(field, cellOf(row, field).text).some((each) => isSameTag(each, tag));
}

/** A word wherever it ends, not the beginning of a longer one. */
const wholeWord = (word: string): RegExp => new RegExp(`${word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\p{L}\\p{M}\\p{N}_-])`, 'gu');

const tagSentences: Readonly<Record<Extract<WordingFinding, { readonly kind: 'broken-hashtag' }>['why'], string>> = {
  'digits-only': 'digits alone make no hashtag',
  punctuation: 'a hashtag ends at the first punctuation mark',
  'too-long': 'no network takes a hashtag that long',
};

function wordingSentence(finding: WordingFinding, channelName: string, sheet: NetworkSheet): string {
  switch (finding.kind) {
    case 'missing-fact':
      return finding.reason === 'empty'
        ? `The words for ${channelName} use the fact {${finding.fact}}, which has no text yet.`
        : `The words for ${channelName} use {${finding.fact}}, and the brand has no fact of that name.`;
    case 'avoided-word':
      return `${labelOf(sheet, finding.field)} for ${channelName} says “${finding.word}”, which this brand does not.`;
    case 'missing':
      return `${channelName} has no ${labelOf(sheet, finding.field).toLowerCase()}: ${sheet.name} takes no post without one.`;
    case 'not-valid':
      return `${labelOf(sheet, finding.field)} for ${channelName} ${finding.problem}.`;
    case 'button-alone':
      return `The button for ${channelName} leads nowhere: add a link.`;
    case 'blank-left':
      return `${labelOf(sheet, finding.field)} for ${channelName} still has the blank [${finding.blank}].`;
    case 'too-long':
      return `${labelOf(sheet, finding.field)} for ${channelName} is ${plural(finding.over, 'character')} over the ${finding.max} that ${sheet.name} takes.`;
    case 'no-thread':
      return `The text for ${channelName} does not fit in ${finding.maxParts} posts: shorten it.`;
    case 'too-many-hashtags':
      return tooManyHashtags(finding, channelName, sheet);
    case 'too-many-mentions':
      return `${plural(finding.count, 'mention')} for ${channelName}: ${sheet.name} takes ${limitWord(finding.limit)}.`;
    case 'plain-mention':
      return `${finding.name} has no handle on ${sheet.name}, so their name goes out there.`;
    case 'shared-handle':
      return `${finding.handle} goes to ${sheet.name} as it is written: give them an address card in Brand > Voice, with their handle on each network.`;
    case 'avoided-hashtag':
      return `The words for ${channelName} have ${finding.tag}, which this brand avoids.`;
    case 'double-hashtag':
      return `The words for ${channelName} have ${finding.tag} twice.`;
    case 'broken-hashtag':
      return `The words for ${channelName} have ${shortTag(finding.tag)}: ${tagSentences[finding.why]}.`;
    case 'hashtag-capitals':
      return `Screen readers cannot tell the words of ${finding.tag} apart (${channelName}).`;
    case 'dead-link':
      return `The link in the words for ${channelName} cannot be clicked on ${sheet.name}.`;
  }
}

function tooManyHashtags({ severity, count, limit, by }: Extract<WordingFinding, { readonly kind: 'too-many-hashtags' }>, channelName: string, sheet: NetworkSheet): string {
  const lead = `${plural(count, 'hashtag')} for ${channelName}`;
  if (by === 'brand') return `${lead}: this brand has at most ${limit}.`;
  if (severity === 'stops') return `${lead}: ${sheet.name} takes ${limitWord(limit)}.`;
  return `${lead}: ${limit === 0 ? 'they do nothing' : `over ${limit} looks like noise`} on ${sheet.name}.`;
}

const shortTag = (tag: string): string => cutShort(tag, 40);

function limitWord(limit: number): string {
  return limit === 0 ? 'none' : String(limit);
}
