import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import type { Piece } from '../piece/piece.ts';
import { OWN_WORDING, rotatedPiece, turningPicture, wordingsOf } from './rotated-piece.ts';

const [frame] = plainPiece.frames;
const piece: Piece = { ...plainPiece, frames: [{ ...frame, slots: { ...frame.slots, photo: { kind: 'picture', mediaId: 'm1' } } }], variants: [{ id: 'v', text: 'Said differently' }], words: { shared: { ...plainPiece.words.shared, caption: 'As it is' }, own: { a: { caption: 'Short', title: 'Kept' } } } };

describe('a turn of a rotation', () => {
  it('has the piece’s own caption and its variants to choose from, and its first picture', () => {
    expect(wordingsOf(piece).map(({ id, text }) => [id, text])).toEqual([[OWN_WORDING, 'As it is'], ['v', 'Said differently']]);
    expect(turningPicture(piece)?.mediaId).toBe('m1');
  });

  it('changes nothing for the piece as it is', () => expect(rotatedPiece(piece, { wording: OWN_WORDING, picture: 'm1' })).toBe(piece));

  it('shows another caption on every channel, and keeps their other words', () => {
    expect(rotatedPiece(piece, { wording: 'v', picture: '' }).words).toMatchObject({ shared: { caption: 'Said differently' }, own: { a: { title: 'Kept' } } });
    expect(rotatedPiece(piece, { wording: 'v', picture: '' }).words.own['a']).not.toHaveProperty('caption');
  });

  it('shows another picture, and leaves the piece as it was', () => {
    expect(turningPicture(rotatedPiece(piece, { wording: OWN_WORDING, picture: 'm2' }))?.mediaId).toBe('m2');
    expect(turningPicture(piece)?.mediaId).toBe('m1');
  });
});
