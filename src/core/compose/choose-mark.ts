import { coloursOfMark } from '../brand/best-ground.ts';
import type { BrandBook, BrandMark } from '../brand/brand-book.ts';
import type { Box } from '../geometry/box.ts';
import { worstContrast, type Backdrop } from './backdrop.ts';

/** How much the main colour of a mark counts against its weakest. */
const MAIN_COLOUR_WEIGHT = 0.3;

/**
 * The mark that stands out most from what really lies behind it. Its weakest colour decides, as a panel that melts into
 * the ground changes the mark; its main colour settles what is close.
 */
export function chooseMark(book: BrandBook, backdrop: Backdrop, box: Box): BrandMark {
  const behind = backdrop.behind(box);
  const rate = (mark: BrandMark): number => {
    const ratios = coloursOfMark(mark).map((colour) => worstContrast(colour, behind));
    return Math.min(...ratios) + MAIN_COLOUR_WEIGHT * (ratios[0] ?? 1);
  };
  return book.marks.reduce((best, mark) => (rate(mark) > rate(best) ? mark : best));
}
