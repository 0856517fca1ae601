import type { TextPart } from '../template/parts.ts';
import type { LaidOut, LayoutSolver, Overflow } from './layout.ts';
import type { SetText } from './set-text.ts';
import { settle } from './settle.ts';

/** Sizes that were found and the layout they give. */
export interface FitOutcome {
  readonly sizes: ReadonlyMap<TextPart, number>;
  readonly laidOut: LaidOut;
  readonly overflow: Overflow | null;
}

/** Steps between the largest and the smallest size; each is a few percent, finer than one can see. */
const STEPS = 24;
/** A role whose largest size is not this many times its smallest has nothing to gain that one could see. */
const MIN_GAIN = 1.04;
/** Sizes are given back in this order once all fits. */
const ROLE_ORDER = ['display', 'heading', 'text', 'label'] as const;
/** Roles whose lines are read one by one: they take a little less than they could for better ones. */
const SETTLED_ROLES: ReadonlySet<string> = new Set(['display', 'heading']);

/**
 * Finds type sizes at which everything fits: first the smallest common step down from the largest sizes, then, role by
 * role from the leading one, as much back as there is room for. What leads is settled before the others take what room it leaves:
 * size and breaks are chosen together. At the smallest sizes an overflow is part of the result.
 */
export function fit(solver: LayoutSolver): FitOutcome {
  const texts = [...solver.input.texts.values()];
  const steps = new Map(texts.map((text) => [text.part, 0]));
  const settled = new Map<TextPart, number>();
  const sizesNow = (): ReadonlyMap<TextPart, number> => new Map(texts.map((text) => [text.part, settled.get(text.part) ?? sizeAtStep(text, steps.get(text.part) ?? 0)]));
  const overflowNow = (): Overflow | null => {
    solver.solve(sizesNow());
    return solver.findOverflow();
  };
  const outcome = (overflow: Overflow | null): FitOutcome => ({ sizes: sizesNow(), laidOut: solver.laidOut(), overflow });
  const setAll = (step: number): void => texts.forEach((text) => steps.set(text.part, step));

  /** Call it after a layout that fits. */
  const settleRole = (role: string): void => {
    const sizes = sizesNow();
    const ofRole = texts.filter((text) => text.part.role === role);
    const found = settle(ofRole.map((text) => ({ text, sizePx: sizes.get(text.part) ?? text.maxPx, roomPx: solver.widthOf(text.part) })));
    for (const [part, sizePx] of found) settled.set(part, sizePx);
    // Where a text gets narrower with its size its room may change, and the lines with it.
    if (found.size > 0 && overflowNow()) for (const part of found.keys()) settled.delete(part);
  };

  if (!overflowNow()) {
    for (const role of SETTLED_ROLES) settleRole(role);
    return outcome(overflowNow());
  }
  setAll(STEPS);
  const atSmallest = overflowNow();
  if (atSmallest) return outcome(atSmallest);
  const common = smallestFitting(0, STEPS, (step) => {
    setAll(step);
    return !overflowNow();
  });
  setAll(common);

  for (const role of ROLE_ORDER) {
    const ofRole = texts.filter((text) => text.part.role === role && text.maxPx > text.minPx * MIN_GAIN);
    if (ofRole.length === 0) continue;
    const set = (step: number): void => ofRole.forEach((text) => steps.set(text.part, step));
    const raised = smallestFitting(-1, common, (step) => {
      set(step);
      return !overflowNow();
    });
    set(raised);
    if (!SETTLED_ROLES.has(role)) continue;
    overflowNow();
    settleRole(role);
  }
  return outcome(overflowNow());
}

/** The type size of a step: 0 is the largest, STEPS the smallest; equal ratios between. */
function sizeAtStep(text: SetText, step: number): number {
  return text.maxPx * (text.minPx / text.maxPx) ** (step / STEPS);
}

/** The smallest step in (from, to] that fits, by bisection; `to` is known to. */
function smallestFitting(from: number, to: number, fits: (step: number) => boolean): number {
  let [low, high] = [from, to];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (fits(middle)) high = middle;
    else low = middle;
  }
  return high;
}
