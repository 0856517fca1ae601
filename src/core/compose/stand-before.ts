import { OUTLINE_UNITS, type SubjectOutline } from '../crop/subject-outline.ts';
import { ownCropWindow, type CropWindow, type Picture } from '../crop/crop-window.ts';
import { growBox, intersectBoxes, type Box, type Size } from '../geometry/box.ts';
import type { OwnCrop } from '../piece/adjustment.ts';
import type { Frame } from '../piece/piece.ts';
import type { PathData } from '../scene/scene.ts';
import { walkParts, type PicturePart, type StackPart, type TextPart } from '../template/parts.ts';
import type { Typesetter } from '../text/typesetter.ts';
import type { Bound } from './bind.ts';
import type { CutFrame } from './cut-frame.ts';
import type { FitOutcome } from './fit.ts';
import { glyphPlaces } from './glyph-places.ts';
import { markBoxes, textBoxes } from './ink-boxes.ts';
import type { LaidOut } from './layout.ts';
import type { CutReport } from './report.ts';
import { sizeInWidth, type SetText } from './set-text.ts';
import type { ShownPicture } from './show-picture.ts';

/** A subject that stands before letters: the slot of its picture, its outline in the cut, and the share of the letters that it hides. */
export interface Front {
  readonly slot: string;
  readonly path: PathData;
  readonly hiddenShare: number;
}

export interface StandInput {
  readonly fitted: FitOutcome;
  readonly texts: ReadonlyMap<TextPart, SetText>;
  readonly bound: Bound;
  readonly frame: CutFrame;
  /** Crops that a person has moved, by slot: they stay. */
  readonly crops: Readonly<Record<string, OwnCrop>>;
  readonly typesetter: Typesetter;
  /** How a picture is shown in its place. */
  readonly show: (part: PicturePart, place: Box) => ShownPicture | null;
}

export interface Stood {
  readonly fitted: FitOutcome;
  /** Crops by slot: those that a person has moved, and those that had to move for a subject. */
  readonly crops: Readonly<Record<string, OwnCrop>>;
  readonly fronts: ReadonlyMap<TextPart, Front>;
}

/** Of each letter at most so much of its box may be hidden, and of its upper half, by which letters are told apart (Huey, 1908). */
const MOST_OF_LETTER = 0.42;
const MOST_OF_UPPER_HALF = 0.1;
/** The share of all letters that is best hidden, and below which nothing is seen to stand before them. */
const BEST_HIDDEN = 0.13;
const LEAST_HIDDEN = 0.02;
/** Of other words and marks at most so much may lie on it: it shows as it is, without the help that they have to be read. */
const MOST_OF_OTHERS = 0.004;
/** Steps in which the letters move down, in em, and the room that they keep to other words, in m. */
const STEP_EM = 0.04;
const ROOM_M = 0.6;
/** Cells along the long side of the grid on which hidden shares are measured. */
const CELLS = 240;
/** How far a picture may move sideways for its subject, in steps as shares of its window, what that costs, and how far inside the focal point stays. */
const [SIDEWAYS_STEPS, SIDEWAYS_STEP, SIDEWAYS_COSTS, FOCAL_MARGIN] = [6, 0.06, 0.5, 0.14] as const;

/**
 * Lets subjects stand before large letters: a text that says so moves down towards the subject of its picture, until the subject hides as
 * much of the letters as looks meant and no letter loses what it is known by. Where that cannot be had, all stays as it was laid out.
 */
export function standBefore(input: StandInput): Stood {
  let { fitted } = input;
  let { crops } = input;
  const fronts = new Map<TextPart, Front>();
  for (const part of input.texts.keys()) {
    const found = part.behind === undefined ? null : meet(part, part.behind, { ...input, crops, fitted });
    if (!found) continue;
    fronts.set(part, found.front);
    fitted = { ...fitted, laidOut: moved(fitted.laidOut, part, found.downPx) };
    if (found.crop && part.behind !== undefined) crops = { ...crops, [part.behind]: found.crop };
  }
  return { fitted, crops, fronts };
}

