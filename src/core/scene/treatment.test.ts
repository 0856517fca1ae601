import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { luminanceOfLinear, srgbToLinear } from '../colour/contrast.ts';
import { applyTreatment, colourTable, movingTreatment, treatedColour, treatedLuminances, type Treatment } from './treatment.ts';

const inks = { dark: '#12355b', light: '#f4f7f5' };
const all = (strength: number): readonly Treatment[] => [
  { kind: 'mono', strength }, { kind: 'warm', strength }, { kind: 'faded', strength }, { kind: 'grain', strength },
  { kind: 'duotone', strength, ...inks }, { kind: 'halftone', strength, ...inks }, { kind: 'tint', strength, colour: '#e0523f' },
];
const one = (kind: Treatment['kind'], strength = 1): Treatment => {
  const found = all(strength).find((each) => each.kind === kind);
  if (!found) throw new Error(kind);
  return found;
};

/** A field of one colour, treated. */
function field(treatment: Treatment, rgb: readonly number[], side = 44, scale = 1): Uint8ClampedArray {
  const pixels = new Uint8ClampedArray(side * side * 4);
  for (let index = 0; index < pixels.length; index += 4) pixels.set([...rgb, 255], index);
  applyTreatment(pixels, treatment, { widthPx: side, heightPx: side, scale });
  return pixels;
}
const luminances = (pixels: Uint8ClampedArray): readonly number[] => Array.from({ length: pixels.length / 4 }, (_, at) => luminanceOfLinear(srgbToLinear((pixels[at * 4] ?? 0) / 255), srgbToLinear((pixels[at * 4 + 1] ?? 0) / 255), srgbToLinear((pixels[at * 4 + 2] ?? 0) / 255)));
const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
const spread = (values: readonly number[]): number => Math.sqrt(mean(values.map((value) => (value - mean(values)) ** 2)));
const channel = fc.integer({ min: 0, max: 255 });

