import type { FigureStyle } from '../brand/brand-book.ts';
import type { Language } from '../words/language.ts';

/** An OpenType feature that a typeface is asked for; where it has none of that name, nothing happens. From `start` on, up to `end`, in UTF-16 offsets; missing: all over. */
export interface FontFeature {
  readonly tag: string;
  readonly value: number;
  readonly start?: number;
  readonly end?: number;
}

/** How a text is set, as far as features go. */
export interface TypeStyle {
  readonly figures: FigureStyle;
  /** Figures stand below each other, as in a column of prices. */
  readonly isColumn: boolean;
  readonly isCapitals: boolean;
  readonly trackingEm: number;
  /** Whether letters that meet are joined where the typeface joins them. */
  readonly ligatures: boolean;
  readonly language: Language | undefined;
}

/** Room between letters from which joined ones stand out as too close. */
const LOOSE_EM = 0.02;

/** What fractions are counted in, in the languages that Confetti knows. Other words may follow a date: `3/4 at noon`. */
const COUNTED = 'cups?|tsp|tbsp|teaspoons?|tablespoons?|pints?|inch(?:es)?|miles?|hours?|price|off|kg|g|lb|oz|l|dl|ml|m|cm|h|km|tl|el|tassen?|liter|pfund|stunden?|bund|preis|tasses?|litres?|heures?|cuill[eè]res?|prix|tazas?|litros?|horas?|cucharadas?|precio|tazz[ae]|litri|or[ae]|cucchia[io]+|kopjes?|uur|eetlepels?|x[ií]caras?|colheres?|szklank[ai]|łyżk[ai]';
/** A fraction as people type it, before what it counts: `1/2 cup`, `3/4 l`. */
const FRACTION = new RegExp(`(?<![\\d/.,:\\p{L}])[1-9]/[2-9](?=\\s?(?:${COUNTED})(?![\\p{L}\\p{N}/]))`, 'giu');

/** Small letters behind a number, as people type an ordinal: `1o andar`, `la 2a edición`, before its noun; not a house number (`Via Roma 12a`). */
const ROMANCE_ORDINAL = /(?<=^|\n|(?<![\p{L}\p{N}])\p{Ll}{1,5} )\d{1,3}[oa](?= \p{Ll})/gu;
/** `1er`, `2es`, `XIXe`, `Ier`: the letters alone are raised. Roman ones end in a way that no word does (`Vers`, `Le`). */
const FRENCH_ORDINAL = /(?<=(?<![\p{L}\p{N}.,:/-])\d{1,4})(?:er|re|e)s?(?![\p{L}\p{N}])|(?<=(?<![\p{L}\p{N}])[IVX]{1,7})e(?![\p{L}\p{N}])|(?<=(?<![\p{L}\p{N}])I)er(?![\p{L}\p{N}])/gu;

/** Ordinals of the languages that raise their letters. English and German ones stay on the line. */
function ordinalsIn(text: string, language: Language | undefined): readonly FontFeature[] {
  const [pattern, tag] = language === 'fr' ? [FRENCH_ORDINAL, 'sups'] : language === 'es' || language === 'pt' || language === 'it' ? [ROMANCE_ORDINAL, 'ordn'] : [null, ''];
  return pattern === null ? [] : [...text.matchAll(pattern)].map(({ index, 0: ordinal }) => ({ tag, value: 1, start: index, end: index + ordinal.length }));
}

/**
 * What a typeface is asked for, beyond kerning and the usual ligatures.
 *
 * Sources: Bringhurst, "The Elements of Typographic Style", 3.2 (old-style figures go with small letters, lining ones with capitals; tabular ones in
 * columns), 3.3 (signs beside capitals are raised), 2.1 (letters that are set apart are not joined); W3C, CSS Text 3, `letter-spacing`; the registry of
 * OpenType features (`lnum`, `onum`, `tnum`, `case`, `frac`, `liga`, `clig`, `ordn`, `sups`).
 */
export function featuresFor(text: string, { figures, isColumn, isCapitals, trackingEm, ligatures, language }: TypeStyle): readonly FontFeature[] {
  const features: FontFeature[] = [];
  const on = (tag: string): void => void features.push({ tag, value: 1 });
  if (figures === 'lining' || (figures === 'old-style' && isCapitals)) on('lnum');
  else if (figures === 'old-style') on('onum');
  if (isColumn) on('tnum');
  if (isCapitals) on('case');
  if (!ligatures || trackingEm >= LOOSE_EM) features.push({ tag: 'liga', value: 0 }, { tag: 'clig', value: 0 });
  // The search is long and asked of every text with every key.
  const fractions = text.includes('/') ? text.matchAll(FRACTION) : [];
  for (const { index, 0: fraction } of fractions) features.push({ tag: 'frac', value: 1, start: index, end: index + fraction.length });
  return isCapitals ? features : [...features, ...ordinalsIn(text, language)];
}