interface Meeting {
  readonly downPx: number;
  /** The crop of a picture that moves sideways; null where it stays. */
  readonly crop: OwnCrop | null;
  readonly front: Front;
}

/** How far a text moves down to its picture's subject, how the picture moves sideways to it, and what stands before the text then. */
function meet(part: TextPart, slot: string, input: StandInput): Meeting | null {
  const text = input.texts.get(part);
  const at = find(input.fitted.laidOut, (each) => each === part);
  const behind = find(input.fitted.laidOut, (each) => each.part === 'picture' && each.slot === slot);
  const picture = input.bound.pictures[slot];
  const foundPx = input.fitted.sizes.get(part);
  if (!text || text.ghost || !at || behind?.part.part !== 'picture' || !picture?.facts.outline || foundPx === undefined) return null;
  const shown = input.show(behind.part, behind.box);
  if (!shown || shown.mask !== undefined) return null;
  const { box, window } = shown;
  const whole = { widthPx: box.widthPx / window.width, heightPx: box.heightPx / window.height };
  const rings = ringsIn(picture.facts.outline, whole);
  const grid = new HiddenGrid(rings, whole);
  const sizePx = sizeInWidth(text, foundPx, at.box.widthPx);
  const letters = letterBoxes({ part, text, sizePx, box: at.box }, input);
  const others = otherWords(part, input);
  const windows = input.crops[slot] ? [window.x] : besideWindows(window, picture.focal.x);
  const ways = windows.flatMap((windowX) => {
    const [offsetX, offsetY] = [windowX * whole.widthPx - box.xPx, window.y * whole.heightPx - box.yPx];
    if (others.some((each) => grid.shareOf({ ...each, xPx: each.xPx + offsetX, yPx: each.yPx + offsetY }) > MOST_OF_OTHERS)) return [];
    return steps(roomBelow(part, input), STEP_EM * sizePx).map((downPx) => {
      const { share, isReadable } = hiddenOf(letters.map((each) => ({ ...each, xPx: each.xPx + offsetX, yPx: each.yPx + offsetY + downPx })), grid);
      return { downPx, windowX, share, isReadable, cost: Math.abs(share - BEST_HIDDEN) + SIDEWAYS_COSTS * (Math.abs(windowX - window.x) / window.width) };
    });
  });
  const meant = ways.filter(({ share, isReadable }) => isReadable && share >= LEAST_HIDDEN).toSorted((a, b) => a.cost - b.cost)[0];
  if (!meant) return null;
  const [offsetX, offsetY] = [meant.windowX * whole.widthPx - box.xPx, window.y * whole.heightPx - box.yPx];
  const path = rings.map((ring) => ringPath(ring.map(([x, y]) => [x - offsetX, y - offsetY] as const))).join('');
  // It may be shown closer than it needs to be to cover its box: as close as that it stays.
  const crop = meant.windowX === window.x ? null : { x: meant.windowX + window.width / 2, y: window.y + window.height / 2, zoom: ownCropWindow(picture, box, { x: 0.5, y: 0.5, zoom: 1 }).width / window.width };
  return { downPx: meant.downPx, crop, front: { slot, path, hiddenShare: meant.share } };
}

/** Where the window of a picture may begin, the usual place first, as long as its focal point stays well inside. */
function besideWindows({ x, width }: CropWindow, focalX: number): readonly number[] {
  const moves = Array.from({ length: 2 * SIDEWAYS_STEPS + 1 }, (_, index) => (index - SIDEWAYS_STEPS) * SIDEWAYS_STEP * width);
  const others = moves.map((by) => x + by).filter((at) => at >= 0 && at + width <= 1 && (focalX - at) / width >= FOCAL_MARGIN && (focalX - at) / width <= 1 - FOCAL_MARGIN);
  return [x, ...others.filter((at) => at !== x)];
}

