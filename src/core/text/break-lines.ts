import LineBreaker from 'linebreak';
import { LRUCache } from 'lru-cache';
import { SOFT_HYPHEN } from './hyphenation.ts';
import { breakCost, loneWordCost, settingCost, type CostedLine } from './setting-rules.ts';
import type { ShapedText } from './typesetter.ts';

/** One line as UTF-16 offsets into the text; trailing spaces are left out. */
export interface Line {
  readonly start: number;
  readonly end: number;
  /** With the hyphen of a line that ends at a soft one. */
  readonly widthEm: number;
}

/** Stretches of text that stay together, between two break opportunities. */
interface Chunk {
  readonly start: number;
  /** End of what is visible. */
  readonly end: number;
  /** Where the next chunk starts. */
  readonly next: number;
  readonly forced: boolean;
  /** What a break behind it costs, whatever the widths. */
  readonly breakCost: number;
  /** Width of the hyphen that a break behind it shows, in em. */
  readonly hyphenEm: number;
}

/** Beyond this many chunks lines are filled one after the other: balance no longer shows. */
const MAX_BALANCED_CHUNKS = 160;
/** Raggedness counts as a mean over this many lines at the most: in a long text no line may be much shorter than the others. */
const MAX_AVERAGED_LINES = 2;

/**
 * Breaks a shaped text into the fewest lines that a width allows, then spreads the words so that the lines are balanced,
 * no word stands alone on the last line and no small word hangs at an end, where another break avoids it.
 * @param maxWidthEm width of a line in em of the size it will be set at
 * @returns the lines; one is wider than asked only where a single word is
 */
export function breakLines(shaped: ShapedText, maxWidthEm: number): readonly Line[] {
  const kept = keptLines.get(shaped) ?? new LRUCache<number, readonly Line[]>({ max: MAX_KEPT_WIDTHS });
  keptLines.set(shaped, kept);
  const lines = kept.get(maxWidthEm) ?? breakAfresh(shaped, maxWidthEm);
  kept.set(maxWidthEm, lines);
  return lines;
}

/** Lines of a text by the widths it has been broken at: a setting is costed, measured and set at the same one. */
const keptLines = new WeakMap<ShapedText, LRUCache<number, readonly Line[]>>();
const MAX_KEPT_WIDTHS = 64;

function breakAfresh(shaped: ShapedText, maxWidthEm: number): readonly Line[] {
  const chunks = chunksOf(shaped);
  const lines: Line[] = [];
  for (let first = 0; first < chunks.length; ) {
    let last = first;
    while (last < chunks.length - 1 && !chunks[last]?.forced) last += 1;
    lines.push(...breakParagraph(shaped, chunks.slice(first, last + 1), maxWidthEm));
    first = last + 1;
  }
  return lines;
}

/** How many lines `breakLines` would make; the same filling, without keeping the lines. */
export function countLines(shaped: ShapedText, maxWidthEm: number): number {
  const chunks = chunksOf(shaped);
  let count = chunks.length > 0 ? 1 : 0;
  let opener = chunks[0]?.start ?? 0;
  let fresh = true;
  chunks.forEach((chunk, index) => {
    if (!fresh && widthEm(shaped, opener, chunk.end) + chunk.hyphenEm > maxWidthEm) {
      count += 1;
      opener = chunk.start;
    }
    fresh = false;
    if (chunk.forced && index < chunks.length - 1) {
      count += 1;
      opener = chunk.next;
      fresh = true;
    }
  });
  return count;
}

/** The lines as one who reads them sees them: without soft hyphens, but for one at the end, which is a hyphen. */
export function lineText(text: string, { start, end }: Pick<Line, 'start' | 'end'>): string {
  return text.slice(start, end).replace(/\u00ad$/u, '-').replaceAll(SOFT_HYPHEN, '');
}

