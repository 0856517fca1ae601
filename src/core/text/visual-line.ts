import type { Line } from './break-lines.ts';
import { SOFT_HYPHEN } from './hyphenation.ts';
import type { Glyph, GlyphRun, ShapedText } from './typesetter.ts';

/** A glyph at its place on a line; `xEm` counts from the line's left edge. */
export interface PlacedGlyph {
  readonly fontKey: string;
  readonly id: number;
  /** The UTF-16 offset of the text that it stands for. */
  readonly cluster: number;
  readonly xEm: number;
  readonly yEm: number;
}

/**
 * The glyphs of one line from left to right, with runs reordered by their bidi levels.
 * @see https://www.unicode.org/reports/tr9/#L2
 */
export function placeLine(shaped: ShapedText, line: Line): readonly PlacedGlyph[] {
  const placed: PlacedGlyph[] = [];
  let penEm = 0;
  for (const { run, glyphs } of visualRuns(shaped, line)) {
    for (const glyph of glyphs) {
      placed.push({ fontKey: run.fontKey, id: glyph.id, cluster: glyph.cluster, xEm: penEm + glyph.dxEm, yEm: glyph.dyEm });
      penEm += glyph.advanceEm;
    }
  }
  const { hyphen } = shaped;
  if (hyphen && shaped.text.slice(line.start, line.end).endsWith(SOFT_HYPHEN)) placed.push({ fontKey: hyphen.fontKey, id: hyphen.id, cluster: line.end - 1, xEm: penEm, yEm: 0 });
  return placed;
}

interface RunOnLine {
  readonly run: GlyphRun;
  readonly glyphs: readonly Glyph[];
}

function visualRuns(shaped: ShapedText, line: Line): readonly RunOnLine[] {
  const order: RunOnLine[] = shaped.runs
    .map((run) => ({ run, glyphs: run.glyphs.filter((glyph) => glyph.cluster >= line.start && glyph.cluster < line.end) }))
    .filter(({ glyphs }) => glyphs.length > 0);
  const highest = Math.max(0, ...order.map(({ run }) => run.level));
  for (let level = highest; level >= 1; level -= 1) reverseStretches(order, (each) => each.run.level >= level);
  return order;
}

/** Reverses, in place, every unbroken stretch of elements that satisfy `inside`. */
function reverseStretches<Element>(list: Element[], inside: (element: Element) => boolean): void {
  for (let start = 0; start < list.length; start += 1) {
    let end = start;
    while (end < list.length && inside(list[end] as Element)) end += 1;
    if (end - start > 1) list.splice(start, end - start, ...list.slice(start, end).reverse());
    start = Math.max(start, end - 1);
  }
}
