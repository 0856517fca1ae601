import type { Yoga } from 'yoga-layout/load';
import { resolveScheme, type BrandBook } from '../brand/brand-book.ts';
import type { Picture } from '../crop/crop-window.ts';
import type { Placement } from '../network/network-sheet.ts';
import type { Frame } from '../piece/piece.ts';
import type { Scene } from '../scene/scene.ts';
import { walkParts, type StackPart, type Template, type TextPart } from '../template/template.ts';
import type { Typesetter } from '../text/typesetter.ts';
import { arrange } from './arrange.ts';
import { bind, type Bound } from './bind.ts';
import { cutFrame, type CutFrame } from './cut-frame.ts';
import { emit } from './emit.ts';
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
}

export interface Composed {
  readonly scene: Scene;
  readonly report: CutReport;
}

/**
 * One cut, from content to scene:
 *
 * ```
 * bind -> arrange -> shape -> lay out <-> fit -> crop, contrast, emit
 * ```
 */
export function compose(input: ComposeInput, engines: Engines): Composed {
  const frame = cutFrame(input.placement);
  const scheme = resolveScheme(input.book, input.template.scheme);
  const arrangement = arrange(input.template, frame.size);
  const bound = bind(input.template, input.frame, input.pictures, input.ghosts);
  const texts = shapeTexts(arrangement.root, bound, input.book, frame, engines.typesetter);
  const { fitted, overBy } = fitTexts(arrangement.root, bound, input.book, frame, texts, engines);
  const emitted = emit({ book: input.book, scheme, frame, bound, texts, fitted, typesetter: engines.typesetter });
  return {
    scene: { size: frame.size, nodes: emitted.nodes },
    report: {
      arrangement: arrangement.name,
      texts: textFits(texts, fitted, emitted.placed, overBy),
      placed: emitted.placed,
      findings: [...bound.findings, ...emitted.findings],
    },
  };
}

type SetTexts = ReadonlyMap<TextPart, SetText>;

function shapeTexts(root: StackPart, bound: Bound, book: BrandBook, frame: CutFrame, typesetter: Typesetter): SetTexts {
  const texts = new Map<TextPart, SetText>();
  for (const part of walkParts(root)) {
    const text = part.part === 'text' ? bound.texts[part.slot] : undefined;
    if (part.part === 'text' && text) texts.set(part, setText(part, text, book, frame, typesetter));
  }
  return texts;
}

function runFit(root: StackPart, texts: SetTexts, book: BrandBook, frame: CutFrame, engines: Engines): FitOutcome {
  const mark = book.marks[0];
  const solver = new LayoutSolver(
    { root, frame, texts, hasPicture: () => true, markAspect: mark ? mark.viewBox.width / mark.viewBox.height : 1 },
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

function fitTexts(root: StackPart, bound: Bound, book: BrandBook, frame: CutFrame, texts: SetTexts, engines: Engines): { fitted: FitOutcome; overBy: OverBy | null } {
  const fitted = runFit(root, texts, book, frame, engines);
  if (!fitted.overflow) return { fitted, overBy: null };
  const part = longestText(texts);
  if (!part) return { fitted, overBy: null };
  const characters = [...new Intl.Segmenter('und', { granularity: 'grapheme' }).segment(bound.texts[part.slot]?.text ?? '')].map((each) => each.segment);
  const fitsWith = (count: number): boolean => {
    const shortened = new Map(texts);
    const text = characters.slice(0, count).join('').trim();
    shortened.set(part, setText(part, { text, ghost: false }, book, frame, engines.typesetter));
    return !runFit(root, shortened, book, frame, engines).overflow;
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
    const lines = placed.find((each) => each.slot === part.slot)?.lines;
    if (text.ghost || lines === undefined) return [];
    const sizePx = fitted.sizes.get(part) ?? text.minPx;
    if (fitted.overflow && overBy?.part === part) {
      return [{ kind: 'overflows', slot: part.slot, sizePx, lines, overBy: overBy.characters, reason: fitted.overflow }];
    }
    return [{ kind: 'fits', slot: part.slot, sizePx, lines }];
  });
}
