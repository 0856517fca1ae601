import type { Node as YogaNode, Yoga } from 'yoga-layout/load';
import type { BrandMark } from '../brand/brand-book.ts';
import { markSize } from '../brand/mark-size.ts';
import type { Box } from '../geometry/box.ts';
import { MARK_SLOT } from '../piece/adjustment.ts';
import type { Edge, MarkPart, Part, StackPart, TextPart } from '../template/parts.ts';
import type { SlidePlace } from '../piece/slides-of-cut.ts';
import type { CutFrame } from './cut-frame.ts';
import { dotsWidthPx, SWIPE_ASPECT } from './page-marks.ts';
import { lineWidthEm } from '../text/break-lines.ts';
import { lineCountIn, sizeInWidth, textHeightPx, widestWordPx, type SetText } from './set-text.ts';

/** A part with its place in the cut. */
export interface LaidOut {
  readonly part: Part;
  readonly box: Box;
  readonly children: readonly LaidOut[];
}

/** Why a layout cannot be kept: texts with a word (or a single line) wider than their room, or too much of everything. */
export type Overflow = { readonly reason: 'word-too-wide'; readonly parts: readonly [TextPart, ...TextPart[]] } | { readonly reason: 'too-tall' };

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

/** Words beside a wide mark keep most of the row, in percent. */
const MAX_MARK_SHARE_OF_ROW = 40;

/** Rounding of the solver: boxes may stand out this far without counting as overflow. */
const SLACK_PX = 0.75;

/**
 * Lays one arrangement out by flexbox, again and again with other type sizes. Free it after use: its nodes live outside
 * the JavaScript heap.
 */
export class LayoutSolver {
  readonly #root: Built;
  /** Nodes point at their config as long as they live. */
  readonly #config: YogaConfig;
  readonly #sizes = new Map<TextPart, number>();
  readonly #textNodes = new Map<TextPart, YogaNode>();
  /** What does not fit into the last layout; undefined until it is asked. */
  #overflow: Overflow | null | undefined;
  #isSolved = false;

  constructor(
    readonly input: LayoutInput,
    yoga: Yoga,
  ) {
    this.#config = yoga.Config.create();
    this.#config.setPointScaleFactor(0);
    this.#root = this.#build(input.root, yoga, this.#config);
    this.#root.node.setWidth(input.frame.size.widthPx);
    this.#root.node.setHeight(input.frame.size.heightPx);
  }

  free(): void {
    this.#root.node.freeRecursive();
    this.#config.free();
  }

