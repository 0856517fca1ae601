import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contrastRatio, relativeLuminance } from './contrast.ts';

const hex = fc.integer({ min: 0, max: 0xffffff }).map((value) => `#${value.toString(16).padStart(6, '0')}`);

describe('contrastRatio', () => {
  it.each([
    ['#767676', '#ffffff', 4.54],
    ['#777777', '#ffffff', 4.48],
    ['#000000', '#ffffff', 21],
    ['#d7263d', '#d7263d', 1],
  ])('gives the published ratio of %s on %s', (a, b, expected) => {
    expect(contrastRatio(a, b)).toBeCloseTo(expected, 2);
  });

  it('is symmetric and stays within 1 and 21', () => {
    fc.assert(
      fc.property(hex, hex, (a, b) => {
        const ratio = contrastRatio(a, b);
        expect(ratio).toBe(contrastRatio(b, a));
        expect(ratio).toBeGreaterThanOrEqual(1);
        expect(ratio).toBeLessThanOrEqual(21 + 1e-9);
      }),
    );
  });

  it.each(['red', '#fff', '#12345g', ''])('refuses %j as a colour', (value) => {
    expect(() => relativeLuminance(value)).toThrow(RangeError);
  });
});
