import { describe, expect, it } from 'vitest';
import { pathBox } from './path-box.ts';

describe('the box of a path', () => {
  it('holds points and control points, of absolute and relative commands', () => {
    expect(pathBox('M10 20H30V50Z')).toEqual({ xPx: 10, yPx: 20, widthPx: 20, heightPx: 30 });
    expect(pathBox('m10 20h20v30z')).toEqual({ xPx: 10, yPx: 20, widthPx: 20, heightPx: 30 });
    expect(pathBox('M0 0C0 -40 20 -40 20 0')).toEqual({ xPx: 0, yPx: -40, widthPx: 20, heightPx: 40 });
  });

  it('holds arcs and what a short command continues', () => {
    const disc = pathBox('M0 50A50 50 0 0 1 100 50A50 50 0 0 1 0 50Z');
    expect(disc?.yPx).toBeLessThanOrEqual(0);
    expect((disc?.yPx ?? 0) + (disc?.heightPx ?? 0)).toBeGreaterThanOrEqual(100);
    expect(pathBox('M0 0Q10 20 20 0T40 0')?.yPx).toBe(-20);
  });

  it('is none where there are no points', () => {
    expect(pathBox('')).toBeNull();
  });
});
