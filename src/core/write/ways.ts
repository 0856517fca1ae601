/**
 * Other ways to say something, each with the words beside which it may stand: `purchase` is `buy` behind `to`, and not behind `your`.
 */
export interface Way {
  readonly from: string;
  readonly to: string;
  /** One of these words stands right before it; `^` is the start of a sentence. */
  readonly behind?: string;
  /** None of these words stands right before it. */
  readonly notBehind?: string;
  /** What follows begins like one of these patterns. */
  readonly before?: string;
  /** What follows begins like none of these patterns. */
  readonly notBefore?: string;
}

/** A place in a text that can be said in another way. */
export interface OtherWay {
  readonly start: number;
  readonly end: number;
  readonly put: string;
}

interface Span {
  readonly start: number;
  readonly end: number;
}

/** A letter, a figure or a sign within a word: what is part of a longer word is left alone. */
const IN_WORD = "[\\p{L}\\p{N}’'-]";
const SENTENCE_START = '(?:^|[.!?:…\\n]["”’)]?\\s+|\\n)';

/** What a way with `before` may ask for: a plural without a word before it. */
export const THINGS = "(?!(?:the|these|those|this|that|my|your|our|his|her|its|their|us|them|you)(?!\\p{L}))\\p{L}+[^s\\W]s(?![\\p{L}’'-])";

const patterns = new Map<Way, RegExp>();

function patternOf(way: Way): RegExp {
  const known = patterns.get(way);
  if (known) return known;
  const { from, behind, notBehind, before, notBefore } = way;
  const words = (list: string): string => list.split('|').map((word) => (word === '^' ? SENTENCE_START : `(?<!${IN_WORD})${apostrophes(word)}\\s+`)).join('|');
  const sides = [behind === undefined ? '' : `(?<=${words(behind)})`, notBehind === undefined ? '' : `(?<!${words(notBehind)})`];
  const follows = [before === undefined ? '' : `(?=\\s+(?:${before}))`, notBefore === undefined ? '' : `(?!\\s+(?:${notBefore}))`];
  const made = new RegExp(`(?<!${IN_WORD})${sides.join('')}${apostrophes(from)}(?!${IN_WORD})${follows.join('')}`, 'giu');
  patterns.set(way, made);
  return made;
}

const apostrophes = (words: string): string => words.replace(/[’']/gu, "[’']");

/** Where a text can be said in other ways, in order; of two that overlap the first of the list counts. */
export function waysIn(text: string, ways: readonly Way[]): readonly OtherWay[] {
  const found: OtherWay[] = [];
  for (const way of ways) {
    for (const match of text.matchAll(patternOf(way))) {
      const [start, end] = [match.index, match.index + match[0].length];
      if (found.some((each) => start < each.end && end > each.start)) continue;
      // A word that goes takes the space behind it along.
      found.push(way.to === '' ? { start, end: end + (/^\s+/u.exec(text.slice(end))?.[0].length ?? 0), put: '' } : { start, end, put: capitalAs(match[0], way.to) });
    }
  }
  return found.toSorted((a, b) => a.start - b.start);
}

/** A text in other ways, but for what lies on the kept spans; `a` and `an` follow. */
export function inOtherWays(text: string, ways: readonly Way[], kept: readonly Span[]): string {
  let changed = text;
  for (const { start, end, put } of waysIn(text, ways).toReversed()) {
    if (kept.some((span) => start < span.end && end > span.start)) continue;
    changed = withArticle(changed.slice(0, start), put) + put + changed.slice(end);
  }
  return changed;
}

/** What stands before a word, with the article that the word takes. */
function withArticle(before: string, word: string): string {
  const isVowel = /^[aeio]/iu.test(word) && !/^(?:one|once|eu)/iu.test(word);
  return before.replace(/(?<![\p{L}’'-])(a)n?(\s+)$/iu, (_, article: string, space: string) => `${article}${isVowel ? 'n' : ''}${space}`);
}

function capitalAs(found: string, put: string): string {
  return /^\p{Lu}/u.test(found) && !/^I\b/u.test(found) ? put.charAt(0).toUpperCase() + put.slice(1) : put;
}
