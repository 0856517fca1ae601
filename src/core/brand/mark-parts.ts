import { pathBox } from '../artwork/path-box.ts';
import { contrastRatio } from '../colour/contrast.ts';
import type { Box } from '../geometry/box.ts';
import type { BrandMark, VectorMark } from './brand-book.ts';

type MarkPath = VectorMark['paths'][number];

const known = new WeakMap<BrandMark, readonly string[]>();

/**
 * The colours of a mark that meet what lies behind it, the main one first. A part that lies on a solid part of the mark, as a letter on a
 * disc, is seen against that and not against the ground.
 */
export function outerColours(mark: BrandMark): readonly string[] {
  if (mark.kind !== 'vector') return [mark.mainColour];
  const before = known.get(mark);
  if (before) return before;
  const boxes = mark.paths.map(({ d }) => pathBox(d));
  const outer = mark.paths.filter((_, index) => !mark.paths.slice(0, index).some((under, at) => isSolid(under) && contains(boxes[at], boxes[index]))).map(({ fill }) => fill);
  known.set(mark, outer);
  return outer;
}

/** One closed outline has no hole through which the ground could be seen. */
function isSolid({ d }: MarkPath): boolean {
  return (d.match(/m/gi)?.length ?? 0) === 1;
}

function contains(outer: Box | null | undefined, inner: Box | null | undefined): boolean {
  if (!outer || !inner) return false;
  return inner.xPx >= outer.xPx && inner.yPx >= outer.yPx && inner.xPx + inner.widthPx <= outer.xPx + outer.widthPx && inner.yPx + inner.heightPx <= outer.yPx + outer.heightPx;
}

/** Two parts of a mark that stand out from each other by less than this run together. */
const MIN_PART_CONTRAST = 1.5;

/**
 * A form of a mark whose main colour is another one. Parts that the new colour would swallow take the old main colour in return, so that what
 * could be told apart can be told apart again: a light drawing on a dark disc becomes a dark one on a light disc.
 */
export function withMainColour(mark: VectorMark, colour: string): VectorMark {
  const main = mark.paths[0]?.fill ?? colour;
  const recolour = (fill: string): string => (fill === main ? colour : contrastRatio(fill, colour) < MIN_PART_CONTRAST ? main : fill);
  return { ...mark, paths: mark.paths.map((path) => ({ ...path, fill: recolour(path.fill) })) };
}