  /** Lays out with these type sizes, in pixels. */
  solve(sizes: ReadonlyMap<TextPart, number>): void {
    for (const [part, sizePx] of sizes) {
      if (this.#sizes.get(part) === sizePx) continue;
      this.#sizes.set(part, sizePx);
      this.#textNodes.get(part)?.markDirty();
      this.#isSolved = false;
    }
    if (this.#isSolved) return;
    this.#root.node.calculateLayout(undefined, undefined);
    this.#isSolved = true;
    this.#overflow = undefined;
  }

  /** Width that a text has in the last layout, in pixels. */
  widthOf(part: TextPart): number {
    return this.#textNodes.get(part)?.getComputedWidth() ?? 0;
  }

  /** Every part of the last layout with its place. */
  laidOut(): LaidOut {
    return collect(this.#root, 0, 0);
  }

  /** Whether words or parts stand out of their room in the last layout, whatever their sizes. */
  runsOver(): boolean {
    for (const [part, node] of this.#textNodes) {
      const text = this.input.texts.get(part);
      const widthPx = node.getComputedWidth();
      if (text && widestWordPx(text, sizeInWidth(text, this.#sizes.get(part) ?? text.minPx, widthPx)) > widthPx + SLACK_PX) return true;
    }
    return !isContained(this.#root);
  }

  /** What does not fit into the last layout; null when all is well. Asked of the nodes themselves: fitting asks it dozens of times. */
  findOverflow(): Overflow | null {
    if (this.#overflow === undefined) this.#overflow = this.#overflowOf();
    return this.#overflow;
  }

  #overflowOf(): Overflow | null {
    const tooWide: TextPart[] = [];
    for (const [part, node] of this.#textNodes) {
      const text = this.input.texts.get(part);
      // A hint is a help, not a text to fit.
      if (!text || text.ghost) continue;
      const widthPx = node.getComputedWidth();
      const sizePx = sizeInWidth(text, this.#sizes.get(part) ?? text.minPx, widthPx);
      if (widestWordPx(text, sizePx) > widthPx + SLACK_PX || (part.fill && sizePx < text.minPx - 0.01)) tooWide.push(part);
    }
    const [first, ...others] = tooWide;
    if (first) return { reason: 'word-too-wide', parts: [first, ...others] };
    return isContained(this.#root) ? null : { reason: 'too-tall' };
  }

  #build(part: Part, yoga: Yoga, config: YogaConfig): Built {
    const node = yoga.Node.create(config);
    const { marginPx } = this.input.frame;
    this.#place(node, part, yoga);
    const children: Built[] = [];
    const padding = part.part === 'stack' ? stackPadding(part, this.input.frame) : NO_PADDING;
    switch (part.part) {
      case 'stack': {
        node.setFlexDirection(part.direction === 'row' ? yoga.FLEX_DIRECTION_ROW : yoga.FLEX_DIRECTION_COLUMN);
        node.setGap(yoga.GUTTER_ALL, (part.gapM ?? 0) * marginPx);
        node.setJustifyContent({ start: yoga.JUSTIFY_FLEX_START, centre: yoga.JUSTIFY_CENTER, end: yoga.JUSTIFY_FLEX_END, between: yoga.JUSTIFY_SPACE_BETWEEN }[part.justify ?? 'start']);
        node.setAlignItems({ start: yoga.ALIGN_FLEX_START, centre: yoga.ALIGN_CENTER, end: yoga.ALIGN_FLEX_END, stretch: yoga.ALIGN_STRETCH }[part.align ?? 'stretch']);
        for (const edge of EDGES) node.setPadding(yogaEdge(yoga, edge), padding[edge]);

        for (const child of part.children) {
          if (!this.#isShown(child)) continue;
          const built = this.#build(child, yoga, config);
          node.insertChild(built.node, children.length);
          children.push(built);
        }
        break;
      }
      case 'text': {
        const text = this.input.texts.get(part);
        if (part.widthM !== undefined) node.setWidth(part.widthM * marginPx);
        if (text) node.setMeasureFunc((widthPx, mode) => this.#measure(part, text, mode === yoga.MEASURE_MODE_EXACTLY ? { exactPx: widthPx } : { mostPx: widthPx }));
        this.#textNodes.set(part, node);
        break;
      }
      case 'mark':
        this.#sizeMark(node, part);
        break;
      case 'rule':
        if (part.lengthM > 0) node.setWidth(part.lengthM * marginPx);
        node.setHeight(Math.max(1, part.thicknessM * marginPx));
        break;
      case 'sign':
        node.setHeight(part.heightM * marginPx);
        break;
      case 'artwork':
        node.setHeight(part.heightM * marginPx);
        node.setWidth(part.heightM * marginPx * (part.viewBox.width / part.viewBox.height));
        break;
      case 'picture':
        if (part.sideM !== undefined) {
          node.setWidth(part.sideM * marginPx);
          node.setHeight(part.sideM * marginPx);
        }
        break;
      case 'dots':
        node.setHeight(part.heightM * marginPx);
        node.setWidth(dotsWidthPx(part, this.input.place, marginPx));
        break;
      case 'swipe':
        node.setHeight(part.heightM * marginPx);
        node.setWidth(part.heightM * marginPx * SWIPE_ASPECT);
        break;
      case 'motif':
      case 'veil':
        break;
    }
    return { part, node, padding, children };
  }

  #sizeMark(node: YogaNode, part: MarkPart): void {
    const mark = this.input.markOf(part);
    if (!mark) return;
    const { marginPx, size, safe } = this.input.frame;
    const aspect = mark.viewBox.width / mark.viewBox.height;
    const sides = Math.max(safe.leftPx, marginPx) + Math.max(safe.rightPx, marginPx);
    const { widthPx, heightPx } = markSize(aspect, { heightPx: part.heightM * marginPx, leastHeightPx: mark.leastHeightPx * (size.widthPx / 1080), mostWidthPx: size.widthPx - sides });
    // What it stands in may be narrower than the cut: then it is as wide as that, and keeps its shape.
    if (widthPx > heightPx) {
      node.setMaxWidthPercent(isInRow(this.input.root, part) ? MAX_MARK_SHARE_OF_ROW : 100);
      node.setMeasureFunc((roomPx) => {
        const width = Math.min(widthPx, Number.isFinite(roomPx) ? roomPx : widthPx);
        return { width, height: width / aspect };
      });
    } else {
      node.setWidth(widthPx);
      node.setHeight(heightPx);
    }
  }

  #isShown(part: Part): boolean {
    if (part.part === 'text') return this.input.texts.has(part);
    if (part.part === 'picture') return !this.input.isHidden(part.slot);
    if (part.part === 'mark') return !this.input.isHidden(MARK_SLOT) && !(part.slot !== undefined && this.input.isHidden(part.slot));
    if (part.part === 'dots') return this.input.place.count > 1;
    if (part.part === 'swipe') return this.input.place.index < this.input.place.count - 1;
    // A stack around nothing (a chip without its answer) would be an empty shape.
    // Hairlines part what is shown; alone they would part nothing.
    if (part.part === 'stack' && part.children.length > 0) return part.children.some((child) => child.part !== 'rule' && this.#isShown(child));
    return true;
  }

  #place(node: YogaNode, part: Part, yoga: Yoga): void {
    node.setFlexShrink(part.part === 'picture' ? 1 : 0);
    if (part.grow !== undefined) node.setFlexGrow(part.grow);
    if (part.share !== undefined) node.setFlexBasis(part.share === 0 ? 0 : `${part.share * 100}%`);
    if (part.grow !== undefined && part.share === 0) node.setFlexShrink(1);
    if (part.leastShare !== undefined) {
      const { heightPx, widthPx } = this.input.frame.size;
      if (isInRow(this.input.root, part)) node.setMinWidth(part.leastShare * widthPx);
      else node.setMinHeight(part.leastShare * heightPx);
    }
    if (part.alignSelf) node.setAlignSelf({ start: yoga.ALIGN_FLEX_START, centre: yoga.ALIGN_CENTER, end: yoga.ALIGN_FLEX_END, stretch: yoga.ALIGN_STRETCH }[part.alignSelf]);
    if (part.over) {
      node.setPositionType(yoga.POSITION_TYPE_ABSOLUTE);
      for (const edge of EDGES) {
        const distanceM = part.over[edge];
        if (distanceM === undefined) continue;
        const safePx = part.part === 'mark' || (part.part === 'stack' && part.safe?.includes(edge)) ? safeInset(this.input.frame, edge) : -Infinity;
        node.setPosition(yogaEdge(yoga, edge), Math.max(distanceM * this.input.frame.marginPx, safePx));
      }
    }
  }

  #measure(part: TextPart, text: SetText, room: { readonly exactPx: number } | { readonly mostPx: number }): { width: number; height: number } {
    const wanted = this.#sizes.get(part) ?? text.maxPx;
    // Where nothing stretches it, a text is as wide as its one line, up to the room there is.
    const lineEm = lineWidthEm(text.shaped);
    const width = 'exactPx' in room ? room.exactPx : Math.min(Number.isFinite(room.mostPx) ? room.mostPx : Infinity, lineEm * wanted + SLACK_PX);
    const sizePx = sizeInWidth(text, wanted, width);
    return { width, height: textHeightPx(text, sizePx, lineCountIn(text, sizePx, width)) };
  }
}

type YogaConfig = ReturnType<Yoga['Config']['create']>;

interface Built {
  readonly part: Part;
  readonly node: YogaNode;
  /** What a stack leaves free inside its edges, in pixels. */
  readonly padding: Readonly<Record<Edge, number>>;
  readonly children: readonly Built[];
}

const NO_PADDING: Readonly<Record<Edge, number>> = { top: 0, right: 0, bottom: 0, left: 0 };

const EDGES: readonly Edge[] = ['top', 'right', 'bottom', 'left'];

function yogaEdge(yoga: Yoga, edge: Edge) {
  return { top: yoga.EDGE_TOP, right: yoga.EDGE_RIGHT, bottom: yoga.EDGE_BOTTOM, left: yoga.EDGE_LEFT }[edge];
}

function safeInset({ safe }: CutFrame, edge: Edge): number {
  return { top: safe.topPx, right: safe.rightPx, bottom: safe.bottomPx, left: safe.leftPx }[edge];
}

/** Inner distances of a stack in pixels: its padding, widened on edges of the cut to the safe zone; what lies over the cut is moved inside it instead. */
function stackPadding(part: StackPart, frame: CutFrame): Record<Edge, number> {
  const at = (edge: Edge): number => Math.max((part.padM?.[edge] ?? 0) * frame.marginPx, part.safe?.includes(edge) && part.over?.[edge] === undefined ? safeInset(frame, edge) : 0);
  return { top: at('top'), right: at('right'), bottom: at('bottom'), left: at('left') };
}

function isInRow(stack: StackPart, part: Part): boolean {
  if (stack.children.includes(part)) return stack.direction === 'row';
  return stack.children.some((child) => child.part === 'stack' && isInRow(child, part));
}

function collect(built: Built, originX: number, originY: number): LaidOut {
  const xPx = originX + built.node.getComputedLeft();
  const yPx = originY + built.node.getComputedTop();
  return {
    part: built.part,
    box: { xPx, yPx, widthPx: built.node.getComputedWidth(), heightPx: built.node.getComputedHeight() },
    children: built.children.map((child) => collect(child, xPx, yPx)),
  };
}

/** True when every part that stands in a row or column lies inside what its stack leaves free. */
function isContained({ node, padding, children }: Built): boolean {
  if (children.length === 0) return true;
  const rightPx = node.getComputedWidth() - padding.right + SLACK_PX;
  const bottomPx = node.getComputedHeight() - padding.bottom + SLACK_PX;
  return children.every((child) => {
    if (child.part.over) return isContained(child);
    const [leftPx, topPx] = [child.node.getComputedLeft(), child.node.getComputedTop()];
    return (
      leftPx >= padding.left - SLACK_PX &&
      topPx >= padding.top - SLACK_PX &&
      leftPx + child.node.getComputedWidth() <= rightPx &&
      topPx + child.node.getComputedHeight() <= bottomPx &&
      isContained(child)
    );
  });
}
