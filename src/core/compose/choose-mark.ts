import { contrastOfLuminances, relativeLuminance } from '../colour/contrast.ts';
import type { BrandBook, BrandMark } from '../brand/brand-book.ts';
import { outerColours } from '../brand/mark-parts.ts';
import { worstContrast, type LuminanceRange } from './backdrop.ts';

/** How much the main colour of a mark counts against its weakest. */
const MAIN_COLOUR_WEIGHT = 0.3;
/** A part that stands out by less than this cannot be seen. */
const MIN_SEEN_CONTRAST = 1.25;

/** The mark for a place, and the colour of the plate that it stands on where nothing behind it would show all of it. */
export interface ChosenMark {
  readonly mark: BrandMark;
  readonly plate: string | null;
}

/** The contrast of the part of a mark that stands out least from what lies behind it. */
export const weakest = (mark: BrandMark, behind: LuminanceRange): number => Math.min(...outerColours(mark).map((colour) => worstContrast(colour, behind)));

/**
 * The mark that stands out most from what really lies behind it. The weakest of the parts that meet the ground decides, as a panel that melts into
 * the ground changes the mark; the main colour settles what is close. On a plain ground that swallows a part of every mark, it stands on a plate
 * in one of the brand's colours. Over a photograph something always is as light as a part of it: the mark is taken that most of its ground shows
 * best, on a plate where that ground swallows a part of every mark.
 * @param typical the mean luminance of what lies behind it; null where that is not known
 * @param plates colours that a plate may have
 */
export function chooseMark(book: Pick<BrandBook, 'marks'>, behind: LuminanceRange, typical: number | null, plates: readonly string[]): ChosenMark {
  const rate = (mark: BrandMark, ground: LuminanceRange): number => weakest(mark, ground) + MAIN_COLOUR_WEIGHT * worstContrast(outerColours(mark)[0] ?? '#000000', ground);
  const bestOn = (ground: LuminanceRange): BrandMark => book.marks.reduce((best, mark) => (rate(mark, ground) > rate(best, ground) ? mark : best));
  const mark = bestOn(behind);
  const isPlain = contrastOfLuminances(behind.least, behind.most) < MIN_SEEN_CONTRAST;
  if (weakest(mark, behind) >= MIN_SEEN_CONTRAST) return { mark, plate: null };
  if (!isPlain) {
    const mostly = typical === null ? behind : { least: typical, most: typical };
    const own = bestOn(mostly);
    if (typical === null || weakest(own, mostly) >= MIN_SEEN_CONTRAST) return { mark: own, plate: null };
  }
  const pairs = plates.map((plate) => {
    const luminance = relativeLuminance(plate);
    const ground = { least: luminance, most: luminance };
    const own = bestOn(ground);
    return { mark: own, plate, seen: weakest(own, ground) };
  });
  const [first] = pairs.toSorted((a, b) => b.seen - a.seen);
  return first && first.seen > MIN_SEEN_CONTRAST ? { mark: first.mark, plate: first.plate } : { mark, plate: null };
}

/** Shapes that differ by less than this share take the same room. */
const SAME_SHAPE = 0.05;

/** Whether two marks take the same room of a layout. */
export function isAlike(mark: BrandMark, other: BrandMark): boolean {
  const aspectOf = ({ viewBox }: BrandMark): number => viewBox.width / viewBox.height;
  return Math.abs(aspectOf(mark) / aspectOf(other) - 1) < SAME_SHAPE && mark.leastHeightPx === other.leastHeightPx;
}