/** What the lines of a setting cost, by the rules of setting. */
export function linesCost(shaped: ShapedText, lines: readonly Line[], lostRatio: number): number {
  const byEnd = chunksByEnd(shaped);
  const costed = lines.map((line, index): CostedLine => {
    const closing = byEnd.get(line.end);
    const isFree = index < lines.length - 1 && closing?.forced === false;
    return { width: line.widthEm, words: wordsIn(shaped.text.slice(line.start, line.end)), breakCost: isFree ? closing.breakCost : 0 };
  });
  return settingCost(costed, lostRatio);
}

const byEndCache = new WeakMap<ShapedText, ReadonlyMap<number, Chunk>>();

function chunksByEnd(shaped: ShapedText): ReadonlyMap<number, Chunk> {
  const byEnd = byEndCache.get(shaped) ?? new Map(chunksOf(shaped).map((chunk) => [chunk.end, chunk]));
  byEndCache.set(shaped, byEnd);
  return byEnd;
}

function wordsIn(line: string): number {
  return line.split(/[ \t]+/u).filter((word) => word !== '').length;
}

/** Width in em of the whole text on one line. */
export function lineWidthEm(shaped: ShapedText): number {
  return widthEm(shaped, 0, shaped.text.length);
}

/** Width in em of the widest stretch that cannot be broken. */
export function widestChunkEm(shaped: ShapedText): number {
  let widest = 0;
  for (const chunk of chunksOf(shaped)) widest = Math.max(widest, widthEm(shaped, chunk.start, chunk.end) + chunk.hyphenEm);
  return widest;
}

const chunkCache = new WeakMap<ShapedText, readonly Chunk[]>();

function chunksOf(shaped: ShapedText): readonly Chunk[] {
  const known = chunkCache.get(shaped);
  if (known) return known;
  const stretches: Omit<Chunk, 'breakCost'>[] = [];
  const breaker = new LineBreaker(shaped.text);
  let start = 0;
  for (let stop = breaker.nextBreak(); stop; stop = breaker.nextBreak()) {
    if (stop.position < shaped.text.length && partsStump(shaped.text, start, stop.position)) continue;
    const visible = shaped.text.slice(start, stop.position).trimEnd();
    stretches.push({ start, end: start + visible.length, next: stop.position, forced: stop.required, hyphenEm: visible.endsWith(SOFT_HYPHEN) ? (shaped.hyphen?.advanceEm ?? 0) : 0 });
    start = stop.position;
  }
  const words = stretches.map((each) => shaped.text.slice(each.start, each.end));
  const capitalsMeanNothing = shaped.language === 'de' || words.filter((word) => CAPITAL.test(word)).length > words.length * MOSTLY;
  const chunks = stretches.map((each, index): Chunk => {
    const opensSentence = index === 0 || SENTENCE_END.test(words[index - 1] ?? '') || stretches[index - 1]?.forced === true;
    return { ...each, breakCost: breakCost({ before: words[index] ?? '', after: words[index + 1] ?? '', opensSentence, language: shaped.language, capitalsMeanNothing }) };
  });
  chunkCache.set(shaped, chunks);
  return chunks;
}

/** Letters on either side of a hyphen, dash or slash without spaces that stay together: `Di-Sa`, `8–14`, `e-bike`, `km/h`. */
const MIN_PART_LETTERS = 4;

function partsStump(text: string, start: number, stop: number): boolean {
  if (!/[-\u2010\u2013/]$/u.test(text.slice(start, stop))) return false;
  const before = /(?<![^\s\u2010\u2013/-])[^\s\u2010\u2013/-]*[-\u2010\u2013/]$/u.exec(text.slice(start, stop))?.[0].length ?? 0;
  const after = /^[^\s\u2010\u2013/-]*/u.exec(text.slice(stop))?.[0].length ?? 0;
  return before <= MIN_PART_LETTERS || after < MIN_PART_LETTERS;
}

