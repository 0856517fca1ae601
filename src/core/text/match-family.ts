import { shelfFamilies, type ShelfFont } from './font-shelf.ts';

/** Words in the names of families that say what they are like, and the family of the shelf that is most like it. */
const LIKENESSES: readonly (readonly [RegExp, string])[] = [
  [/mono|code|consol|courier/i, 'JetBrains Mono'],
  [/playfair|didot|bodoni/i, 'Playfair Display'],
  [/script|hand|brush|marker|comic/i, 'Caveat'],
  [/condensed|narrow|compressed|oswald|league/i, 'Oswald'],
  [/slab|serif(?!-)|georgia|garamond|times|baskerville|caslon|merriweather|crimson|cambria/i, 'Lora'],
  [/round|nunito|quicksand|baloo|varela/i, 'Fredoka'],
  [/wide|extended|expanded/i, 'Unbounded'],
];

/**
 * The typeface of the shelf that a family of this name is, or that stands in for it best.
 * @param heavy whether the boldest style is wanted, as for headlines
 */
export function matchFamily(family: string, heavy: boolean): { readonly font: ShelfFont; readonly exact: boolean } {
  const wanted = family.toLowerCase().replace(/ variable$/, '');
  const exact = shelfFamilies.find((each) => each.family.toLowerCase() === wanted);
  const likeness = LIKENESSES.find(([pattern]) => pattern.test(family.replace(/sans[- ]serif/i, '')))?.[1] ?? 'Figtree';
  const chosen = exact ?? shelfFamilies.find((each) => each.family === likeness) ?? shelfFamilies[0];
  if (!chosen) throw new RangeError('The shelf is empty');
  const sorted = chosen.fonts.filter((font) => !font.italic).toSorted((a, b) => a.weight - b.weight);
  const font = (heavy ? sorted.at(-1) : sorted[0]) ?? chosen.fonts[0];
  if (!font) throw new RangeError(`The family ${chosen.family} has no styles`);
  return { font, exact: exact !== undefined };
}
