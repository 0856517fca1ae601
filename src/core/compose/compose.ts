import type { Yoga } from 'yoga-layout/load';
import { resolveScheme, type BrandBook } from '../brand/brand-book.ts';
import type { Picture } from '../crop/crop-window.ts';
import type { Placement } from '../network/network-sheet.ts';
import type { Adjustment } from '../piece/adjustment.ts';
import type { Frame } from '../piece/piece.ts';
import type { Scene } from '../scene/scene.ts';
import { walkParts, type Arrangement, type StackPart, type Template, type TextPart } from '../template/template.ts';
import type { Typesetter } from '../text/typesetter.ts';
import { arrange } from './arrange.ts';
import { bind, type Bound, type BoundText } from './bind.ts';
import { cutFrame, type CutFrame } from './cut-frame.ts';
import { emit } from './emit.ts';
import { expandRows, isNumeral, rowSlot, slotOfRow } from './expand.ts';
import { fit, type FitOutcome } from './fit.ts';
import { LayoutSolver } from './layout.ts';
import type { CutReport, TextFit } from './report.ts';
import { setText, type SetText } from './set-text.ts';

/** The engines that composing runs on; they hold no state that could change a result. */
export interface Engines {
  readonly typesetter: Typesetter;
  readonly yoga: Yoga;
}

export interface ComposeInput {
  readonly template: Template;
  readonly frame: Frame;
  readonly book: BrandBook;
  readonly placement: Placement;
  readonly pictures: ReadonlyMap<string, Picture>;
  /** Whether empty text slots show their hint faintly; true in previews, false in what is sent. */
  readonly ghosts: boolean;
  /** How this cut differs from its piece. */
  readonly adjustment: Adjustment;
}

export interface Composed {
  readonly scene: Scene;
  readonly report: CutReport;
}

/**
 * One cut, from content to scene:
 *
 * ```
 * bind -> arrange -> expand lists -> shape -> lay out <-> fit -> crop, contrast, emit
 * ```
 */
export function compose(input: ComposeInput, engines: Engines): Composed {
  const { adjustment } = input;
  const frame = cutFrame(input.placement);
  const scheme = resolveScheme(input.book, hasScheme(input.book, adjustment.scheme) ? adjustment.scheme : input.template.scheme);
  const arrangement = arrange(input.template, frame.size, adjustment.arrangement);
  const hidden = adjustment.hidden ?? [];
  const bound = bind(input.template, input.frame, input.pictures, { ghosts: input.ghosts, hidden, facts: input.book.facts });
  const root = expandRows(arrangement.root, (slot) => bound.itemCounts[slot] ?? 0);
  const setting: Setting = { arrangement, root, bound, book: input.book, frame, hidden, textStep: adjustment.textStep ?? 0, engines };
  const texts = shapeTexts(setting);
  const { fitted, overBy } = fitTexts(setting, texts);
  const emitted = emit({ book: input.book, scheme, frame, bound, texts, fitted, crops: adjustment.crops ?? {}, typesetter: engines.typesetter });
  return {
    scene: { size: frame.size, nodes: emitted.nodes },
    report: {
      arrangement: arrangement.key,
      texts: textFits(texts, fitted, emitted.placed, overBy),
      placed: emitted.placed,
      pictures: emitted.pictures,
      findings: [...bound.findings, ...emitted.findings],
    },
  };
}

type SetTexts = ReadonlyMap<TextPart, SetText>;

/** What shaping and fitting of one cut share. */
interface Setting {
  readonly arrangement: Arrangement;
  /** The arrangement's parts, with lists expanded into rows. */
  readonly root: StackPart;
  readonly bound: Bound;
  readonly book: BrandBook;
  readonly frame: CutFrame;
  readonly hidden: readonly string[];
  readonly textStep: number;
  readonly engines: Engines;
}

function hasScheme(book: BrandBook, key: string | undefined): key is string {
  return book.schemes.some((scheme) => scheme.key === key);
}

function setPart(part: TextPart, text: BoundText, { book, frame, textStep, engines }: Setting): SetText {
  return setText(part, text, { book, frame, textStep }, engines.typesetter);
}

function shapeTexts(setting: Setting): SetTexts {
  const texts = new Map<TextPart, SetText>();
  for (const part of walkParts(setting.root)) {
    const text = part.part === 'text' ? setting.bound.texts[part.slot] : undefined;
    if (part.part === 'text' && text) texts.set(part, setPart(part, text, setting));
  }
  return texts;
}

function runFit({ root, book, frame, hidden, engines }: Setting, texts: SetTexts): FitOutcome {
  const mark = book.marks[0];
  const solver = new LayoutSolver(
    { root, frame, texts, hasPicture: (slot) => !hidden.includes(slot), markAspect: mark ? mark.viewBox.width / mark.viewBox.height : 1 },
    engines.yoga,
  );
  try {
    return fit(solver);
  } finally {
    solver.free();
  }
}

