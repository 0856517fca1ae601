import { produce } from 'immer';
import { describe, expect, it } from 'vitest';
import petalry from '../network/sheets/petalry.json' with { type: 'json' };
import quipline from '../network/sheets/quipline.json' with { type: 'json' };
import { networkSheetSchema } from '../network/network-sheet.ts';
import { addCuts } from '../piece/add-cuts.ts';
import { differsFrom, commonAdjustment } from '../piece/common-adjustment.ts';
import { adjustmentOf, cutKey, MAX_CUTS, readPiece, type CutRef, type Piece } from '../piece/piece.ts';
import { cutsToAdd, possibleCuts } from './possible-cuts.ts';

const sheets = [petalry, quipline].map((sheet) => networkSheetSchema.validateSync(sheet));
const [first, later] = [{ id: 'c1', network: 'petalry' }, { id: 'c2', network: 'quipline' }];

function piece(cuts: readonly CutRef[], adjustments: object = {}): Piece {
  return readPiece({ version: 1, kind: 'graphic', title: '', template: { key: 'headland' }, frames: [{ id: 'a', slots: {} }], cuts, adjustments, words: { shared: { caption: '', altText: '' }, own: {} } });
}

describe('cuts of a channel that was connected later', () => {
  const before = possibleCuts([first], sheets, 'graphic');

  it('are those that the piece could have and has not', () => {
    expect(before.length).toBeGreaterThan(2);
    expect(cutsToAdd(piece(before), [first], sheets)).toEqual([]);
    const added = cutsToAdd(piece(before), [first, later], sheets);
    expect(added.length).toBeGreaterThan(0);
    expect(new Set(added.map(({ channelId }) => channelId))).toEqual(new Set(['c2']));
    // A video can be made for other places than a graphic.
    expect(cutsToAdd({ kind: 'video', cuts: [] }, [first, later], sheets)).not.toEqual(cutsToAdd({ kind: 'graphic', cuts: [] }, [first, later], sheets));
  });

  it('come in behind the others, once, and look as they do', () => {
    const dark = Object.fromEntries(before.map((cut) => [cutKey(cut), { scheme: 'dark' }]));
    const grown = produce(piece(before, dark), (draft) => {
      const refs = cutsToAdd(draft, [first, later], sheets);
      addCuts(draft, refs);
      addCuts(draft, refs);
    });
    expect(grown.cuts.slice(0, before.length)).toEqual(before);
    expect(new Set(grown.cuts.map(cutKey)).size).toBe(grown.cuts.length);
    expect(cutsToAdd(grown, [first, later], sheets)).toEqual([]);
    const adjustments = grown.cuts.map((cut) => adjustmentOf(grown, cut));
    for (const adjustment of adjustments) expect([adjustment.scheme, differsFrom(adjustment, commonAdjustment(adjustments))]).toEqual(['dark', false]);
    expect(readPiece(JSON.parse(JSON.stringify(grown)))).toEqual(grown);
  });

  it('are no more than a piece may have', () => {
    const many = Array.from({ length: 150 }, (_, index) => ({ id: `m${index}`, network: 'petalry' }));
    const all = cutsToAdd(piece(before), many, sheets);
    expect(all.length).toBe(MAX_CUTS - before.length);
    const full = produce(piece(before), (draft) => addCuts(draft, all));
    expect(readPiece(JSON.parse(JSON.stringify(full))).cuts).toHaveLength(MAX_CUTS);
    expect(cutsToAdd(full, many, sheets)).toEqual([]);
  });

  it('bring nothing of their own into a piece without a choice', () => {
    const grown = produce(piece(before), (draft) => addCuts(draft, cutsToAdd(draft, [first, later], sheets)));
    expect(grown.adjustments).toEqual({});
  });
});
