import svgpath from 'svgpath';
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
  const boxes = mark.paths.map(({ d }) => boxOfPath(d));
  const outer = mark.paths.filter((_, index) => !mark.paths.slice(0, index).some((under, at) => isSolid(under) && contains(boxes[at], boxes[index]))).map(({ fill }) => fill);
  known.set(mark, outer);
  return outer;
}

/** One closed outline has no hole through which the ground could be seen. */
function isSolid({ d }: MarkPath): boolean {
  return (d.match(/m/gi)?.length ?? 0) === 1;
}

function contains(outer: Box | undefined, inner: Box | undefined): boolean {
  if (!outer || !inner) return false;
  return inner.xPx >= outer.xPx && inner.yPx >= outer.yPx && inner.xPx + inner.widthPx <= outer.xPx + outer.widthPx && inner.yPx + inner.heightPx <= outer.yPx + outer.heightPx;
}

/** The box of a path's points and control points: at least as large as its ink. */
function boxOfPath(d: string): Box {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const add = (x: number, y: number): void => {
    [left, top, right, bottom] = [Math.min(left, x), Math.min(top, y), Math.max(right, x), Math.max(bottom, y)];
  };
  svgpath(d)
    .abs()
    .unshort()
    .unarc()
    .iterate(([command, ...numbers], _index, x, y) => {
      const values = numbers as number[];
      if (command === 'H') add(values[0] ?? x, y);
      else if (command === 'V') add(x, values[0] ?? y);
      else for (let at = 0; at + 1 < values.length; at += 2) add(values[at] ?? 0, values[at + 1] ?? 0);
    });
  return { xPx: left, yPx: top, widthPx: right - left, heightPx: bottom - top };
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
