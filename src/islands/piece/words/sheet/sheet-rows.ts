import type { BrandBook } from '../../../../core/brand/brand-book.ts';
import type { NetworkSheet } from '../../../../core/network/network-sheet.ts';
import type { Piece } from '../../../../core/piece/piece.ts';
import { fieldOf, fields, type FieldKey } from '../../../../core/words/fields.ts';
import { composeRow, type ComposedRow } from '../../../../core/wording/compose.ts';
import { SHARED } from '../../../../core/wording/edit.ts';
import { cellOf, fieldsOfRow, whyNot, type Cell, type Row, type RowField } from '../../../../core/wording/row.ts';
import type { BrandData } from '../../../preview/brand-content.ts';
import type { Cut } from '../../use-cuts.ts';

export type BrandChannel = BrandData['channels'][number];

/** A channel that the piece goes to, with its network sheet. */
export interface SheetChannel {
  readonly channel: BrandChannel;
  readonly sheet: NetworkSheet;
}

/** A row of the wording sheet: the shared one, or a channel's. */
export interface SheetRow {
  readonly id: string;
  readonly name: string;
  /** Null for the shared row. */
  readonly channel: SheetChannel | null;
}

export interface SheetColumn {
  readonly field: FieldKey;
  readonly name: string;
  readonly widthPx: number;
}

const WIDE: Readonly<Partial<Record<FieldKey, number>>> = { caption: 300, title: 150, hashtags: 150, firstComment: 150, altText: 170, poll: 160 };
const USUAL_PX = 124;

/** The channels of a piece's cuts, each once. */
export function channelsOf(cuts: readonly Cut[]): readonly SheetChannel[] {
  return [...new Map(cuts.map(({ channel, sheet }) => [channel.id, { channel, sheet }])).values()];
}

export interface RowFilter {
  /** Key of a network; null: all. */
  readonly network: string | null;
  readonly only: 'all' | 'differ';
  readonly text: string;
}

/** The shared row and those of the channels that a filter leaves, grouped by network where that is wanted. */
export function rowsOf(channels: readonly SheetChannel[], piece: Pick<Piece, 'words'>, filter: RowFilter, isGrouped: boolean): readonly SheetRow[] {
  const wanted = filter.text.trim().toLowerCase();
  const left = channels.filter(
    ({ channel, sheet }) =>
      (filter.network === null || sheet.key === filter.network) && (filter.only === 'all' || Object.keys(piece.words.own[channel.id] ?? {}).length > 0) && `${channel.name} ${sheet.name}`.toLowerCase().includes(wanted),
  );
  const ordered = isGrouped ? [...new Set(left.map(({ sheet }) => sheet.key))].flatMap((key) => left.filter(({ sheet }) => sheet.key === key)) : left;
  return [{ id: SHARED, name: 'Shared', channel: null }, ...ordered.map((each): SheetRow => ({ id: each.channel.id, name: each.channel.name, channel: each }))];
}

/** The fields that any of the channels has, in the registry's order; named as the network names them where all agree. */
export function columnsOf(channels: readonly SheetChannel[], piece: Piece, book: BrandBook): readonly SheetColumn[] {
  const taken = channels.map(({ channel, sheet }) => fieldsOfRow({ piece, channel, sheet, book }));
  return fields.flatMap(({ key }): SheetColumn[] => {
    const found = taken.flatMap((row) => row.filter((field) => field.key === key));
    if (found.length === 0) return [];
    const labels = new Set(found.map(({ rule }) => rule.label));
    const [only] = labels;
    return [{ field: key, name: labels.size === 1 && only !== undefined ? only : fieldOf(key).name, widthPx: WIDE[key] ?? USUAL_PX }];
  });
}

/** A cell as it is shown: what it says, where that comes from, and its field; or why there is none. */
export type SheetCell = { readonly kind: 'cell'; readonly cell: Cell; readonly field: RowField | null } | { readonly kind: 'none'; readonly reason: string };

export function rowInputOf({ channel, sheet }: SheetChannel, piece: Piece, book: BrandBook): Row {
  return { piece, channel, sheet, book };
}

export function sheetCellOf(row: SheetRow, field: FieldKey, piece: Piece, book: BrandBook): SheetCell {
  if (!row.channel) return { kind: 'cell', cell: { text: piece.words.shared[field] ?? '', from: 'shared' }, field: null };
  const input = rowInputOf(row.channel, piece, book);
  const known = composedOf(row.channel, piece, book).fields.find(({ key }) => key === field);
  if (!known) return { kind: 'none', reason: whyNot(input, field) ?? '' };
  return { kind: 'cell', cell: cellOf(input, field), field: known };
}

const composed = new WeakMap<object, Map<string, ComposedRow>>();

/** What goes out for a channel; computed once for a state of the words. */
export function composedOf(each: SheetChannel, piece: Piece, book: BrandBook): ComposedRow {
  const known = composed.get(piece) ?? new Map<string, ComposedRow>();
  composed.set(piece, known);
  const found = known.get(each.channel.id) ?? composeRow(rowInputOf(each, piece, book));
  known.set(each.channel.id, found);
  return found;
}
