import { produce, type Draft } from 'immer';
import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { adjustCut, applyToCuts, moveCrop, rejoinCut, setScheme, stepText, toggleHidden } from './adjust.ts';
import type { Adjustment } from './adjustment.ts';
import { adjustmentOf, readPiece, type Piece } from './piece.ts';

const KEY = 'c1.feed-square';
const cut = { channelId: 'c1', placement: 'feed-square' };
const adjusted = (piece: Piece, change: (adjustment: Draft<Adjustment>) => void): Piece => produce(piece, (draft: Draft<Piece>) => adjustCut(draft, KEY, change));

describe('adjusting a cut', () => {
  it('keeps what differs, as a valid document, and nothing else', () => {
    const piece = adjusted(plainPiece, (adjustment) => {
      adjustment.scheme = 'bold';
      stepText(adjustment, 1);
      toggleHidden(adjustment, 'line');
      moveCrop(adjustment, 'photo', { x: 0.25, y: 2, zoom: 9 });
    });
    expect(adjustmentOf(piece, cut)).toEqual({ scheme: 'bold', textStep: 1, hidden: ['line'], crops: { photo: { x: 0.25, y: 1, zoom: 4 } } });
    expect(readPiece(JSON.parse(JSON.stringify(piece)))).toEqual(piece);
  });

  it('follows the piece again once nothing differs any more', () => {
    let piece = adjusted(plainPiece, (adjustment) => stepText(adjustment, 1));
    piece = adjusted(piece, (adjustment) => toggleHidden(adjustment, 'line'));
    piece = adjusted(piece, (adjustment) => stepText(adjustment, -1));
    expect(Object.keys(piece.adjustments)).toEqual([KEY]);
    piece = adjusted(piece, (adjustment) => toggleHidden(adjustment, 'line'));
    expect(piece.adjustments).toEqual({});
  });

  it('rejoins in one act, and leaves other cuts alone', () => {
    const both = produce(adjusted(plainPiece, (adjustment) => stepText(adjustment, 1)), (draft: Draft<Piece>) => adjustCut(draft, 'c1.story', (adjustment) => void (adjustment.scheme = 'light')));
    expect(produce(both, (draft: Draft<Piece>) => rejoinCut(draft, KEY)).adjustments).toEqual({ 'c1.story': { scheme: 'light' } });
  });

  it('rejoins to what the cuts of the piece have in common; a slide has that from its cut', () => {
    const common = { scheme: 'light', isPlain: true } as const;
    const piece = { ...plainPiece, adjustments: { [KEY]: { scheme: 'dark', textStep: 2 }, [`${KEY}/f1`]: { textStep: 1 } } };
    const rejoined = produce(piece, (draft: Draft<Piece>) => rejoinCut(draft, KEY, common));
    expect(rejoined.adjustments[KEY]).toEqual(common);
    expect(produce(rejoined, (draft: Draft<Piece>) => rejoinCut(draft, `${KEY}/f1`, common)).adjustments).toEqual({ [KEY]: common });
  });

  it('goes no further than the steps that are allowed', () => {
    let piece = plainPiece;
    for (let count = 0; count < 9; count += 1) piece = adjusted(piece, (adjustment) => stepText(adjustment, -1));
    expect(adjustmentOf(piece, cut).textStep).toBe(-4);
  });

  it.each([
    ['an unknown key', { colour: 'red' }],
    ['a step too far', { textStep: 5 }],
    ['a crop outside the picture', { crops: { photo: { x: 1.5, y: 0, zoom: 1 } } }],
    ['a zoom out', { crops: { photo: { x: 0.5, y: 0.5, zoom: 0.5 } } }],
  ])('refuses %s in a document', (_, adjustment) => {
    expect(() => readPiece({ ...plainPiece, adjustments: { [KEY]: adjustment } })).toThrow();
  });
});

describe('taking over what differs', () => {
  const from: Adjustment = { arrangement: 'bluff', scheme: 'bold', textStep: -1, hidden: ['line'], crops: { photo: { x: 0.2, y: 0.5, zoom: 2 } } };
  const other = 'c1.story';
  const applied = (reach: 'shape' | 'all', before: Adjustment = {}): Adjustment | undefined =>
    produce({ ...plainPiece, adjustments: { [other]: before } }, (draft: Draft<Piece>) => applyToCuts(draft, from, [other], reach)).adjustments[other];

  it('gives cuts of the same shape everything, others what any shape can take', () => {
    expect(applied('shape')).toEqual(from);
    expect(applied('all')).toEqual({ scheme: 'bold', textStep: -1, hidden: ['line'] });
  });

  it('leaves others the arrangement, the crop and the slides that are their own', () => {
    const own: Adjustment = { arrangement: 'shore', crops: { photo: { x: 0.9, y: 0.5, zoom: 1 } }, withoutSlides: ['f2'] };
    expect(applied('all', own)).toEqual({ ...own, scheme: 'bold', textStep: -1, hidden: ['line'] });
  });

  it('sets one scheme for all, and the template’s own again', () => {
    const schemed = (scheme: string | undefined): Piece => produce(plainPiece, (draft: Draft<Piece>) => setScheme(draft, [KEY, other], scheme));
    expect(schemed('bold').adjustments).toEqual({ [KEY]: { scheme: 'bold' }, [other]: { scheme: 'bold' } });
    expect(schemed(undefined).adjustments).toEqual({});
  });
});
