import { LRUCache } from 'lru-cache';
import type { Yoga } from 'yoga-layout/load';
import type { Box } from '../geometry/box.ts';
import { lineWidthEm } from '../text/break-lines.ts';
import { walkParts, type Part, type TextPart } from '../template/parts.ts';
import { KnownLayouts, type Asked, type TextRoom, type TextSpace } from './known-layouts.ts';
import { LayoutTree } from './layout-tree.ts';
import { lineCountIn, sizeInWidth, textHeightPx, widestWordPx, type SetText } from './set-text.ts';
import { showParts, walkShown, type LayoutInput, type ShownPart } from './shown-parts.ts';

/** A part with its place in the cut. */
export interface LaidOut {
  readonly part: Part;
  readonly box: Box;
  readonly children: readonly LaidOut[];
}

/** Why a layout cannot be kept: texts with a word (or a single line) wider than their room, or too much of everything. */
export type Overflow = { readonly reason: 'word-too-wide'; readonly parts: readonly [TextPart, ...TextPart[]] } | { readonly reason: 'too-tall' };

/** Rounding of the solver: boxes may stand out this far without counting as overflow. */
const SLACK_PX = 0.75;

/** A text that is laid out. */
interface LaidText {
  readonly part: TextPart;
  readonly text: SetText;
  /** Its place among all shown parts. */
  readonly index: number;
}

interface Layout {
  /** Left and top in the stack around it, width and height, in pixels, of each part before those inside it. */
  readonly places: Float64Array;
  /** Whether every part lies inside what its stack leaves free. */
  readonly isContained: boolean;
}

/**
 * Lays one arrangement out, again and again with other type sizes. Free it after use: what it lays out with lives outside the
 * JavaScript heap.
 */
export class LayoutSolver {
  readonly #root: ShownPart;
  readonly #texts: readonly LaidText[];
  readonly #textOf: ReadonlyMap<TextPart, LaidText>;
  readonly #known: KnownLayouts<Layout>;
  readonly #sizes = new Map<TextPart, number>();
  /** Made for the first layout that is not known. */
  #tree: LayoutTree | null = null;
  #asked: Asked[] = [];
  #layout: Layout | null = null;
  /** What does not fit into the last layout; undefined until it is asked. */
  #overflow: Overflow | null | undefined;

