import { describe, expect, it } from 'vitest';
import { contrastRatio } from './contrast.ts';
import { ornamentColour } from './ornament-colour.ts';

describe('ornamentColour', () => {
  it('leaves a colour that is seen on its ground', () => {
    expect(ornamentColour('#ffffff', '#f6b23c')).toBe('#ffffff');
    expect(ornamentColour('#3fb68b', '#1c1220')).toBe('#3fb68b');
  });

  it.each([
    ['#f8e3e6', '#d0dbc9'],
    ['#ffffff', '#fdfdfd'],
    ['#101010', '#000000'],
    ['#808080', '#808080'],
  ])('takes the nearest of %s that is seen on %s', (colour, ground) => {
    expect(contrastRatio(colour, ground)).toBeLessThan(1.35);
    const ratio = contrastRatio(ornamentColour(colour, ground), ground);
    expect(ratio).toBeGreaterThanOrEqual(1.35);
    expect(ratio).toBeLessThan(1.6);
  });
});
