import { tagWords } from './english-tagger.ts';
import { sentencesOf } from '../words/sentences.ts';
import type { LanguagePack } from './language-pack.ts';
import { tokensOf } from './tokens.ts';

/** A phrase that a text is about. */
export interface KeyPhrase {
  /** As it is written where it stands first. */
  readonly text: string;
  /** The smaller the better, as YAKE has it. */
  readonly score: number;
}

const MAX_WORDS = 3;
const MAX_PHRASES = 30;
/** Longest text that is looked through, in characters. */
const MAX_TEXT = 60_000;

interface WordFacts {
  count: number;
  capitals: number;
  readonly sentences: Set<number>;
  readonly left: Set<string>;
  readonly right: Set<string>;
  leftCount: number;
  rightCount: number;
}

/**
 * Key phrases of a text without a corpus: YAKE (Campos et al. 2020). Words are weighed by case, place, frequency, spread and by how many
 * different words stand beside them; phrases neither begin nor end with a word that says nothing.
 */
export function keyPhrases(text: string, pack: LanguagePack): readonly KeyPhrase[] {
  const sentences = sentencesOf(text.slice(0, MAX_TEXT).replaceAll(/https?:\/\/\S+|[#@][\p{L}\p{N}_.]+/gu, ' '), pack.language);
  // A phrase does not reach over a mark, and in English it is one of nouns.
  const lines = sentences.flatMap((sentence) => sentence.text.split(/[^\p{L}\p{M}\p{N}\s’'.-]|[.’'-](?=\s|$)/u)).map((part) => tokensOf(part).map((token) => token.text)).filter((line) => line.length > 0);
  const isPhrase = pack.language === 'en' ? nounsOf(sentences.map((sentence) => sentence.text)) : () => true;
  const words = new Map<string, WordFacts>();
  for (const [index, line] of lines.entries()) {
    for (const [at, word] of line.entries()) {
      const facts = words.get(word.toLowerCase()) ?? { count: 0, capitals: 0, sentences: new Set<number>(), left: new Set<string>(), right: new Set<string>(), leftCount: 0, rightCount: 0 };
      words.set(word.toLowerCase(), facts);
      facts.count += 1;
      if (at > 0 && /^\p{Lu}/u.test(word) && !pack.capitalNouns) facts.capitals += 1;
      facts.sentences.add(index);
      const [before, behind] = [line[at - 1]?.toLowerCase(), line[at + 1]?.toLowerCase()];
      if (before !== undefined) {
        facts.left.add(before);
        facts.leftCount += 1;
      }
      if (behind !== undefined) {
        facts.right.add(behind);
        facts.rightCount += 1;
      }
    }
  }
  const meaningful = [...words].filter(([word]) => !isSmall(word, pack)).map(([, facts]) => facts.count);
  const mean = meaningful.reduce((sum, count) => sum + count, 0) / Math.max(1, meaningful.length);
  const spread = Math.sqrt(meaningful.reduce((sum, count) => sum + (count - mean) ** 2, 0) / Math.max(1, meaningful.length));
  const most = Math.max(1, ...meaningful);
  const scoreOf = (word: string): number => {
    const facts = words.get(word);
    if (!facts) return 1;
    const places = [...facts.sentences].toSorted((a, b) => a - b);
    const position = Math.log(Math.log(3 + (places[Math.floor(places.length / 2)] ?? 0)));
    const capital = facts.capitals / (1 + Math.log(facts.count));
    const frequency = facts.count / (mean + spread + Number.EPSILON);
    const relatedness = 1 + (facts.left.size / Math.max(1, facts.leftCount) + facts.right.size / Math.max(1, facts.rightCount)) * (facts.count / most);
    const different = facts.sentences.size / Math.max(1, sentences.length);
    return (relatedness * position) / (capital + frequency / relatedness + different / relatedness + Number.EPSILON);
  };
  const phrases = new Map<string, { text: string; count: number; words: readonly string[] }>();
  for (const line of lines) {
    for (let start = 0; start < line.length; start += 1) {
      for (let length = 1; length <= MAX_WORDS && start + length <= line.length; length += 1) {
        const part = line.slice(start, start + length);
        const [first = '', last = ''] = [part[0], part.at(-1)];
        if (isSmall(first.toLowerCase(), pack) || isSmall(last.toLowerCase(), pack) || part.some((word) => /^\p{N}+$/u.test(word)) || !isPhrase(part)) continue;
        const key = part.join(' ').toLowerCase();
        const known = phrases.get(key);
        if (known) known.count += 1;
        else phrases.set(key, { text: part.join(' '), count: 1, words: part.map((word) => word.toLowerCase()) });
      }
    }
  }
  const scored = [...phrases.values()].map(({ text: phrase, count, words: parts }) => {
    const scores = parts.filter((word) => !isSmall(word, pack)).map(scoreOf);
    const product = scores.reduce((value, score) => value * score, 1);
    return { text: phrase, score: product / (count * (1 + scores.reduce((sum, score) => sum + score, 0))) };
  });
  const sorted = scored.toSorted((a, b) => a.score - b.score);
  // A phrase within a better one says nothing more.
  const chosen: KeyPhrase[] = [];
  for (const phrase of sorted) {
    const small = phrase.text.toLowerCase();
    if (chosen.some((each) => each.text.toLowerCase().includes(small))) continue;
    chosen.push(phrase);
    if (chosen.length >= MAX_PHRASES) break;
  }
  return chosen;
}

/** Whether words make a phrase of nouns: what stands before the last, which is a noun, is no verb, pronoun or adverb. */
function nounsOf(sentences: readonly string[]): (words: readonly string[]) => boolean {
  const tags = new Map<string, Set<string>>();
  for (const sentence of sentences) {
    for (const word of tagWords(sentence)) {
      const known = tags.get(word.text.toLowerCase()) ?? new Set<string>();
      for (const tag of word.tags) known.add(tag);
      tags.set(word.text.toLowerCase(), known);
    }
  }
  const has = (word: string, ...wanted: readonly string[]): boolean => wanted.some((tag) => tags.get(word.toLowerCase())?.has(tag));
  return (words) => {
    const last = words.at(-1) ?? '';
    return (has(last, 'Noun') || tags.get(last.toLowerCase()) === undefined) && !has(last, 'Pronoun', 'Adverb', 'Preposition') && words.every((word) => !(has(word, 'Verb') && !has(word, 'Noun', 'Gerund')) && !has(word, 'Pronoun', 'Adverb', 'Determiner', 'QuestionWord', 'Conjunction'));
  };
}

function isSmall(word: string, { stopwords, articles }: LanguagePack): boolean {
  return word.length < 2 || stopwords.has(word) || stopwords.has(word.replaceAll('’', "'")) || articles.has(word);
}
