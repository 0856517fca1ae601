import svgpath from 'svgpath';
import type { Box } from '../geometry/box.ts';
import type { MotifShape } from './motif-shape.ts';

/** How a drawing is turned around the middle of its box: left becomes right, or above becomes below. */
export interface Mirror {
  readonly isAcross: boolean;
  readonly isUpDown: boolean;
}

/** A drawing turned around the middle of its box. */
export function mirrored(shapes: readonly MotifShape[], box: Box, mirror: Mirror | undefined): readonly MotifShape[] {
  if (!mirror || (!mirror.isAcross && !mirror.isUpDown)) return shapes;
  const [sumX, sumY] = [2 * box.xPx + box.widthPx, 2 * box.yPx + box.heightPx];
  const [scaleX, scaleY] = [mirror.isAcross ? -1 : 1, mirror.isUpDown ? -1 : 1];
  const [moveX, moveY] = [mirror.isAcross ? sumX : 0, mirror.isUpDown ? sumY : 0];
  const turned = (each: Box): Box => ({ ...each, xPx: mirror.isAcross ? sumX - each.xPx - each.widthPx : each.xPx, yPx: mirror.isUpDown ? sumY - each.yPx - each.heightPx : each.yPx });
  return shapes.map(({ path, ink, boxes }) => ({ path: svgpath(path).scale(scaleX, scaleY).translate(moveX, moveY).toString(), ink, boxes: boxes.map(turned) }));
}
