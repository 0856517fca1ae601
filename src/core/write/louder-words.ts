import type { LanguagePack } from './language-pack.ts';
import { tokensOf } from './tokens.ts';

interface Span {
  readonly start: number;
  readonly end: number;
}

const patterns = new Map<string, RegExp>();
const oneOf = (words: readonly string[]): string => [...words].toSorted((a, b) => b.length - a.length).map((word) => word.replace(/[’']/gu, "[’']").replace(/ /gu, '\\s')).join('|');

function patternOf(name: string, { language }: LanguagePack, make: () => string): RegExp {
  const key = `${name} ${language}`;
  const known = patterns.get(key) ?? new RegExp(make(), 'giu');
  patterns.set(key, known);
  return known;
}

/**
 * Words that only make others louder, with the space behind them. Before a number such a word limits it, behind a denial it carries it, and in
 * some phrases it says something of its own: “rather than”, “einfach zu bedienen”.
 */
export function louderWords(text: string, pack: LanguagePack): readonly Span[] {
  const phrases = [...text.matchAll(patternOf('phrases', pack, () => `(?<![\\p{L}’'-])(?:${oneOf(pack.louderPhrases)})(?![\\p{L}’'-])`))].map((match) => ({ start: match.index, end: match.index + match[0].length }));
  const numbers = new Set(pack.numberWords);
  return [...text.matchAll(patternOf('louder', pack, () => `(?<![\\p{L}’'-])(?:${oneOf(pack.intensifiers)})\\s(?=\\p{Ll})`))]
    .map((match) => ({ start: match.index, end: match.index + match[0].length }))
    .filter(({ start, end }) => {
      const [before, after] = [text.slice(0, start), text.slice(end)];
      const isCarried = /(?:not|n[’']t|no|never|nicht|nie|kein\p{L}*|pas|jamais|não|nunca)\s$/iu.test(before);
      const limits = /^\s*(?:(?:a|one|the|as|enough)(?!\p{L})|\d)/iu.test(after) || numbers.has(tokensOf(after.slice(0, 40))[0]?.text.toLowerCase() ?? '');
      return !isCarried && !limits && !phrases.some((phrase) => phrase.start < end && phrase.end > start);
    });
}
