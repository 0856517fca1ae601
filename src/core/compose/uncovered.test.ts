import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxContains, intersectBoxes, type Box } from '../geometry/box.ts';
import { uncovered } from './uncovered.ts';

const box = (xPx: number, yPx: number, widthPx: number, heightPx: number): Box => ({ xPx, yPx, widthPx, heightPx });
const picture = box(0, 0, 1000, 1000);

describe('uncovered', () => {
  it('is the larger part beside a mark in a corner', () => {
    expect(uncovered(picture, [box(50, 40, 300, 100)])[0]).toEqual(box(0, 140, 1000, 860));
    expect(uncovered(picture, [box(700, 500, 300, 500)])[0]).toEqual(box(0, 0, 700, 1000));
  });

  it('keeps clear of all that stands on it, one after the other', () => {
    expect(uncovered(picture, [box(0, 0, 200, 100), box(0, 800, 1000, 200)])[0]).toEqual(box(0, 100, 1000, 700));
  });

  it('is above a column of words and a mark beside them, not the gap between two of them', () => {
    expect(uncovered(picture, [box(100, 500, 600, 50), box(100, 570, 600, 160), box(100, 760, 600, 60), box(820, 780, 100, 100)])[0]).toEqual(box(0, 0, 1000, 500));
  });

  it('overlaps nothing that it keeps clear of, and no empty box between any of their sides is larger', () => {
    const side = fc.integer({ min: 0, max: 20 }).map((step) => step * 50);
    const cover = fc.tuple(side, side, fc.integer({ min: 1, max: 8 }), fc.integer({ min: 1, max: 8 })).map(([x, y, w, h]) => box(x, y, w * 50, h * 50));
    fc.assert(
      fc.property(fc.array(cover, { minLength: 1, maxLength: 6 }), (covers) => {
        const [free] = uncovered(picture, covers);
        const kept = covers.flatMap((each) => intersectBoxes(picture, each) ?? []);
        if (kept.length === 0) return;
        expect(boxContains(picture, free)).toBe(true);
        const isEmpty = (each: Box): boolean => kept.every((other) => intersectBoxes(each, other) === null);
        // Where covers leave nothing, all of the picture counts.
        if (!isEmpty(free)) return expect(free).toEqual(picture);
        const xs = [0, 1000, ...kept.flatMap(({ xPx, widthPx }) => [xPx, xPx + widthPx])];
        const ys = [0, 1000, ...kept.flatMap(({ yPx, heightPx }) => [yPx, yPx + heightPx])];
        for (const left of xs) for (const right of xs) for (const top of ys) for (const bottom of ys) {
          if (right <= left || bottom <= top || (right - left) * (bottom - top) <= free.widthPx * free.heightPx) continue;
          expect(isEmpty(box(left, top, right - left, bottom - top))).toBe(false);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('counts what covers much of the picture as its scrim, unless it is told that words are what covers it', () => {
    const words = box(0, 500, 1000, 450);
    expect(uncovered(picture, [words])[0]).toEqual(picture);
    expect(uncovered(picture, [words], 1)[0]).toEqual(box(0, 0, 1000, 500));
  });

  it('is the whole picture where nothing stands on it, or all of it is covered', () => {
    expect(uncovered(picture, [box(1200, 0, 100, 100)])[0]).toEqual(picture);
    expect(uncovered(picture, [box(0, 0, 1000, 900)])[0]).toEqual(picture);
  });
});
