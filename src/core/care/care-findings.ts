import type { BrandBook, Fact } from '../brand/brand-book.ts';
import { pieceTexts, slotText, type Piece } from '../piece/piece.ts';
import type { CutToCheck, Finding } from '../preflight/finding.ts';
import type { Language } from '../words/language.ts';
import { sentencesOf } from '../words/sentences.ts';
import { composeRow } from '../wording/compose.ts';
import { dateProblems } from './date-words.ts';
import { readingEase } from './reading-ease.ts';

/** A word that the dictionary does not know. */
export interface SpellingMistake {
  readonly word: string;
  readonly proposals: readonly string[];
}

export interface CareInput {
  readonly piece: Piece;
  readonly book: BrandBook;
  readonly cuts: readonly CutToCheck[];
  readonly zone: string;
  readonly nowMs: number;
  /** When it goes out next; null while nothing is planned. */
  readonly plannedMs: number | null;
  readonly mistakes: readonly SpellingMistake[];
  /** Links that did not answer, with why. */
  readonly deadLinks: readonly { readonly address: string; readonly problem: string }[];
}

const VAGUE_LINKS: Readonly<Partial<Record<Language, RegExp>>> = {
  en: /\b(?:click|tap|press) here\b|\bclick (?:the|this) link\b/iu,
  de: /\bhier klicken\b|\bklicken? sie hier\b|\bklick(?:t)? hier\b/iu,
  fr: /\bcliquez ici\b|\bclique ici\b/iu,
  es: /\bhaz clic aquí\b|\bhaga clic aquí\b|\bpincha aquí\b/iu,
  pt: /\bclique aqui\b|\bclica aqui\b/iu,
};
const MAX_EXCLAMATIONS = 2;
const PRICE = /[£€$¥]\s?\d+(?:[.,]\d{1,2})?|(?<![\d.,])\d+(?:[.,]\d{1,2})?\s?[£€$¥]/gu;
const MAX_NAMED = 4;

/** What a careful reader would say of the words: each kind is one line, none of them stops a post. */
export function careFindings(input: CareInput): readonly Finding[] {
  const { piece, book } = input;
  const language = book.language ?? 'en';
  const texts = writtenTexts(piece);
  const all = texts.join('\n');
  return [
    ...spelling(input),
    ...dates(input, all, language),
    ...prices(piece, book.facts),
    ...manner(texts, language, book.voice.readingEase),
    ...altTexts(piece),
    ...links(all, input.deadLinks),
    ...sameOnTwoAccounts(input),
  ];
}

function warn(sentence: string, fix: Finding['fix'] = null): Finding {
  return { severity: 'warns', sentence, cut: null, view: 'words', fix };
}

/** The texts that people write as sentences: captions and first comments. */
function writtenTexts({ words }: Pick<Piece, 'words'>): readonly string[] {
  return [words.shared, ...Object.values(words.own)].flatMap((row) => [row.caption ?? '', row.firstComment ?? '']).filter((text) => text.trim() !== '');
}

function quotedList(names: readonly string[]): string {
  const shown = names.slice(0, MAX_NAMED).map((name) => `“${name}”`).join(', ');
  return names.length > MAX_NAMED ? `${shown} and ${names.length - MAX_NAMED} more` : shown;
}

function spelling({ mistakes, piece }: CareInput): readonly Finding[] {
  if (mistakes.length === 0) return [];
  const [first] = mistakes;
  const better = first?.proposals[0];
  const { caption } = piece.words.shared;
  const fixed = first && better !== undefined ? caption.replace(new RegExp(`(?<![\\p{L}\\p{N}])${first.word.replace(/[.*+?^${}()|[\]\\]/gu, '\\$&')}(?![\\p{L}\\p{N}])`, 'gu'), better) : caption;
  const fix: Finding['fix'] = better !== undefined && fixed !== caption ? { label: `Write “${better}”`, change: { kind: 'write-words', channelId: null, field: 'caption', text: fixed } } : null;
  return [warn(`The dictionary does not know ${quotedList(mistakes.map(({ word }) => word))}.`, fix)];
}

function dates({ piece, zone, nowMs, plannedMs }: CareInput, all: string, language: Language): readonly Finding[] {
  const shown = piece.frames.flatMap((frame) => Object.keys(frame.slots).map((slot) => slotText(frame, slot))).join('\n');
  const found = dateProblems(`${all}\n${shown}`, language, zone, nowMs, plannedMs);
  return [...new Map(found.map((each) => [`${each.text.toLowerCase()} ${each.problem}`, each])).values()].map(({ text, problem }) => warn(`“${text}” ${problem}.`));
}

