import { describe, expect, it } from 'vitest';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { seenShareOf, shownShare } from './seen-share.ts';

describe('seenShareOf', () => {
  const box = { x: 0.4, y: 0.4, width: 0.2, height: 0.2 };

  it('is the area of a box that lies inside a part', () => {
    expect(seenShareOf(box, { x: 0.5, y: 0, width: 0.5, height: 1 })).toBeCloseTo(0.5);
    expect(seenShareOf(box, { x: 0.5, y: 0.45, width: 0.5, height: 0.5 })).toBeCloseTo(0.375);
    expect(seenShareOf(box, { x: 0.45, y: 0.45, width: 0.1, height: 0.1 })).toBeCloseTo(0.25);
  });

  it('is nothing where the two do not meet, also past the edges of the picture', () => {
    expect(seenShareOf(box, { x: 0.6, y: 0.6, width: 0.4, height: 0.4 })).toBeCloseTo(0);
    expect(seenShareOf(box, { x: -0.5, y: 0.4, width: 0.3, height: 0.2 })).toBe(0);
  });
});

describe('shownShare', () => {
  it('is what a window holds of the likely subject, and all where none is known', () => {
    const picture = testPicture({ facts: { ...testPicture().facts, things: [{ x: 0.4, y: 0.4, width: 0.2, height: 0.2 }], saliency: [] }, focal: { x: 0.5, y: 0.5 } });
    expect(shownShare(picture, { x: 0, y: 0, width: 1, height: 1 })).toBeCloseTo(1);
    expect(shownShare(picture, { x: 0.5, y: 0.45, width: 0.5, height: 0.5 })).toBeCloseTo(0.375);
    expect(shownShare({ ...picture, facts: { ...picture.facts, things: [] } }, { x: 0.9, y: 0.9, width: 0.1, height: 0.1 })).toBe(1);
  });
});
