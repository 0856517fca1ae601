import { typeRoleNames, type TypeRoleName } from '../brand/type-role.ts';
import type { StackPart, TextPart } from '../template/parts.ts';
import { slotOfRow } from './expand.ts';
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
/** A text whose largest size is not this many times its smallest has nothing to gain that one could see. */
const MIN_GAIN = 1.04;
/** Roles whose lines are read one by one: they take a little less than they could for better ones. */
const SETTLED_ROLES: ReadonlySet<TypeRoleName> = new Set(['display', 'heading']);
/** What follows a headline is at most this share of its size: a step of a minor third (6:5), the smallest that scales of type have and one sees. */
const MOST_OF_LEADING = 5 / 6;

/**
 * Finds type sizes at which everything fits: first the smallest common step down from the largest sizes, then, text by
 * text from the leading one, as much back as there is room for. What leads is settled before the others take what room it leaves:
 * size and breaks are chosen together. At the smallest sizes an overflow is part of the result.
 */
export function fit(solver: LayoutSolver): FitOutcome {
  const texts = [...solver.input.texts.values()];
  const steps = new Map(texts.map((text) => [text.part, 0]));
  const groups = groupTexts(texts);
  const settled = new Map<TextPart, number>();
  const sizesNow = (): ReadonlyMap<TextPart, number> => new Map(texts.map((text) => [text.part, settled.get(text.part) ?? sizeAtStep(text, steps.get(text.part) ?? 0)]));
  const overflowNow = (): Overflow | null => {
    solver.solve(sizesNow());
    return solver.findOverflow();
  };
  const outcome = (overflow: Overflow | null): FitOutcome => ({ sizes: sizesNow(), laidOut: solver.laidOut(), overflow });
  const leaders = leadersOf(solver.input.root);
  /** The size of the headline that a text follows. */
  const leadingPx = (part: TextPart, sizes: ReadonlyMap<TextPart, number>): number => {
    const found = (leaders.get(part) ?? []).flatMap((leader) => sizes.get(leader) ?? []);
    return found.length === 0 ? Infinity : Math.max(...found);
  };
  const setAll = (step: number): void => texts.forEach((text) => steps.set(text.part, step));

  /** Call it after a layout that fits. */
  const settleGroup = (group: readonly SetText[]): void => {
    const sizes = sizesNow();
    const found = settle(group.map((text) => ({ text, sizePx: sizes.get(text.part) ?? text.maxPx, roomPx: solver.widthOf(text.part) })));
    for (const [part, sizePx] of found) settled.set(part, sizePx);
    // Where a text gets narrower with its size its room may change, and the lines with it.
    if (found.size > 0 && overflowNow()) for (const part of found.keys()) settled.delete(part);
  };

  if (!overflowNow()) {
    for (const group of groups) if (isSettled(group)) settleGroup(group);
    return outcome(overflowNow());
  }
  const common = smallestFitting(0, STEPS, (step) => {
    setAll(step);
    return !overflowNow();
  });
  setAll(common);
  const atSmallest = common === STEPS ? overflowNow() : null;
  if (atSmallest) return { ...regain(solver, groups, squeeze(solver, sizesNow()), atSmallest, leadingPx), overflow: atSmallest };

  for (const group of groups) {
    const gaining = group.filter((text) => text.maxPx > text.minPx * MIN_GAIN);
    if (gaining.length === 0) continue;
    const largest = Math.max(...gaining.map((text) => stepBelow(text, MOST_OF_LEADING * leadingPx(text.part, sizesNow()))));
    const set = (step: number): void => gaining.forEach((text) => steps.set(text.part, step));
    const fits = (step: number): boolean => {
      set(step);
      return !overflowNow();
    };
    set(raise(largest, common, fits));
    if (!isSettled(group)) continue;
    overflowNow();
    settleGroup(group);
  }
  return outcome(overflowNow());
}

/** Texts that share a size: those of one slot (a list's rows) and role, in the order in which they take room. */
function groupTexts(texts: readonly SetText[]): readonly (readonly SetText[])[] {
  const groups = new Map<string, SetText[]>();
  for (const text of texts) {
    const key = `${text.part.role} ${slotOfRow(text.part.slot)}`;
    groups.set(key, [...(groups.get(key) ?? []), text]);
  }
  const rank = ([first]: readonly SetText[]): number => (first ? typeRoleNames.indexOf(first.part.role) : 0);
  const largest = (group: readonly SetText[]): number => Math.max(...group.map((text) => text.maxPx));
  return [...groups.values()].sort((a, b) => rank(a) - rank(b) || largest(b) - largest(a));
}

/**
 * The headlines that texts follow: those of the stack a text stands in, or of the nearest stack around it. What leads follows nothing, and
 * neither do the rows of a list, which are what such a cut is about.
 */
