import type { Yoga } from 'yoga-layout/load';
import { resolveScheme, type BrandBook } from '../brand/brand-book.ts';
import type { Picture } from '../crop/crop-window.ts';
import type { Placement } from '../network/network-sheet.ts';
import type { Adjustment } from '../piece/adjustment.ts';
import type { Frame } from '../piece/piece.ts';
import type { Scene } from '../scene/scene.ts';
import { walkParts, type StackPart, type Template, type TextPart } from '../template/template.ts';
import type { Typesetter } from '../text/typesetter.ts';
import { arrange } from './arrange.ts';
import { bind, type Bound, type BoundText } from './bind.ts';
import { cutFrame, type CutFrame } from './cut-frame.ts';
import { emit } from './emit.ts';
import { expandRows, slotOfRow } from './expand.ts';
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
  const bound = bind(input.template, input.frame, input.pictures, { ghosts: input.ghosts, hidden });
  const root = expandRows(arrangement.root, (slot) => bound.itemCounts[slot] ?? 0);
  const setting: Setting = { root, bound, book: input.book, frame, hidden, textStep: adjustment.textStep ?? 0, engines };
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

interface OverBy {
  readonly part: TextPart;
  readonly characters: number;
}

function fitTexts(setting: Setting, texts: SetTexts): { fitted: FitOutcome; overBy: OverBy | null } {
  const fitted = runFit(setting, texts);
  if (!fitted.overflow) return { fitted, overBy: null };
  const part = longestText(texts);
  if (!part) return { fitted, overBy: null };
  const characters = [...new Intl.Segmenter('und', { granularity: 'grapheme' }).segment(setting.bound.texts[part.slot]?.text ?? '')].map((each) => each.segment);
  const fitsWith = (count: number): boolean => {
    const shortened = new Map(texts);
    const text = characters.slice(0, count).join('').trim();
    shortened.set(part, setPart(part, { text, ghost: false }, setting));
    return !runFit(setting, shortened).overflow;
  };
  let [low, high] = [0, characters.length];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (fitsWith(middle)) low = middle;
    else high = middle;
  }
  return { fitted, overBy: { part, characters: characters.length - low } };
}

/** The text that is asked to become shorter: the one that takes the most room at its smallest size. */
function longestText(texts: SetTexts): TextPart | null {
  let [longest, most]: [TextPart | null, number] = [null, -1];
  for (const [part, text] of texts) {
    const area = (text.shaped.offsetsEm.at(-1) ?? 0) * text.minPx ** 2;
    if (!text.ghost && area > most) [longest, most] = [part, area];
  }
  return longest;
}

function textFits(texts: SetTexts, fitted: FitOutcome, placed: CutReport['placed'], overBy: OverBy | null): readonly TextFit[] {
  return [...texts.entries()].flatMap(([part, text]): TextFit[] => {
    const found = placed.find((each) => each.slot === part.slot);
    if (text.ghost || !found) return [];
    const { lines, sizePx } = found;
    if (fitted.overflow && overBy?.part === part) {
      return [{ kind: 'overflows', slot: slotOfRow(part.slot), sizePx, lines, overBy: overBy.characters, reason: fitted.overflow }];
    }
    return [{ kind: 'fits', slot: part.slot, sizePx, lines }];
  });
}
