import type { BrandBook, TypeRole } from '../brand/brand-book.ts';
import { breakLines, countLines, widestChunkEm, type Line } from '../text/break-lines.ts';
import { fallbackFontKeys } from '../text/font-shelf.ts';
import type { FontHeights, ShapedText, Typesetter } from '../text/typesetter.ts';
import type { TextPart } from '../template/template.ts';
import type { BoundText } from './bind.ts';
import { leastTypePx, type CutFrame } from './cut-frame.ts';

/** A text part shaped once, with the range of sizes it may take in this cut. */
export interface SetText {
  readonly part: TextPart;
  readonly role: TypeRole;
  readonly shaped: ShapedText;
  readonly heights: FontHeights;
  readonly ghost: boolean;
  readonly maxPx: number;
  readonly minPx: number;
}

/** Shapes the text of a part in the brand's typeface for its role. */
export function setText(part: TextPart, bound: BoundText, book: BrandBook, frame: CutFrame, typesetter: Typesetter): SetText {
  const role = book.type[part.role];
  const text = role.capitals === 'all' ? bound.text.toUpperCase() : bound.text;
  const fontKeys = [role.font, ...fallbackFontKeys.filter((key) => key !== role.font)];
  const minPx = Math.max(part.sizeM.min * frame.marginPx, leastTypePx(frame, part.role));
  return {
    part,
    role,
    shaped: typesetter.shape(text, fontKeys, role.trackingEm),
    heights: typesetter.heightsOf(role.font),
    ghost: bound.ghost,
    minPx,
    maxPx: Math.max(minPx, part.sizeM.max * frame.marginPx),
  };
}

/**
 * Height of a set text from the top of its capitals to the descenders of its last line.
 * @returns pixels
 */
export function textHeightPx(text: SetText, sizePx: number, lineCount: number): number {
  return sizePx * (text.heights.capEm + (lineCount - 1) * text.role.leading + text.heights.descentEm);
}

/** Lines a text takes in a width; cheap, for measuring. */
export function lineCountIn(text: SetText, sizePx: number, widthPx: number): number {
  return countLines(text.shaped, widthPx / sizePx);
}

export function linesIn(text: SetText, sizePx: number, widthPx: number): readonly Line[] {
  return breakLines(text.shaped, widthPx / sizePx);
}

/** Width in pixels below which a text would have to break a word. */
export function widestWordPx(text: SetText, sizePx: number): number {
  return widestChunkEm(text.shaped) * sizePx;
}
