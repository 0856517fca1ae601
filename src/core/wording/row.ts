import { networkVoiceOf, type BrandBook } from '../brand/brand-book.ts';
import type { ChannelOffers } from '../network/channel-offers.ts';
import type { NetworkSheet, WordField } from '../network/network-sheet.ts';
import { firstWords, type Piece } from '../piece/piece.ts';
import { fieldOf, fields, type FieldKey } from '../words/fields.ts';

/** A row of the wording sheet: a channel, with all that its words depend on. */
export interface Row {
  readonly piece: Pick<Piece, 'title' | 'words' | 'frames' | 'cuts'>;
  readonly channel: { readonly id: string; readonly offers?: ChannelOffers | undefined };
  readonly sheet: NetworkSheet;
  readonly book: Pick<BrandBook, 'facts' | 'voice' | 'language'>;
}

/** What a cell says before anything is filled in, and where it comes from: `brand`: its default for the network; `account`: what the account offers first; `piece`: the words that lead the picture. */
export interface Cell {
  readonly text: string;
  readonly from: 'own' | 'shared' | 'brand' | 'account' | 'piece';
}

/** The words of a field for a row: its own where it has some (even an empty text), else the shared, else what stands in. */
export function cellOf({ piece, channel, sheet, book }: Row, key: FieldKey): Cell {
  const own = piece.words.own[channel.id]?.[key];
  if (own !== undefined) return { text: own, from: 'own' };
  const shared = piece.words.shared[key];
  if (shared !== undefined && (shared !== '' || fieldOf(key).standsIn !== undefined)) return { text: shared, from: 'shared' };
  if (fieldOf(key).standsIn === 'first-words') return { text: firstWords(piece).replace(/\s+/g, ' '), from: 'piece' };
  const networkVoice = networkVoiceOf(book.voice, sheet.key);
  if ((key === 'firstComment' || key === 'link') && networkVoice[key] !== '') return { text: networkVoice[key], from: 'brand' };
  const rule = sheet.words.fields.find((field) => field.key === key);
  const [first] = (rule?.offered && channel.offers?.[key]) || [];
  if (rule?.required && first !== undefined) return { text: first, from: 'account' };
  return { text: shared ?? '', from: 'shared' };
}

/** A field that a row has: as the network rules it, or one that goes out within another field. */
export interface RowField {
  readonly key: FieldKey;
  readonly rule: WordField;
  /** The network has no such field: it is part of the text there. */
  readonly within: boolean;
}

/** The fields that the words of a row have: those of the network in the piece's placements, and those that go out within them. */
export function fieldsOfRow(row: Pick<Row, 'piece' | 'channel' | 'sheet' | 'book'>): readonly RowField[] {
  const placements = row.piece.cuts.filter((cut) => cut.channelId === row.channel.id).map((cut) => cut.placement);
  return fields.flatMap(({ key }): RowField[] => {
    const rule = row.sheet.words.fields.find((field) => field.key === key);
    if (rule) return rule.placements === undefined || rule.placements.some((each) => placements.includes(each)) ? [{ key, rule, within: false }] : [];
    return whyNot(row, key) === null ? [{ key, rule: { key, label: fieldOf(key).name, max: null, counting: 'graphemes', required: false }, within: !(key === 'hashtags' && row.sheet.words.hashtags.asField) }] : [];
  });
}

/** Why a row has no such field, in a sentence; null where it has it. */
export function whyNot({ piece, channel, sheet, book }: Pick<Row, 'piece' | 'channel' | 'sheet' | 'book'>, key: FieldKey): string | null {
  const { name } = fieldOf(key);
  const rule = sheet.words.fields.find((field) => field.key === key);
  if (rule) {
    const places = sheet.placements.filter((placement) => rule.placements?.includes(placement.key)).map((placement) => placement.name);
    const isThere = rule.placements === undefined || piece.cuts.some((cut) => cut.channelId === channel.id && rule.placements?.includes(cut.placement));
    return isThere ? null : `${sheet.name} takes this only in ${places.join(', ')}, and this piece has no cut there.`;
  }
  const { hashtags } = sheet.words;
  if (key === 'hashtags') return hashtags.max === 0 || hashtags.warnOver === 0 ? `Hashtags do nothing on ${sheet.name}.` : null;
  if (key === 'link' && sheet.words.links.clickable) return networkVoiceOf(book.voice, sheet.key).order.includes('link') ? null : `${sheet.name} has no field for a link. Let it be part of the text in Brand > Voice, or write it into the caption.`;
  return `${sheet.name} has no ${name.toLowerCase()}.`;
}