function leadersOf(root: StackPart): ReadonlyMap<TextPart, readonly TextPart[]> {
  const found = new Map<TextPart, readonly TextPart[]>();
  const walk = (stack: StackPart, around: readonly TextPart[]): void => {
    const texts = stack.children.filter((child): child is TextPart => child.part === 'text');
    const own = texts.filter(({ role }) => SETTLED_ROLES.has(role));
    const leading = own.length > 0 ? own : around;
    for (const text of texts) if (!SETTLED_ROLES.has(text.role) && slotOfRow(text.slot) === text.slot) found.set(text, leading);
    for (const child of stack.children) if (child.part === 'stack') walk(child, leading);
  };
  walk(root, []);
  return found;
}

function isSettled([first]: readonly SetText[]): boolean {
  return first !== undefined && SETTLED_ROLES.has(first.part.role);
}

/** Below their least sizes texts shrink to no less than this share of them. */
const LEAST_SQUEEZE = 0.2;
const SQUEEZE_STEPS = 24;

/**
 * What is too long even at its smallest is shown smaller still, so that no text lies over another or runs off: it cannot go out like
 * this, and one sees all of it while one shortens it.
 */
function squeeze(solver: LayoutSolver, smallest: ReadonlyMap<TextPart, number>): ReadonlyMap<TextPart, number> {
  const at = (step: number): ReadonlyMap<TextPart, number> => new Map([...smallest].map(([part, sizePx]) => [part, sizePx * LEAST_SQUEEZE ** (step / SQUEEZE_STEPS)]));
  const step = smallestFitting(0, SQUEEZE_STEPS, (each) => {
    solver.solve(at(each));
    return !solver.runsOver();
  });
  return at(step);
}

/** Texts beside one that is too long take what room there is: a number in a column of its own need not be as small as the headline that fills the other. */
function regain(solver: LayoutSolver, groups: readonly (readonly SetText[])[], smallest: ReadonlyMap<TextPart, number>, overflow: Overflow, leadingPx: (part: TextPart, sizes: ReadonlyMap<TextPart, number>) => number): Pick<FitOutcome, 'sizes' | 'laidOut'> {
  const tooLong: ReadonlySet<TextPart> = new Set(overflow.reason === 'word-too-wide' ? overflow.parts : []);
  let sizes = smallest;
  for (const group of groups) {
    if (group.some(({ part, ghost }) => tooLong.has(part) || ghost)) continue;
    const sizeAt = (text: SetText, step: number): number => {
      const leastPx = sizes.get(text.part) ?? text.minPx;
      return Math.max(leastPx, Math.min(MOST_OF_LEADING * leadingPx(text.part, sizes), text.maxPx * (leastPx / text.maxPx) ** (step / STEPS)));
    };
    const at = (step: number): ReadonlyMap<TextPart, number> => new Map([...sizes, ...group.map((text) => [text.part, sizeAt(text, step)] as const)]);
    const fits = (step: number): boolean => {
      solver.solve(at(step));
      return !solver.runsOver();
    };
    sizes = at(fits(0) ? 0 : smallestFitting(0, STEPS, fits));
    if (isSettled(group)) sizes = settledIn(solver, group, sizes);
  }
  solver.solve(sizes);
  return { sizes, laidOut: solver.laidOut() };
}

/** Sizes with those of a group chosen together with its breaks; as they were, where that would run over. */
function settledIn(solver: LayoutSolver, group: readonly SetText[], sizes: ReadonlyMap<TextPart, number>): ReadonlyMap<TextPart, number> {
  solver.solve(sizes);
  const settled = new Map([...sizes, ...settle(group.map((text) => ({ text, sizePx: sizes.get(text.part) ?? text.minPx, roomPx: solver.widthOf(text.part) })))]);
  solver.solve(settled);
  return solver.runsOver() ? sizes : settled;
}

/** The type size of a step: 0 is the largest, STEPS the smallest; equal ratios between. */
function sizeAtStep(text: SetText, step: number): number {
  return text.maxPx * (text.minPx / text.maxPx) ** (step / STEPS);
}

/** The first step down at which a text is within a limit; a text keeps its least size. */
function stepBelow(text: SetText, limitPx: number): number {
  if (limitPx >= text.maxPx) return 0;
  return Math.min(STEPS, Math.ceil((STEPS * Math.log(text.maxPx / limitPx)) / Math.log(text.maxPx / text.minPx)));
}

/** The smallest step from `largest` up to `common`, which is known to fit. Most texts take their largest size or cannot grow at all: that is asked first. */
function raise(largest: number, common: number, fits: (step: number) => boolean): number {
  if (largest >= common || fits(largest)) return largest;
  return common > largest + 1 && fits(common - 1) ? smallestFitting(largest, common - 1, fits) : common;
}

/** The smallest step in (from, to] that fits, by bisection; `to` where no other does. */
function smallestFitting(from: number, to: number, fits: (step: number) => boolean): number {
  let [low, high] = [from, to];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (fits(middle)) high = middle;
    else low = middle;
  }
  return high;
}
