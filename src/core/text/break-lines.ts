import LineBreaker from 'linebreak';
import type { ShapedText } from './typesetter.ts';

/** One line as UTF-16 offsets into the text; trailing spaces are left out. */
export interface Line {
  readonly start: number;
  readonly end: number;
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
}

/** Beyond this many chunks lines are filled one after the other: balance no longer shows. */
const MAX_BALANCED_CHUNKS = 160;
/** Small words that should not be left hanging at a line's end (articles, prepositions, conjunctions). */
const HANGING = new Set('a an the of to in on at by for and or but as is we i my our your le la les un une de du des à et der die das ein eine und zu in im'.split(' '));
/** Costs beside the squared raggedness of lines, whose unit is the squared line width. */
const HANGING_COST = 0.03;
const LONE_WORD_COST = 0.25;
/** A break inside a hyphenated word, and a short word that has a line to itself. */
const HYPHEN_COST = 0.3;
const SHORT_LINE_COST = 0.1;
const SHORT_LINE_SHARE = 0.4;

/**
 * Breaks a shaped text into the fewest lines that a width allows, then spreads the words so that the lines are balanced,
 * no word stands alone on the last line and no small word hangs at an end, where another break avoids it.
 * @param maxWidthEm width of a line in em of the size it will be set at
 * @returns the lines; one is wider than asked only where a single word is
 */
export function breakLines(shaped: ShapedText, maxWidthEm: number): readonly Line[] {
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
    if (!fresh && widthEm(shaped, opener, chunk.end) > maxWidthEm) {
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

/** Width in em of the widest stretch that cannot be broken. */
export function widestChunkEm(shaped: ShapedText): number {
  let widest = 0;
  for (const chunk of chunksOf(shaped)) widest = Math.max(widest, widthEm(shaped, chunk.start, chunk.end));
  return widest;
}

const chunkCache = new WeakMap<ShapedText, readonly Chunk[]>();

function chunksOf(shaped: ShapedText): readonly Chunk[] {
  const known = chunkCache.get(shaped);
  if (known) return known;
  const chunks: Chunk[] = [];
  const breaker = new LineBreaker(shaped.text);
  let start = 0;
  for (let stop = breaker.nextBreak(); stop; stop = breaker.nextBreak()) {
    const visible = shaped.text.slice(start, stop.position).trimEnd();
    chunks.push({ start, end: start + visible.length, next: stop.position, forced: stop.required });
    start = stop.position;
  }
  chunkCache.set(shaped, chunks);
  return chunks;
}

function widthEm(shaped: ShapedText, start: number, end: number): number {
  return (shaped.offsetsEm[end] ?? 0) - (shaped.offsetsEm[start] ?? 0);
}

/** First-fit lines, as pairs of chunk indices [first, behind last). */
function fillLines(shaped: ShapedText, chunks: readonly Chunk[], maxWidthEm: number): readonly (readonly [number, number])[] {
  const lines: [number, number][] = [];
  let first = 0;
  chunks.forEach((chunk, index) => {
    const opener = chunks[first];
    if (opener && index > first && widthEm(shaped, opener.start, chunk.end) > maxWidthEm) {
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
    const end = chunks[behind - 1]?.end ?? start;
    return { start, end, widthEm: widthEm(shaped, start, end) };
  });
}

/** The cheapest way to make exactly `lineCount` lines, by dynamic programming; null where a chunk is wider than a line. */
function balance(shaped: ShapedText, chunks: readonly Chunk[], maxWidthEm: number, lineCount: number): readonly (readonly [number, number])[] | null {
  const count = chunks.length;
  const meanEm = widthEm(shaped, chunks[0]?.start ?? 0, chunks[count - 1]?.end ?? 0) / lineCount;
  let costs = new Float64Array(count + 1).fill(Infinity);
  costs[0] = 0;
  const cameFrom: Int32Array[] = [];
  for (let line = 1; line <= lineCount; line += 1) {
    const next = new Float64Array(count + 1).fill(Infinity);
    const from = new Int32Array(count + 1).fill(-1);
    for (let behind = line; behind <= count; behind += 1) {
      for (let first = behind - 1; first >= line - 1; first -= 1) {
        const width = widthEm(shaped, chunks[first]?.start ?? 0, chunks[behind - 1]?.end ?? 0);
        if (width > maxWidthEm) break;
        const cost = (costs[first] ?? Infinity) + lineCost(shaped, chunks, first, behind, width, meanEm, maxWidthEm);
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

function lineCost(shaped: ShapedText, chunks: readonly Chunk[], first: number, behind: number, width: number, meanEm: number, maxWidthEm: number): number {
  const ragged = ((width - meanEm) / maxWidthEm) ** 2;
  const alone = behind - first === 1;
  if (behind === chunks.length) return ragged + (alone && chunks.length > 2 ? LONE_WORD_COST : 0);
  const closing = chunks[behind - 1];
  const word = closing ? shaped.text.slice(closing.start, closing.end).toLowerCase() : '';
  return ragged + (HANGING.has(word) ? HANGING_COST : 0) + (/[-\u2010]$/u.test(word) ? HYPHEN_COST : 0) + (alone && width < maxWidthEm * SHORT_LINE_SHARE ? SHORT_LINE_COST : 0);
}
