import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
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
    ['an unknown cell in an own row', { ...plainPiece, words: { ...plainPiece.words, own: { c1: { colour: 'x' } } } }],
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
