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

/** The largest part of a picture's place beside what covers it: there its subject belongs. */
export function uncovered(visible: Box, covers: readonly Box[]): Box {
  return covers.reduce((free, cover) => {
    const hidden = intersectBoxes(free, cover);
    if (!hidden || areaOf(hidden) > areaOf(free) * MAX_COVERED_SHARE) return free;
    const [right, bottom] = [free.xPx + free.widthPx, free.yPx + free.heightPx];
    const [hiddenRight, hiddenBottom] = [hidden.xPx + hidden.widthPx, hidden.yPx + hidden.heightPx];
    const beside: readonly Box[] = [
      { ...free, widthPx: hidden.xPx - free.xPx },
      { ...free, xPx: hiddenRight, widthPx: right - hiddenRight },
      { ...free, heightPx: hidden.yPx - free.yPx },
      { ...free, yPx: hiddenBottom, heightPx: bottom - hiddenBottom },
    ];
    return beside.reduce((best, each) => (areaOf(each) > areaOf(best) ? each : best));
  }, visible);
}

function areaOf({ widthPx, heightPx }: Box): number {
  return Math.max(0, widthPx) * Math.max(0, heightPx);
}
