import type { Box } from '../geometry/box.ts';
import type { FillNode } from '../scene/scene.ts';
import type { Edge } from '../template/parts.ts';
import { rectPath } from './part-outlines.ts';

/** Steps of a soft edge: each is too faint to be seen by itself. */
const STEPS = 28;

/** The opacity of one step, so that all steps together hide `share`. */
const shareOfStep = (share: number): number => 1 - (1 - share) ** (1 / STEPS);

/** How far along a soft edge a step ends, in [0, 1]: steep in the middle, gentle at both ends. */
const reachOfStep = (index: number): number => Math.acos(1 - (2 * (index + 0.5)) / STEPS) / Math.PI;

/**
 * A colour that comes in from one edge of a box, even as far as `solidPx` and gone at `solidPx + fadePx`. It is made of plain fills
 * over one another, so that a canvas, a PDF and an SVG show the same.
 */
export function fadeFromEdge(box: Box, edge: Edge, { solidPx, fadePx }: { readonly solidPx: number; readonly fadePx: number }, colour: string, share: number): readonly FillNode[] {
  return Array.from({ length: STEPS }, (_, index): FillNode => {
    const reachPx = solidPx + fadePx * reachOfStep(index);
    return { kind: 'fill', path: rectPath(stripOf(box, edge, reachPx)), colour, alpha: shareOfStep(share) };
  });
}

function stripOf(box: Box, edge: Edge, reachPx: number): Box {
  const [widthPx, heightPx] = [Math.min(box.widthPx, reachPx), Math.min(box.heightPx, reachPx)];
  switch (edge) {
    case 'top':
      return { ...box, heightPx };
    case 'bottom':
      return { ...box, yPx: box.yPx + box.heightPx - heightPx, heightPx };
    case 'left':
      return { ...box, widthPx };
    case 'right':
      return { ...box, xPx: box.xPx + box.widthPx - widthPx, widthPx };
  }
}

/** A round opening: nothing is hidden within `clearPx` of its middle, all of it beyond `endPx`. */
export interface Opening {
  readonly xPx: number;
  readonly yPx: number;
  readonly clearPx: number;
  readonly endPx: number;
}

/** A colour over a whole box with a soft round opening. */
export function fadeAround(box: Box, { xPx, yPx, clearPx, endPx }: Opening, colour: string, share: number): readonly FillNode[] {
  return Array.from({ length: STEPS }, (_, index): FillNode => {
    const radius = clearPx + (endPx - clearPx) * reachOfStep(index);
    // The circle runs against the direction of the box, so the nonzero rule cuts it out.
    const hole = `M${(xPx - radius).toFixed(2)} ${yPx.toFixed(2)}A${radius.toFixed(2)} ${radius.toFixed(2)} 0 1 0 ${(xPx + radius).toFixed(2)} ${yPx.toFixed(2)}A${radius.toFixed(2)} ${radius.toFixed(2)} 0 1 0 ${(xPx - radius).toFixed(2)} ${yPx.toFixed(2)}Z`;
    return { kind: 'fill', path: `${rectPath(box)}${hole}`, colour, alpha: shareOfStep(share) };
  });
}
