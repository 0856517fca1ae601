import { countCharacters, LINK_PATTERN, type Counting } from './count-characters.ts';
import type { Language } from './language.ts';
import { sentencesOf } from './sentences.ts';

export interface ThreadRule {
  /** Longest part, as the network counts. */
  readonly max: number;
  readonly maxParts: number;
  readonly counting: Counting;
  /** Each part ends with its number: `2/5`. */
  readonly numbered: boolean;
  readonly language?: Language | undefined;
}

/** Parts shorter than this share of the limit read as crumbs. */
const MIN_SHARE = 1 / 3;
const CRUMB_PENALTY = 4;
/** A break within a sentence is a last resort. */
const CLAUSE_PENALTY = 1;
const WORD_PENALTY = 6;

interface Unit {
  readonly text: string;
  readonly start: number;
  readonly end: number;
  /** What a break behind it costs. */
  readonly penalty: number;
}

/**
 * A text in parts that each fit, broken between sentences, else between clauses, else between words; links and hashtags stay whole.
 * The parts are found together (by dynamic programming), so that they are of like length and none is a crumb.
 * @returns the parts; one where the text fits; null where it needs more parts than there may be, or a word alone is too long
 */
export function splitThread(text: string, rule: ThreadRule): readonly string[] | null {
  const whole = text.trim();
  if (countCharacters(whole, rule.counting) <= rule.max) return [whole];
  // A number of parts takes room of its own, so the room is known once the number is: two rounds settle it.
  for (const digits of [1, 2]) {
    const room = rule.max - (rule.numbered ? 2 + 2 * digits : 0);
    const parts = bestParts(whole, unitsOf(whole, room, rule), room, rule);
    if (!parts) return null;
    if (String(parts.length).length > digits) continue;
    return rule.numbered ? parts.map((part, index) => `${part} ${index + 1}/${parts.length}`) : parts;
  }
  return null;
}

/** The text as it was before it was split: the parts without their numbers, as paragraphs. */
export function joinThread(parts: readonly string[]): string {
  return parts.map((part, index) => part.replace(new RegExp(` ${index + 1}/${parts.length}$`), '')).join('\n\n');
}

/** A text that goes out as several posts. */
export interface Thread {
  readonly parts: readonly string[];
  /** Each part has a picture of its own, as far as there are some; else the first has all of them. */
  readonly pictureEach: boolean;
}

/** A thread as one text, as a delivery keeps it. */
export function writeThread(thread: Thread): string {
  return JSON.stringify(thread);
}

/** @throws RangeError when a text is no thread */
export function readThread(text: string): Thread {
  const { parts, pictureEach } = JSON.parse(text) as Partial<Record<keyof Thread, unknown>>;
  if (!Array.isArray(parts) || !parts.every((part) => typeof part === 'string')) throw new RangeError('Not a thread');
  return { parts, pictureEach: pictureEach === true };
}

/** Sentences; one that does not fit in clauses; a clause that does not fit in words. */
function unitsOf(text: string, room: number, { counting, language }: ThreadRule): readonly Unit[] {
  const units: Unit[] = [];
  for (const sentence of sentencesOf(text, language)) {
    const end = sentence.start + sentence.text.length;
    if (countCharacters(sentence.text, counting) <= room) units.push({ text: sentence.text, start: sentence.start, end, penalty: 0 });
    else units.push(...pieces(sentence.text, sentence.start, /(?<=[,;:–—])\s+/gu, CLAUSE_PENALTY).flatMap((clause) => (countCharacters(clause.text, counting) <= room ? [clause] : pieces(clause.text, clause.start, /\s+/gu, WORD_PENALTY))));
  }
  return units;
}

function pieces(text: string, start: number, at: RegExp, penalty: number): readonly Unit[] {
  const links = [...text.matchAll(LINK_PATTERN)].map((match) => [match.index, match.index + match[0].length] as const);
  const units: Unit[] = [];
  let from = 0;
  const push = (to: number): void => {
    if (to > from) units.push({ text: text.slice(from, to), start: start + from, end: start + to, penalty });
  };
  for (const match of text.matchAll(at)) {
    if (links.some(([open, close]) => match.index > open && match.index < close)) continue;
    push(match.index);
    from = match.index + match[0].length;
  }
  push(text.length);
  const last = units.at(-1);
  // Behind the last piece the sentence ends: a break there costs nothing.
  return last ? [...units.slice(0, -1), { ...last, penalty: 0 }] : [];
}

interface Best {
  readonly cost: number;
  readonly from: number;
  readonly parts: number;
}

function bestParts(text: string, units: readonly Unit[], room: number, { counting, maxParts }: ThreadRule): readonly string[] | null {
  const total = countCharacters(text, counting);
  const ideal = total / Math.max(1, Math.ceil(total / room));
  const textOf = (from: number, to: number): string => text.slice(units[from]?.start, units[to - 1]?.end);
  const best: (Best | null)[] = [{ cost: 0, from: 0, parts: 0 }];
  for (let to = 1; to <= units.length; to += 1) {
    let found: Best | null = null;
    for (let from = to - 1; from >= 0; from -= 1) {
      const length = countCharacters(textOf(from, to), counting);
      if (length > room) break;
      const before = best[from];
      if (!before || before.parts >= maxParts) continue;
      const crumb = length < room * MIN_SHARE ? CRUMB_PENALTY : 0;
      const cost = before.cost + ((length - ideal) / ideal) ** 2 + crumb + (to < units.length ? (units[to - 1]?.penalty ?? 0) : 0);
      if (!found || cost < found.cost) found = { cost, from, parts: before.parts + 1 };
    }
    best.push(found);
  }
  const parts: string[] = [];
  for (let to = units.length; to > 0; ) {
    const step = best[to];
    if (!step) return null;
    parts.unshift(textOf(step.from, to));
    to = step.from;
  }
  return parts.length > maxParts ? null : parts;
}