describe('a treatment', () => {
  it('of black and white leaves no colour, and of a duotone only its two', () => {
    expect([...field(one('mono'), [200, 30, 90], 1)].slice(0, 3)).toEqual([...field(one('mono'), [200, 30, 90], 1)].slice(0, 3).map((_, __, rgb) => rgb[0]));
    expect([...field(one('duotone'), [0, 0, 0], 1), ...field(one('duotone'), [255, 255, 255], 1)]).toEqual([0x12, 0x35, 0x5b, 255, 0xf4, 0xf7, 0xf5, 255]);
  });

  it('warms, fades and tints as its name says', () => {
    const [r, g, b] = treatedColour(one('warm'))(120, 120, 120);
    expect(r > g && g > b).toBe(true);
    expect([treatedColour(one('faded'))(0, 0, 0)[0] > 20, treatedColour(one('faded'))(255, 255, 255)[0] < 250]).toEqual([true, true]);
    expect(treatedColour(one('tint'))(255, 255, 255)).toEqual([0xe0, 0x52, 0x3f]);
  });

  it('of little strength changes little, and each step of strength goes the same way', () => {
    for (const { kind } of all(1)) {
      const by = (strength: number): number => {
        const [from, pixels] = [[70, 140, 200], field(one(kind, strength), [70, 140, 200])];
        return mean(Array.from(pixels, (value, at) => (at % 4 === 3 ? 0 : Math.abs(value - (from[at % 4] ?? 0)))));
      };
      expect([kind, by(0.1) < 12, by(0.1) < by(0.5), by(0.5) < by(1)]).toEqual([kind, true, true, true]);
    }
  });

  it('keeps what can be seen through, in every kind', () => {
    for (const treatment of all(1)) {
      const pixels = new Uint8ClampedArray([10, 20, 30, 0, 200, 100, 50, 77]);
      applyTreatment(pixels, treatment, { widthPx: 2, heightPx: 1, scale: 1 });
      expect([treatment.kind, pixels[3], pixels[7]]).toEqual([treatment.kind, 0, 77]);
    }
  });

  it('never makes what is darker lighter than what is lighter, where it changes colours alone', () => {
    fc.assert(
      fc.property(channel, channel, fc.constantFrom('mono' as const, 'warm' as const, 'faded' as const, 'duotone' as const, 'tint' as const), (a, b, kind) => {
        const of = (value: number): number => mean(treatedColour(one(kind))(value, value, value));
        expect(Math.sign(of(Math.max(a, b)) - of(Math.min(a, b)))).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});

describe('halftone and grain', () => {
  it('print dots that are larger where the picture is darker', () => {
    const dark = (value: number): number => 1 - mean(luminances(field(one('halftone'), [value, value, value], 220)));
    expect(dark(30) > dark(110) && dark(110) > dark(200)).toBe(true);
    expect(new Set(field(one('halftone'), [128, 128, 128])).size).toBeGreaterThan(3);
  });

  it('have dots and grains of one size in every file: a cut of half the size shows them half as large', () => {
    const turns = (pixels: Uint8ClampedArray, side: number): number => {
      const row = luminances(pixels).slice(0, side);
      return row.filter((value, at) => at > 0 && Math.sign(value - 0.3) !== Math.sign((row[at - 1] ?? 0) - 0.3)).length;
    };
    const [large, small] = [turns(field(one('halftone'), [128, 128, 128], 220, 2), 220), turns(field(one('halftone'), [128, 128, 128], 110, 1), 110)];
    expect([small > 8, Math.abs(large - small) <= 2]).toEqual([true, true]);
    expect(spread(luminances(field(one('grain'), [128, 128, 128], 80, 0.25)))).toBeLessThan(spread(luminances(field(one('grain'), [128, 128, 128], 80, 1))));
  });

  it('lie where they lie: the same picture is treated alike each time, and grain is as light as it is dark', () => {
    expect(field(one('grain'), [90, 90, 90])).toEqual(field(one('grain'), [90, 90, 90]));
    const values = Array.from(field(one('grain'), [128, 128, 128], 200)).filter((_, at) => at % 4 === 0);
    expect(Math.abs(mean(values) - 128)).toBeLessThan(1.5);
    expect(new Set(values).size).toBeGreaterThan(30);
  });

  it('do not stand still over moving pictures', () => {
    expect([movingTreatment(undefined), movingTreatment(one('grain')), movingTreatment(one('mono')), movingTreatment(one('halftone'))]).toEqual([undefined, undefined, one('mono'), one('duotone')]);
  });
});

describe('a table of colours', () => {
  it('holds what the treatment does to each of them, red first', () => {
    const [size, ...rows] = colourTable(one('tint')).trim().split('\n');
    expect([size, rows.length]).toEqual(['LUT_3D_SIZE 33', 33 ** 3]);
    expect(rows[0]).toBe('0.00000 0.00000 0.00000');
    expect(rows[32]).toBe(`${(0xe0 / 255).toFixed(5)} 0.00000 0.00000`);
    expect(rows.at(-1)).toBe([0xe0, 0x52, 0x3f].map((value) => (value / 255).toFixed(5)).join(' '));
  });
});

describe('luminances behind a text', () => {
  it('are as low and as high as any pixel gets', () => {
    for (const treatment of all(0.9)) {
      for (const [least, most] of [[20, 90], [100, 240]] as const) {
        const light = (value: number): number => srgbToLinear(value / 255);
        const said = treatedLuminances({ least: light(least), most: light(most) }, treatment);
        const seen = [...luminances(field(treatment, [least, least, least])), ...luminances(field(treatment, [most, most, most]))];
        expect([treatment.kind, Math.min(...seen) >= said.least - 0.01, Math.max(...seen) <= said.most + 0.01]).toEqual([treatment.kind, true, true]);
      }
    }
  });
});
