import { graphemesOf } from '../words/graphemes.ts';
import type { Yoga } from 'yoga-layout/load';
import { hasScheme, resolveScheme, type BrandBook, type BrandMark } from '../brand/brand-book.ts';
import type { Picture } from '../crop/crop-window.ts';
import type { Box } from '../geometry/box.ts';
import type { Placement } from '../network/network-sheet.ts';
import type { Adjustment } from '../piece/adjustment.ts';
import type { Frame } from '../piece/piece.ts';
import { ALONE, type SlidePlace } from '../piece/slides-of-cut.ts';
import type { Scene } from '../scene/scene.ts';
import { walkParts, type MarkPart, type PicturePart, type StackPart, type TextPart } from '../template/parts.ts';
import type { Arrangement, Template } from '../template/template.ts';
import type { Typesetter } from '../text/typesetter.ts';
import { arrange } from './arrange.ts';
import { cappedSizes, coversSubject, isBetterMoved, isFreer, isMarkOnSubject, otherPlaces } from './better-attempt.ts';
import { bind, chosenMark, echoLine, type Bound, type BoundText } from './bind.ts';
import { isAlike } from './choose-mark.ts';
import { cutFrame, type CutFrame } from './cut-frame.ts';
import { emit, type Emitted, type EmitInput } from './emit.ts';
import { echoSlot, expandRows, isNumeral, rowSlot, slotOfRow, valueSlot, type ListShape } from './expand.ts';
import { fit, type FitOutcome } from './fit.ts';
import { markBoxes } from './ink-boxes.ts';
import { LayoutSolver, type Overflow } from './layout.ts';
import { partBoxes } from './part-boxes.ts';
import { mayGrow, placeWords } from './place-words.ts';
import type { CutReport, TextFit } from './report.ts';
import { setText, type SetText } from './set-text.ts';
import { settleMarks } from './settle-marks.ts';
import { showPicture } from './show-picture.ts';
import { isWorthMeeting, mayStandBefore, standBefore } from './stand-before.ts';
import { coveringBoxes } from './uncovered.ts';
import { vary } from './vary.ts';

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
  /** Where a slide stands among the others of its cut; missing: it is alone. */
  readonly place?: SlidePlace | undefined;
  /** Largest type sizes, by `sizeKey`, so that sizes do not jump from slide to slide. */
  readonly caps?: ReadonlyMap<string, number> | undefined;
  /** Whether the report says where the parts of the arrangement stand. */
  readonly wantsParts?: true | undefined;
}

export interface Composed {
  readonly scene: Scene;
  readonly report: CutReport;
  /** Type sizes that were found, by `sizeKey`; of several texts of one key the smallest. */
  readonly sizes: ReadonlyMap<string, number>;
}

/** What sizes are compared by, from slide to slide: the slot, in the arrangement it stands in. A text that fills its line has no size of its own. */
function sizeKey(arrangement: Arrangement, part: TextPart): string {
  return `${arrangement.key}:${slotOfRow(part.slot)}:${part.role}`;
}

/**
 * One cut, from content to scene:
 *
 * ```
 * bind -> arrange -> place words on photographs -> expand lists -> shape -> lay out <-> fit (leaving out what may be)
 *   -> stand subjects before letters -> crop, contrast, emit -> a mark off its subject
 * ```
 */
