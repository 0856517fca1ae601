import type { Language } from '../words/language.ts';

/** Puts soft hyphens where a word of one language may be parted. */
export type Hyphenate = (word: string) => string;

export const SOFT_HYPHEN = '\u00ad';
/** Words below this length are never parted: large type would show stumps. */
export const MIN_PARTED_LETTERS = 10;
/** Letters that stay together at either end. */
const MIN_END_LETTERS = 4;

const LONG_WORD = new RegExp(`[\\p{L}\\p{M}]{${MIN_PARTED_LETTERS},}`, 'gu');

/** Whether a text has a word that could be parted. */
export function hasLongWord(text: string): boolean {
  return text.search(LONG_WORD) >= 0;
}

/** A text with soft hyphens in its long words; addresses and handles stay whole. */
export function hyphenateText(text: string, hyphenate: Hyphenate): string {
  return text.replace(/\S+/gu, (chunk) => (/[@#/]|\.\p{L}/u.test(chunk) ? chunk : chunk.replace(LONG_WORD, (word) => withoutStumps(hyphenate(word)))));
}

function withoutStumps(word: string): string {
  const letters = word.replaceAll(SOFT_HYPHEN, '').length;
  let before = 0;
  return word.split(SOFT_HYPHEN).reduce((whole, part) => {
    const isFree = before === 0 || (before >= MIN_END_LETTERS && letters - before >= MIN_END_LETTERS);
    before += part.length;
    return whole === '' ? part : `${whole}${isFree ? SOFT_HYPHEN : ''}${part}`;
  }, '');
}

/**
 * The hyphenation of a language, by Liang's patterns for it. They are large: they are loaded when a text needs them.
 * @see F. M. Liang, "Word Hy-phen-a-tion by Com-put-er" (1983)
 */
export async function loadHyphenation(language: Language): Promise<Hyphenate> {
  const { default: patterns } = await patternsOf[language]();
  return (word) => patterns.hyphenateSync(word);
}

const patternsOf: Readonly<Record<Language, () => Promise<typeof import('hyphen/en-gb/index.js')>>> = {
  en: () => import('hyphen/en-gb/index.js'),
  de: () => import('hyphen/de-1996/index.js'),
  fr: () => import('hyphen/fr/index.js'),
  es: () => import('hyphen/es/index.js'),
  it: () => import('hyphen/it/index.js'),
  nl: () => import('hyphen/nl/index.js'),
  pt: () => import('hyphen/pt/index.js'),
  pl: () => import('hyphen/pl/index.js'),
};
