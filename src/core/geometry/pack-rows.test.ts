import { describe, expect, it } from 'vitest';
import { packedHeight, scaleToFit } from './pack-rows.ts';

const gaps = { acrossPx: 10, downPx: 20, captionPx: 16 };
const size = (widthPx: number, heightPx: number) => ({ widthPx, heightPx });

describe('packedHeight', () => {
  it('puts boxes into rows and takes the highest of each', () => {
    expect(packedHeight([size(100, 50), size(100, 80)], 1, 210, gaps)).toBe(96);
    expect(packedHeight([size(100, 50), size(100, 80)], 1, 209, gaps)).toBe(66 + 20 + 96);
    expect(packedHeight([size(300, 50)], 1, 200, gaps)).toBe(Infinity);
    expect(packedHeight([], 1, 200, gaps)).toBe(0);
  });
});

describe('scaleToFit', () => {
  const cuts = [size(1080, 1920), size(1080, 1350), size(1080, 1080), size(1600, 900), size(1200, 628)];
  const limits = { least: 0.05, most: 0.6 };

  it('fits, and a little larger would not', () => {
    for (const room of [size(720, 560), size(400, 900), size(1200, 300)]) {
      const scale = scaleToFit(cuts, room, gaps, limits);
      expect(packedHeight(cuts, scale, room.widthPx, gaps)).toBeLessThanOrEqual(room.heightPx);
      expect(packedHeight(cuts, scale + 0.005, room.widthPx, gaps)).toBeGreaterThan(room.heightPx);
    }
  });

  it('keeps to its limits', () => {
    expect(scaleToFit(cuts.slice(0, 1), size(5000, 5000), gaps, limits)).toBe(0.6);
    expect(scaleToFit(cuts, size(50, 50), gaps, limits)).toBe(0.05);
  });
});
