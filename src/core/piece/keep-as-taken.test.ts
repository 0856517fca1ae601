import { produce } from 'immer';
import { describe, expect, it } from 'vitest';
import { keepAsTaken } from './keep-as-taken.ts';
import { readPiece, type Frame } from './piece.ts';
import { plainPiece } from '../../../tests/fixtures/piece.ts';

const frame: Frame = { id: 'f', slots: { photo: { kind: 'picture', mediaId: 'm' }, headline: { kind: 'text', text: 'Hi' } } };

describe('a picture as it was taken', () => {
  it('has a mark in its slot, and no mark once it follows the brand again', () => {
    const kept = produce(frame, (draft) => keepAsTaken(draft, 'photo', true));
    expect(kept.slots['photo']).toEqual({ kind: 'picture', mediaId: 'm', untreated: true });
    expect(readPiece({ ...plainPiece, frames: [kept] }).frames[0].slots['photo']).toMatchObject({ untreated: true });
    expect(produce(kept, (draft) => keepAsTaken(draft, 'photo', false))).toEqual(frame);
  });

  it('changes no slot that holds something else', () => {
    expect(produce(frame, (draft) => { keepAsTaken(draft, 'headline', true); keepAsTaken(draft, 'none', true); })).toBe(frame);
  });
});