export function compose(input: ComposeInput, engines: Engines): Composed {
  const { adjustment, template, book } = input;
  const frame = cutFrame(input.placement);
  const place = input.place ?? ALONE;
  const scheme = resolveScheme(book, hasScheme(book, adjustment.scheme) ? adjustment.scheme : template.scheme);
  const arrangement = vary(arrange(template, frame.size, adjustment.arrangement), adjustment);
  const settingWithout = ({ arrangement, marks, meetsSubject, smallerBy = 0, caps = input.caps }: Attempt, isBound: boolean) => (dropped: readonly string[]): Setting => {
    const hidden = [...(adjustment.hidden ?? []), ...dropped];
    const bound = bind(template, input.frame, input.pictures, { ghosts: input.ghosts, hidden, facts: book.facts, language: book.language });
    const placed = { ...arrangement, root: placeWords(arrangement.root, { frame, pictures: bound.pictures, crops: adjustment.crops ?? {}, isBound, meetsSubject }) };
    const root = expandRows(placed.root, (slot) => bound.lists[slot] ?? NO_LIST);
    return { arrangement: placed, root, bound, book, frame, hidden, hyphenated: NO_SLOTS, textStep: (adjustment.textStep ?? 0) - smallerBy, place, caps, marks, engines };
  };
  const attempt = (way: Attempt): Attempted => {
    const { marks, meetsSubject } = way;
    // Words on a photograph stay inside their place. Let them grow beyond it only when they do not fit.
    const bounded = fitDropping(template, adjustment, settingWithout(way, true));
    const found = mayGrow(way.arrangement.root) && bounded.fitted.overflow ? fitDropping(template, adjustment, settingWithout(way, false)) : bounded;
    const { setting, texts, fitted } = found;
    const { bound } = setting;
    const covers = coveringBoxes(fitted.laidOut);
    const show = (part: PicturePart, box: Box) => {
      const picture = bound.pictures[part.slot];
      return picture ? showPicture(part, picture, box, { frame, slide: place, scheme, covers, own: adjustment.crops?.[part.slot], treatment: undefined }) : null;
    };
    const stood = !meetsSubject ? { fitted, crops: adjustment.crops ?? {}, fronts: NO_FRONTS } : standBefore({ fitted, texts, bound, frame, crops: adjustment.crops ?? {}, typesetter: engines.typesetter, show });
    return { ...found, fitted: stood.fitted, emitted: emit({ book, scheme, frame, bound, marks, texts, fitted: stood.fitted, covers, fronts: stood.fronts, crops: stood.crops, place, typesetter: engines.typesetter }) };
  };
  /** The cut with words that are a little smaller, where that frees the subject they lie on; else as it was found. */
  const offSubject = (found: Attempted, marks: Setting['marks']) => {
    const sizes = sizesFound(found.setting.arrangement, found.texts, found.fitted);
    for (const share of SHARES_OFF_SUBJECT) {
      const caps = cappedSizes(sizes, share);
      const smaller = attempt({ arrangement, marks, meetsSubject: false, caps });
      if (isFreer(smaller, found)) return { tried: smaller, caps };
    }
    return { tried: found, caps: input.caps };
  };
  const mayMeet = mayStandBefore(arrangement.root, input);
  // Words go to their subject where it can stand before them, a little smaller if need be, and keep away from it where it cannot.
  const setFor = (marks: Setting['marks']) => {
    for (const smallerBy of mayMeet ? STEPS_TO_MEET : []) {
      const met = attempt({ arrangement, marks, meetsSubject: true, smallerBy });
      if (met.emitted.fronts.length > 0 && !met.fitted.overflow && isWorthMeeting(met.emitted)) return met;
    }
    const found = attempt({ arrangement, marks, meetsSubject: false });
    const { tried: usual, caps } = coversSubject(found) ? offSubject(found, marks) : { tried: found, caps: input.caps };
    if (!isMarkOnSubject(usual)) return usual;
    // From slide to slide, and in a video, a mark stays in its corner.
    for (const other of otherPlaces(arrangement, usual, frame.size, template.kind === 'graphic')) {
      const moved = attempt({ arrangement: other.arrangement, marks, meetsSubject: false, caps });
      if (isBetterMoved(moved, usual, other.inCorner)) return moved;
    }
    return usual;
  };
  const { setting, texts, fitted, dropped, overBy, emitted } = settleMarks(setFor, hasRoomForItsMarks);
  return {
    scene: { size: frame.size, nodes: emitted.nodes },
    report: {
      arrangement: arrangement.key,
      texts: textFits(texts, fitted, emitted.placed, overBy),
      placed: emitted.placed,
      pictures: emitted.pictures,
      blocks: emitted.blocks,
      fronts: emitted.fronts,
      panels: emitted.panels,
      marks: markBoxes(fitted.laidOut),
      // Words that went to a subject left their block: the arrangement's own tree says which part is which.
      ...(input.wantsParts ? { parts: partBoxes(emitted.fronts.length > 0 ? arrangement.root : setting.root, fitted.laidOut) } : {}),
      findings: [...setting.bound.findings, ...dropped.map((slot) => ({ kind: 'dropped' as const, slot })), ...emitted.findings],
    },
    sizes: sizesFound(arrangement, texts, fitted),
  };
}

/** How a cut is set: in which arrangement, with which marks, whether words go to the subject that may stand before them, and how many steps smaller they are for it. */
interface Attempt {
  readonly arrangement: Arrangement;
  readonly marks: Setting['marks'];
  readonly meetsSubject: boolean;
  readonly smallerBy?: number;
  /** The largest sizes, by `sizeKey`; missing: those of the run of slides. */
  readonly caps?: ReadonlyMap<string, number> | undefined;
}

