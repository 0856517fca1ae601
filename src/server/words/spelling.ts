import { loadModule, type Hunspell } from 'hunspell-asm';
import { tokensOf } from '../../core/write/tokens.ts';

/** A word that a dictionary does not know, with what it may mean. */
export interface Mistake {
  readonly word: string;
  readonly proposals: readonly string[];
}

export interface Spelling {
  readonly mistakes: readonly Mistake[];
  /** The language whose dictionary was used; null where there is none. */
  readonly language: string | null;
}

/** The dictionaries that ship, by language. */
const dictionaries: Readonly<Record<string, () => Promise<{ readonly default: { readonly aff: Uint8Array; readonly dic: Uint8Array } }>>> = {
  en: () => import('dictionary-en-gb'),
  de: () => import('dictionary-de'),
  fr: () => import('dictionary-fr'),
  es: () => import('dictionary-es'),
  pt: () => import('dictionary-pt'),
};
const MAX_MISTAKES = 60;
const MAX_PROPOSALS = 3;
const MAX_WORDS = 20_000;

const opened = new Map<string, Promise<Hunspell>>();

async function open(language: string, load: NonNullable<(typeof dictionaries)[string]>): Promise<Hunspell> {
  const [factory, { default: files }] = await Promise.all([loadModule(), load()]);
  return factory.create(factory.mountBuffer(files.aff, `${language}.aff`), factory.mountBuffer(files.dic, `${language}.dic`));
}

/**
 * Words that the dictionary of a language does not know. Links, hashtags, handles, fill-ins, words with figures and words all in capitals are none
 * of its business, and neither are names within a sentence.
 * @param own words that the brand knows
 */
export async function checkSpelling(texts: readonly string[], language: string | null, own: readonly string[]): Promise<Spelling> {
  const load = language === null ? undefined : dictionaries[language];
  if (language === null || load === undefined) return { mistakes: [], language: null };
  const known = opened.get(language) ?? open(language, load);
  opened.set(language, known);
  const dictionary = await known;
  const ownWords = new Set([...shortDates(language), ...own].flatMap((text) => tokensOf(text).map((token) => token.text.toLowerCase())));
  const found = new Map<string, Mistake>();
  let looked = 0;
  for (const text of texts) {
    const plain = text.replace(/https?:\/\/\S+|[#@][\p{L}\p{M}\p{N}_.]+|\{[a-z0-9-]+\}|(?<!\S)\S{1,200}\.\p{L}{2}\S*/gu, (span) => ' '.repeat(span.length));
    for (const { text: word, start } of tokensOf(plain)) {
      looked += 1;
      if (looked > MAX_WORDS || found.size >= MAX_MISTAKES) return { mistakes: [...found.values()], language };
      const bare = word.replaceAll('’', "'").replace(/'s$/u, '');
      if (found.has(bare) || ownWords.has(bare.toLowerCase()) || /\p{N}/u.test(word) || /^\p{Lu}+$/u.test(bare) || bare.length < 2) continue;
      // A capital within a sentence says that it is a name; German nouns have one as well.
      const isNameLike = /^\p{Lu}/u.test(bare) && (language === 'de' ? false : !isAtStart(plain.slice(0, start)));
      if (isNameLike || isKnown(dictionary, bare) || (language === 'de' && isCompound(dictionary, bare))) continue;
      found.set(bare, { word: bare, proposals: dictionary.suggest(bare).slice(0, MAX_PROPOSALS) });
    }
  }
  return { mistakes: [...found.values()], language };
}

/** Whether what comes next begins a sentence, a line or a quote. */
function isAtStart(before: string): boolean {
  const trimmed = before.trimEnd();
  return trimmed === '' || /[.!?:“"„«(–—]$/u.test(trimmed) || before.slice(trimmed.length).includes('\n');
}

const [A_MONDAY, DAYS, MONTHS] = [Date.UTC(2024, 0, 1), 7, 12];

/** Weekdays and months as people shorten them in a language: opening hours are full of them, dictionaries are not. */
function shortDates(language: string): readonly string[] {
  const days = Array.from({ length: DAYS }, (_, day) => A_MONDAY + day * 86_400_000);
  const months = Array.from({ length: MONTHS }, (_, month) => Date.UTC(2024, month, 1));
  const named = (moments: readonly number[], part: Intl.DateTimeFormatOptions): readonly string[] => moments.map((moment) => new Intl.DateTimeFormat(language, { ...part, timeZone: 'UTC' }).format(moment).replace('.', ''));
  return [...named(days, { weekday: 'short' }), ...named(months, { month: 'short' }), ...named(months, { month: 'long' }).map((name) => name.slice(0, 4))];
}

const MIN_PART = 4;

/** German runs nouns together, more of them than any dictionary has: two known words, perhaps with an s between them. */
function isCompound(dictionary: Hunspell, word: string): boolean {
  for (let at = MIN_PART; at <= word.length - MIN_PART; at += 1) {
    const [first, second] = [word.slice(0, at), word.slice(at)];
    const knows = (part: string): boolean => dictionary.spell(part) || dictionary.spell(part.charAt(0).toUpperCase() + part.slice(1));
    if (knows(second) && (knows(first) || (first.endsWith('s') && knows(first.slice(0, -1))))) return true;
  }
  return false;
}

/** A word with hyphens is known where all its parts are. */
function isKnown(dictionary: Hunspell, word: string): boolean {
  if (dictionary.spell(word) || dictionary.spell(word.toLowerCase())) return true;
  const parts = word.split('-');
  return parts.length > 1 && parts.every((part) => part === '' || dictionary.spell(part) || dictionary.spell(part.toLowerCase()));
}
