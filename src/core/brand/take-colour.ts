import { relativeLuminance } from '../colour/contrast.ts';
import type { BrandBook } from './brand-book.ts';

/**
 * Gives one role of one scheme another colour. The colour joins the book beside the one it takes over from, which stays
 * for all that use it elsewhere: mending one pair must not break another.
 * @throws RangeError when the book has no such scheme
 */
export function takeColour(book: BrandBook, schemeKey: string, role: 'ink' | 'accent', hex: string): BrandBook {
  const scheme = book.schemes.find((each) => each.key === schemeKey);
  const before = book.colours.find((colour) => colour.key === scheme?.[role]);
  if (!scheme || !before) throw new RangeError(`The brand book has no scheme '${schemeKey}'`);
  const known = book.colours.find((colour) => colour.hex.toLowerCase() === hex.toLowerCase());
  const colour = known ?? { key: freeKey(book, before.key), name: `${before.name}, ${relativeLuminance(hex) < relativeLuminance(before.hex) ? 'darker' : 'lighter'}`, hex };
  return {
    ...book,
    colours: known ? book.colours : book.colours.flatMap((each) => (each.key === before.key ? [each, colour] : [each])),
    schemes: book.schemes.map((each) => (each.key === schemeKey ? { ...each, [role]: colour.key } : each)),
  };
}

/** A key that no colour of the book has: the base, or the base with a number. */
export function freeKey(book: BrandBook, base: string): string {
  for (let count = 1; ; count += 1) {
    const key = count === 1 ? base : `${base}-${count}`;
    if (!book.colours.some((colour) => colour.key === key)) return key;
  }
}
