import { describe, expect, it } from 'vitest';
import { drawMotif, motifGenerators, motifNames } from './motif.ts';

const box = { xPx: 0, yPx: 0, widthPx: 1000, heightPx: 1250 };
const larger = { xPx: 0, yPx: 0, widthPx: 2000, heightPx: 2500 };

describe.each(motifNames)('the motif %s', (name) => {
  const draw = motifGenerators[name];

  it('is the same for a seed', () => {
    expect(draw(box, 60, 7)).toEqual(draw(box, 60, 7));
    expect(draw(box, 60, 7).length).toBeGreaterThan(3);
  });

  it('is kept once drawn, and only for the very same room', () => {
    const drawn = drawMotif(name, box, 60, 7);
    expect(drawn).toEqual(draw(box, 60, 7));
    expect(drawMotif(name, { ...box }, 60, 7)).toBe(drawn);
    expect(drawMotif(name, larger, 60, 7)).toEqual(draw(larger, 60, 7));
  });

  it('keeps its shape at any scale', () => {
    const [small, large] = [draw(box, 60, 7), draw(larger, 120, 7)];
    expect(large.length).toBe(small.length);
    for (const [index, shape] of small.entries()) {
      expect(large[index]?.ink).toBe(shape.ink);
      for (const [part, each] of shape.boxes.entries()) expect((large[index]?.boxes[part]?.xPx ?? 0) / 2).toBeCloseTo(each.xPx, 3);
    }
  });

  it('keeps its shape wherever it stands, so that slides can each show a part of it', () => {
    const [here, left] = [draw(box, 60, 7), draw({ ...box, xPx: box.xPx - 1080 }, 60, 7)];
    expect(left).toHaveLength(here.length);
    for (const [index, shape] of here.entries()) {
      const numbers = (path: string | undefined): readonly number[] => (path?.match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number);
      expect(numbers(left[index]?.path)[0]).toBeCloseTo((numbers(shape.path)[0] ?? 0) - 1080, 1);
      expect(numbers(left[index]?.path)[1]).toBeCloseTo(numbers(shape.path)[1] ?? 0, 1);
    }
  });

  it('uses both its inks or the quiet one, and draws with numbers only', () => {
    for (const shape of draw(box, 60, 3)) {
      expect(['surface', 'accent']).toContain(shape.ink);
      expect(shape.path).toMatch(/^[MLHVQCAZaz0-9 .-]+$/);
    }
  });
});

describe('motifs', () => {
  it('differ between seeds where chance has a say', () => {
    const differing = motifNames.filter((name) => [1, 2, 3, 4].some((seed) => JSON.stringify(motifGenerators[name](box, 60, seed)) !== JSON.stringify(motifGenerators[name](box, 60, 9))));
    expect(differing).toEqual(motifNames);
  });
});