/** The slot that is asked to become shorter, and by how many characters. */
interface OverBy {
  readonly slot: string;
  readonly characters: number;
}

function fitTexts(setting: Setting, texts: SetTexts): { fitted: FitOutcome; overBy: OverBy | null } {
  const fitted = runFit(setting, texts);
  if (!fitted.overflow) return { fitted, overBy: null };
  const slots = fitted.overflow.reason === 'word-too-wide' ? [slotOfRow(fitted.overflow.part.slot)] : slotsByRoom(texts);
  for (const slot of slots) {
    const characters = charactersTooMany(slot, setting, texts);
    if (characters !== null) return { fitted, overBy: { slot, characters } };
  }
  // No single slot can make the room: the one that takes most has to give way first.
  const [first] = slots;
  return { fitted, overBy: first === undefined ? null : { slot: first, characters: charactersOf(first, setting.bound).length } };
}

/** The slots that hold text, those that take the most room at their smallest size first. */
function slotsByRoom(texts: SetTexts): readonly string[] {
  const rooms = new Map<string, number>();
  for (const [part, text] of texts) {
    if (text.ghost) continue;
    const slot = slotOfRow(part.slot);
    rooms.set(slot, (rooms.get(slot) ?? 0) + (text.shaped.offsetsEm.at(-1) ?? 0) * text.minPx ** 2);
  }
  return [...rooms].sort(([, a], [, b]) => b - a).map(([slot]) => slot);
}

const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' });

/** The user-perceived characters of a slot's text; a list's items one after the other. */
function charactersOf(slot: string, bound: Bound): readonly string[] {
  const items = bound.itemCounts[slot];
  const texts = items === undefined ? [slot] : Array.from({ length: items }, (_, index) => rowSlot(slot, index));
  return texts.flatMap((each) => [...graphemes.segment(bound.texts[each]?.text ?? '')].map(({ segment }) => segment));
}

/** How many characters a slot has to lose until everything fits; null when even without it something does not. */
function charactersTooMany(slot: string, setting: Setting, texts: SetTexts): number | null {
  const total = charactersOf(slot, setting.bound).length;
  const fitsWith = (kept: number): boolean => {
    const { root, bound } = keepCharacters(slot, kept, setting);
    const shortened: Setting = { ...setting, root, bound };
    return !runFit(shortened, kept === total ? texts : shapeTexts(shortened)).overflow;
  };
  if (!fitsWith(0)) return null;
  let [low, high] = [0, total];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (fitsWith(middle)) low = middle;
    else high = middle;
  }
  return total - low;
}

/** The cut with only the first characters of one slot; rows of a list that lose all of theirs go. */
function keepCharacters(slot: string, kept: number, { bound, arrangement }: Setting): Pick<Setting, 'root' | 'bound'> {
  const texts = { ...bound.texts };
  const items = bound.itemCounts[slot];
  const names = items === undefined ? [slot] : Array.from({ length: items }, (_, index) => rowSlot(slot, index));
  let left = kept;
  let rows = 0;
  for (const name of names) {
    const own = [...graphemes.segment(bound.texts[name]?.text ?? '')].map(({ segment }) => segment);
    const text = own.slice(0, left).join('').trim();
    left = Math.max(0, left - own.length);
    if (text === '') delete texts[name];
    else {
      texts[name] = { text, ghost: false };
      rows += 1;
    }
  }
  const itemCounts = items === undefined ? bound.itemCounts : { ...bound.itemCounts, [slot]: rows };
  return { bound: { ...bound, texts, itemCounts }, root: expandRows(arrangement.root, (each) => itemCounts[each] ?? 0) };
}

/** How every slot came out: a list once, at the size of its smallest row and with the lines of all. */
function textFits(texts: SetTexts, fitted: FitOutcome, placed: CutReport['placed'], overBy: OverBy | null): readonly TextFit[] {
  const slots = new Map<string, { sizePx: number; lines: number }>();
  for (const [part, text] of texts) {
    const found = placed.find((each) => each.slot === part.slot);
    if (text.ghost || !found || isNumeral(part.slot)) continue;
    const slot = slotOfRow(part.slot);
    const before = slots.get(slot);
    slots.set(slot, { sizePx: Math.min(before?.sizePx ?? Infinity, found.sizePx), lines: (before?.lines ?? 0) + found.lines });
  }
  return [...slots].map(([slot, { sizePx, lines }]): TextFit => {
    if (fitted.overflow && overBy?.slot === slot) return { kind: 'overflows', slot, sizePx, lines, overBy: overBy.characters, reason: fitted.overflow.reason };
    return { kind: 'fits', slot, sizePx, lines };
  });
}
