import type { Box } from '../geometry/box.ts';
import type { SlidePlace } from '../piece/slides-of-cut.ts';

/**
 * The box of a part that runs through all slides, seen from one of them. A part that takes the whole width of its slide goes on at the
 * seam; one beside a column of words goes on behind that column, as a view does behind the post between two windows: nothing of it is hidden.
 */
export function throughBox(box: Box, { index, count }: SlidePlace): Box {
  return { ...box, xPx: box.xPx - index * box.widthPx, widthPx: count * box.widthPx };
}