const CAPITAL = /^\P{L}*\p{Lu}/u;
const SENTENCE_END = /[.!?…]["”’»)\]]*$/u;
/** A text in which more words than this share have capitals has them for their look. */
const MOSTLY = 0.6;

/** Width of what is seen: tracking behind the last glyph is not. */
function widthEm(shaped: ShapedText, start: number, end: number): number {
  return end > start ? (shaped.offsetsEm[end] ?? 0) - (shaped.offsetsEm[start] ?? 0) - shaped.trackingEm : 0;
}

/** First-fit lines, as pairs of chunk indices [first, behind last). */
function fillLines(shaped: ShapedText, chunks: readonly Chunk[], maxWidthEm: number): readonly (readonly [number, number])[] {
  const lines: [number, number][] = [];
  let first = 0;
  chunks.forEach((chunk, index) => {
    const opener = chunks[first];
    if (opener && index > first && widthEm(shaped, opener.start, chunk.end) + chunk.hyphenEm > maxWidthEm) {
      lines.push([first, index]);
      first = index;
    }
    if (chunk.forced && index < chunks.length - 1) {
      lines.push([first, index + 1]);
      first = index + 1;
    }
  });
  if (first < chunks.length) lines.push([first, chunks.length]);
  return lines;
}

function breakParagraph(shaped: ShapedText, chunks: readonly Chunk[], maxWidthEm: number): readonly Line[] {
  const filled = fillLines(shaped, chunks, maxWidthEm);
  const spans = filled.length > 1 && chunks.length <= MAX_BALANCED_CHUNKS ? balance(shaped, chunks, maxWidthEm, filled.length) ?? filled : filled;
  return spans.map(([first, behind]) => {
    const start = chunks[first]?.start ?? 0;
    const closing = chunks[behind - 1];
    const end = closing?.end ?? start;
    return { start, end, widthEm: widthEm(shaped, start, end) + (closing?.hyphenEm ?? 0) };
  });
}

/** The cheapest way to make exactly `lineCount` lines, by dynamic programming; null where a chunk is wider than a line. */
function balance(shaped: ShapedText, chunks: readonly Chunk[], maxWidthEm: number, lineCount: number): readonly (readonly [number, number])[] | null {
  const count = chunks.length;
  const room = { meanEm: widthEm(shaped, chunks[0]?.start ?? 0, chunks[count - 1]?.end ?? 0) / lineCount, maxWidthEm, lineCount };
  let costs = new Float64Array(count + 1).fill(Infinity);
  costs[0] = 0;
  const cameFrom: Int32Array[] = [];
  for (let line = 1; line <= lineCount; line += 1) {
    const next = new Float64Array(count + 1).fill(Infinity);
    const from = new Int32Array(count + 1).fill(-1);
    for (let behind = line; behind <= count; behind += 1) {
      for (let first = behind - 1; first >= line - 1; first -= 1) {
        const width = widthEm(shaped, chunks[first]?.start ?? 0, chunks[behind - 1]?.end ?? 0) + (chunks[behind - 1]?.hyphenEm ?? 0);
        if (width > maxWidthEm) break;
        const cost = (costs[first] ?? Infinity) + lineCost(chunks, first, behind, width, room);
        if (cost < (next[behind] ?? Infinity)) {
          next[behind] = cost;
          from[behind] = first;
        }
      }
    }
    costs = next;
    cameFrom.push(from);
  }
  if (!Number.isFinite(costs[count] ?? Infinity)) return null;
  const spans: [number, number][] = [];
  for (let line = lineCount - 1, behind = count; line >= 0; line -= 1) {
    const first = cameFrom[line]?.[behind] ?? 0;
    spans.unshift([first, behind]);
    behind = first;
  }
  return spans;
}

/** The cost of one line by the rules of setting, with raggedness against the mean, as the widest line is not known yet. */
function lineCost(chunks: readonly Chunk[], first: number, behind: number, width: number, { meanEm, maxWidthEm, lineCount }: LineRoom): number {
  const ragged = ((width - meanEm) / maxWidthEm) ** 2 / Math.min(MAX_AVERAGED_LINES, lineCount - 1);
  const isLast = behind === chunks.length;
  const lost = behind - first === 1 && chunks.length > 2 ? loneWordCost(width / maxWidthEm, isLast, true) : 0;
  return ragged + lost + (isLast ? 0 : (chunks[behind - 1]?.breakCost ?? 0));
}

interface LineRoom {
  readonly meanEm: number;
  readonly maxWidthEm: number;
  readonly lineCount: number;
}
