import { placeLine, type PlacedGlyph } from '../text/visual-line.ts';
import type { Typesetter } from '../text/typesetter.ts';
import type { Box } from '../geometry/box.ts';
import type { TextPart } from '../template/parts.ts';
import type { CutFrame } from './cut-frame.ts';
import { lineOffset } from './ink-boxes.ts';
import { linesIn, type SetText } from './set-text.ts';

/** A glyph of a text where it stands in the cut. */
export interface GlyphPlace {
  readonly glyph: PlacedGlyph;
  readonly xPx: number;
  readonly baselinePx: number;
  readonly line: number;
}

/** A text at its size, in the box that the layout has for it. */
export interface TextAtSize {
  readonly part: TextPart;
  readonly text: SetText;
  readonly sizePx: number;
  readonly box: Box;
}

/** What hangs outside the margin where a line begins, and where it ends: optical margins as Gutenberg set them. */
const HANGS_AT_START = /^[“„«‹‘‚"'—–]/u;
const HANGS_AT_END = /^[”“»›’‘"'—–\-‐.,…،۔]/u;

/** Where the glyphs of a text stand: line by line, each from left to right. */
export function glyphPlaces({ part, text, sizePx, box }: TextAtSize, frame: CutFrame, typesetter: Typesetter): readonly GlyphPlace[] {
  const { shaped, heights } = text;
  return linesIn(text, sizePx, box.widthPx).flatMap((line, index) => {
    const placed = placeLine(shaped, line);
    const freePx = box.widthPx - line.widthEm * sizePx;
    const flushPx = box.xPx + lineOffset(part.align, shaped.baseLevel, freePx);
    const hungPx = part.hanging && part.align !== 'centre' ? hung(placed, { flushPx, lineEm: line.widthEm, sizePx, text, isFlushLeft: flushPx === box.xPx }, frame) : flushPx;
    const startPx = hungPx + backInside(placed, hungPx, sizePx, frame, typesetter);
    const baselinePx = box.yPx + sizePx * (heights.topEm + index * heights.leadingEm);
    return placed.map((glyph) => ({ glyph, xPx: startPx + glyph.xEm * sizePx, baselinePx, line: index }));
  });
}

interface FlushLine {
  readonly flushPx: number;
  readonly lineEm: number;
  readonly sizePx: number;
  readonly text: SetText;
  readonly isFlushLeft: boolean;
}

/** Where a line starts whose punctuation at the flush side stands outside the margin, as far as the safe zone lets it. */
function hung(placed: readonly PlacedGlyph[], { flushPx, lineEm, sizePx, text: { shaped }, isFlushLeft }: FlushLine, { safe, size }: CutFrame): number {
  const [first, second, last] = [placed[0], placed[1], placed.at(-1)];
  if (!first || !second || !last) return flushPx;
  const outer = isFlushLeft ? first : last;
  const isStart = isFlushLeft === (shaped.baseLevel % 2 === 0);
  if (!(isStart ? HANGS_AT_START : HANGS_AT_END).test(shaped.text.slice(outer.cluster))) return flushPx;
  if (isFlushLeft) return Math.max(safe.leftPx, flushPx - second.xEm * sizePx);
  const rightPx = flushPx + lineEm * sizePx;
  return flushPx + Math.max(0, Math.min(size.widthPx - safe.rightPx - rightPx, (lineEm - last.xEm) * sizePx));
}

/** How far a line has to move for the ink that its letters let stand out at its ends to stay inside the safe zone. */
function backInside(placed: readonly PlacedGlyph[], startPx: number, sizePx: number, { safe, size }: CutFrame, typesetter: Typesetter): number {
  const ends = placed.length > 6 ? [...placed.slice(0, 3), ...placed.slice(-3)] : placed;
  let [left, right] = [Infinity, -Infinity];
  for (const glyph of ends) {
    const reach = typesetter.glyphReach(glyph.fontKey, glyph.id);
    left = Math.min(left, startPx + (glyph.xEm + reach.leftEm) * sizePx);
    right = Math.max(right, startPx + (glyph.xEm + reach.rightEm) * sizePx);
  }
  const [before, behind] = [safe.leftPx - left, right - (size.widthPx - safe.rightPx)];
  // Only overhang is corrected here; the fit reports what is far outside.
  if (before > 0 && before < sizePx / 4) return before;
  return behind > 0 && behind < sizePx / 4 ? -behind : 0;
}
