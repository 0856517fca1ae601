import type { Language } from '../words/language.ts';
import { sentencesOf } from '../words/sentences.ts';

/** Shorter texts say nothing about how easily they read. */
const MIN_WORDS = 30;

/**
 * How easily a text reads, from 0 to 100: the reading ease of Flesch (1948), for German by Amstad (1978). Null for other languages and for
 * texts under thirty words.
 */
export function readingEase(text: string, language: Language): number | null {
  const plain = text.replace(/https?:\/\/\S+|[#@][\p{L}\p{M}\p{N}_.]+/gu, ' ');
  const words = plain.match(/[\p{L}\p{M}]+(?:[’'-][\p{L}\p{M}]+)*/gu) ?? [];
  const sentences = sentencesOf(plain, language).filter((sentence) => /\p{L}/u.test(sentence.text)).length;
  if (words.length < MIN_WORDS || sentences === 0 || (language !== 'en' && language !== 'de')) return null;
  const perSentence = words.length / sentences;
  const perWord = words.reduce((sum, word) => sum + syllables(word, language), 0) / words.length;
  const ease = language === 'en' ? 206.835 - 1.015 * perSentence - 84.6 * perWord : 180 - perSentence - 58.5 * perWord;
  return Math.max(0, Math.min(100, ease));
}

/** Syllables by groups of vowels; in English without a silent e at the end. */
function syllables(word: string, language: 'en' | 'de'): number {
  const small = word.toLowerCase().normalize('NFC');
  const groups = small.match(language === 'en' ? /(?<![aeiouy])[aeiouy]/gu : /(?<![aeiouyäöü])[aeiouyäöü]/gu)?.length ?? 0;
  const isSilent = language === 'en' && /[^aeiouyl]e$/u.test(small) && groups > 1;
  return Math.max(1, groups - (isSilent ? 1 : 0));
}