const steps = (roomPx: number, stepPx: number): readonly number[] => Array.from({ length: Math.max(0, Math.floor(roomPx / stepPx)) + 1 }, (_, index) => index * stepPx);

interface Found {
  readonly part: LaidOut['part'];
  readonly box: Box;
}

function find({ part, box, children }: LaidOut, is: (part: LaidOut['part']) => boolean): Found | null {
  if (is(part)) return { part, box };
  for (const child of children) {
    const found = find(child, is);
    if (found) return found;
  }
  return null;
}

function moved(laidOut: LaidOut, part: TextPart, downPx: number): LaidOut {
  if (laidOut.part === part) return { ...laidOut, box: { ...laidOut.box, yPx: laidOut.box.yPx + downPx } };
  return { ...laidOut, children: laidOut.children.map((child) => moved(child, part, downPx)) };
}

/** The ink boxes of a text's letters. */
function letterBoxes(at: Parameters<typeof glyphPlaces>[0], { frame, typesetter }: StandInput): readonly Box[] {
  return glyphPlaces(at, frame, typesetter).flatMap(({ glyph, xPx, baselinePx }) => {
    const reach = typesetter.glyphReach(glyph.fontKey, glyph.id);
    const [widthPx, heightPx] = [(reach.rightEm - reach.leftEm) * at.sizePx, (reach.topEm + reach.bottomEm) * at.sizePx];
    return widthPx <= 0 || heightPx <= 0 ? [] : [{ xPx: xPx + reach.leftEm * at.sizePx, yPx: baselinePx - (glyph.yEm + reach.topEm) * at.sizePx, widthPx, heightPx }];
  });
}

/** The share of all letters that a subject before them would hide, and whether each could still be told. */
function hiddenOf(letters: readonly Box[], grid: HiddenGrid): { readonly share: number; readonly isReadable: boolean } {
  let [hidden, all, isReadable] = [0, 0, true];
  for (const box of letters) {
    const share = grid.shareOf(box);
    isReadable &&= share <= MOST_OF_LETTER && grid.shareOf({ ...box, heightPx: box.heightPx / 2 }) <= MOST_OF_UPPER_HALF;
    const area = box.widthPx * box.heightPx;
    hidden += share * area;
    all += area;
  }
  return { share: hidden / Math.max(1, all), isReadable };
}

/** The ink boxes of all other words and marks. */
function otherWords(part: TextPart, { fitted, texts }: StandInput): readonly Box[] {
  const boxes = new Map(textBoxes({ fitted, texts }));
  boxes.delete(part);
  return [...boxes.values(), ...markBoxes(fitted.laidOut)];
}

/** How far a text may move down before it comes to other words, a mark or the end of the safe zone. */
function roomBelow(part: TextPart, input: StandInput): number {
  const { fitted, texts, frame } = input;
  const own = new Map(textBoxes({ fitted, texts })).get(part);
  if (!own) return 0;
  const endPx = own.yPx + own.heightPx;
  const column = { ...own, heightPx: frame.size.heightPx };
  const others = otherWords(part, input).map((box) => growBox(box, ROOM_M * frame.marginPx)).filter((box) => intersectBoxes(column, box) && box.yPx + box.heightPx > endPx);
  return Math.min(frame.size.heightPx - frame.safe.bottomPx, ...others.map(({ yPx }) => yPx)) - endPx;
}

type Ring = readonly (readonly [xPx: number, yPx: number])[];

/** The rings of an outline on a picture of a size. */
function ringsIn(outline: SubjectOutline, { widthPx, heightPx }: Size): readonly Ring[] {
  return outline.map((ring) => {
    const points: [number, number][] = [];
    for (let at = 0; at + 1 < ring.length; at += 2) points.push([((ring[at] ?? 0) / OUTLINE_UNITS) * widthPx, ((ring[at + 1] ?? 0) / OUTLINE_UNITS) * heightPx]);
    return points;
  });
}

