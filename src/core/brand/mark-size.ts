import type { Size } from '../geometry/box.ts';

/** What a mark has to keep to in a cut, in pixels. */
export interface MarkRoom {
  /** The height that a template gives to marks that are as wide as high. */
  readonly heightPx: number;
  /** Below this the mark is no longer clear. */
  readonly leastHeightPx: number;
  readonly mostWidthPx: number;
}

/**
 * The size of a mark in its place. Marks of different shapes weigh the same when they cover the same area: a wide one is as large as the square
 * that a template has room for, a tall one keeps the height. No mark is wider than its room, even where it falls below its least height.
 * @param aspect width divided by height
 */
export function markSize(aspect: number, { heightPx, leastHeightPx, mostWidthPx }: MarkRoom): Size {
  const byArea = aspect > 1 ? heightPx / Math.sqrt(aspect) : heightPx;
  const wanted = Math.max(byArea, Math.min(leastHeightPx, heightPx));
  const widthPx = Math.min(wanted * aspect, mostWidthPx);
  return { widthPx, heightPx: widthPx / aspect };
}
