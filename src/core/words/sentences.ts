import type { Language } from './language.ts';

/** A piece of a text with where it begins, in code units; white space behind it belongs to nobody. */
export interface Span {
  readonly text: string;
  readonly start: number;
}

/** What ends with a full stop and is no end of a sentence. */
const ABBREVIATIONS: Readonly<Partial<Record<Language, readonly string[]>>> = {
  en: ['mr', 'mrs', 'ms', 'dr', 'prof', 'st', 'no', 'nos', 'vs', 'approx', 'est', 'e.g', 'i.e', 'etc', 'jan', 'feb', 'mar', 'apr', 'jun', 'jul', 'aug', 'sep', 'sept', 'oct', 'nov', 'dec', 'a.m', 'p.m', 'min', 'max', 'tel', 'fig', 'inc', 'ltd', 'co', 'cf', 'incl', 'ext', 'hrs'],
  de: ['z.b', 'd.h', 'u.a', 'ca', 'bzw', 'usw', 'nr', 'str', 'hr', 'fr', 'dr', 'prof', 'st', 'tel', 'inkl', 'zzgl', 'max', 'min', 'mind', 'evtl', 'ggf', 'jan', 'feb', 'apr', 'aug', 'sept', 'okt', 'nov', 'dez', 'mo', 'di', 'mi', 'do', 'sa', 'so', 'vgl', 'bspw', 'gem', 'lt', 'u.u', 'i.d.r', 'o.g', 's.o', 'std'],
  fr: ['m', 'mme', 'dr', 'st', 'ste', 'p.ex', 'etc', 'env', 'av', 'n°', 'janv', 'févr', 'juil', 'sept', 'oct', 'nov', 'déc', 'tél', 'max', 'min', 'cf', 'vol', 'art', 'pp', 'réf'],
  es: ['sr', 'sra', 'dr', 'dra', 'p.ej', 'etc', 'aprox', 'núm', 'tel', 'ud', 'uds', 'ene', 'feb', 'abr', 'ago', 'sept', 'oct', 'nov', 'dic', 'max', 'min', 'pág'],
  pt: ['sr', 'sra', 'dr', 'dra', 'p.ex', 'etc', 'aprox', 'núm', 'tel', 'jan', 'fev', 'abr', 'ago', 'set', 'out', 'nov', 'dez', 'máx', 'mín', 'pág', 'nº'],
};
/** Days in short: one of them ends a sentence (“we sat.”) but where a number follows. */
const SHORT_DAYS = /^(?:mon|tues?|wed|thu|thurs?|fri|sat|sun)$/u;
/** A number that ends a German sentence, and is no ordinal: “Nr. 7.” */
const COUNTED = /(?:Nr\.|S\.|Seite|Platz|Raum|Tisch|Halle|Gleis|Hausnummer)\s\d{1,2}\.$/u;
/** Segmenting takes time with more than the length of a text, so a long line is taken in pieces. */
const WINDOW = 4_000;

const segmenters = new Map<string, Intl.Segmenter>();

function segmenterOf(language: string): Intl.Segmenter {
  const known = segmenters.get(language) ?? new Intl.Segmenter(language, { granularity: 'sentence' });
  segmenters.set(language, known);
  return known;
}

/** The sentences of a text, without the white space around them; a line's end ends a sentence as well. */
export function sentencesOf(text: string, language: Language = 'en'): readonly Span[] {
  const found: Span[] = [];
  let lineStart = 0;
  for (const line of text.split('\n')) {
    found.push(...sentencesOfLine(line, language).map((span) => ({ text: span.text, start: span.start + lineStart })));
    lineStart += line.length + 1;
  }
  return found;
}

function sentencesOfLine(line: string, language: Language): readonly Span[] {
  const found: Span[] = [];
  let [open, end] = [0, 0];
  const close = (): void => {
    const raw = line.slice(open, end);
    const trimmed = raw.trim();
    if (trimmed !== '') found.push({ text: trimmed, start: open + raw.indexOf(trimmed) });
    open = end;
  };
  for (let from = 0; from < line.length; from += WINDOW) {
    for (const { segment } of segmenterOf(language).segment(line.slice(from, from + WINDOW))) {
      if (end > open && endsSentence(line.slice(open, end), line.slice(end, end + 2), language)) close();
      end += segment.length;
    }
  }
  close();
  return found;
}

/** Whether a segment is a whole sentence: not where it ends with an abbreviation, a single capital, an ordinal before a word, or within an address. */
function endsSentence(segment: string, next: string, language: Language): boolean {
  const trimmed = segment.trimEnd();
  // A segment that ends without a mark was parted by the window, or by nothing that ends a sentence.
  if (!/[.!?…。！？]["'”’»)\]]*$/u.test(trimmed)) return false;
  const [last = ''] = trimmed.match(/(?<!\S)\S+$/u) ?? [];
  const word = last.toLowerCase().replace(/^[("'“‘«]+/u, '').replace(/\.$/u, '');
  if (/\.$/u.test(last) && (ABBREVIATIONS[language] ?? []).includes(word)) return false;
  if (/\.$/u.test(last) && SHORT_DAYS.test(word) && /^\d/u.test(next)) return false;
  // Initials, abbreviations that are written with a space, and pages: z. B., p. 7
  if (/^[("'“‘«]*\p{L}\.$/u.test(last) && /^[\p{Lu}\d]/u.test(next)) return false;
  // What closes a quote belongs to it, and who said it: “Come in!” she said.
  if (/^[»”)\]]/u.test(next)) return false;
  if (/["'”’»“]$/u.test(last) && /^\p{Ll}/u.test(next)) return false;
  return !(language === 'de' && /^\d{1,2}\.$/u.test(last) && !COUNTED.test(trimmed));
}
