import { converter } from 'culori';
import { describe, expect, it } from 'vitest';
import { relativeLuminance } from './contrast.ts';
import { shadeOver } from './shade-over.ts';

const hue = (hex: string): number => converter('oklch')(hex)?.h ?? 0;

describe('the shade of a colour', () => {
  it('is the colour itself over what is clearly lighter, and wherever it is light itself', () => {
    expect(shadeOver('#12305a', 0.4)).toBe('#12305a');
    expect(shadeOver('#f6ead2', 0.02)).toBe('#f6ead2');
  });

  it('is deeper, of the same hue, over what is as dark as the colour', () => {
    const shade = shadeOver('#5b4258', 0.05);
    expect(relativeLuminance(shade)).toBeLessThan(relativeLuminance('#5b4258') / 4);
    expect(Math.abs(hue(shade) - hue('#5b4258'))).toBeLessThan(6);
  });
});