/** Sizes, in steps below the usual one, at which words are tried to go to a subject. */
const STEPS_TO_MEET = [0, 2, 4] as const;

/** Shares of the usual size at which words are tried to leave the subject free that they lie on. */
const SHARES_OFF_SUBJECT = [0.85, 0.72] as const;

const NO_FRONTS: EmitInput['fronts'] = new Map();
const NO_SLOTS: Setting['hyphenated'] = new Set();

/** The mark that a part has room for: the chosen one, else the first of the book. */
function usualMark({ book, bound, marks }: Setting, part: MarkPart): BrandMark | null {
  return chosenMark(book, bound, part) ?? marks.get(part) ?? book.marks[0] ?? null;
}

/** Whether a layout has room for the marks that its grounds ask for. */
const hasRoomForItsMarks = ({ setting, emitted }: Attempted): boolean =>
  [...emitted.marks].every(([part, mark]) => {
    const usual = usualMark(setting, part);
    return usual !== null && isAlike(mark, usual);
  });

function sizesFound(arrangement: Arrangement, texts: SetTexts, fitted: FitOutcome): ReadonlyMap<string, number> {
  const sizes = new Map<string, number>();
  for (const [part, text] of texts) {
    const sizePx = fitted.sizes.get(part);
    if (sizePx === undefined || part.fill || text.ghost || isNumeral(part.slot)) continue;
    const key = sizeKey(arrangement, part);
    sizes.set(key, Math.min(sizePx, sizes.get(key) ?? Infinity));
  }
  return sizes;
}

const NO_LIST: ListShape = { count: 0, columns: false, marked: null };

interface Fitted {
  readonly setting: Setting;
  readonly texts: SetTexts;
  readonly fitted: FitOutcome;
  readonly dropped: readonly string[];
  readonly overBy: OverBy | null;
}

/** A cut that was tried: laid out and emitted. */
interface Attempted extends Fitted {
  readonly emitted: Emitted;
}

/**
 * Fits a cut; where it does not fit, leaves out what the template says can be missed, one after the other, until it does. When
 * even that does not help, everything stays and the overflow is measured.
 */
function fitDropping(template: Template, adjustment: Adjustment, settingWithout: (dropped: readonly string[]) => Setting): Fitted {
  const whole = fitHyphenating(settingWithout([]));
  if (!whole.fitted.overflow) return { ...whole, dropped: [], overBy: null };
  const droppable = (template.drop ?? []).filter((slot) => !adjustment.hidden?.includes(slot) && isFilled(whole.setting.bound, slot));
  for (let count = 1; count <= droppable.length; count += 1) {
    const dropped = droppable.slice(0, count);
    const fewer = fitHyphenating(settingWithout(dropped));
    if (!fewer.fitted.overflow) return { ...fewer, dropped, overBy: null };
  }
  return { ...whole, dropped: [], overBy: measureOverflow(whole.setting, whole.texts, whole.fitted.overflow) };
}

/** Fits a cut; a text whose word is too wide at its smallest size is set again with soft hyphens, as a last resort. */
function fitHyphenating(setting: Setting): Pick<Fitted, 'setting' | 'texts' | 'fitted'> {
  const texts = shapeTexts(setting);
  const fitted = runFit(setting, texts);
  const { language } = setting.book;
  if (fitted.overflow?.reason !== 'word-too-wide' || language === undefined) return { setting, texts, fitted };
  const canBeParted = ({ slot, fill }: TextPart): boolean => {
    const text = setting.bound.texts[slot]?.text ?? '';
    return fill !== true && !setting.hyphenated.has(slot) && setting.engines.typesetter.hyphenate(text, language) !== text;
  };
  const parted = fitted.overflow.parts.filter(canBeParted).map(({ slot }) => slot);
  return parted.length === 0 ? { setting, texts, fitted } : fitHyphenating({ ...setting, hyphenated: new Set([...setting.hyphenated, ...parted]) });
}

function isFilled(bound: Bound, slot: string): boolean {
  return bound.texts[slot]?.ghost === false || bound.pictures[slot] !== undefined || (bound.lists[slot]?.count ?? 0) > 0;
}

type SetTexts = ReadonlyMap<TextPart, SetText>;

