import type { Node as YogaNode, Yoga } from 'yoga-layout/load';
import { markSize } from '../brand/mark-size.ts';
import type { Edge, MarkPart, Part, StackPart, TextPart } from '../template/parts.ts';
import type { TextRoom, TextSpace } from './known-layouts.ts';
import { dotsWidthPx, SWIPE_ASPECT } from './page-marks.ts';
import { EDGES, safeInset, type LayoutInput, type ShownPart } from './shown-parts.ts';

/** Words beside a wide mark keep most of the row, in percent. */
const MAX_MARK_SHARE_OF_ROW = 40;

/** The flexbox of an arrangement. Free it after use: its nodes live outside the JavaScript heap. */
export class LayoutTree {
  readonly #root: Built;
  /** Nodes point at their config as long as they live. */
  readonly #config: YogaConfig;
  readonly #textNodes: YogaNode[] = [];

  /** @param ask how much space a text takes; layout asks while it goes on */
  constructor(
    root: ShownPart,
    readonly input: LayoutInput,
    yoga: Yoga,
    readonly ask: (part: TextPart, room: TextRoom) => TextSpace,
  ) {
    this.#config = yoga.Config.create();
    this.#config.setPointScaleFactor(0);
    this.#root = this.#build(root, yoga);
    this.#root.node.setWidth(input.frame.size.widthPx);
    this.#root.node.setHeight(input.frame.size.heightPx);
  }

  free(): void {
    this.#root.node.freeRecursive();
    this.#config.free();
  }

  /**
   * Lays out, and asks every text anew.
   * @returns left and top in the stack around it, width and height, in pixels, of each part before those inside it
   */
  layOut(): Float64Array {
    for (const node of this.#textNodes) node.markDirty();
    this.#root.node.calculateLayout(undefined, undefined);
    const places: number[] = [];
    collect(this.#root, places);
    return new Float64Array(places);
  }

  #build(shown: ShownPart, yoga: Yoga): Built {
    const { part, padding } = shown;
    const node = yoga.Node.create(this.#config);
    const { marginPx } = this.input.frame;
    this.#place(node, part, yoga);
    const children: Built[] = [];
    switch (part.part) {
      case 'stack': {
        node.setFlexDirection(part.direction === 'row' ? yoga.FLEX_DIRECTION_ROW : yoga.FLEX_DIRECTION_COLUMN);
        node.setGap(yoga.GUTTER_ALL, (part.gapM ?? 0) * marginPx);
        node.setJustifyContent({ start: yoga.JUSTIFY_FLEX_START, centre: yoga.JUSTIFY_CENTER, end: yoga.JUSTIFY_FLEX_END, between: yoga.JUSTIFY_SPACE_BETWEEN }[part.justify ?? 'start']);
        node.setAlignItems({ start: yoga.ALIGN_FLEX_START, centre: yoga.ALIGN_CENTER, end: yoga.ALIGN_FLEX_END, stretch: yoga.ALIGN_STRETCH }[part.align ?? 'stretch']);
        for (const edge of EDGES) node.setPadding(yogaEdge(yoga, edge), padding[edge]);
        for (const child of shown.children) {
          const built = this.#build(child, yoga);
          node.insertChild(built.node, children.length);
          children.push(built);
        }
        break;
      }
      case 'text': {
        if (part.widthM !== undefined) node.setWidth(part.widthM * marginPx);
        node.setMeasureFunc((widthPx, mode) => this.ask(part, { widthPx, isExact: mode === yoga.MEASURE_MODE_EXACTLY }));
        this.#textNodes.push(node);
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
    return { node, children };
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
}

type YogaConfig = ReturnType<Yoga['Config']['create']>;

interface Built {
  readonly node: YogaNode;
  readonly children: readonly Built[];
}

function yogaEdge(yoga: Yoga, edge: Edge) {
  return { top: yoga.EDGE_TOP, right: yoga.EDGE_RIGHT, bottom: yoga.EDGE_BOTTOM, left: yoga.EDGE_LEFT }[edge];
}

function isInRow(stack: StackPart, part: Part): boolean {
  if (stack.children.includes(part)) return stack.direction === 'row';
  return stack.children.some((child) => child.part === 'stack' && isInRow(child, part));
}

function collect({ node, children }: Built, places: number[]): void {
  places.push(node.getComputedLeft(), node.getComputedTop(), node.getComputedWidth(), node.getComputedHeight());
  for (const child of children) collect(child, places);
}
