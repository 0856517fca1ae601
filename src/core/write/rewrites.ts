import { heldIn, knownNames, type Held } from './held.ts';
import type { LanguagePack } from './language-pack.ts';
import { louderWords } from './louder-words.ts';
import { formalWords, fullForms, livelyWords } from './registers.ts';
import { inOtherWays } from './ways.ts';
import { plainer } from './wordy.ts';
import { sentencesOf } from '../words/sentences.ts';

/** Changes of how a text sounds, each a pipeline of small steps; none touches a held span. */

/** The spans that no rewriting may touch. A denial may change its form: don’t becomes do not. */
function keptIn(text: string, pack: LanguagePack): readonly Held[] {
  return heldIn(text, pack, knownNames(text, pack)).filter(({ kind }) => kind !== 'negation');
}

/** A change of the text between its held spans alone. */
function betweenHeld(text: string, pack: LanguagePack, change: (part: string) => string): string {
  let result = '';
  let from = 0;
  for (const { start, end } of keptIn(text, pack)) {
    result += change(text.slice(from, start)) + text.slice(start, end);
    from = end;
  }
  return result + change(text.slice(from));
}

const EMOJI = /(?:\p{Extended_Pictographic}|\p{Regional_Indicator}{2})[\ufe0f\u200d\p{Extended_Pictographic}\p{Emoji_Modifier}]*/gu;

/** No exclamation marks, no shouting, no emoji, nothing that only loudens. */
export function calmer(text: string, pack: LanguagePack): string {
  const plain = louderWords(text, pack).toReversed().reduce((current, { start, end }) => current.slice(0, start) + current.slice(end), text);
  const quiet = betweenHeld(plain, pack, (part) => part.replace(EMOJI, '').replace(/!+(?:\?|!)*/gu, '.').replace(/(?<!\.)\.{2}(?!\.)/gu, '.'));
  return unshouted(quiet).replace(/ {2,}/gu, ' ').replace(/(?<! ) +([.,!?])/gu, '$1').replace(/(?<![ \t])[ \t]+$/gmu, '');
}

/** Where several words in a row shout, words in capitals in small letters, but for the first of a sentence; a short one alone is a sign. */
function unshouted(text: string): string {
  if (!/(?<!\p{Lu})\p{Lu}{4,30}\s\p{Lu}{2}/u.test(text)) return text;
  return text.replace(/(?<![\p{L}\p{N}#@])(?:\p{Lu}{4,}|\p{Lu}{2,3}(?=\s\p{Lu}{2})|(?<=\p{Lu}{2}\s)\p{Lu}{2,3})(?![\p{L}\p{N}])/gu, (word: string, at: number) => (at === 0 || /[.!?\n]$/u.test(text.slice(0, at).trimEnd()) ? word.charAt(0) + word.slice(1).toLowerCase() : word.toLowerCase()));
}

/** Livelier words, and one exclamation mark where the text ends. */
export function brighter(text: string, pack: LanguagePack): string {
  const lively = pack.language === 'en' ? inOtherWays(text, livelyWords, keptIn(text, pack)) : text;
  if (/!/u.test(lively)) return lively;
  const sentences = sentencesOf(lively, pack.language);
  const last = sentences.findLast((sentence) => /[\p{L}\p{N})]\.$/u.test(sentence.text) && !/https?:|\{[a-z-]+\}\.$|\.[a-z]{2,}\.$/u.test(sentence.text));
  if (!last) return lively;
  const end = last.start + last.text.length;
  return `${lively.slice(0, end - 1)}!${lively.slice(end)}`;
}

/** Full forms and the words of letters. */
export function moreFormal(text: string, pack: LanguagePack): string {
  const full = pack.language === 'en' ? inOtherWays(text, [...fullForms, ...formalWords], keptIn(text, pack)) : text;
  return betweenHeld(full, pack, (part) => part.replace(EMOJI, '').replace(/!+/gu, '.')).replace(/ {2,}/gu, ' ').replace(/(?<! ) +([.,!?])/gu, '$1').trim();
}

/** Short words, and a sentence for each thought. */
export function plainly(text: string, pack: LanguagePack): string {
  const plain = plainer(text, pack.language, keptIn(text, pack));
  return plain.replace(/;\s+(\p{L})/gu, (_, letter: string) => `. ${letter.toUpperCase()}`);
}

/** A line for each sentence, with a dash before all but the first. */
export function asList(text: string, pack: LanguagePack): string | null {
  const sentences = sentencesOf(text, pack.language).map((sentence) => sentence.text);
  const isTag = (sentence: string): boolean => sentence.split(/\s+/u).every((word) => /^[#@]/u.test(word));
  const points = sentences.filter((sentence) => !isTag(sentence));
  if (points.length < 3) return null;
  const [lead = '', ...others] = points;
  const tags = sentences.filter(isTag);
  return [lead.replace(/[.!]$/u, ':'), ...others.map((point) => `– ${point.replace(/\.$/u, '')}`), ...(tags.length > 0 ? ['', tags.join(' ')] : [])].join('\n');
}
