import { describe, expect, it } from 'vitest';
import { markSize } from './mark-size.ts';

const room = { heightPx: 132, leastHeightPx: 48, mostWidthPx: 950 };

describe('the size of a mark', () => {
  it('is the height of its place for square and tall marks', () => {
    expect(markSize(1, room)).toEqual({ widthPx: 132, heightPx: 132 });
    expect(markSize(0.4, room).heightPx).toBe(132);
  });

  it.each([1.5, 2, 4])('covers the same area for a wide mark of %s : 1', (aspect) => {
    const { widthPx, heightPx } = markSize(aspect, room);
    expect(widthPx * heightPx).toBeCloseTo(132 * 132);
    expect(widthPx / heightPx).toBeCloseTo(aspect);
  });

  it('does not fall below the least height, nor above the height of the place', () => {
    expect(markSize(12, room).heightPx).toBe(48);
    expect(markSize(2, { ...room, leastHeightPx: 400 }).heightPx).toBe(132);
  });

  it('never is wider than its room', () => {
    const { widthPx, heightPx } = markSize(30, room);
    expect([widthPx, heightPx]).toEqual([950, 950 / 30]);
  });
});