  constructor(
    readonly input: LayoutInput,
    readonly yoga: Yoga,
  ) {
    this.#root = showParts(input);
    this.#texts = [...walkShown(this.#root)].flatMap(({ part }, index) => {
      const text = part.part === 'text' ? input.texts.get(part) : undefined;
      return part.part === 'text' && text ? { part, text, index } : [];
    });
    this.#textOf = new Map(this.#texts.map((text) => [text.part, text]));
    this.#known = knownLayouts(this.#root, input, yoga);
  }

  free(): void {
    this.#tree?.free();
  }

  /** Lays out with these type sizes, in pixels. */
  solve(sizes: ReadonlyMap<TextPart, number>): void {
    for (const [part, sizePx] of sizes) {
      if (this.#sizes.get(part) === sizePx) continue;
      this.#sizes.set(part, sizePx);
      this.#layout = null;
    }
    if (this.#layout) return;
    this.#overflow = undefined;
    this.#layout = this.#known.find((index, room) => this.#spaceOf(this.#texts[index], room)) ?? this.#layOut();
  }

  /** Width that a text has in the last layout, in pixels. */
  widthOf(part: TextPart): number {
    const laid = this.#textOf.get(part);
    return laid ? this.#widthAt(laid.index) : 0;
  }

  /** Every part of the last layout with its place. */
  laidOut(): LaidOut {
    const places = this.#layout?.places ?? NOTHING;
    let index = 0;
    const collect = ({ part, children }: ShownPart, originX: number, originY: number): LaidOut => {
      const [left = 0, top = 0, widthPx = 0, heightPx = 0] = places.subarray(4 * index, 4 * index + 4);
      index += 1;
      const box = { xPx: originX + left, yPx: originY + top, widthPx, heightPx };
      return { part, box, children: children.map((child) => collect(child, box.xPx, box.yPx)) };
    };
    return collect(this.#root, 0, 0);
  }

  /** Whether words or parts stand out of their room in the last layout, whatever their sizes. */
  runsOver(): boolean {
    return this.#texts.some(({ part, text, index }) => {
      const widthPx = this.#widthAt(index);
      return widestWordPx(text, sizeInWidth(text, this.#sizes.get(part) ?? text.minPx, widthPx)) > widthPx + SLACK_PX;
    }) || this.#layout?.isContained === false;
  }

  /** What does not fit into the last layout; null when all is well. Fitting asks it dozens of times. */
  findOverflow(): Overflow | null {
    if (this.#overflow === undefined) this.#overflow = this.#overflowOf();
    return this.#overflow;
  }

  #overflowOf(): Overflow | null {
    const tooWide: TextPart[] = [];
    for (const { part, text, index } of this.#texts) {
      // A hint is a help, not a text to fit.
      if (text.ghost) continue;
      const widthPx = this.#widthAt(index);
      const sizePx = sizeInWidth(text, this.#sizes.get(part) ?? text.minPx, widthPx);
      if (widestWordPx(text, sizePx) > widthPx + SLACK_PX || (part.fill && sizePx < text.minPx - 0.01)) tooWide.push(part);
    }
    const [first, ...others] = tooWide;
    if (first) return { reason: 'word-too-wide', parts: [first, ...others] };
    return this.#layout?.isContained === false ? { reason: 'too-tall' } : null;
  }

  #widthAt(index: number): number {
    return this.#layout?.places[4 * index + 2] ?? 0;
  }

  #layOut(): Layout {
    this.#tree ??= new LayoutTree(this.#root, this.input, this.yoga, (part, room) => this.#ask(part, room));
    this.#asked = [];
    const places = this.#tree.layOut();
    const layout = { places, isContained: isContained(this.#root, places) };
    this.#known.add(this.#asked, layout);
    return layout;
  }

  #ask(part: TextPart, room: TextRoom): TextSpace {
    const laid = this.#textOf.get(part);
    const space = this.#spaceOf(laid, room);
    if (laid) this.#asked.push({ text: this.#texts.indexOf(laid), room, space });
    return space;
  }

  #spaceOf(laid: LaidText | undefined, { widthPx, isExact }: TextRoom): TextSpace {
    if (!laid) return { width: 0, height: 0 };
    const { part, text } = laid;
    const wanted = this.#sizes.get(part) ?? text.maxPx;
    // Where nothing stretches it, a text is as wide as its one line, up to the room there is.
    const width = isExact ? widthPx : Math.min(Number.isFinite(widthPx) ? widthPx : Infinity, lineWidthEm(text.shaped) * wanted + SLACK_PX);
    const sizePx = sizeInWidth(text, wanted, width);
    return { width, height: textHeightPx(text, sizePx, lineCountIn(text, sizePx, width)) };
  }
}

const NOTHING = new Float64Array();

/** Layouts by all that they depend on beside the texts, for as long as their engine lives. */
const knownBy = new WeakMap<Yoga, LRUCache<string, KnownLayouts<Layout>>>();
/** Arrangements in cuts of which layouts are kept: a wall shows some dozens, each tried in a few ways. */
const MAX_KNOWN = 240;

function knownLayouts(root: ShownPart, { frame, markOf, place, root: stack }: LayoutInput, yoga: Yoga): KnownLayouts<Layout> {
  const known = knownBy.get(yoga) ?? new LRUCache<string, KnownLayouts<Layout>>({ max: MAX_KNOWN });
  knownBy.set(yoga, known);
  const shown = new Set([...walkShown(root)].map(({ part }) => part));
  const marks = [...shown].map((part) => part.part === 'mark' && markOf(part)).map((mark) => mark && [mark.viewBox, mark.leastHeightPx]);
  const key = JSON.stringify([stack, [...walkParts(stack)].map((part) => shown.has(part)), frame, place, marks]);
  const layouts = known.get(key) ?? new KnownLayouts<Layout>();
  known.set(key, layouts);
  return layouts;
}

/** True when every part that stands in a row or column lies inside what its stack leaves free. */
function isContained(root: ShownPart, places: Float64Array): boolean {
  let index = -1;
  const contains = ({ padding, children }: ShownPart): boolean => {
    index += 1;
    const [, , width = 0, height = 0] = places.subarray(4 * index, 4 * index + 4);
    const rightPx = width - padding.right + SLACK_PX;
    const bottomPx = height - padding.bottom + SLACK_PX;
    let isInside = true;
    for (const child of children) {
      const [left = 0, top = 0, widthPx = 0, heightPx = 0] = places.subarray(4 * index + 4, 4 * index + 8);
      const stands = left >= padding.left - SLACK_PX && top >= padding.top - SLACK_PX && left + widthPx <= rightPx && top + heightPx <= bottomPx;
      // Goes on through all of them: it counts the parts.
      isInside = contains(child) && (child.part.over !== undefined || stands) && isInside;
    }
    return isInside;
  };
  return contains(root);
}
