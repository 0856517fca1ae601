/** A typeface file that ships with Confetti. `file` is relative to the fonts folder. */
export interface ShelfFont {
  readonly key: string;
  readonly family: string;
  readonly weight: number;
  readonly italic: boolean;
  readonly file: string;
}

/** A family on the shelf: its name, what it is like, and the styles there are. */
export interface ShelfFamily {
  readonly family: string;
  readonly character: string;
  readonly fonts: readonly ShelfFont[];
}

function shelfFamily(folder: string, family: string, character: string, styles: readonly string[]): ShelfFamily {
  const fonts = styles.map((style): ShelfFont => {
    const [weight = '', italic] = style.split('-');
    return { key: `${folder}-${style}`, family, weight: Number(weight), italic: italic !== undefined, file: `${folder}/${folder}-${style}.ttf` };
  });
  return { family, character, fonts };
}

/** The shelf of shipped families to choose from; each lies in the fonts folder beside its licence. */
export const shelfFamilies: readonly ShelfFamily[] = [
  shelfFamily('unbounded', 'Unbounded', 'Wide and round, made for being seen', ['700', '500']),
  shelfFamily('figtree', 'Figtree', 'Friendly and plain', ['500', '700']),
  shelfFamily('gloock', 'Gloock', 'High contrast, a little theatrical', ['400']),
  shelfFamily('familjen-grotesk', 'Familjen Grotesk', 'Grotesque with small surprises', ['500', '700']),
  shelfFamily('playfair-display', 'Playfair Display', 'Elegant, with fine hairlines', ['700', '500-italic']),
  shelfFamily('fraunces', 'Fraunces', 'Soft old-style with a wink', ['600', '900']),
  shelfFamily('lora', 'Lora', 'A calm serif for reading', ['500', '700']),
  shelfFamily('bebas-neue', 'Bebas Neue', 'Tall capitals, like a poster', ['400']),
  shelfFamily('oswald', 'Oswald', 'Narrow and strong', ['500', '700']),
  shelfFamily('bricolage-grotesque', 'Bricolage Grotesque', 'Cut-paper grotesque', ['600', '800']),
  shelfFamily('space-grotesk', 'Space Grotesk', 'Technical, with odd details', ['500', '700']),
  shelfFamily('inter', 'Inter', 'Neutral, clear at any size', ['500', '700']),
  shelfFamily('fredoka', 'Fredoka', 'Rounded and playful', ['500', '600']),
  shelfFamily('jetbrains-mono', 'JetBrains Mono', 'Every letter the same width', ['500', '700']),
  shelfFamily('caveat', 'Caveat', 'Quick handwriting', ['700']),
];

/** Families that help out where the brand's own cannot write a script: not chosen, but shipped. */
const scriptFamilies: readonly (ShelfFamily & { readonly script: RegExp })[] = [
  { script: /\p{Script=Arabic}/u, ...shelfFamily('noto-sans-arabic', 'Noto Sans Arabic', 'Arabic', ['500', '700']) },
  { script: /\p{Script=Hebrew}/u, ...shelfFamily('noto-sans-hebrew', 'Noto Sans Hebrew', 'Hebrew', ['500', '700']) },
  { script: /\p{Script=Thai}/u, ...shelfFamily('noto-sans-thai', 'Noto Sans Thai', 'Thai', ['500', '700']) },
  { script: /\p{Script=Devanagari}/u, ...shelfFamily('noto-sans-devanagari', 'Noto Sans Devanagari', 'Devanagari', ['500', '700']) },
  { script: /\p{Script=Han}|\p{Script=Hiragana}|\p{Script=Katakana}|[\u3000-\u303f\uff00-\uffef]/u, ...shelfFamily('m-plus-1p', 'M PLUS 1p', 'Japanese', ['500', '700']) },
];

/** Every shipped typeface. */
export const fontShelf: readonly ShelfFont[] = [...shelfFamilies, ...scriptFamilies].flatMap((each) => each.fonts);

/** Typefaces asked, in order, for letters that a brand's own typeface lacks in the scripts it is made for. */
const LATIN_FALLBACKS = ['figtree-500', 'unbounded-500'] as const;
/** From this weight on a text is bold, and what helps out is bold too. */
const BOLD_FROM = 600;

/** Below Greek there is no letter of a script that needs help, and most texts stay there. */
const BEYOND_LATIN = /[^\0-\u036f\u2000-\u22ff]/u;

/**
 * The typefaces that a text is set in: the wanted one, then those that help out. Depends on the text alone, so that preview
 * and export take the same.
 * @param weight weight of the wanted typeface
 */
export function fontKeysFor(text: string, fontKey: string, weight: number): readonly [string, ...string[]] {
  const families = BEYOND_LATIN.test(text) ? scriptFamilies : [];
  const helpers = families.flatMap((family) => {
    const font = family.fonts[weight >= BOLD_FROM ? 1 : 0];
    return font && family.script.test(text) ? [font.key] : [];
  });
  return [fontKey, ...new Set([...LATIN_FALLBACKS, ...helpers].filter((key) => key !== fontKey))];
}

/**
 * A shelf font by its key.
 * @throws RangeError when the shelf does not hold it
 */
export function getShelfFont(key: string): ShelfFont {
  const font = fontShelf.find((each) => each.key === key);
  if (!font) throw new RangeError(`There is no typeface '${key}' on the shelf`);
  return font;
}
