import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../../../demo/brands/gullwick.ts';
import { plainPiece } from '../../../../../tests/fixtures/piece.ts';
import { shippedSheets } from '../../../../core/network/shipped-sheets.ts';
import type { NetworkSheet } from '../../../../core/network/network-sheet.ts';
import type { Piece } from '../../../../core/piece/piece.ts';
import type { Cut } from '../../use-cuts.ts';
import { channelsOf, columnsOf, composedOf, rowsOf, sheetCellOf, type RowFilter, type SheetChannel } from './sheet-rows.ts';

const sheetOf = (key: string): NetworkSheet => shippedSheets.find((each) => each.key === key) as NetworkSheet;
const channel = (id: string, name: string, network: string): SheetChannel => ({ channel: { id, name, network } as SheetChannel['channel'], sheet: sheetOf(network) });
const channels = [channel('p1', 'Loft', 'petalry'), channel('q1', 'Loft news', 'quipline'), channel('p2', 'Shop', 'petalry')];
const [petalry, quipline] = channels as [SheetChannel, SheetChannel, SheetChannel];
const piece: Piece = { ...plainPiece, words: { shared: { caption: 'Shared words', altText: '' }, own: { q1: { caption: 'Own words' }, p2: {} } } };
const all: RowFilter = { network: null, only: 'all', text: '' };
const idsOf = (filter: Partial<RowFilter>, isGrouped = false): readonly string[] => rowsOf(channels, piece, { ...all, ...filter }, isGrouped).map(({ id }) => id);

describe('rows of the wording sheet', () => {
  it('are the channels of the cuts, each once, below the shared one', () => {
    const cuts = [petalry, quipline, petalry].map((each) => each as unknown as Cut);
    expect(channelsOf(cuts).map((each) => each.channel.id)).toEqual(['p1', 'q1']);
    expect(rowsOf(channels, piece, all, false)[0]).toEqual({ id: 'shared', name: 'Shared', channel: null });
    expect(idsOf({})).toEqual(['shared', 'p1', 'q1', 'p2']);
  });

  it('stand by their network where that is wanted', () => {
    expect(idsOf({}, true)).toEqual(['shared', 'p1', 'p2', 'q1']);
  });

  it('are narrowed by network, by what differs, and by the names of channel and network', () => {
    expect(idsOf({ network: 'quipline' })).toEqual(['shared', 'q1']);
    // A channel without a word of its own follows.
    expect(idsOf({ only: 'differ' })).toEqual(['shared', 'q1']);
    expect(idsOf({ text: ' LOFT ' })).toEqual(['shared', 'p1', 'q1']);
    expect(idsOf({ text: 'petal' })).toEqual(['shared', 'p1', 'p2']);
    expect(idsOf({ text: 'nowhere' })).toEqual(['shared']);
  });
});

describe('columns', () => {
  it('are the fields that any of the channels has, once each', () => {
    const fields = columnsOf(channels, piece, gullwickBook).map(({ field }) => field);
    expect(fields).toEqual(expect.arrayContaining(['caption', 'altText', 'hashtags']));
    expect(new Set(fields).size).toBe(fields.length);
    expect(columnsOf([quipline], piece, gullwickBook).map(({ field }) => field)).not.toContain('firstComment');
    expect(columnsOf([], piece, gullwickBook)).toEqual([]);
  });

  it('have the network’s name for a field where all agree on it, and ours where they do not', () => {
    const nameIn = (of: readonly SheetChannel[]): string | undefined => columnsOf(of, piece, gullwickBook).find(({ field }) => field === 'caption')?.name;
    const labelOf = ({ sheet }: SheetChannel): string | undefined => sheet.words.fields.find(({ key }) => key === 'caption')?.label;
    const other = shippedSheets.find((sheet) => sheet.words.fields.some(({ key, label }) => key === 'caption' && label !== labelOf(petalry)));
    expect(nameIn([petalry])).toBe(labelOf(petalry));
    expect(other).toBeDefined();
    expect(nameIn([petalry, channel('o1', 'Other', other?.key ?? '')])).toBe('Caption');
  });
});

describe('cells', () => {
  const row = (each: SheetChannel) => ({ id: each.channel.id, name: each.channel.name, channel: each });

  it('say what stands there and where that comes from', () => {
    const fromOf = (each: SheetChannel): unknown => {
      const cell = sheetCellOf(row(each), 'caption', piece, gullwickBook);
      return cell.kind === 'cell' ? cell.cell : cell.reason;
    };
    expect([fromOf(petalry), fromOf(quipline)]).toEqual([{ text: 'Shared words', from: 'shared' }, { text: 'Own words', from: 'own' }]);
    expect(sheetCellOf({ id: 'shared', name: 'Shared', channel: null }, 'caption', piece, gullwickBook)).toEqual({ kind: 'cell', cell: { text: 'Shared words', from: 'shared' }, field: null });
  });

  it('say why there is none, where a network has no such field', () => {
    expect(sheetCellOf(row(quipline), 'board', piece, gullwickBook)).toEqual({ kind: 'none', reason: 'Quipline has no board.' });
  });

  it('are composed once for a state of the words, and anew for the next', () => {
    const first = composedOf(petalry, piece, gullwickBook);
    expect(composedOf(petalry, piece, gullwickBook)).toBe(first);
    const next = { ...piece, words: { ...piece.words, shared: { ...piece.words.shared, caption: 'Other words' } } };
    expect(JSON.stringify(composedOf(petalry, next, gullwickBook))).toContain('Other words');
  });
});
