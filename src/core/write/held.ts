import { LINK_PATTERN } from '../words/count-characters.ts';
import { sentencesOf } from '../words/sentences.ts';
import type { LanguagePack } from './language-pack.ts';
import { tokensOf } from './tokens.ts';

export type HeldKind = 'link' | 'handle' | 'quote' | 'price' | 'date' | 'time' | 'number' | 'name' | 'negation';

/** A span of a text that no shortening and no rewriting may change. */
export interface Held {
  readonly kind: HeldKind;
  readonly text: string;
  readonly start: number;
  readonly end: number;
}

const PATTERNS: readonly (readonly [HeldKind, RegExp])[] = [
  ['link', LINK_PATTERN],
  ['link', /(?<![\p{L}\p{N}@.-])(?:www\.)?[a-z0-9][a-z0-9-]{1,60}(?:\.[a-z0-9-]{2,30}){1,3}(?:\/[^\s<>"]*[^\s<>".,;:!?)\]}'’”])?(?![\p{L}\p{N}])/giu],
  ['handle', /[#@][\p{L}\p{N}_][\p{L}\p{M}\p{N}_.]*/gu],
  ['handle', /\{[a-z][a-z0-9-]*\}/gu],
  ['quote', /“[^“”\n]{1,300}”|„[^„“\n]{1,300}“|«[^«»\n]{1,300}»|"[^"\n]{1,300}"/gu],
  ['price', /[£€$¥]\s?\d+(?:[.,]\d+)*|(?<![\d.,])\d+(?:[.,]\d+)*\s?(?:[£€$¥%‰]|eur\b|euro\b|euros\b|pence\b|cents?\b)/giu],
  ['time', /\b\d{1,2}(?:[:.]\d{2})?\s?(?:a\.?m\.?|p\.?m\.?|uhr|h)(?![\p{L}\p{N}])|\b\d{1,2}:\d{2}\b/giu],
  ['number', /(?<![\p{L}\p{N}])[+−-]?\d+(?:[.,:/–-]\d+)*(?:st|nd|rd|th|er|re|e|º|ª)?(?![\p{L}\p{N}])/gu],
  ['number', /(?<![\p{L}\d])\p{L}*\d[\p{L}\d]*/gu],
];

/**
 * The held spans of a text, in order and without overlaps: links, handles and fill-ins, quotes, prices, dates, times, numbers in figures
 * and words, names, negations.
 * @param known names that stand elsewhere as names, in small letters: they are names at the start of a sentence too
 */
export function heldIn(text: string, pack: LanguagePack, known: ReadonlySet<string> = new Set()): readonly Held[] {
  const found: Held[] = [];
  const isFree = (start: number, end: number): boolean => found.every((span) => end <= span.start || start >= span.end);
  const add = (kind: HeldKind, start: number, end: number): void => {
    if (isFree(start, end)) found.push({ kind, text: text.slice(start, end), start, end });
  };
  for (const [kind, pattern] of PATTERNS) for (const match of text.matchAll(pattern)) add(kind, match.index, match.index + match[0].length);
  for (const match of pack.denials ? text.matchAll(pack.denials) : []) add('negation', match.index, match.index + match[0].length);
  const dates = new Set(pack.dateWords);
  const numbers = new Set(pack.numberWords);
  for (const { text: word, start, end } of tokensOf(text)) {
    const small = word.toLowerCase();
    if (isNegation(small, pack)) add('negation', start, end);
    else if (dates.has(small) || isMonth(word)) add('date', start, end);
    else if (small.split('-').some((part) => numbers.has(part))) add('number', start, end);
  }
  for (const { start, end } of namesIn(text, pack, known)) add('name', start, end);
  return found.toSorted((a, b) => a.start - b.start);
}

/** `May` and `March` are months with a capital alone. */
function isMonth(word: string): boolean {
  return word === 'May' || word === 'March';
}

function isNegation(small: string, { negations, negationStarts, language }: LanguagePack): boolean {
  if (negations.has(small) || negationStarts.some((start) => small.startsWith(start))) return true;
  if (language === 'en') return /n[’']t$/u.test(small);
  return language === 'fr' && /^n[’']/u.test(small);
}

/** Words with a capital that are names: within a sentence always; at its start where they are known or are followed by another one. */
function namesIn(text: string, pack: LanguagePack, known: ReadonlySet<string>): readonly { readonly start: number; readonly end: number }[] {
  const names: { start: number; end: number }[] = [];
  const starts = new Set(sentencesOf(text, pack.language).map(({ text: sentence, start }) => start + (/[\p{L}\p{N}]/u.exec(sentence)?.index ?? 0)));
  const tokens = tokensOf(text);
  for (const [index, { text: word, start, end }] of tokens.entries()) {
    if (!/^\p{Lu}/u.test(word) || (word === 'I' && pack.language === 'en') || /^I[’']/u.test(word)) continue;
    const small = word.toLowerCase();
    const before = tokens[index - 1];
    const gap = before === undefined ? '' : text.slice(before.end, start);
    const isFirst = starts.has(start) || /[.!?:…\n•–—“"„«(]$/u.test(gap.trimEnd()) || gap.includes('\n');
    if (isFirst ? isNameAtStart(text, tokens, index, pack, known) : isNameWithin(text, tokens, index, pack, known)) names.push({ start, end });
    else if (known.has(small)) names.push({ start, end });
  }
  return names;
}

function isNameAtStart(text: string, tokens: ReturnType<typeof tokensOf>, index: number, pack: LanguagePack, known: ReadonlySet<string>): boolean {
  const [token, next] = [tokens[index], tokens[index + 1]];
  if (!token) return false;
  const small = token.text.toLowerCase();
  if (known.has(small)) return true;
  if (pack.stopwords.has(small) || pack.articles.has(small)) return false;
  // Two capitals in a row are a name; a word that is all capitals shouts.
  const isPair = next !== undefined && /^\p{Lu}/u.test(next.text) && /^[ \t]+$/u.test(text.slice(token.end, next.start)) && !pack.capitalNouns;
  return isPair || /^\p{Lu}\p{Ll}+\p{Lu}/u.test(token.text) || !pack.isCommon(small.replace(/[’']s$/u, ''));
}

/** Where nouns have capitals, a noun stands behind an article or an adjective; what stands alone may be a name, and is held as one. */
function isNameWithin(text: string, tokens: ReturnType<typeof tokensOf>, index: number, pack: LanguagePack, known: ReadonlySet<string>): boolean {
  if (!pack.capitalNouns) return true;
  const [token, before, next] = [tokens[index], tokens[index - 1], tokens[index + 1]];
  if (!token) return false;
  if (known.has(token.text.toLowerCase())) return true;
  const isBehindArticle = before !== undefined && (pack.articles.has(before.text.toLowerCase()) || /(?:e|en|er|em|es)$/u.test(before.text)) && /^\p{Ll}/u.test(before.text);
  const isPair = next !== undefined && /^\p{Lu}/u.test(next.text) && /^[ \t]+$/u.test(text.slice(token.end, next.start));
  return isPair || !isBehindArticle;
}

/** Names that a text has within its sentences, in small letters: there a capital says so. */
export function knownNames(text: string, pack: LanguagePack): ReadonlySet<string> {
  return new Set(heldIn(text, pack).flatMap((span) => (span.kind === 'name' ? [span.text.toLowerCase()] : [])));
}

/** A span as it is compared: `2 pm` and `2pm`, `£24` and `£ 24` are the same. */
export function sameAs(span: Pick<Held, 'kind' | 'text'>): string {
  return span.text.toLowerCase().normalize('NFKC').replaceAll('’', "'").replace(/^https?:\/\/(?:www\.)?/u, '').replace(/\/$/u, '').split(/[\s.]/u).filter((part) => part !== '').join(span.kind === 'quote' ? ' ' : '').replace(/'s$/u, '');
}

/** Held spans of a text that another text has not, by kind and wording; each as often as it is missing. */
export function missingHeld(before: string, after: string, pack: LanguagePack): readonly Held[] {
  const known = knownNames(`${before}\n${after}`, pack);
  const left = new Map<string, number>();
  for (const span of heldIn(after, pack, known)) left.set(sameAs(span), (left.get(sameAs(span)) ?? 0) + 1);
  return heldIn(before, pack, known).filter((span) => {
    const there = left.get(sameAs(span)) ?? 0;
    left.set(sameAs(span), there - 1);
    return there <= 0;
  });
}

/**
 * Spans of a version that none of its sources has: what would be invented. Negations are left aside: they say nothing of the world by themselves.
 */
export function unsupported(version: string, sources: readonly string[], pack: LanguagePack): readonly Held[] {
  const all = sources.join('\n');
  const known = knownNames(all, pack);
  const words = new Set(tokensOf(all).map((token) => token.text.toLowerCase().replaceAll('’', "'").replace(/'s$/u, '')));
  const spans = new Set(heldIn(all, pack, known).map(sameAs));
  const flat = all.toLowerCase().normalize('NFKC').replaceAll('’', "'");
  return heldIn(version, pack, known).filter((span) => {
    if (span.kind === 'negation' || span.kind === 'handle') return false;
    const key = sameAs(span);
    if (spans.has(key)) return false;
    if (span.kind === 'quote') return !flat.includes(span.text.slice(1, -1).toLowerCase().normalize('NFKC').replaceAll('’', "'"));
    if (span.kind === 'link') return !flat.includes(key);
    return !words.has(span.text.toLowerCase().replaceAll('’', "'").replace(/'s$/u, ''));
  });
}
