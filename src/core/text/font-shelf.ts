/** A typeface file that ships with Confetti. `file` is relative to the fonts folder. */
export interface ShelfFont {
  readonly key: string;
  readonly family: string;
  readonly weight: number;
  readonly file: string;
}

/** The shelf of shipped typefaces; each lies in the fonts folder beside its licence. */
export const fontShelf: readonly ShelfFont[] = [
  { key: 'unbounded-700', family: 'Unbounded', weight: 700, file: 'unbounded/unbounded-700.ttf' },
  { key: 'unbounded-500', family: 'Unbounded', weight: 500, file: 'unbounded/unbounded-500.ttf' },
  { key: 'figtree-500', family: 'Figtree', weight: 500, file: 'figtree/figtree-500.ttf' },
  { key: 'figtree-700', family: 'Figtree', weight: 700, file: 'figtree/figtree-700.ttf' },
  { key: 'gloock-400', family: 'Gloock', weight: 400, file: 'gloock/gloock-400.ttf' },
  { key: 'familjen-grotesk-500', family: 'Familjen Grotesk', weight: 500, file: 'familjen-grotesk/familjen-grotesk-500.ttf' },
  { key: 'familjen-grotesk-700', family: 'Familjen Grotesk', weight: 700, file: 'familjen-grotesk/familjen-grotesk-700.ttf' },
];

/** Typefaces asked, in order, for what a brand's own typeface cannot write. */
export const fallbackFontKeys: readonly string[] = ['figtree-500', 'unbounded-500'];

/**
 * A shelf font by its key.
 * @throws RangeError when the shelf does not hold it
 */
export function getShelfFont(key: string): ShelfFont {
  const font = fontShelf.find((each) => each.key === key);
  if (!font) throw new RangeError(`There is no typeface '${key}' on the shelf`);
  return font;
}
