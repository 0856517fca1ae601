import { lostSizeCost } from '../text/setting-rules.ts';
import { linesCost } from '../text/break-lines.ts';
import type { TextPart } from '../template/parts.ts';
import { linesIn, type SetText } from './set-text.ts';

/** A text of one role as it was fitted: its largest size and the room its lines have. */
export interface FittedText {
  readonly text: SetText;
  readonly sizePx: number;
  readonly roomPx: number;
}

/** A headline gives up no more of its size than this for better lines. */
const LEAST_RATIO = 0.6;
const STEP = 0.05;
/** No setting of a headline in lines costs less than this: every line ends with its phrase. */
const BEST_LINES_COST = -0.3;

/**
 * Settles the texts of one role: among sizes from the largest that fit down to three fifths of them, the ones whose lines cost
 * least by the rules of setting, all by the same ratio. A smaller size never overflows.
 * @returns the sizes by part; none where the largest stay
 */
export function settle(fitted: readonly FittedText[]): ReadonlyMap<TextPart, number> {
  const settled = new Map<TextPart, number>();
  const free = fitted.filter(({ text, roomPx }) => !text.part.fill && !text.isCapped && roomPx > 0);
  if (free.length === 0) return settled;
  let best = { cost: Infinity, ratio: 1 };
  const look = (ratio: number): void => {
    const cost = free.reduce((sum, each) => sum + costAt(each, ratio), 0);
    // Sizes are equal within a hair: the larger one stays.
    if (cost < best.cost - 1e-6) best = { cost, ratio };
  };
  for (let ratio = 1; ratio >= LEAST_RATIO - 1e-9; ratio -= STEP) {
    // From here on the size that is lost costs more than the best lines could give.
    if (free.length * (lostSizeCost(1 / ratio) + BEST_LINES_COST) >= best.cost) break;
    look(ratio);
  }
  // The same lines may fit at a size in between.
  if (best.ratio < 1) look(best.ratio + STEP / 2);
  if (best.ratio < 1) for (const each of free) settled.set(each.text.part, sizeAt(each, best.ratio));
  return settled;
}

function sizeAt({ text, sizePx }: FittedText, ratio: number): number {
  return Math.max(text.minPx, sizePx * ratio);
}

function costAt(each: FittedText, ratio: number): number {
  const sizePx = sizeAt(each, ratio);
  return linesCost(each.text.shaped, linesIn(each.text, sizePx, each.roomPx), each.sizePx / sizePx);
}
