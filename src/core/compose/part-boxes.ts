import type { Box } from '../geometry/box.ts';
import type { Part, StackPart } from '../template/parts.ts';
import type { LaidOut } from './layout.ts';

/** Where the parts of an arrangement came to stand in a cut, by their path: `0.2` is the third child of the first; the whole is ''. Parts that are left out are missing. */
export type PartBoxes = Readonly<Record<string, Box>>;

/**
 * @param root the tree that was laid out: that of the arrangement, with lists expanded below their part
 */
export function partBoxes(root: StackPart, laidOut: LaidOut): PartBoxes {
  const paths = new Map<Part, string>();
  const name = (part: Part, path: readonly number[]): void => {
    paths.set(part, path.join('.'));
    if (part.part === 'stack') part.children.forEach((child, index) => name(child, [...path, index]));
  };
  name(root, []);
  const boxes: Record<string, Box> = {};
  const collect = ({ part, box, children }: LaidOut): void => {
    const path = paths.get(part);
    if (path !== undefined) boxes[path] = box;
    children.forEach(collect);
  };
  collect(laidOut);
  return boxes;
}

/** The path of the smallest part that a point of the cut lies in; null outside all of them. */
export function partUnder(boxes: PartBoxes, { xPx, yPx }: { readonly xPx: number; readonly yPx: number }): string | null {
  const under = Object.entries(boxes).filter(([, box]) => xPx >= box.xPx && xPx <= box.xPx + box.widthPx && yPx >= box.yPx && yPx <= box.yPx + box.heightPx);
  return under.sort(([, a], [, b]) => a.widthPx * a.heightPx - b.widthPx * b.heightPx)[0]?.[0] ?? null;
}
