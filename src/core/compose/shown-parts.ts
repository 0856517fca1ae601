import type { BrandMark } from '../brand/brand-book.ts';
import { MARK_SLOT } from '../piece/adjustment.ts';
import type { SlidePlace } from '../piece/slides-of-cut.ts';
import type { Edge, MarkPart, Part, StackPart, TextPart } from '../template/parts.ts';
import type { CutFrame } from './cut-frame.ts';
import type { SetText } from './set-text.ts';

/** What layout has to know beside the tree itself. */
export interface LayoutInput {
  readonly root: StackPart;
  readonly frame: CutFrame;
  readonly texts: ReadonlyMap<TextPart, SetText>;
  /** Slots that this cut leaves out; `mark` is the brand's mark. */
  readonly isHidden: (slot: string) => boolean;
  /** The mark that will stand in a mark part; null in a book without marks. */
  readonly markOf: (part: MarkPart) => BrandMark | null;
  /** Where the slide stands among the others. */
  readonly place: SlidePlace;
}

/** A part that a cut shows, with those that it shows inside it. */
export interface ShownPart {
  readonly part: Part;
  /** What a stack leaves free inside its edges, in pixels. */
  readonly padding: Readonly<Record<Edge, number>>;
  readonly children: readonly ShownPart[];
}

export const EDGES: readonly Edge[] = ['top', 'right', 'bottom', 'left'];

const NO_PADDING: ShownPart['padding'] = { top: 0, right: 0, bottom: 0, left: 0 };

/** The parts that a cut shows. */
export function showParts(input: LayoutInput): ShownPart {
  return show(input.root, input);
}

/** A part and those inside it, each before its own children. */
export function* walkShown(shown: ShownPart): Iterable<ShownPart> {
  yield shown;
  for (const child of shown.children) yield* walkShown(child);
}

export function safeInset({ safe }: CutFrame, edge: Edge): number {
  return { top: safe.topPx, right: safe.rightPx, bottom: safe.bottomPx, left: safe.leftPx }[edge];
}

function show(part: Part, input: LayoutInput): ShownPart {
  if (part.part !== 'stack') return { part, padding: NO_PADDING, children: [] };
  return { part, padding: stackPadding(part, input.frame), children: part.children.filter((child) => isShown(child, input)).map((child) => show(child, input)) };
}

function isShown(part: Part, input: LayoutInput): boolean {
  if (part.part === 'text') return input.texts.has(part);
  if (part.part === 'picture') return !input.isHidden(part.slot);
  if (part.part === 'mark') return !input.isHidden(MARK_SLOT) && !(part.slot !== undefined && input.isHidden(part.slot));
  if (part.part === 'dots') return input.place.count > 1;
  if (part.part === 'swipe') return input.place.index < input.place.count - 1;
  // A stack around nothing (a chip without its answer) would be an empty shape.
  // Hairlines part what is shown; alone they would part nothing.
  if (part.part === 'stack' && part.children.length > 0) return part.children.some((child) => child.part !== 'rule' && isShown(child, input));
  return true;
}

/** Inner distances of a stack in pixels: its padding, widened on edges of the cut to the safe zone; what lies over the cut is moved inside it instead. */
function stackPadding(part: StackPart, frame: CutFrame): Record<Edge, number> {
  const at = (edge: Edge): number => Math.max((part.padM?.[edge] ?? 0) * frame.marginPx, part.safe?.includes(edge) && part.over?.[edge] === undefined ? safeInset(frame, edge) : 0);
  return { top: at('top'), right: at('right'), bottom: at('bottom'), left: at('left') };
}
