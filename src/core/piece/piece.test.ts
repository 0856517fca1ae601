import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { changePiece, redo, startHistory, undo, type PieceHistory } from './edit.ts';
import { isBlank, mediaOfPiece, pieceName, readPiece, type Frame } from './piece.ts';

describe('readPiece', () => {
  it('reads a piece back from its JSON unchanged', () => {
    expect(readPiece(JSON.parse(JSON.stringify(plainPiece)))).toEqual(plainPiece);
  });

  it.each([
    ['an unknown key', { ...plainPiece, colour: 'red' }],
    ['two frames in a graphic', { ...plainPiece, frames: [plainPiece.frames[0], plainPiece.frames[0]] }],
    ['no frame', { ...plainPiece, frames: [] }],
    ['a slot of an unknown kind', { ...plainPiece, frames: [{ id: 'f1', slots: { headline: { kind: 'sound', text: 'la' } } }] }],
    ['a later version', { ...plainPiece, version: 2 }],
    ['a text beyond all bounds', { ...plainPiece, frames: [{ id: 'f1', slots: { headline: { kind: 'text', text: 'x'.repeat(5_001) } } }] }],
    ['an unknown cell in an own row', { ...plainPiece, words: { ...plainPiece.words, own: { c1: { hashtags: 'x' } } } }],
    ['null', null],
  ])('refuses %s', (_, value) => {
    expect(() => readPiece(value)).toThrow();
  });

  it('names a piece by its title, else by its headline, else says that it has none', () => {
    expect(pieceName({ ...plainPiece, title: ' May ' })).toBe('May');
    expect(pieceName(plainPiece)).toBe('Big Blow');
    expect(pieceName({ ...plainPiece, frames: [{ id: 'f1', slots: {} }] })).toBe('Untitled piece');
    expect(mediaOfPiece(plainPiece)).toEqual(['m1']);
  });

  it('tells a frame with nothing in it from one that has been begun', () => {
    const blank = (slots: Frame['slots']): boolean => isBlank({ id: 'f1', slots });
    expect([blank({}), blank({ headline: { kind: 'text', text: ' \n' } })]).toEqual([true, true]);
    expect([blank({ headline: { kind: 'text', text: ' a' } }), blank({ photo: { kind: 'picture', mediaId: 'm1' } })]).toEqual([false, false]);
  });
});

const retitle = (history: PieceHistory, title: string, label: string, atMs: number): PieceHistory => changePiece(history, label, atMs, (draft) => void (draft.title = title)).history;

describe('history', () => {
  it('undoes and redoes any run of edits back to where it was', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.string({ maxLength: 6 }), fc.constantFrom('a', 'b')), { maxLength: 20 }), (edits) => {
        let history = startHistory(plainPiece);
        edits.forEach(([title, label], index) => (history = retitle(history, title, label, index * 400)));
        const end = history.document;
        const depth = history.done.length;
        for (let step = 0; step < depth; step += 1) history = undo(history).history;
        expect(history.document).toEqual(plainPiece);
        for (let step = 0; step < depth; step += 1) history = redo(history).history;
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
    expect(undo(undo(history).history).history.document.title).toBe('ab');
  });

  it('answers the same history for a change that changes nothing', () => {
    const history = startHistory(plainPiece);
    expect(changePiece(history, 'title', 0, (draft) => void (draft.title = '')).history).toBe(history);
    expect(undo(history).history).toBe(history);
  });

  it('forgets what was undone once something new is done', () => {
    const history = retitle(undo(retitle(startHistory(plainPiece), 'a', 'title', 0)).history, 'b', 'title', 10);
    expect(redo(history).history).toBe(history);
  });
});
