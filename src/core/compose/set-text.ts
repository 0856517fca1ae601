import type { BrandBook, TypeRole } from '../brand/brand-book.ts';
import { breakLines, countLines, lineWidthEm, widestChunkEm, type Line } from '../text/break-lines.ts';
import { featuresFor } from '../text/font-features.ts';
import { fontKeysFor, fontShelf } from '../text/font-shelf.ts';
import { opticalSizeOf } from '../text/optical-size.ts';
import type { FontHeights, ShapedText, Typesetter } from '../text/typesetter.ts';
import type { TextPart } from '../template/parts.ts';
import type { BoundText } from './bind.ts';
import { standsInColumn } from './expand.ts';
import { leastTypePx, type CutFrame } from './cut-frame.ts';

/** Room of the lines of a text, in em: above the first baseline, below the last, and from one to the next. */
export interface LineHeights {
  readonly topEm: number;
  readonly bottomEm: number;
  readonly leadingEm: number;
}

/** A text part shaped once, with the range of sizes it may take in this cut. */
export interface SetText {
  readonly part: TextPart;
  readonly role: TypeRole;
  readonly shaped: ShapedText;
  readonly heights: LineHeights;
  readonly ghost: boolean;
  readonly maxPx: number;
  readonly minPx: number;
  /** Whether its largest size is that of other slides: it takes no smaller one for better lines then. */
  readonly isCapped: boolean;
}

/** What a text is set in: the brand's type, the cut, and the steps by which a person wants it larger or smaller. */
export interface TypeSetting {
  readonly book: BrandBook;
  readonly frame: CutFrame;
  readonly textStep: number;
  /** The share of a template's least sizes down to which texts may shrink; never below what one can read. */
  readonly leastShare?: number | undefined;
  /** Slots whose long words may be parted by the hyphenation of the brand's language. */
  readonly hyphenated: ReadonlySet<string>;
}

/** A step up or down changes the largest size by this factor: enough to see. */
const STEP_FACTOR = 1.12;

/** Shapes the text of a part in the brand's typeface for its role. */
export function setText(part: TextPart, bound: BoundText, { book, frame, textStep, leastShare = 1, hyphenated }: TypeSetting, typesetter: Typesetter): SetText {
  const role = book.type[part.role];
  const whole = hyphenated.has(part.slot) && book.language !== undefined ? typesetter.hyphenate(bound.text, book.language) : bound.text;
  const text = role.capitals === 'all' ? whole.toUpperCase() : whole;
  const [main, ...helpers] = fontKeysFor(text, role.font, fontWeight(book, role.font));
  const font = typesetter.drawnFor(main, opticalSizeOf(part.role));
  const features = featuresFor(text, { figures: role.figures ?? 'as-drawn', isColumn: standsInColumn(part.slot), isCapitals: role.capitals === 'all', trackingEm: role.trackingEm, ligatures: role.ligatures ?? true, language: book.language });
  const shaped = typesetter.shape(text, [font, ...helpers], role.trackingEm, book.language, features);
  const minPx = Math.max(part.sizeM.min * leastShare * frame.marginPx * Math.min(1, role.scale), leastTypePx(frame, part.role));
  return {
    part,
    role,
    shaped,
    heights: lineHeights(shaped, typesetter.heightsOf(font), role),
    ghost: bound.ghost,
    isCapped: false,
    minPx,
    maxPx: Math.max(minPx, part.sizeM.max * frame.marginPx * role.scale * (isLeading(part) ? STEP_FACTOR ** textStep : 1)),
  };
}

/** The weight of a typeface of the shelf or of the brand's own; 400 where nothing is known of it. */
export function fontWeight(book: Pick<BrandBook, 'typefaces'>, fontKey: string): number {
  const isIt = ({ key }: { readonly key: string }): boolean => key === fontKey;
  return (book.typefaces.find(isIt) ?? fontShelf.find(isIt))?.weight ?? 400;
}

/** A hair between the deepest ink of one line and the highest of the next. */
const MIN_LINE_GAP_EM = 0.02;

/** The typeface's own heights, widened by ink that reaches further: accents, ascenders, other scripts. */
function lineHeights(shaped: ShapedText, font: FontHeights, role: TypeRole): LineHeights {
  return {
    topEm: Math.max(font.capEm, shaped.inkTopEm),
    bottomEm: Math.max(font.descentEm, shaped.inkBottomEm),
    leadingEm: Math.max(role.leading, shaped.inkTopEm + shaped.inkBottomEm + MIN_LINE_GAP_EM),
  };
}

/** Steps change what leads; small texts stay at their reading size. */
function isLeading(part: TextPart): boolean {
  return part.role === 'display' || part.role === 'heading';
}

/**
 * Height of a set text from the highest ink of its first line to the deepest of its last.
 * @returns pixels
 */
export function textHeightPx(text: SetText, sizePx: number, lineCount: number): number {
  return sizePx * (text.heights.topEm + (lineCount - 1) * text.heights.leadingEm + text.heights.bottomEm);
}

/**
 * The size a text is really set at: a filling text as large as its one line fits into the width, but no larger than the
 * size that was found for it; any other text at that size.
 */
export function sizeInWidth(text: SetText, sizePx: number, widthPx: number): number {
  const lineEm = lineWidthEm(text.shaped);
  return text.part.fill && lineEm > 0 && Number.isFinite(widthPx) ? Math.min(sizePx, widthPx / lineEm) : sizePx;
}

/** Lines a text takes in a width; cheap, for measuring. */
export function lineCountIn(text: SetText, sizePx: number, widthPx: number): number {
  return text.part.fill ? 1 : countLines(text.shaped, widthPx / sizePx);
}

export function linesIn(text: SetText, sizePx: number, widthPx: number): readonly Line[] {
  return breakLines(text.shaped, text.part.fill ? Infinity : widthPx / sizePx);
}

/** Width in pixels below which a text would have to break a word. */
export function widestWordPx(text: SetText, sizePx: number): number {
  return widestChunkEm(text.shaped) * sizePx;
}
