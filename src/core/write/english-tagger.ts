import nlp from 'compromise';
import { LRUCache } from 'lru-cache';

/** A word of an English sentence with its part of speech, and where it stands in code units. */
export interface TaggedWord {
  readonly text: string;
  readonly start: number;
  readonly end: number;
  readonly tags: ReadonlySet<string>;
}

interface JsonTerm {
  readonly text: string;
  readonly tags: readonly string[];
  readonly offset: { readonly start: number; readonly length: number };
}

/** Versions are made of the same sentences again and again. */
const tagged = new LRUCache<string, readonly TaggedWord[]>({ max: 2_000 });
const MAX_SENTENCE = 1_200;

/** The words of a sentence with their parts of speech. */
export function tagWords(sentence: string): readonly TaggedWord[] {
  const text = sentence.slice(0, MAX_SENTENCE);
  const known = tagged.get(text);
  if (known) return known;
  const parsed = nlp(text).json({ offset: true }) as readonly { readonly terms: readonly JsonTerm[] }[];
  let from = 0;
  const words = parsed.flatMap(({ terms }) => terms).flatMap((term): readonly TaggedWord[] => {
    // A contraction is two terms of which one has no text.
    if (term.text === '') return [];
    const start = text.indexOf(term.text, from);
    if (start === -1) return [];
    from = start + term.text.length;
    return [{ text: term.text, start, end: from, tags: new Set(term.tags) }];
  });
  tagged.set(text, words);
  return words;
}

export function hasEnglishVerb(sentence: string): boolean {
  return tagWords(sentence).some(({ tags }) => tags.has('Verb') && !tags.has('Gerund')) || /\b(?:is|are|was|were|has|have|had|be|do|does|did|can|will|it’s|it's|there’s|that’s|here’s|we’re|we’ll|you’ll|let’s)\b/iu.test(sentence);
}

let lexicon: Readonly<Record<string, unknown>> | null = null;

/** Whether the tagger's lexicon has a word, or a form of it. */
export function isEnglishWord(word: string): boolean {
  lexicon ??= (nlp.model() as { readonly one: { readonly lexicon: Readonly<Record<string, unknown>> } }).one.lexicon;
  const known = lexicon;
  const isProper = (tag: unknown): boolean => /Proper|Person|FirstName|LastName|MaleName|FemaleName|Place|City|Country|Region|Organization|SportsTeam/u.test(Array.isArray(tag) ? tag.join(' ') : String(tag));
  const forms = [word, word.replace(/s$/u, ''), word.replace(/es$/u, ''), word.replace(/ed$/u, ''), word.replace(/ed$/u, 'e'), word.replace(/ing$/u, ''), word.replace(/ing$/u, 'e'), word.replace(/ly$/u, ''), word.replace(/ies$/u, 'y')];
  return forms.some((form) => Object.hasOwn(known, form) && !isProper(known[form]));
}

/** A phrase of nouns as it stands within a sentence: one of several things takes an article, things and what cannot be counted take none. */
export function withArticle(phrase: string): string {
  if (/^(?:the|a|an|our|my|your|his|her|their|its|this|that|these|those|every|all|some|\p{Lu})/u.test(phrase) || /(?:ing|s)$/iu.test(phrase)) return phrase;
  const last = tagWords(`we like the ${phrase}`).at(-1);
  return last?.tags.has('Plural') || last?.tags.has('Uncountable') ? phrase : `the ${phrase}`;
}

/** A phrase as it can stand without an article: in the plural where the text counts it with “a” or has its plural already. */
export function pluralWhereCounted(phrase: string, text: string): string {
  const plural = (nlp(`a ${phrase}`).nouns().toPlural() as { text(): string }).text();
  if (plural === '' || plural === phrase) return phrase;
  const small = text.toLowerCase();
  const isCounted = new RegExp(`\\b(?:a|an|each|every|one)\\s(?:[\\p{L}-]+\\s)?${phrase.replace(/[.*+?^${}()|[\]\\]/gu, '\\$&')}`, 'u').test(small);
  return isCounted || small.includes(plural) ? plural : phrase;
}
