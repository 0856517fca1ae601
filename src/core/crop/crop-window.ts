import { LRUCache } from 'lru-cache';
import type { Box } from '../geometry/box.ts';
import type { FocalPoint, PictureFacts } from './picture-facts.ts';
import { likelySubject } from './known-subject.ts';
import { overlap } from './seen-share.ts';
import { subjectBox } from './subject-box.ts';

/** A picture as layout knows it. */
export interface Picture {
  readonly id: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly facts: PictureFacts;
  /** The focal point in force: the proposal, or where a person moved it. */
  readonly focal: FocalPoint;
  readonly focalBy: 'proposal' | 'person';
}

/** The part of a picture that is shown, as shares of its width and height. */
export interface CropWindow {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const CANDIDATES = 48;
/** Nearness of the focal point to the middle of what is seen, against saliency kept; a person's choice weighs more. */
const FOCAL_WEIGHT = { proposal: 0.9, person: 2.5 } as const;
/** The focal point stays at least this far (as a share) inside the visible part. */
const FOCAL_MARGIN = 0.12;
/** What a subject that is whole weighs, and how far (as a share of what is seen) its box best stays from the edge. */
const WHOLE_WEIGHT = 2;
const WHOLE_MARGIN = 0.04;

/** Windows that were found: each keystroke asks for those of all cuts again. */
const MAX_FOUND = 200;
const found = new WeakMap<PictureFacts, LRUCache<string, CropWindow>>();

/**
 * The largest window of a picture that covers a box, moved so that the focal point lies well inside the part of the box
 * that stays visible and as little saliency as possible is cut off.
 * @param box where the picture is painted
 * @param visible the part of the box that nothing covers
 */
export function cropWindow(picture: Picture, box: Box, visible: Box): CropWindow {
  const { facts, focal, focalBy, widthPx, heightPx } = picture;
  const windows = found.get(facts) ?? new LRUCache<string, CropWindow>({ max: MAX_FOUND });
  found.set(facts, windows);
  const key = [widthPx, heightPx, focal.x, focal.y, focalBy, box.xPx, box.yPx, box.widthPx, box.heightPx, visible.xPx, visible.yPx, visible.widthPx, visible.heightPx].join();
  const window = windows.get(key) ?? findWindow(picture, box, visible);
  windows.set(key, window);
  return window;
}

function findWindow(picture: Picture, box: Box, visible: Box): CropWindow {
  const { focalBy } = picture;
  const boxAspect = box.widthPx / box.heightPx;
  const pictureAspect = picture.widthPx / picture.heightPx;
  const width = Math.min(1, boxAspect / pictureAspect);
  const height = Math.min(1, pictureAspect / boxAspect);
  const seen = {
    x: (visible.xPx - box.xPx) / box.widthPx,
    y: (visible.yPx - box.yPx) / box.heightPx,
    width: visible.widthPx / box.widthPx,
    height: visible.heightPx / box.heightPx,
  };
  // What a person has pointed at may be a part of the thing.
  const subject = focalBy === 'proposal' ? likelySubject(picture) : subjectBox(picture.facts, picture.focal);
  let best: CropWindow = { x: (1 - width) / 2, y: (1 - height) / 2, width, height };
  let bestScore = -Infinity;
  for (const candidate of candidateWindows(picture.focal, { width, height }, seen)) {
    const part = { x: candidate.x + seen.x * width, y: candidate.y + seen.y * height, width: seen.width * width, height: seen.height * height };
    const score = saliencyKept(picture.facts, part) + FOCAL_WEIGHT[picture.focalBy] * focalPlace(picture.focal, part) + (subject ? WHOLE_WEIGHT * keptOf(subject, part) : 0);
    if (score > bestScore) [best, bestScore] = [candidate, score];
  }
  return best;
}

/** The largest zoom that brings a subject to the middle, by whether its outline is known, and how much of a round window's width it takes at most then. */
const MAX_CENTRING_ZOOM = { outlined: 1.4, guessed: 1.2 } as const;
const ROUND_ROOM = 0.92;

/**
 * The window of a round opening with its subject in the middle, a little closer than it needs to be if only that brings it there: in a
 * circle what stands aside looks lost, and its corners are cut off. Null where it does not fit, or a person chose what the picture is about.
 */
export function centredCropWindow(picture: Picture, box: Box): CropWindow | null {
  if (picture.focalBy === 'person') return null;
  const outlined = subjectBox(picture.facts, picture.focal);
  const subject = outlined ?? { ...picture.focal, width: 0, height: 0 };
  const { width, height } = ownCropWindow(picture, box, { x: 0.5, y: 0.5, zoom: 1 });
  const [x, y] = [subject.x + subject.width / 2, subject.y + subject.height / 2];
  const toTheMiddle = (length: number, middle: number): number => length / (2 * Math.max(Number.EPSILON, Math.min(middle, 1 - middle)));
  const inTheMiddle = Math.max(toTheMiddle(width, x), toTheMiddle(height, y));
  const fits = ROUND_ROOM / Math.hypot(subject.width / width, subject.height / height);
  const sharp = Math.max(1, (width * picture.widthPx) / box.widthPx);
  const most = Math.min(MAX_CENTRING_ZOOM[outlined ? 'outlined' : 'guessed'], fits, sharp);
  return most < 1 ? null : ownCropWindow(picture, box, { x, y, zoom: Math.min(Math.max(1, inTheMiddle), most) });
}

/** The window that a person has chosen: its middle and zoom, kept inside the picture. */
export function ownCropWindow(picture: Pick<Picture, 'widthPx' | 'heightPx'>, box: Box, own: { readonly x: number; readonly y: number; readonly zoom: number }): CropWindow {
  const boxAspect = box.widthPx / box.heightPx;
  const pictureAspect = picture.widthPx / picture.heightPx;
  const width = Math.min(1, boxAspect / pictureAspect) / own.zoom;
  const height = Math.min(1, pictureAspect / boxAspect) / own.zoom;
  const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
  return { x: within(own.x - width / 2, 1 - width), y: within(own.y - height / 2, 1 - height), width, height };
}

/** The window that is shown in a part of a box. */
export function windowWithin(window: CropWindow, box: Box, part: Box): CropWindow {
  const [across, down] = [window.width / box.widthPx, window.height / box.heightPx];
  return { x: window.x + (part.xPx - box.xPx) * across, y: window.y + (part.yPx - box.yPx) * down, width: part.widthPx * across, height: part.heightPx * down };
}

/** Windows of a size to choose from: evenly spread ones, and the one with the focal point in the middle of what is seen. */
function* candidateWindows(focal: FocalPoint, size: Pick<CropWindow, 'width' | 'height'>, seen: CropWindow): Generator<CropWindow> {
  const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
  yield {
    ...size,
    x: within(focal.x - (seen.x + seen.width / 2) * size.width, 1 - size.width),
    y: within(focal.y - (seen.y + seen.height / 2) * size.height, 1 - size.height),
  };
  for (let step = 0; step <= CANDIDATES; step += 1) {
    yield { ...size, x: ((1 - size.width) * step) / CANDIDATES, y: ((1 - size.height) * step) / CANDIDATES };
  }
}

/** Running sums of squared saliency over the grid, so that any window's share is four look-ups. */
const saliencySums = new WeakMap<PictureFacts, Float64Array>();

function sumsOf(facts: PictureFacts): Float64Array {
  const known = saliencySums.get(facts);
  if (known) return known;
  const stride = facts.columns + 1;
  const sums = new Float64Array(stride * (facts.rows + 1));
  for (let row = 0; row < facts.rows; row += 1) {
    let inRow = 0;
    for (let column = 0; column < facts.columns; column += 1) {
      inRow += (facts.saliency[row * facts.columns + column] ?? 0) ** 2;
      sums[(row + 1) * stride + column + 1] = (sums[row * stride + column + 1] ?? 0) + inRow;
    }
  }
  saliencySums.set(facts, sums);
  return sums;
}

/** Share of a picture's saliency in the cells whose middle lies inside a window, in [0, 1]. */
function saliencyKept(facts: PictureFacts, part: CropWindow): number {
  const sums = sumsOf(facts);
  const stride = facts.columns + 1;
  const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
  const left = within(Math.ceil(part.x * facts.columns - 0.5), facts.columns);
  const right = within(Math.floor((part.x + part.width) * facts.columns - 0.5) + 1, facts.columns);
  const top = within(Math.ceil(part.y * facts.rows - 0.5), facts.rows);
  const bottom = within(Math.floor((part.y + part.height) * facts.rows - 0.5) + 1, facts.rows);
  if (right <= left || bottom <= top) return 0;
  const at = (column: number, row: number): number => sums[row * stride + column] ?? 0;
  const all = at(facts.columns, facts.rows);
  return all === 0 ? 0 : (at(right, bottom) - at(left, bottom) - at(right, top) + at(left, top)) / all;
}

/** 1 with the focal point in the middle of a window, falling to -1 at its edge and further the more it is cut off, in each direction: where it cannot be had in one, the other still counts. */
function focalPlace(focal: FocalPoint, part: CropWindow): number {
  const offX = Math.abs((focal.x - part.x) / part.width - 0.5);
  const offY = Math.abs((focal.y - part.y) / part.height - 0.5);
  if (!isInside(focal, part, 0)) return -3 - offX - offY;
  return 1 - 2 * Math.max(offX, offY) - (isInside(focal, part, FOCAL_MARGIN) ? 0 : 1);
}

/** How much of a subject's box is seen, with some air around it, of what a window of this size can show; in [0, 1]. */
function keptOf(subject: CropWindow, part: CropWindow): number {
  const along = (from: number, length: number, partFrom: number, partLength: number): number => {
    const roomy = (1 - 2 * WHOLE_MARGIN) * partLength;
    return overlap(from, length, partFrom + WHOLE_MARGIN * partLength, roomy) / Math.max(Number.EPSILON, Math.min(length, roomy));
  };
  return along(subject.x, subject.width, part.x, part.width) * along(subject.y, subject.height, part.y, part.height);
}

function isInside(point: FocalPoint, part: CropWindow, margin: number): boolean {
  return (
    point.x >= part.x + margin * part.width &&
    point.x <= part.x + part.width * (1 - margin) &&
    point.y >= part.y + margin * part.height &&
    point.y <= part.y + part.height * (1 - margin)
  );
}

/** Least, mean and greatest relative luminance, in [0, 1], of what a picture shows in a region of the box it is painted in. */
export function luminanceBehind(facts: PictureFacts, window: CropWindow, box: Box, region: Box): { least: number; mean: number; most: number } {
  const part = {
    x: window.x + ((region.xPx - box.xPx) / box.widthPx) * window.width,
    y: window.y + ((region.yPx - box.yPx) / box.heightPx) * window.height,
    width: (region.widthPx / box.widthPx) * window.width,
    height: (region.heightPx / box.heightPx) * window.height,
  };
  const clampTo = (value: number, most: number): number => Math.min(most, Math.max(0, value));
  const firstColumn = clampTo(Math.floor(part.x * facts.columns), facts.columns - 1);
  const lastColumn = clampTo(Math.ceil((part.x + part.width) * facts.columns) - 1, facts.columns - 1);
  const firstRow = clampTo(Math.floor(part.y * facts.rows), facts.rows - 1);
  const lastRow = clampTo(Math.ceil((part.y + part.height) * facts.rows) - 1, facts.rows - 1);
  let [least, most, sum, count] = [1, 0, 0, 0];
  for (let row = firstRow; row <= lastRow; row += 1) {
    for (let column = firstColumn; column <= lastColumn; column += 1) {
      const index = row * facts.columns + column;
      least = Math.min(least, (facts.leastLuminance[index] ?? 0) / 255);
      most = Math.max(most, (facts.mostLuminance[index] ?? 0) / 255);
      sum += (facts.meanLuminance[index] ?? 0) / 255;
      count += 1;
    }
  }
  return { least, most, mean: sum / Math.max(1, count) };
}
