import type { BrandBook } from '../brand/brand-book.ts';
import { replaceAvoided } from '../brand/voice.ts';
import type { NetworkSheet } from '../network/network-sheet.ts';
import type { FieldKey } from '../words/fields.ts';
import { mediaOfPiece, type Piece } from '../piece/piece.ts';
import { dropHashtags } from '../words/count-characters.ts';
import { checkWording, wordingCell, type WordingFinding } from '../wording/wording.ts';
import { plural, type CutToCheck, type Finding, type PictureTerms } from './finding.ts';

/** What a network would say to the words that go to one channel. */
export function wordFindings(piece: Piece, book: BrandBook, pictures: readonly PictureTerms[], { ref, channelName, sheet }: CutToCheck): readonly Finding[] {
  const found = checkWording(piece, ref.channelId, sheet, book).map(
    (finding): Finding => ({
      severity: finding.severity,
      sentence: wordingSentence(finding, channelName, sheet),
      cut: null,
      view: finding.kind === 'missing-fact' && finding.reason === 'empty' ? 'facts' : 'words',
      fix: wordingFix(finding, piece, ref.channelId),
    }),
  );
  // Slides have an alt text each, and are asked for it one by one.
  const takesAltText = piece.kind === 'graphic' && sheet.words.fields.some((field) => field.key === 'altText');
  if (takesAltText && wordingCell(piece, ref.channelId, 'altText').text.trim() === '') {
    found.push({ severity: 'warns', sentence: `${channelName} has no alt text: people who cannot see the picture get nothing.`, cut: null, view: 'words', fix: altTextFix(piece, ref.channelId, pictures) });
  }
  return found;
}

/** Alt text that somebody has written for the picture itself is there to be taken. */
function altTextFix(piece: Piece, channelId: string, pictures: readonly PictureTerms[]): Finding['fix'] {
  const [first] = mediaOfPiece(piece);
  const text = pictures.find((picture) => picture.id === first)?.altText.trim() ?? '';
  if (text === '') return null;
  const isOwn = wordingCell(piece, channelId, 'altText').from === 'own';
  return { label: 'Take the picture’s alt text', change: { kind: 'write-words', channelId: isOwn ? channelId : null, field: 'altText', text } };
}

function wordingFix(finding: WordingFinding, piece: Piece, channelId: string): Finding['fix'] {
  if (finding.kind === 'avoided-word' && finding.prefer !== '') {
    const cell = wordingCell(piece, channelId, finding.field);
    const change = { kind: 'write-words' as const, channelId: cell.from === 'own' ? channelId : null, field: finding.field, text: replaceAvoided(cell.text, finding.word, finding.prefer) };
    return { label: `Say “${finding.prefer}”`, change };
  }
  if (finding.kind === 'too-many-hashtags') {
    const { text } = wordingCell(piece, channelId, 'caption');
    return { label: finding.limit === 0 ? 'Leave them out here' : `Keep the first ${finding.limit} here`, change: { kind: 'write-words', channelId, field: 'caption', text: dropHashtags(text, finding.limit) } };
  }
  return null;
}

function wordingSentence(finding: WordingFinding, channelName: string, sheet: NetworkSheet): string {
  switch (finding.kind) {
    case 'missing-fact':
      return finding.reason === 'empty'
        ? `The words for ${channelName} use the fact {${finding.fact}}, which has no text yet.`
        : `The words for ${channelName} use {${finding.fact}}, and the brand has no fact of that name.`;
    case 'avoided-word':
      return `${fieldLabel(sheet, finding.field)} for ${channelName} says “${finding.word}”, which this brand does not.`;
    case 'missing':
      return `${channelName} has no ${fieldLabel(sheet, finding.field).toLowerCase()}: ${sheet.name} takes no post without one.`;
    case 'no-address':
      return `${fieldLabel(sheet, finding.field)} for ${channelName} is no whole web address; it starts with https://.`;
    case 'too-long':
      return `${fieldLabel(sheet, finding.field)} for ${channelName} is ${plural(finding.over, 'character')} over the ${finding.max} that ${sheet.name} takes.`;
    case 'too-many-hashtags':
      return finding.severity === 'stops'
        ? `${plural(finding.count, 'hashtag')} for ${channelName}: ${sheet.name} takes ${limitWord(finding.limit)}.`
        : `${plural(finding.count, 'hashtag')} for ${channelName}: ${finding.limit === 0 ? 'they do nothing' : `over ${finding.limit} looks like noise`} on ${sheet.name}.`;
    case 'too-many-mentions':
      return `${plural(finding.count, 'mention')} for ${channelName}: ${sheet.name} takes ${limitWord(finding.limit)}.`;
    case 'dead-link':
      return `The link in the words for ${channelName} cannot be clicked on ${sheet.name}.`;
  }
}

function fieldLabel(sheet: NetworkSheet, field: FieldKey): string {
  return sheet.words.fields.find((each) => each.key === field)?.label ?? field;
}

function limitWord(limit: number): string {
  return limit === 0 ? 'none' : String(limit);
}