/** What shaping and fitting of one cut share. */
interface Setting {
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
  readonly place: SlidePlace;
  readonly caps: ReadonlyMap<string, number> | undefined;
  /** Marks that are decided; others take the room of the usual one. */
  readonly marks: ReadonlyMap<MarkPart, BrandMark>;
  readonly engines: Engines;
}

function setPart(part: TextPart, text: BoundText, { arrangement, book, frame, textStep, hyphenated, caps, engines }: Setting): SetText {
  const set = setText(part, text, { book, frame, textStep, hyphenated }, engines.typesetter);
  const cap = part.fill ? undefined : caps?.get(sizeKey(arrangement, part));
  if (cap === undefined) return set;
  return cap >= set.maxPx ? { ...set, isCapped: true } : { ...set, maxPx: Math.max(set.minPx, cap), isCapped: true };
}

function shapeTexts(setting: Setting): SetTexts {
  const texts = new Map<TextPart, SetText>();
  for (const part of walkParts(setting.root)) {
    const text = part.part === 'text' ? setting.bound.texts[part.slot] : undefined;
    if (part.part === 'text' && text) texts.set(part, setPart(part, text, setting));
  }
  return texts;
}

function runFit(setting: Setting, texts: SetTexts): FitOutcome {
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

/** The slot that is asked to become shorter, and by how many characters. */
interface OverBy {
  readonly slot: string;
  readonly characters: number;
}

function measureOverflow(setting: Setting, texts: SetTexts, overflow: Overflow): OverBy | null {
  const slots = overflow.reason === 'word-too-wide' ? overflow.parts.map((part) => slotOfRow(part.slot)) : slotsByRoom(texts);
  for (const slot of slots) {
    const characters = charactersTooMany(slot, setting, texts);
    if (characters !== null) return { slot, characters };
  }
  // No single slot can make the room: the one that takes most has to give way first.
  const [first] = slots;
  return first === undefined ? null : { slot: first, characters: charactersOf(first, setting.bound).length };
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


/** The user-perceived characters of a slot's text; a list's items one after the other. */
function charactersOf(slot: string, bound: Bound): readonly string[] {
  return textNames(slot, bound).flatMap((each) => [...graphemesOf(bound.texts[each]?.text ?? '')].map(({ segment }) => segment));
}

/** Where the texts of a slot are bound: a list's rows, with their second columns. */
function textNames(slot: string, bound: Bound): readonly string[] {
  const list = bound.lists[slot];
  return list === undefined ? [slot] : Array.from({ length: list.count }, (_, index) => [rowSlot(slot, index), ...(list.columns ? [valueSlot(slot, index)] : [])]).flat();
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
  const list = bound.lists[slot];
  let left = kept;
  let rows = 0;
  for (const name of textNames(slot, bound)) {
    const own = [...graphemesOf(bound.texts[name]?.text ?? '')].map(({ segment }) => segment);
    const text = own.slice(0, left).join('').trim();
    left = Math.max(0, left - own.length);
    if (text === '') {
      delete texts[name];
      delete texts[echoSlot(name)];
    }
    else {
      texts[name] = { text, ghost: false };
      if (list === undefined) texts[echoSlot(name)] = { text: echoLine(text), ghost: false };
      if (!name.endsWith('.value')) rows += 1;
    }
  }
  const lists = list === undefined ? bound.lists : { ...bound.lists, [slot]: { ...list, count: rows } };
  return { bound: { ...bound, texts, lists }, root: expandRows(arrangement.root, (each) => lists[each] ?? NO_LIST) };
}

/** How every slot came out: a list once, at the size of its smallest row and with the lines of all. */
function textFits(texts: SetTexts, fitted: FitOutcome, placed: CutReport['placed'], overBy: OverBy | null): readonly TextFit[] {
  const slots = new Map<string, { sizePx: number; lines: number }>();
  for (const [part, text] of texts) {
    const found = placed.find((each) => each.slot === part.slot);
    if (text.ghost || !found || isNumeral(part.slot) || part.ornament) continue;
    const slot = slotOfRow(part.slot);
    const before = slots.get(slot);
    slots.set(slot, { sizePx: Math.min(before?.sizePx ?? Infinity, found.sizePx), lines: (before?.lines ?? 0) + found.lines });
  }
  return [...slots].map(([slot, { sizePx, lines }]): TextFit => {
    if (fitted.overflow && overBy?.slot === slot) return { kind: 'overflows', slot, sizePx, lines, overBy: overBy.characters, reason: fitted.overflow.reason };
    return { kind: 'fits', slot, sizePx, lines };
  });
}
