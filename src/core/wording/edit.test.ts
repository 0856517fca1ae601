import { produce, type Draft } from 'immer';
import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import type { Piece } from '../piece/piece.ts';
import { differingRows, keptText, resetCells, SHARED, writeCell } from './edit.ts';

const edited = (recipe: (draft: Draft<Piece>) => void): Piece => produce(plainPiece, recipe);

describe('cells', () => {
  it('are written to the shared row, or become a channel’s own', () => {
    const { words } = edited((draft) => {
      writeCell(draft, { row: SHARED, field: 'hashtags' }, '#Kite');
      writeCell(draft, { row: 'c2', field: 'caption' }, 'Other');
    });
    expect(words).toEqual({ shared: { caption: '', altText: '', hashtags: '#Kite' }, own: { c1: { caption: 'Own' }, c2: { caption: 'Other' } } });
  });

  it('go back to what they inherit, and a row without any is gone', () => {
    const piece = edited((draft) => {
      writeCell(draft, { row: 'c1', field: 'altText' }, 'A');
      resetCells(draft, [{ row: 'c1', field: 'caption' }]);
    });
    expect(piece.words.own).toEqual({ c1: { altText: 'A' } });
    expect(differingRows(piece, ['c1', 'c2'])).toBe(1);
    expect(produce(piece, (draft) => resetCells(draft, [{ row: 'c1', field: 'altText' }, { row: 'c9', field: 'caption' }])).words.own).toEqual({});
    // Fields that every piece has stay there, empty.
    expect(produce(piece, (draft) => resetCells(draft, [{ row: SHARED, field: 'caption' }, { row: SHARED, field: 'title' }])).words.shared).toEqual({ caption: '', altText: '' });
  });

  it('keep what people type and nothing that no network takes', () => {
    expect(keptText('caption', 'a\u0000b\u001bc\r\nd\u2028e\tf')).toBe('abc\nd\ne\tf');
    expect(keptText('caption', '\u202bعربي\u202c 👨\u200d👩')).toBe('\u202bعربي\u202c 👨\u200d👩');
    expect(keptText('caption', 'x'.repeat(1_000_000))).toHaveLength(100_000);
    expect(keptText('button', `${'x'.repeat(59)}🪁`)).toBe('x'.repeat(59));
  });
});
