import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import type { Piece } from '../piece/piece.ts';
import { changeDocument, rebase, redo, startHistory, undo, type History } from './history.ts';

const retitle = (history: History<Piece>, title: string, label: string, atMs: number): History<Piece> => changeDocument(history, label, atMs, (draft) => void (draft.title = title));

describe('history', () => {
  it('undoes and redoes any run of edits back to where it was', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.string({ maxLength: 6 }), fc.constantFrom('a', 'b')), { maxLength: 20 }), (edits) => {
        let history = startHistory(plainPiece);
        edits.forEach(([title, label], index) => (history = retitle(history, title, label, index * 400)));
        const end = history.document;
        const depth = history.done.length;
        for (let step = 0; step < depth; step += 1) history = undo(history);
        expect(history.document).toEqual(plainPiece);
        for (let step = 0; step < depth; step += 1) history = redo(history);
        expect(history.document).toEqual(end);
      }),
    );
  });

  it('joins quick edits of one label, and keeps others apart', () => {
    let history = startHistory(plainPiece);
    history = retitle(history, 'a', 'title', 0);
    history = retitle(history, 'ab', 'title', 300);
    history = retitle(history, 'abc', 'title', 5_000);
    history = retitle(history, 'x', 'other', 5_100);
    expect(history.done).toHaveLength(3);
    expect(undo(undo(history)).document.title).toBe('ab');
  });

  it('answers the same history for a change that changes nothing', () => {
    const history = startHistory(plainPiece);
    expect(changeDocument(history, 'title', 0, (draft) => void (draft.title = ''))).toBe(history);
    expect(undo(history)).toBe(history);
  });

  it('forgets what was undone once something new is done', () => {
    const history = retitle(undo(retitle(startHistory(plainPiece), 'a', 'title', 0)), 'b', 'title', 10);
    expect(redo(history)).toBe(history);
  });

  it('undo removes my own change, and keeps what somebody else wrote after it', () => {
    const mine = retitle(startHistory(plainPiece), 'Mine', 'title', 0);
    const joined = rebase(mine, { ...mine.document, words: { ...mine.document.words, shared: { caption: 'Theirs', altText: '' } } });
    expect([undo(joined).document.title, undo(joined).document.words.shared.caption]).toEqual(['', 'Theirs']);
    const overwritten = rebase(mine, { ...mine.document, title: 'Theirs' });
    expect(undo(overwritten).document.title).toBe('Theirs');
    expect(redo(undo(joined)).document).toEqual(joined.document);
  });
});
