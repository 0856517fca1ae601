import type { LanguagePack } from './language-pack.ts';

/** A word of a text with where it stands, in code units. */
export interface Token {
  readonly text: string;
  readonly start: number;
  readonly end: number;
}

const WORD = /[\p{L}\p{M}\p{N}]+(?:[’'.\-][\p{L}\p{M}\p{N}]+)*/gu;

/** Words and numbers of a text; apostrophes, hyphens and points within a word belong to it. */
export function tokensOf(text: string): readonly Token[] {
  return [...text.matchAll(WORD)].map((match) => ({ text: match[0], start: match.index, end: match.index + match[0].length }));
}

/** Stems of the words of a text that say something. */
export function stemsOf(text: string, { stem, stopwords }: LanguagePack): readonly string[] {
  return tokensOf(text)
    .map((token) => token.text.toLowerCase().replaceAll('’', "'"))
    .filter((word) => !stopwords.has(word) && word.length > 1)
    .map(stem);
}

/** How often each stem occurs. */
export function countsOf(stems: readonly string[]): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const stem of stems) counts.set(stem, (counts.get(stem) ?? 0) + 1);
  return counts;
}

/** Cosine of two bags of stems, from 0 to 1. */
export function cosine(a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>): number {
  let dot = 0;
  for (const [stem, count] of a) dot += count * (b.get(stem) ?? 0);
  const length = (bag: ReadonlyMap<string, number>): number => Math.sqrt([...bag.values()].reduce((sum, count) => sum + count * count, 0));
  return dot === 0 ? 0 : dot / (length(a) * length(b));
}

/** Words that follow each other by threes, in small letters: what two texts that sound alike share. */
export function trigramsOf(text: string): ReadonlySet<string> {
  const words = tokensOf(text).map((token) => token.text.toLowerCase());
  return new Set(words.slice(2).map((word, index) => `${words[index] ?? ''} ${words[index + 1] ?? ''} ${word}`));
}

/** The share of the trigrams of one text that another has as well. */
export function sharedTrigrams(text: string, other: string): number {
  const [own, theirs] = [trigramsOf(text), trigramsOf(other)];
  if (own.size === 0) return 0;
  return [...own].filter((trigram) => theirs.has(trigram)).length / own.size;
}
