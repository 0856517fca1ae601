import fc from 'fast-check';
import { converter } from 'culori';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { apcaContrast } from '../colour/apca.ts';
import { contrastRatio } from '../colour/contrast.ts';
import { nearestPassing } from '../colour/nearest-passing.ts';
import { brandBookSchema, resolveScheme, type BrandBook } from './brand-book.ts';
import { contrastTable } from './contrast-table.ts';
import { takeColour } from './take-colour.ts';

const hex = fc.integer({ min: 0, max: 0xffffff }).map((value) => `#${value.toString(16).padStart(6, '0')}`);

describe('apcaContrast', () => {
  // Published reference values of APCA 0.1.9.
  it.each([
    ['#888888', '#ffffff', 63.06],
    ['#ffffff', '#888888', -68.54],
    ['#000000', '#aaaaaa', 58.15],
    ['#aaaaaa', '#000000', -56.24],
    ['#112233', '#ddeeff', 91.67],
    ['#ddeeff', '#112233', -93.07],
    ['#222222', '#222222', 0],
  ])('gives the published Lc of %s on %s', (text, ground, expected) => {
    expect(apcaContrast(text, ground)).toBeCloseTo(expected, 1);
  });
});

describe('nearestPassing', () => {
  it('reaches the contrast, keeps the hue, and leaves alone what passes', () => {
    const toOklch = converter('oklch');
    fc.assert(
      fc.property(hex, hex, (colour, against) => {
        const found = nearestPassing(colour, [against], 4.5);
        if (contrastRatio(colour, against) >= 4.5) {
          expect(found).toBe(colour);
          return;
        }
        // White or black is within reach of every hue, and one of them passes on any ground.
        expect(found).not.toBeNull();
        expect(contrastRatio(found ?? colour, against)).toBeGreaterThanOrEqual(4.5);
        const [before, after] = [toOklch(colour), toOklch(found ?? colour)];
        if ((before?.c ?? 0) > 0.08 && (after?.c ?? 0) > 0.06) {
          const turned = Math.abs((before?.h ?? 0) - (after?.h ?? 0));
          expect(Math.min(turned, 360 - turned)).toBeLessThan(12);
        }
      }),
    );
  });
});

it('nearestPassing says when no colour can stand on both of two grounds', () => {
  expect(nearestPassing('#ff8a3d', ['#1e1222', '#3fb68b'], 3)).toBeNull();
});

describe('takeColour', () => {
  it('mends one role of one scheme and leaves all else as it was', () => {
    const mended = takeColour(gullwickBook, 'bold', 'accent', '#b01020');
    const others = (book: BrandBook) => contrastTable(book).filter((pair) => pair.scheme !== 'bold' || pair.role !== 'accent');
    expect(others(mended)).toEqual(others(gullwickBook));
    expect(mended.colours.find((colour) => colour.hex === '#b01020')).toEqual({ key: 'signal-red-2', name: 'Signal Red, darker', hex: '#b01020' });
    expect(brandBookSchema.isValidSync(mended, { strict: true })).toBe(true);
  });

  it('takes a colour that the book has already', () => {
    const mended = takeColour(gullwickBook, 'bold', 'accent', '#12355b');
    expect(mended.colours).toBe(gullwickBook.colours);
    expect(mended.schemes.find((scheme) => scheme.key === 'bold')?.accent).toBe('sea-ink');
    expect(() => takeColour(gullwickBook, 'neon', 'ink', '#000000')).toThrow(RangeError);
  });
});

describe('contrastTable', () => {
  const table = contrastTable(gullwickBook);

  it('lists ink and accent on ground and surface of every scheme', () => {
    expect(table).toHaveLength(gullwickBook.schemes.length * 4);
  });

  it('says what each pair is good for, and offers what would be', () => {
    const pair = (scheme: string, role: string, on: string) => table.find((each) => each.scheme === scheme && each.role === role && each.on === on);
    expect(pair('dark', 'ink', 'ground')).toMatchObject({ use: 'text', better: null });
    const weak = pair('bold', 'accent', 'ground');
    expect(weak).toMatchObject({ use: 'none' });
    const { ground, surface } = resolveScheme(gullwickBook, 'bold');
    for (const behind of [ground, surface]) expect(contrastRatio(weak?.better ?? '', behind)).toBeGreaterThanOrEqual(3);
  });
});