const ringPath = (ring: Ring): PathData => `M${ring.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`;

/** Which cells of a grid over a picture lie inside an outline, even-odd, summed up so that the share of any box is had at once. */
class HiddenGrid {
  readonly #columns: number;
  readonly #rows: number;
  readonly #cellPx: number;
  readonly #sums: Float64Array;

  constructor(rings: readonly Ring[], { widthPx, heightPx }: Size) {
    this.#cellPx = Math.max(widthPx, heightPx) / CELLS;
    this.#columns = Math.ceil(widthPx / this.#cellPx);
    this.#rows = Math.ceil(heightPx / this.#cellPx);
    this.#sums = new Float64Array((this.#columns + 1) * (this.#rows + 1));
    for (let row = 0; row < this.#rows; row += 1) {
      const crossings = crossingsAt((row + 0.5) * this.#cellPx, rings);
      let [next, inside, sum] = [0, 0, 0];
      for (let column = 0; column < this.#columns; column += 1) {
        while (next < crossings.length && (crossings[next] ?? 0) <= (column + 0.5) * this.#cellPx) [next, inside] = [next + 1, 1 - inside];
        sum += inside;
        const at = (row + 1) * (this.#columns + 1) + column + 1;
        this.#sums[at] = sum + (this.#sums[at - this.#columns - 1] ?? 0);
      }
    }
  }

  /** Share of a box that lies inside the outline. */
  shareOf({ xPx, yPx, widthPx, heightPx }: Box): number {
    const column = (px: number): number => Math.min(this.#columns, Math.max(0, Math.round(px / this.#cellPx)));
    const row = (px: number): number => Math.min(this.#rows, Math.max(0, Math.round(px / this.#cellPx)));
    const [left, right, top, bottom] = [column(xPx), column(xPx + widthPx), row(yPx), row(yPx + heightPx)];
    const at = (x: number, y: number): number => this.#sums[y * (this.#columns + 1) + x] ?? 0;
    return (at(right, bottom) - at(left, bottom) - at(right, top) + at(left, top)) / Math.max(1, (right - left) * (bottom - top));
  }
}

/** Where a level line crosses the edges of rings, from left to right. */
function crossingsAt(yPx: number, rings: readonly Ring[]): readonly number[] {
  const crossings: number[] = [];
  for (const ring of rings) {
    ring.forEach(([x, y], index) => {
      const [nextX, nextY] = ring[(index + 1) % ring.length] ?? [x, y];
      if (y <= yPx !== nextY <= yPx) crossings.push(x + ((yPx - y) / (nextY - y)) * (nextX - x));
    });
  }
  return crossings.sort((a, b) => a - b);
}

/** How much of a picture, over all of its blocks, may be hidden for words to be read beside their subject. */
const MOST_HIDDEN_TO_MEET = 0.95;

/** Whether words that went to a subject can be read, and leave of the picture what they went there for: else they had better stand elsewhere. */
export function isWorthMeeting({ blocks, findings }: Pick<CutReport, 'blocks' | 'findings'>): boolean {
  const hidden = blocks.reduce((sum, { help }) => sum + (help.kind === 'none' ? 0 : help.kind === 'panel' ? 1 : help.share), 0);
  return hidden <= MOST_HIDDEN_TO_MEET && findings.every(({ kind }) => kind !== 'low-contrast');
}

/** Whether the subject of a picture of this cut may stand before its letters. */
export function mayStandBefore(root: StackPart, { frame, pictures }: { readonly frame: Pick<Frame, 'slots'>; readonly pictures: ReadonlyMap<string, Picture> }): boolean {
  return [...walkParts(root)].some((part) => {
    const value = part.part === 'text' && part.behind !== undefined ? frame.slots[part.behind] : undefined;
    return value?.kind === 'picture' && Boolean(pictures.get(value.mediaId)?.facts.outline);
  });
}
