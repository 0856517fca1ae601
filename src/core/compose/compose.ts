import { hasScheme, resolveScheme, type BrandBook } from '../brand/brand-book.ts';
import type { Picture } from '../crop/crop-window.ts';
import type { Box } from '../geometry/box.ts';
import type { Placement } from '../network/network-sheet.ts';
import type { Adjustment } from '../piece/adjustment.ts';
import type { Frame } from '../piece/piece.ts';
import { ALONE, type SlidePlace } from '../piece/slides-of-cut.ts';
import type { Scene } from '../scene/scene.ts';
import type { PicturePart } from '../template/parts.ts';
import type { Arrangement, Template } from '../template/template.ts';
import { arrange, nearArrangements } from './arrange.ts';
import { cappedSizes, coversSubject, crowdsSubject, cutsSubject, isBetterArranged, isBetterAside, isBetterMoved, isFreer, losesSubject, markAmiss, otherPlaces, seenShare, worstSeen } from './better-attempt.ts';
import { bind } from './bind.ts';
import { isAlike } from './choose-mark.ts';
import { cutFrame } from './cut-frame.ts';
import { emit, type Emitted, type EmitInput } from './emit.ts';
import { expandRows, isNumeral, slotOfRow } from './expand.ts';
import type { FitOutcome } from './fit.ts';
import { fitCut, type Fitted, type Leeway } from './fit-cut.ts';
import { markBoxes } from './ink-boxes.ts';
import type { OverBy } from './measure-overflow.ts';
import { partBoxes } from './part-boxes.ts';
import { mayGrow, placeWords } from './place-words.ts';
import type { CutReport, InsteadOf, SetBeside, TextFit } from './report.ts';
import { NO_LIST, sizeKey, usualMark, type Engines, type SetTexts, type Setting } from './set-cut.ts';
import { photoBelowWords, setAside } from './set-aside.ts';
import { settleMarks } from './settle-marks.ts';
import { showPicture } from './show-picture.ts';
import { isWorthMeeting, mayStandBefore, standBefore } from './stand-before.ts';
import { coveringBoxes } from './uncovered.ts';
import { vary } from './vary.ts';

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
  const below = photoBelowWords(arrangement);
  const settingFor = ({ arrangement, marks, meetsSubject, smallerBy = 0, limits }: Attempt) => ({ leastShare, isBound }: Leeway) => (dropped: readonly string[]): Setting => {
    const hidden = [...(adjustment.hidden ?? []), ...dropped];
    const bound = bind(template, input.frame, input.pictures, { ghosts: input.ghosts, hidden, facts: book.facts, language: book.language });
    const placed = { ...arrangement, root: placeWords(arrangement.root, { frame, pictures: bound.pictures, crops: adjustment.crops ?? {}, isBound, meetsSubject }) };
    const root = expandRows(placed.root, (slot) => bound.lists[slot] ?? NO_LIST);
    return { arrangement: placed, root, bound, book, frame, hidden, hyphenated: new Set(), textStep: (adjustment.textStep ?? 0) - smallerBy, leastShare, place, caps: input.caps, limits, marks, engines };
  };
  const attempt = (way: Attempt): Attempted => {
    const { marks, meetsSubject } = way;
    const found = fitCut(template, adjustment, settingFor(way), mayGrow(way.arrangement.root));
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
      const limits = cappedSizes(sizes, share);
      const smaller = attempt({ arrangement, marks, meetsSubject: false, limits });
      if (isFreer(smaller, found)) return { tried: smaller, limits };
    }
    return { tried: found, limits: undefined };
  };
  /**
   * The cut with its words beside the photograph, where its subject has no room beside words on it; else as it is.
   * @param found the cut before its words were made smaller for the subject, which they were in vain if too little of it can be seen
   */
  const beside = (onPhoto: Attempted, found: Attempted, marks: Setting['marks']) => {
    const { slot, cover } = below ?? NO_PHOTO;
    const picture = onPhoto.setting.bound.pictures[slot];
    const place = onPhoto.emitted.blocks.find((block) => block.picture === slot)?.place;
    // A crop that a person has moved shows what they want to be seen.
    if (!picture || !place || adjustment.crops?.[slot] || !losesSubject(onPhoto, slot, cover)) return { tried: onPhoto, arrangement };
    for (const aside of setAside(arrangement, picture, place, frame)) {
      const tried = attempt({ arrangement: aside, marks, meetsSubject: false });
      for (const usual of new Set([onPhoto, found])) {
        const beside: SetBeside = { picture: slot, seenShare: seenShare(tried, slot), seenOnPhoto: seenShare(usual, slot) };
        if (isBetterAside(tried, usual, beside, onPhoto !== found)) return { tried: { ...tried, beside }, arrangement: aside };
      }
    }
    return { tried: onPhoto, arrangement };
  };
  /** The cut in an arrangement for a shape close to its own, where a window of the usual one cuts off too much of a subject; else as it was found. */
  const arrangedAnew = (usual: Attempted, marks: Setting['marks']) => {
    // Slides and shots of one piece are arranged alike, and a person's choice stays.
    const isSettled = template.kind !== 'graphic' || adjustment.arrangement !== undefined || Object.keys(adjustment.crops ?? {}).length > 0;
    if (isSettled || !cutsSubject(usual)) return { tried: usual, arrangement };
    for (const near of nearArrangements(template, frame.size, arrange(template, frame.size))) {
      const other = vary(near, adjustment);
      const tried = attempt({ arrangement: other, marks, meetsSubject: false });
      if (isBetterArranged(tried, usual)) return { tried: { ...tried, insteadOf: { arrangement: arrangement.key, seenShare: worstSeen(tried), seenInIt: worstSeen(usual) } }, arrangement: other };
    }
    return { tried: usual, arrangement };
  };
  const mayMeet = mayStandBefore(arrangement.root, input);
  // Words go to their subject where it can stand before them, a little smaller if need be, and keep away from it where it cannot.
  const setFor = (marks: Setting['marks']) => {
    for (const smallerBy of mayMeet ? STEPS_TO_MEET : []) {
      const met = attempt({ arrangement, marks, meetsSubject: true, smallerBy });
      if (met.emitted.fronts.length > 0 && !met.fitted.overflow && isWorthMeeting(met.emitted)) return met;
    }
    const found = attempt({ arrangement, marks, meetsSubject: false });
    const { tried: onPhoto, limits } = coversSubject(found) || crowdsSubject(found, (below ?? NO_PHOTO).cover) ? offSubject(found, marks) : { tried: found, limits: undefined };
    const { tried: usual, arrangement: base } = below ? beside(onPhoto, found, marks) : arrangedAnew(onPhoto, marks);
    if (markAmiss(usual) === 0) return usual;
    // From slide to slide, and in a video, a mark stays in its corner.
    for (const other of otherPlaces(base, usual, frame.size, template.kind === 'graphic')) {
      const moved = attempt({ arrangement: other.arrangement, marks, meetsSubject: false, limits });
      if (isBetterMoved(moved, usual, other.inCorner)) return { ...moved, beside: usual.beside, insteadOf: usual.insteadOf };
    }
    return usual;
  };
  const { setting, texts, fitted, dropped, overBy, emitted, beside: besidePhoto, insteadOf } = settleMarks(setFor, hasRoomForItsMarks);
  return {
    scene: { size: frame.size, nodes: emitted.nodes },
    report: {
      arrangement: setting.arrangement.key,
      ...(insteadOf ? { insteadOf } : {}),
      texts: textFits(texts, fitted, emitted.placed, overBy),
      placed: emitted.placed,
      pictures: emitted.pictures,
      blocks: emitted.blocks,
      fronts: emitted.fronts,
      ...(besidePhoto ? { beside: besidePhoto } : {}),
      panels: emitted.panels,
      marks: markBoxes(fitted.laidOut),
      // Words that went to a subject left their block, others their photograph: the arrangement's own tree says which part is which.
      ...(input.wantsParts ? { parts: partBoxes(emitted.fronts.length > 0 || besidePhoto ? arrangement.root : setting.root, fitted.laidOut) } : {}),
      findings: [...setting.bound.findings, ...dropped.map((slot) => ({ kind: 'dropped' as const, slot })), ...emitted.findings],
    },
    sizes: sizesFound(setting.arrangement, texts, fitted),
  };
}

/** How a cut is set: in which arrangement, with which marks, whether words go to the subject that may stand before them, and how many steps smaller they are for it. */
interface Attempt {
  readonly arrangement: Arrangement;
  readonly marks: Setting['marks'];
  readonly meetsSubject: boolean;
  readonly smallerBy?: number;
  /** The largest sizes, by `sizeKey`, beside those of a run of slides. */
  readonly limits?: ReadonlyMap<string, number> | undefined;
}

/** Sizes, in steps below the usual one, at which words are tried to go to a subject. */
const STEPS_TO_MEET = [0, 2, 4] as const;

/** Shares of the usual size at which words are tried to leave the subject free that they lie on. */
const SHARES_OFF_SUBJECT = [0.85, 0.72] as const;

const NO_PHOTO = { slot: '', cover: 'words' } as const;
const NO_FRONTS: EmitInput['fronts'] = new Map();

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

/** A cut that was tried: laid out and emitted. */
interface Attempted extends Fitted {
  /** How words went beside their photograph. */
  readonly beside?: SetBeside | undefined;
  /** Why the arrangement is not the usual one. */
  readonly insteadOf?: InsteadOf | undefined;
  readonly emitted: Emitted;
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
