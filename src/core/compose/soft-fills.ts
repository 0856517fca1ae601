import { boxContains, type Box } from '../geometry/box.ts';
import type { FadeStop, LineFade } from '../scene/fade.ts';
import type { FillNode } from '../scene/scene.ts';
import type { Edge } from '../template/parts.ts';
import { rectPath } from './part-outlines.ts';

/** Stops of a soft edge: between two of them nobody sees a corner of the curve. */
const STOPS = 17;

/**
 * How much a soft edge hides at a share of its way: steep in the middle, gentle at both ends.
 * @param share what it hides where it is whole, which bends the curve as overlaid veils would
 * @returns as a share of `share`
 */
function hiddenAt(way: number, share: number): number {
  const left = (1 + Math.cos(Math.PI * way)) / 2;
  return (1 - (1 - share) ** left) / share;
}

/** How much of its way a soft edge has gone where it hides no more than `hidden` of what lies below it. */
export function wayTo(hidden: number, share: number): number {
  if (hidden >= share) return 0;
  const left = Math.log(1 - hidden) / Math.log(1 - share);
  return Math.acos(2 * left - 1) / Math.PI;
}

/** The curve from whole to nothing, between two places of a fade. */
function curve(share: number, { from, to }: { readonly from: number; readonly to: number }): readonly FadeStop[] {
  return Array.from({ length: STOPS }, (_, index): FadeStop => {
    const way = index / (STOPS - 1);
    return { at: from + (to - from) * way, share: hiddenAt(way, share) };
  });
}

/** How far a colour that comes in from an edge is even, and how far beyond that it fades. */
export interface FadeReach {
  readonly solidPx: number;
  readonly fadePx: number;
}

/** How much a fade from an edge of a box hides in a region, at least and at most. */
export function sharesOfFade(box: Box, edge: Edge, { solidPx, fadePx }: FadeReach, share: number): (region: Box) => readonly [number, number] {
  const at = (awayPx: number): number => (awayPx >= solidPx + fadePx ? 0 : share * hiddenAt(Math.max(0, awayPx - solidPx) / fadePx, share));
  return (region) => {
    const before = { top: region.yPx - box.yPx, left: region.xPx - box.xPx, bottom: box.yPx + box.heightPx - region.yPx - region.heightPx, right: box.xPx + box.widthPx - region.xPx - region.widthPx }[edge];
    const lengthPx = edge === 'top' || edge === 'bottom' ? region.heightPx : region.widthPx;
    return [at(before + lengthPx), at(before)];
  };
}

/** A colour that comes in from one edge of a box, even as far as `solidPx` and gone at `solidPx + fadePx`. */
export function fadeFromEdge(box: Box, edge: Edge, { solidPx, fadePx }: FadeReach, colour: string, share: number): FillNode {
  const reachPx = solidPx + fadePx;
  return { kind: 'fill', path: rectPath(box), colour, alpha: share, fade: { kind: 'line', ...wayFrom(box, edge, reachPx), stops: curve(share, { from: solidPx / reachPx, to: 1 }) } };
}

/** A way of a length from an edge into its box. */
function wayFrom({ xPx, yPx, widthPx, heightPx }: Box, edge: Edge, lengthPx: number): Pick<LineFade, 'from' | 'to'> {
  const corner = { xPx, yPx };
  switch (edge) {
    case 'top':
      return { from: corner, to: { xPx, yPx: yPx + lengthPx } };
    case 'bottom':
      return { from: { xPx, yPx: yPx + heightPx }, to: { xPx, yPx: yPx + heightPx - lengthPx } };
    case 'left':
      return { from: corner, to: { xPx: xPx + lengthPx, yPx } };
    case 'right':
      return { from: { xPx: xPx + widthPx, yPx }, to: { xPx: xPx + widthPx - lengthPx, yPx } };
  }
}

/** A round opening: nothing is hidden within `clearPx` of its middle, all of it beyond `endPx`. */
export interface Opening {
  readonly xPx: number;
  readonly yPx: number;
  readonly clearPx: number;
  readonly endPx: number;
}

/** How much a colour with a round opening hides at a distance from the opening's middle. */
export function hiddenAround({ clearPx, endPx }: Opening, awayPx: number, share: number): number {
  return share * hiddenAt(Math.min(1, Math.max(0, (endPx - awayPx) / (endPx - clearPx))), share);
}

/** How much a colour with a round opening hides in a region of its box, at least and at most: nothing at least where the region leaves the box. */
export function sharesAround(box: Box, opening: Opening, share: number): (region: Box) => readonly [number, number] {
  return (region) => {
    const [right, bottom] = [region.xPx + region.widthPx, region.yPx + region.heightPx];
    const near = Math.hypot(Math.max(region.xPx - opening.xPx, 0, opening.xPx - right), Math.max(region.yPx - opening.yPx, 0, opening.yPx - bottom));
    const far = Math.hypot(Math.max(opening.xPx - region.xPx, right - opening.xPx), Math.max(opening.yPx - region.yPx, bottom - opening.yPx));
    return [boxContains(box, region, 1) ? hiddenAround(opening, near, share) : 0, hiddenAround(opening, far, share)];
  };
}

/** A colour over a whole box with a soft round opening. */
export function fadeAround(box: Box, { xPx, yPx, clearPx, endPx }: Opening, colour: string, share: number): FillNode {
  const stops = curve(share, { from: 1, to: clearPx / endPx }).toReversed();
  return { kind: 'fill', path: rectPath(box), colour, alpha: share, fade: { kind: 'round', middle: { xPx, yPx }, radiusPx: endPx, stops } };
}