/** A price in the words that is another one than in the picture, or than the brand's facts have for the same thing. */
function prices(piece: Piece, facts: readonly Fact[]): readonly Finding[] {
  const normal = (price: string): string => price.replaceAll(/\s/gu, '').replace(',', '.').replace(/\.00$/u, '');
  const pricesIn = (text: string): readonly string[] => [...text.matchAll(PRICE)].map((match) => match[0]);
  const shown = piece.frames.flatMap((frame) => Object.keys(frame.slots).flatMap((slot) => pricesIn(slotText(frame, slot))));
  const findings: Finding[] = [];
  for (const text of writtenTexts(piece)) {
    for (const sentence of sentencesOf(text)) {
      for (const price of pricesIn(sentence.text)) {
        const fact = facts.find(({ name, text: said }) => pricesIn(said).length > 0 && !pricesIn(said).some((each) => normal(each) === normal(price)) && name.toLowerCase().split(/\s+/u).some((word) => word.length >= 4 && word !== 'price' && sentence.text.toLowerCase().includes(word)));
        if (fact) findings.push(warn(`The words say ${price}; the fact ${fact.name} says ${pricesIn(fact.text)[0] ?? ''}.`));
        else if (shown.length > 0 && !shown.some((each) => normal(each) === normal(price)) && pricesIn(text).length === 1) findings.push(warn(`The words say ${price}; the picture says ${shown[0] ?? ''}.`));
      }
    }
  }
  return [...new Map(findings.map((finding) => [finding.sentence, finding])).values()];
}

function manner(texts: readonly string[], language: Language, aim: number | null): readonly Finding[] {
  const findings: Finding[] = [];
  const shouted = texts.flatMap((text) => text.match(/(?<![\p{L}#@])\p{Lu}{3,}(?:[\s,.!]{1,3}\p{Lu}{2,}){2,}(?!\p{L})/gu) ?? []);
  if (shouted.length > 0) findings.push(warn(`${quotedList(shouted.map((text) => text.slice(0, 40)))} shouts: write it in small letters.`));
  const loud = texts.find((text) => /!{2,}/u.test(text) || (text.match(/!/gu)?.length ?? 0) > MAX_EXCLAMATIONS);
  if (loud !== undefined) findings.push(warn(`The words have ${loud.match(/!/gu)?.length ?? 0} exclamation marks: ${MAX_EXCLAMATIONS} are plenty.`));
  const vague = VAGUE_LINKS[language];
  const found = texts.map((text) => vague?.exec(text)?.[0]).find((match) => match !== undefined);
  if (found !== undefined) findings.push(warn(`“${found}” says nothing to those who hear a link read out: say where it leads.`));
  const ease = aim === null ? null : texts.map((text) => readingEase(text, language)).find((value) => value !== null && value < aim);
  if (ease !== null && ease !== undefined && aim !== null) findings.push(warn(`The words read at ${Math.round(ease)} of 100; this brand aims at ${aim}. Shorter sentences help.`));
  return findings;
}

/** An alt text that repeats the caption, or that begins as every screen reader does. */
function altTexts({ words, frames }: Piece): readonly Finding[] {
  const plain = (text: string): string => text.toLowerCase().replaceAll(/[^\p{L}\p{N}]+/gu, ' ').trim();
  const caption = plain(words.shared.caption);
  const alts = [words.shared.altText, ...Object.values(words.own).map((row) => row.altText ?? ''), ...frames.map((frame) => frame.altText ?? '')].filter((alt) => alt.trim() !== '');
  const findings: Finding[] = [];
  if (alts.some((alt) => caption.length > 20 && (plain(alt) === caption || (plain(alt).length > 30 && caption.includes(plain(alt)))))) findings.push(warn('The alt text repeats the caption: say what is to be seen instead.'));
  if (alts.some((alt) => /^(?:an? )?(?:image|picture|photo|photograph|graphic) of\b/iu.test(alt.trim()))) findings.push(warn('The alt text begins with “picture of”: screen readers say that already.'));
  return findings;
}

function links(all: string, dead: CareInput['deadLinks']): readonly Finding[] {
  const malformed = [...new Set([...all.matchAll(/\bhttps?:(?:\/(?!\/)|\/\/\s|\/{3,})\S{0,40}|\bhtt?p?s?\/\/\S{1,40}|\bwww\.\s\S{1,40}/giu)].map((match) => match[0].trim()))];
  return [...(malformed.length > 0 ? [warn(`${quotedList(malformed)} is no web address: it starts with https://`)] : []), ...dead.map(({ address, problem }) => warn(`${address} does not open: ${problem}`))];
}

/** The same words on two accounts of one network look like a mistake to those who follow both. */
function sameOnTwoAccounts({ piece, book, cuts }: CareInput): readonly Finding[] {
  const channels = [...new Map(cuts.map((cut) => [cut.ref.channelId, cut])).values()];
  const seen = new Map<string, string>();
  const findings: Finding[] = [];
  for (const { ref, sheet, channelName, offers } of channels) {
    if (channels.filter((other) => other.sheet.key === sheet.key).length < 2) continue;
    const { words } = composeRow({ piece, book, sheet, channel: { id: ref.channelId, offers } });
    const key = `${sheet.key} ${words.caption ?? ''}`;
    const other = seen.get(key);
    if (other !== undefined && (words.caption ?? '').trim() !== '') findings.push(warn(`${channelName} says the same as ${other} on ${sheet.name}.`));
    seen.set(key, channelName);
  }
  return findings;
}

/** All texts of a piece in which spelling is looked at. */
export function textsToSpell(piece: Piece): readonly string[] {
  return pieceTexts(piece).filter((text) => /\p{L}{2}/u.test(text));
}
