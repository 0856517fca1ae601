import { describe, expect, it } from 'vitest';
import { generator } from '../../../tests/fixtures/seeded-chance.ts';
import type { Raster } from './picture-facts.ts';
import { OUTLINE_UNITS, subjectOutline, type SubjectOutline } from './subject-outline.ts';

type Rgba = readonly [number, number, number, number?];
const [widthPx, heightPx] = [180, 120];

/** A picture whose pixels a function gives, by shares of its sides. */
function drawn(colourAt: (x: number, y: number) => Rgba): Raster {
  const rgba = new Uint8ClampedArray(widthPx * heightPx * 4);
  for (let index = 0; index < widthPx * heightPx; index += 1) {
    const [red, green, blue, alpha = 255] = colourAt(((index % widthPx) + 0.5) / widthPx, (Math.floor(index / widthPx) + 0.5) / heightPx);
    rgba.set([red, green, blue, alpha], index * 4);
  }
  return { widthPx, heightPx, rgba };
}

const red: Rgba = [214, 40, 40];
const sky = (y: number): Rgba => [70 + 130 * y, 120 + 100 * y, 200 + 40 * y];
const inDiamond = (x: number, y: number, at = { x: 0.6, y: 0.4 }): boolean => Math.abs(x - at.x) / 0.15 + Math.abs(y - at.y) / 0.25 < 1;
const DIAMOND_SHARE = 2 * 0.15 * 0.25;
const focal = { x: 0.6, y: 0.4 };

/** Share of a picture inside an outline, even-odd. */
function shareInside(outline: SubjectOutline): number {
  const doubled = outline.map((ring) => {
    let sum = 0;
    for (let at = 0; at < ring.length; at += 2) {
      const [x = 0, y = 0, nextX = ring[0] ?? 0, nextY = ring[1] ?? 0] = ring.slice(at, at + 4);
      sum += x * nextY - nextX * y;
    }
    return sum;
  });
  return Math.abs(doubled.reduce((sum, each) => sum + each, 0)) / 2 / OUTLINE_UNITS ** 2;
}

describe('subjectOutline', () => {
  it('goes around what stands before a ground that changes its colour slowly', () => {
    const outline = subjectOutline(drawn((x, y) => (inDiamond(x, y) ? red : sky(y))), focal);
    expect(outline).toHaveLength(1);
    expect(shareInside(outline ?? [])).toBeGreaterThan(DIAMOND_SHARE * 0.88);
    // A rim of the ground would be seen on letters.
    expect(shareInside(outline ?? [])).toBeLessThan(DIAMOND_SHARE * 1.01);
  });

  it('keeps the grain of a photograph apart from its edges', () => {
    const chance = generator(5);
    const grain = (): number => (chance() - 0.5) * 10;
    const outline = subjectOutline(drawn((x, y) => (inDiamond(x, y) ? red : sky(y)).map((value) => (value ?? 255) + grain()) as unknown as Rgba), focal);
    expect(outline).toHaveLength(1);
    expect(Math.abs(shareInside(outline ?? []) - DIAMOND_SHARE)).toBeLessThan(DIAMOND_SHARE * 0.12);
  });

  it('reaches the edges of the picture with what leaves it there', () => {
    const outline = subjectOutline(drawn((x, y) => (y > 0.6 + 0.1 * Math.sin(7 * x) ? [150, 110, 60] : sky(y * 0.3))), { x: 0.5, y: 0.8 });
    const xs = outline?.flat().filter((_, at) => at % 2 === 0) ?? [];
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([0, OUTLINE_UNITS]);
    expect(Math.max(...(outline?.flat().filter((_, at) => at % 2 === 1) ?? []))).toBe(OUTLINE_UNITS);
  });

  it('finds a thing before clouds by its colours, where it is the subject', () => {
    const clouds = (x: number, y: number): Rgba => {
      const white = Math.max(0, Math.sin(23 * x + 3 * y) * Math.sin(17 * y + 5 * x)) * 130;
      return [90 + white, 140 + white * 0.8, 220 + white * 0.2];
    };
    const picture = drawn((x, y) => (inDiamond(x, y) ? red : clouds(x, y)));
    expect(Math.abs(shareInside(subjectOutline(picture, focal) ?? []) - DIAMOND_SHARE)).toBeLessThan(DIAMOND_SHARE * 0.12);
    expect(subjectOutline(picture, { x: 0.1, y: 0.9 })).toBeNull();
  });

  it('has a ring around a hole that the ground is seen through', () => {
    const ring = (x: number, y: number): boolean => Math.abs(Math.hypot((x - 0.5) * 1.5, y - 0.5) - 0.25) < 0.08;
    expect(subjectOutline(drawn((x, y) => (ring(x, y) ? red : [240, 240, 236])), { x: 0.5, y: 0.5 })?.length).toBe(1);
    // What is open to the side is ground all through.
    const horseshoe = subjectOutline(drawn((x, y) => (ring(x, y) && y < 0.5 ? red : [240, 240, 236])), { x: 0.5, y: 0.4 });
    expect(shareInside(horseshoe ?? [])).toBeLessThan(0.12);
  });

  it('takes the outline of a cut-out from what can be seen through', () => {
    const outline = subjectOutline(drawn((x, y) => (inDiamond(x, y) ? [240, 240, 240] : [240, 240, 240, 0])), focal);
    expect(Math.abs(shareInside(outline ?? []) - DIAMOND_SHARE)).toBeLessThan(DIAMOND_SHARE * 0.1);
  });

  it('is null where the one cannot be told from the other', () => {
    const chance = generator(9);
    expect(subjectOutline(drawn(() => [120, 140, 160]), focal)).toBeNull();
    expect(subjectOutline(drawn(() => [chance() * 255, chance() * 255, chance() * 255]), focal)).toBeNull();
    // A soft edge: a letter would end on nothing.
    expect(subjectOutline(drawn((x, y) => { const near = Math.max(0, 1 - Math.hypot(x - 0.6, y - 0.4) * 3); return [90 + 120 * near, 140 - 90 * near, 210 - 160 * near]; }), focal)).toBeNull();
    // Only the red stripes of an awning would stand before the letters.
    expect(subjectOutline(drawn((x, y) => (Math.abs(x - 0.6) < 0.25 && Math.abs(y - 0.4) < 0.25 ? (Math.floor(x * 40) % 2 === 0 ? red : [214, 226, 240]) : Math.sin(40 * x) * Math.sin(31 * y) > 0 ? [200, 220, 240] : [120, 170, 230])), focal)).toBeNull();
  });
});
