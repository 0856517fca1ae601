import type { SlidePlace } from '../../core/piece/slides-of-cut.ts';
import type { Placement } from '../../core/network/network-sheet.ts';

const shape = (key: string, name: string, width: number, height: number, safe: readonly [number, number, number, number]): Placement => ({
  key,
  name,
  surface: key,
  exportPx: { width, height },
  safePercent: { top: safe[0], right: safe[1], bottom: safe[2], left: safe[3] },
});

/** Slides are looked at as the third of seven, as their samples say. */
export const SAMPLE_PLACE: SlidePlace = { index: 2, count: 7, ordinal: 3 };

/** The shapes that a template is judged in, from the tallest to the widest, with the safe zones that networks ask for. */
export const workshopShapes: readonly Placement[] = [
  shape('tall', '9:16', 1080, 1920, [14, 6, 20, 6]),
  shape('card', '4:5', 1080, 1350, [4, 4, 4, 4]),
  shape('square', '1:1', 1080, 1080, [4, 4, 4, 4]),
  shape('screen', '4:3', 1200, 900, [4, 4, 4, 4]),
  shape('wide', '1.91:1', 1200, 630, [4, 4, 4, 4]),
];
