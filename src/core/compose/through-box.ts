import type { Box } from '../geometry/box.ts';
import type { SlidePlace } from '../piece/slides-of-cut.ts';

/** The box of a part that runs through all slides, seen from one of them. */
export function throughBox(box: Box, slideWidthPx: number, { index, count }: SlidePlace): Box {
  return { ...box, xPx: -index * slideWidthPx, widthPx: count * slideWidthPx };
}
