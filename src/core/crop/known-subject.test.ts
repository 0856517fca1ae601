import { describe, expect, it } from 'vitest';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { boxInCut, knownSubject, likelySubject } from './known-subject.ts';
import type { PictureFacts } from './picture-facts.ts';
import type { BoxInPicture } from './subject-box.ts';
import { OUTLINE_UNITS } from './subject-outline.ts';

const ring = [0.2, 0.2, 0.4, 0.2, 0.4, 0.5, 0.2, 0.5].map((share) => share * OUTLINE_UNITS);
const guessed = testPicture();
const plain = testPicture({ focal: { x: 0.1, y: 0.9 } });
const outlined = testPicture({ focal: { x: 0.3, y: 0.3 }, facts: { ...guessed.facts, outline: [ring] } });

describe('a subject', () => {
  it('is known by its outline, or because a person points at it', () => {
    expect(knownSubject(outlined)?.width).toBeCloseTo(0.2);
    expect(knownSubject({ ...plain, focalBy: 'person' })).toMatchObject({ width: 0.06, height: 0.06 });
    expect(knownSubject(guessed)).toBeNull();
  });

  it('is likely what stands out around a guess; a known outline goes before it', () => {
    expect(likelySubject(outlined)).toEqual(knownSubject(outlined));
    const patch = likelySubject(guessed);
    expect(patch && patch.x < 0.75 && patch.x + patch.width > 0.75).toBe(true);
    expect(patch?.width).toBeLessThan(0.4);
    expect(likelySubject(plain)).toBeNull();
    expect(likelySubject({ ...plain, focalBy: 'person' })).toEqual(knownSubject({ ...plain, focalBy: 'person' }));
  });
});

describe('a guess', () => {
  const { facts } = guessed;
  const salient = { ...facts, columns: 10, rows: 10, saliency: Array.from({ length: 100 }, (_, cell) => (cell % 10 >= 4 && cell % 10 <= 6 && Math.floor(cell / 10) === 4 ? 200 : 5)) };
  const guessOf = (things: readonly BoxInPicture[], of: PictureFacts = salient) => likelySubject(testPicture({ focal: { x: 0.45, y: 0.45 }, facts: { ...of, things } }));

  it('is a thing with what stands out across its parts', () => {
    const box = guessOf([{ x: 0.3, y: 0.3, width: 0.2, height: 0.3 }]);
    expect([box?.x, box?.y, box?.width, box?.height].map((each) => Math.round((each ?? 0) * 100))).toEqual([30, 30, 40, 30]);
  });

  it('is the thing alone where what stands out leaves the picture, and what stands out where the thing takes nearly all of it', () => {
    const leaving = { ...salient, saliency: salient.saliency.map((each, cell) => (Math.floor(cell / 10) === 4 && cell % 10 >= 4 ? 200 : each)) };
    expect(guessOf([{ x: 0.3, y: 0.3, width: 0.2, height: 0.3 }], leaving)).toEqual({ x: 0.3, y: 0.3, width: 0.2, height: 0.3 });
    expect(guessOf([{ x: 0, y: 0, width: 1, height: 1 }])?.width).toBeCloseTo(0.4);
  });
});

describe('boxInCut', () => {
  const box = { xPx: 100, yPx: 0, widthPx: 400, heightPx: 400 };

  it('is where a part of the picture is painted, as far as its window shows it', () => {
    expect(boxInCut({ x: 0.5, y: 0.5, width: 0.1, height: 0.2 }, { box, window: { x: 0.25, y: 0, width: 0.5, height: 1 } })).toEqual({ xPx: 300, yPx: 200, widthPx: 80, heightPx: 80 });
    expect(boxInCut({ x: 0, y: 0, width: 0.5, height: 1 }, { box, window: { x: 0.25, y: 0, width: 0.5, height: 1 } })).toEqual({ xPx: 100, yPx: 0, widthPx: 200, heightPx: 400 });
    expect(boxInCut({ x: 0, y: 0, width: 0.2, height: 1 }, { box, window: { x: 0.25, y: 0, width: 0.5, height: 1 } })).toBeNull();
  });
});
