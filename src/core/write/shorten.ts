import { shorterWays } from './wordy.ts';
import { tagWords } from './english-tagger.ts';
import { heldIn, knownNames, missingHeld } from './held.ts';
import type { LanguagePack } from './language-pack.ts';
import { louderWords } from './louder-words.ts';
import { rankSentences } from './rank.ts';
import { tokensOf } from './tokens.ts';
import { sentencesOf } from '../words/sentences.ts';

/** Something that was taken from a text, with the rule that took it. */
export interface Taken {
  readonly text: string;
  readonly rule: ShortenRule;
}

export type ShortenRule = 'opener' | 'parenthesis' | 'intensifier' | 'wordy' | 'aside' | 'relative' | 'apposition' | 'participle' | 'adjectives' | 'second-clause' | 'sentence';

export interface Shortened {
  readonly text: string;
  readonly taken: readonly Taken[];
  /** It fits. Where it does not, nothing more can go without a number, a date, a name, a link or a negation. */
  readonly fits: boolean;
}

/** A part of a sentence that could go, or become something else. */
interface Cut {
  readonly start: number;
  readonly end: number;
  readonly put: string;
  readonly rule: ShortenRule;
}

type Rule = (sentence: string, pack: LanguagePack) => readonly Cut[];

/**
 * Shortens a text until it fits, by what costs least: what only opens or loudens, what stands in brackets, asides, relative clauses, appositions,
 * participles, stacked adjectives, second clauses, and last whole sentences, those that say least of the whole first (after Knight and Marcu
 * 2002, Jing 2000). No step takes a held span, and each leaves a sentence its verb; so no number, price, date, name, link, quote or negation is lost.
 * @param fits whether a text is short enough
 */
export function shorten(text: string, pack: LanguagePack, fits: (text: string) => boolean): Shortened {
  const known = knownNames(text, pack);
  let current = text;
  const taken: Taken[] = [];
  for (const rule of rules) {
    if (fits(current)) break;
    const step = applyRule(current, pack, rule, known, fits);
    current = step.text;
    taken.push(...step.taken);
  }
  if (!fits(current)) {
    const step = dropSentences(current, pack, known, fits);
    current = step.text;
    taken.push(...step.taken);
  }
  const tidy = tidied(current);
  // What the rules promise is looked at once more; a text that has lost something is not given out.
  return missingHeld(text, tidy, pack).length > 0 ? { text, taken: [], fits: fits(text) } : { text: tidy, taken, fits: fits(tidy) };
}

/** Applies one rule wherever it may be, from the end of the text to its beginning, until the text fits. */
function applyRule(text: string, pack: LanguagePack, rule: Rule, known: ReadonlySet<string>, fits: (text: string) => boolean): { readonly text: string; readonly taken: readonly Taken[] } {
  let current = text;
  const taken: Taken[] = [];
  for (const { text: sentence, start } of sentencesOf(text, pack.language).toReversed()) {
    let changed = sentence;
    for (const cut of rule(sentence, pack).toSorted((a, b) => b.start - a.start)) {
      const next = changed.slice(0, cut.start) + cut.put + changed.slice(cut.end);
      if (!isSafe(changed, next, pack, known)) continue;
      taken.push({ text: changed.slice(cut.start, cut.end).replace(/^[\s,–—]+|(?<![\s,])[\s,]+$/gu, ''), rule: cut.rule });
      changed = next;
    }
    if (changed === sentence) continue;
    current = current.slice(0, start) + mended(changed) + current.slice(start + sentence.length);
    if (fits(current)) break;
  }
  return { text: current, taken };
}

/** Whether a sentence after a step still has all that is held, and its verb. */
function isSafe(before: string, after: string, pack: LanguagePack, known: ReadonlySet<string>): boolean {
  if (tokensOf(after).length < 2) return false;
  const keys = (sentence: string): readonly string[] => heldIn(sentence, pack, known).map((span) => span.text.toLowerCase());
  const left = [...keys(after)];
  for (const key of keys(before)) {
    const at = left.indexOf(key);
    if (at === -1) return false;
    left.splice(at, 1);
  }
  return !pack.hasVerb(before) || pack.hasVerb(after);
}

