import { produce } from 'immer';
import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import type { Piece } from './piece.ts';
import { putPicture, type PutPicture } from './put-picture.ts';

const [sea, loft]: readonly PutPicture[] = [{ id: 'm1', altText: 'Grey sea' }, { id: 'm2', altText: 'A sail loft' }];
const withAlt = (altText: string, more: Partial<Piece> = {}): Piece => ({ ...plainPiece, ...more, words: { ...plainPiece.words, shared: { ...plainPiece.words.shared, altText } } });

function put(piece: Piece, before: PutPicture | null = sea ?? null, picture: PutPicture | undefined = loft): { readonly piece: Piece; readonly keeps: boolean } {
  let keeps = false;
  const next = produce(piece, (draft) => {
    keeps = putPicture(draft, { frameId: 'f1', slot: 'photo', before, picture: picture ?? { id: 'x', altText: '' } }).keepsOtherAltText;
  });
  return { piece: next, keeps };
}

describe('a picture that takes another one’s place', () => {
  it('takes its alt text along, unless a person has written one', () => {
    expect(put(withAlt('Grey sea')).piece.words.shared.altText).toBe('A sail loft');
    expect(put(withAlt('')).piece.words.shared.altText).toBe('A sail loft');
    const own = put(withAlt('My own words'));
    expect([own.piece.words.shared.altText, own.keeps]).toEqual(['My own words', true]);
    expect(put(withAlt('My own words'), null).keeps).toBe(false);
  });

  it('drops the crops of the one before in its slot, and nothing else of how a cut differs', () => {
    const crop = { x: 0.2, y: 0.3, zoom: 1.4 };
    const { piece } = put({ ...plainPiece, adjustments: { 'c1.feed-square': { scheme: 'dark', crops: { photo: crop, other: crop } }, 'c9.gone': { crops: { photo: crop } } } });
    expect(piece.adjustments).toEqual({ 'c1.feed-square': { scheme: 'dark', crops: { other: crop } }, 'c9.gone': { crops: { photo: crop } } });
    expect(put({ ...plainPiece, adjustments: { 'c1.feed-square': { crops: { photo: crop } } } }).piece.adjustments).toEqual({});
  });

  it('is kept with its own slide in a carousel', () => {
    const carousel: Piece = { ...plainPiece, kind: 'carousel', frames: [{ ...plainPiece.frames[0], altText: 'Grey sea' }], adjustments: { 'c1.feed-square/f1': { crops: { photo: { x: 0, y: 0, zoom: 2 } } } } };
    const { piece } = put(carousel);
    expect([piece.frames[0].altText, piece.words.shared.altText, piece.adjustments]).toEqual(['A sail loft', '', {}]);
  });

  it('changes nothing when it is the same one', () => {
    expect(put(withAlt('Grey sea'), sea ?? null, sea).piece).toEqual(withAlt('Grey sea'));
  });
});
