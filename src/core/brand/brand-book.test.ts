import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { lanternfallBook } from '../../../demo/brands/lanternfall.ts';
import { contrastRatio } from '../colour/contrast.ts';
import { bestGround } from './best-ground.ts';
import { BrandBookError, brandBookSchema, resolveScheme } from './brand-book.ts';

describe('brand books', () => {
  it.each([
    ['gullwick', gullwickBook],
    ['lanternfall', lanternfallBook],
  ])('%s is valid, and each of its schemes can be read', (_, book) => {
    expect(brandBookSchema.validateSync(book, { strict: true })).toEqual(book);
    for (const { key } of book.schemes) {
      const scheme = resolveScheme(book, key);
      expect(contrastRatio(scheme.ink, scheme.ground)).toBeGreaterThan(4.5);
    }
  });

  it('shows each mark on the ground where all of it can be seen', () => {
    const grounds = Object.fromEntries(gullwickBook.marks.map((mark) => [mark.key, bestGround(gullwickBook, mark).key]));
    expect(grounds).toEqual({ 'kite-light': 'foam', 'kite-dark': 'sea-ink', 'kite-yellow': 'sail-yellow' });
  });

  it('names the scheme or the colour that is not there', () => {
    expect(() => resolveScheme(gullwickBook, 'neon')).toThrow(BrandBookError);
    const broken = { ...gullwickBook, colours: gullwickBook.colours.filter((colour) => colour.key !== 'foam') };
    expect(() => resolveScheme(broken, 'dark')).toThrow(/'foam'/);
  });
});
