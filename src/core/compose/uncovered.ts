import { intersectBoxes, type Box } from '../geometry/box.ts';
import { walkParts, type StackPart } from '../template/parts.ts';
import type { LaidOut } from './layout.ts';

/** What lies over more than this share of a picture is its scrim or its panel, not something to keep clear of. */
const MAX_COVERED_SHARE = 0.4;

/** Boxes of what hides a picture that it stands on: marks, words, and fields with words in them. */
export function coveringBoxes({ part, box, children }: LaidOut): readonly Box[] {
  if (part.part === 'mark' || part.part === 'text') return [box];
  if (part.part === 'stack' && part.field !== undefined && isOfWords(part)) return [box];
  return children.flatMap(coveringBoxes);
}

function isOfWords(stack: StackPart): boolean {
  const parts = [...walkParts(stack)];
  return parts.some((part) => part.part === 'text') && parts.every((part) => part.part !== 'picture');
}

/**
 * The parts of a picture's place beside all that covers it, the largest first: in one of them its subject belongs.
 * @param mostCovered what covers more than this share of the picture counts as its scrim
 */
export function uncovered(visible: Box, covers: readonly Box[], mostCovered = MAX_COVERED_SHARE): readonly [Box, ...Box[]] {
  const kept = covers.flatMap((cover) => {
    const hidden = intersectBoxes(visible, cover);
    return hidden && areaOf(hidden) <= areaOf(visible) * mostCovered ? [hidden] : [];
  });
  if (kept.length === 0) return [visible];
  const [largest = visible, ...others] = [...freeColumns(visible, kept)].filter((each) => areaOf(each) > 0).toSorted((a, b) => areaOf(b) - areaOf(a));
  return [largest, ...others];
}

/** Every empty box that is as high as it can be between two sides of what is kept clear of. */
function* freeColumns(visible: Box, kept: readonly Box[]): Generator<Box> {
  const right = visible.xPx + visible.widthPx;
  const bottom = visible.yPx + visible.heightPx;
  const lefts = [visible.xPx, ...kept.map(({ xPx, widthPx }) => xPx + widthPx)];
  const rights = [right, ...kept.map(({ xPx }) => xPx)];
  for (const from of lefts) {
    for (const to of rights) {
      if (to <= from) continue;
      const between = kept.filter(({ xPx, widthPx }) => xPx < to && xPx + widthPx > from).toSorted((a, b) => a.yPx - b.yPx);
      let top = visible.yPx;
      for (const { yPx, heightPx } of [...between, { yPx: bottom, heightPx: 0 }]) {
        if (yPx > top) yield { xPx: from, yPx: top, widthPx: to - from, heightPx: yPx - top };
        top = Math.max(top, yPx + heightPx);
      }
    }
  }
}

function areaOf({ widthPx, heightPx }: Box): number {
  return Math.max(0, widthPx) * Math.max(0, heightPx);
}
