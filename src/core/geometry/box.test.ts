import { describe, expect, it } from 'vitest';
import { boxContains, insetBox, intersectBoxes, snapBoxOutward } from './box.ts';

const box = { xPx: 10, yPx: 20, widthPx: 100, heightPx: 50 };

describe('boxes', () => {
  it('are inset from each edge, never below nothing', () => {
    expect(insetBox(box, { topPx: 1, rightPx: 2, bottomPx: 3, leftPx: 4 })).toEqual({ xPx: 14, yPx: 21, widthPx: 94, heightPx: 46 });
    expect(insetBox(box, { topPx: 40, rightPx: 0, bottomPx: 40, leftPx: 0 }).heightPx).toBe(0);
  });

  it.each([
    [{ xPx: 50, yPx: 30, widthPx: 200, heightPx: 10 }, { xPx: 50, yPx: 30, widthPx: 60, heightPx: 10 }],
    [{ xPx: 110, yPx: 20, widthPx: 5, heightPx: 5 }, null],
    [box, box],
  ])('meet %j in %j, whichever comes first', (other, common) => {
    expect(intersectBoxes(box, other)).toEqual(common);
    expect(intersectBoxes(other, box)).toEqual(common);
  });

  it('contain themselves and what lies inside, give or take a tolerance', () => {
    expect(boxContains(box, box)).toBe(true);
    const wider = { ...box, widthPx: 101 };
    expect([boxContains(box, wider), boxContains(box, wider, 1)]).toEqual([false, true]);
  });

  it('are snapped outward to whole pixels', () => {
    expect(snapBoxOutward({ xPx: 0.4, yPx: 1.6, widthPx: 10.2, heightPx: 2 })).toEqual({ xPx: 0, yPx: 1, widthPx: 11, heightPx: 3 });
    expect(snapBoxOutward(box)).toEqual(box);
  });
});