/** A sentence with a capital at its start and no doubled spaces or commas. */
function mended(sentence: string): string {
  const plain = sentence.replace(/[ \t]{2,}/gu, ' ').replace(/(?<!\s)\s+([,.;:!?…])/gu, '$1').replace(/,(?=[.!?;:,])/gu, '').replace(/^[\s,;:–—-]+/u, '');
  return plain.replace(/^(["'“‘„«(]?)(\p{Ll})/u, (_, quote: string, letter: string) => quote + letter.toUpperCase());
}

function tidied(text: string): string {
  return text.replace(/(?<![ \t])[ \t]+$/gmu, '').replace(/\n{3,}/gu, '\n\n').replace(/^[ \t]+/gmu, '').trim();
}

/** Drops whole sentences without anything held, the one that says least first; one always stays. */
function dropSentences(text: string, pack: LanguagePack, known: ReadonlySet<string>, fits: (text: string) => boolean): { readonly text: string; readonly taken: readonly Taken[] } {
  let current = text;
  const taken: Taken[] = [];
  const ranked = rankSentences(sentencesOf(text, pack.language).map((sentence, index) => ({ text: sentence.text, source: '', place: index + 1 })), pack, '', (sentence) => heldIn(sentence, pack, known).length).toSorted((a, b) => a.score - b.score);
  for (const { text: sentence } of ranked) {
    if (fits(current) || sentencesOf(current, pack.language).length <= 1) break;
    if (heldIn(sentence, pack, known).length > 0) continue;
    const at = current.indexOf(sentence);
    if (at === -1) continue;
    current = tidied(current.slice(0, at).replace(/(?<![ \t])[ \t]+$/u, '') + (current.slice(at + sentence.length).startsWith('\n') || at === 0 ? '' : ' ') + current.slice(at + sentence.length).replace(/^[ \t]+/u, ''));
    taken.push({ text: sentence, rule: 'sentence' });
  }
  return { text: current, taken };
}

const escaped = (words: readonly string[]): string => [...words].toSorted((a, b) => b.length - a.length).map((word) => word.replace(/[’']/gu, '[’\']').replace(/ /gu, '\\s')).join('|');
const patterns = new Map<string, RegExp>();

/** A pattern made of a pack's words; made once. */
function patternOf(name: string, pack: LanguagePack, make: () => RegExp): RegExp {
  const key = `${name} ${pack.language}`;
  const known = patterns.get(key) ?? make();
  patterns.set(key, known);
  return known;
}

const openers: Rule = (sentence, pack) => {
  const match = patternOf('openers', pack, () => new RegExp(`^["“„«]?(?:(?:${escaped(pack.openers)}),\\s|(?:and|but|und|et|mais|y|pero|e|mas)\\s(?=\\p{L}))`, 'iu')).exec(sentence);
  return match && !/^(?:but|mais|pero|mas)\s/iu.test(match[0]) ? [{ start: 0, end: match[0].length, put: '', rule: 'opener' }] : [];
};

const parentheses: Rule = (sentence) => [...sentence.matchAll(/\s?\([^()]{1,200}\)/gu)].map((match) => ({ start: match.index, end: match.index + match[0].length, put: '', rule: 'parenthesis' as const }));

const intensifiers: Rule = (sentence, pack) => louderWords(sentence, pack).map((span) => ({ ...span, put: '', rule: 'intensifier' as const }));

const wordy: Rule = (sentence, pack) => shorterWays(sentence, pack.language).map((found) => ({ ...found, rule: 'wordy' as const }));

const asides: Rule = (sentence) => [
  ...[...sentence.matchAll(/\s[–—]\s[^–—.!?]{3,160}\s[–—](?=\s)/gu)].map((match): Cut => ({ start: match.index, end: match.index + match[0].length, put: '', rule: 'aside' })),
  ...[...sentence.matchAll(/\s[–—]\s[^–—]{3,160}(?=[.!?…]["”»]?$)/gu)].map((match): Cut => ({ start: match.index, end: match.index + match[0].length, put: '', rule: 'aside' })),
];

/** From a comma and a relative word to the next comma or the end of the sentence. */
const relatives: Rule = (sentence, pack) =>
  [...sentence.matchAll(patternOf('relatives', pack, () => new RegExp(`,\\s(?:${escaped(pack.relatives)})\\s[^,;:.!?–—]{4,160}(?:,\\s|(?=[.!?…]["”»]?$))`, 'giu')))]
    .filter((match) => pack.language !== 'de' || /\s\p{Ll}+(?:,\s)?$/u.test(match[0]))
    .map((match) => ({ start: match.index, end: match.index + match[0].length, put: match[0].endsWith(', ') ? ' ' : '', rule: 'relative' as const }));

/** `Marlow, the oldest hand in the loft, sews`: between two commas, before a verb. */
const appositions: Rule = (sentence, pack) => {
  if (pack.language !== 'en') return [];
  const words = tagWords(sentence);
  return [...sentence.matchAll(/(?<=\p{L}),\s(?:the|a|an|our|my|your|his|her|their)\s[^,;:.!?–—]{3,90},\s/giu)]
    .filter((match) => {
      const end = match.index + match[0].length;
      const next = words.find((word) => word.start >= end);
      const isInside = (word: (typeof words)[number]): boolean => word.start >= match.index && word.end <= end;
      return (next?.tags.has('Verb') ?? false) && !words.some((word) => isInside(word) && word.tags.has('Verb'));
    })
    .map((match) => ({ start: match.index, end: match.index + match[0].length, put: ' ', rule: 'apposition' as const }));
};

/** `…, hoping for wind.`: a participle with what hangs on it at the end of a sentence that is no list. */
const participles: Rule = (sentence, pack) => {
  if (pack.language !== 'en' || (sentence.match(/,/gu)?.length ?? 0) > 2) return [];
  const match = /,\s(?:all\s|still\s|always\s)?\p{Ll}{2,}ing\s[^,;:.!?–—]{4,140}(?=[.!?…]["”»]?$)/u.exec(sentence);
  if (!match || /\b(?:and|or)\b/u.test(match[0])) return [];
  return [{ start: match.index, end: match.index + match[0].length, put: '', rule: 'participle' }];
};

/** Of several adjectives before a noun the last stays. */
const adjectives: Rule = (sentence, pack) => {
  if (pack.language !== 'en') return [];
  const words = tagWords(sentence);
  const cuts: Cut[] = [];
  for (let index = 0; index < words.length; index += 1) {
    let to = index;
    while (words[to]?.tags.has('Adjective') && !words[to]?.tags.has('Value') && !words[to]?.tags.has('Comparative') && !words[to]?.tags.has('Superlative') && (to === index || /^,?\s$/u.test(sentence.slice(words[to - 1]?.end, words[to]?.start)))) to += 1;
    const [first, last, noun] = [words[index], words[to - 1], words[to]];
    if (to - index >= 2 && first && last && noun?.tags.has('Noun') && /^\s$/u.test(sentence.slice(last.end, noun.start))) cuts.push({ start: first.start, end: last.start, put: '', rule: 'adjectives' });
    index = Math.max(index, to - 1);
  }
  return cuts;
};

/** What stands behind a semicolon, or behind a comma and a joining word. */
const secondClauses: Rule = (sentence, pack) => {
  const joins = { en: 'and|so|while|as', de: 'und|während|denn', fr: 'et|car|tandis\\sque', es: 'y|mientras', pt: 'e|enquanto' }[pack.language];
  const match = patternOf('second', pack, () => new RegExp(`(?:;\\s|,\\s(?:${joins})\\s)[^;:.!?]{8,200}(?=[.!?…]["”»]?$)`, 'iu')).exec(sentence);
  // A list has a comma before its last member as well.
  if (!match || (match[0].startsWith(',') && (sentence.slice(0, match.index).includes(',') || !pack.hasVerb(match[0].replace(/^,\s\p{L}+\s/u, ''))))) return [];
  return [{ start: match.index, end: match.index + match[0].length, put: '', rule: 'second-clause' }];
};

/** In the order of what they cost. */
const rules: readonly Rule[] = [openers, parentheses, intensifiers, wordy, asides, relatives, appositions, participles, adjectives, secondClauses];
