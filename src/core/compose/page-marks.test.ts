import { describe, expect, it } from 'vitest';
import { arrowPath, dotPaths, dotsWidthPx } from './page-marks.ts';

const numbers = (path: string): readonly number[] => (path.match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number);
const place = (count: number) => ({ index: 0, count, ordinal: null });

describe('dots', () => {
  it('stand in a row that is as wide as it says, inside their box', () => {
    const width = dotsWidthPx({ heightM: 0.3 }, place(7), 60);
    const box = { xPx: 100, yPx: 50, widthPx: width, heightPx: 18 };
    const paths = dotPaths(box, 7);
    expect(paths).toHaveLength(7);
    const lefts = paths.map((path) => numbers(path)[0] ?? 0);
    expect(lefts[0]).toBe(100);
    expect((lefts.at(-1) ?? 0) + 18).toBeCloseTo(100 + width, 6);
    expect(new Set(lefts.slice(1).map((left, index) => Math.round((left - (lefts[index] ?? 0)) * 1e6))).size).toBe(1);
  });

  it('take more room the more slides there are', () => {
    const widths = [2, 5, 10].map((count) => dotsWidthPx({ heightM: 0.3 }, place(count), 60));
    expect(widths).toEqual([...widths].sort((a, b) => a - b));
  });
});

describe('the swipe cue', () => {
  it('fills its box, points to the right and is the same above and below', () => {
    const points = numbers(arrowPath({ xPx: 10, yPx: 20, widthPx: 102, heightPx: 60 }));
    const xs = points.filter((_, index) => index % 2 === 0);
    const ys = points.filter((_, index) => index % 2 === 1);
    expect([Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]).toEqual([10, 112, 20, 80]);
    expect(ys[xs.indexOf(112)]).toBe(50);
    expect(ys.map((y) => Math.round(100 - y)).sort((a, b) => a - b)).toEqual(ys.map((y) => Math.round(y)).sort((a, b) => a - b));
  });
});
