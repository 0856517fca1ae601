import type { Box } from '../geometry/box.ts';
import type { SlidePlace } from '../piece/slides-of-cut.ts';
import type { DotsPart } from '../template/parts.ts';

/** Room between dots, as a share of a dot. */
const DOT_GAP = 0.75;

/** Width of a row of dots, in pixels. */
export function dotsWidthPx({ heightM }: Pick<DotsPart, 'heightM'>, { count }: SlidePlace, marginPx: number): number {
  return heightM * marginPx * (count + (count - 1) * DOT_GAP);
}

/** Outlines of a row of dots in its box, the first one first. */
export function dotPaths({ xPx, yPx, heightPx }: Box, count: number): readonly string[] {
  const radius = heightPx / 2;
  return Array.from({ length: count }, (_, index) => {
    const left = xPx + index * heightPx * (1 + DOT_GAP);
    return `M${left} ${yPx + radius}a${radius} ${radius} 0 1 0 ${heightPx} 0a${radius} ${radius} 0 1 0 ${-heightPx} 0Z`;
  });
}

/** Width of the arrow divided by its height. */
export const SWIPE_ASPECT = 1.7;

/** An arrow to the right that fills its box: a shaft and two barbs of one thickness. */
export function arrowPath({ xPx, yPx, widthPx, heightPx }: Box): string {
  const stroke = heightPx * 0.16;
  const [right, middle] = [xPx + widthPx, yPx + heightPx / 2];
  const barb = heightPx / 2 - stroke / 2;
  const slope = stroke * Math.SQRT1_2;
  const points: readonly (readonly [number, number])[] = [
    [xPx, middle - stroke / 2],
    [right - stroke * 1.2, middle - stroke / 2],
    [right - barb - slope, yPx + slope],
    [right - barb, yPx],
    [right, middle],
    [right - barb, yPx + heightPx],
    [right - barb - slope, yPx + heightPx - slope],
    [right - stroke * 1.2, middle + stroke / 2],
    [xPx, middle + stroke / 2],
  ];
  return `M${points.map(([x, y]) => `${x} ${y}`).join('L')}Z`;
}
