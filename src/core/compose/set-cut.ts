import type { Yoga } from 'yoga-layout/load';
import type { BrandBook, BrandMark } from '../brand/brand-book.ts';
import type { SlidePlace } from '../piece/slides-of-cut.ts';
import { walkParts, type MarkPart, type StackPart, type TextPart } from '../template/parts.ts';
import type { Arrangement } from '../template/template.ts';
import type { Typesetter } from '../text/typesetter.ts';
import { chosenMark, type Bound, type BoundText } from './bind.ts';
import type { CutFrame } from './cut-frame.ts';
import { slotOfRow, type ListShape } from './expand.ts';
import { fit, type FitOutcome } from './fit.ts';
import { LayoutSolver } from './layout.ts';
import { setText, type SetText } from './set-text.ts';

/** The engines that composing runs on; they hold no state that could change a result. */
export interface Engines {
  readonly typesetter: Typesetter;
  readonly yoga: Yoga;
}

export const NO_LIST: ListShape = { count: 0, columns: false, marked: null };

/** What sizes are compared by, from slide to slide: the slot, in the arrangement it stands in. A text that fills its line has no size of its own. */
export function sizeKey(arrangement: Arrangement, part: TextPart): string {
  return `${arrangement.key}:${slotOfRow(part.slot)}:${part.role}`;
}

/** The mark that a part has room for: the chosen one, else the first of the book. */
export function usualMark({ book, bound, marks }: Setting, part: MarkPart): BrandMark | null {
  return chosenMark(book, bound, part) ?? marks.get(part) ?? book.marks[0] ?? null;
}

export type SetTexts = ReadonlyMap<TextPart, SetText>;

/** What shaping and fitting of one cut share. */
export interface Setting {
  readonly arrangement: Arrangement;
  /** The parts of the arrangement, with lists expanded into rows. */
  readonly root: StackPart;
  readonly bound: Bound;
  readonly book: BrandBook;
  readonly frame: CutFrame;
  readonly hidden: readonly string[];
  /** Slots with a word that is too wide for its room: it may be parted. */
  readonly hyphenated: ReadonlySet<string>;
  readonly textStep: number;
  readonly leastShare: number;
  readonly place: SlidePlace;
  /** Sizes by `sizeKey` that the slides of a run share: their lines are settled already. */
  readonly caps: ReadonlyMap<string, number> | undefined;
  /** Sizes by `sizeKey` that this cut keeps to; its lines are settled below them. */
  readonly limits: ReadonlyMap<string, number> | undefined;
  /** Marks that are decided; others take the room of the usual one. */
  readonly marks: ReadonlyMap<MarkPart, BrandMark>;
  readonly engines: Engines;
}

function setPart(part: TextPart, text: BoundText, { arrangement, book, frame, textStep, leastShare, hyphenated, caps, limits, engines }: Setting): SetText {
  const set = setText(part, text, { book, frame, textStep, leastShare, hyphenated }, engines.typesetter);
  if (part.fill) return set;
  const key = sizeKey(arrangement, part);
  const most = Math.min(set.maxPx, caps?.get(key) ?? Infinity, limits?.get(key) ?? Infinity);
  return { ...set, maxPx: most < set.maxPx ? Math.max(set.minPx, most) : set.maxPx, isCapped: caps?.has(key) ?? false };
}

export function shapeTexts(setting: Setting): SetTexts {
  const texts = new Map<TextPart, SetText>();
  for (const part of walkParts(setting.root)) {
    const text = part.part === 'text' ? setting.bound.texts[part.slot] : undefined;
    if (part.part === 'text' && text) texts.set(part, setPart(part, text, setting));
  }
  return texts;
}

export function runFit(setting: Setting, texts: SetTexts): FitOutcome {
  const { root, frame, hidden, place, engines } = setting;
  const solver = new LayoutSolver(
    {
      root,
      frame,
      texts,
      isHidden: (slot) => hidden.includes(slot),
      place,
      markOf: (part) => usualMark(setting, part),
    },
    engines.yoga,
  );
  try {
    return fit(solver);
  } finally {
    solver.free();
  }
}
