import { byFocal } from './by-focal.ts';
import type { FocalPoint, PictureFacts } from './picture-facts.ts';
import { OUTLINE_UNITS } from './subject-outline.ts';

/** A box in a picture, as shares of its width and height. */
export interface BoxInPicture {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export function boxAroundBoth(one: BoxInPicture, other: BoxInPicture): BoxInPicture {
  const [x, y] = [Math.min(one.x, other.x), Math.min(one.y, other.y)];
  return { x, y, width: Math.max(one.x + one.width, other.x + other.width) - x, height: Math.max(one.y + one.height, other.y + other.height) - y };
}

/** What reaches further than this across a picture is its ground or its horizon, not a thing to keep whole. */
export const MOST_OF_SIDE = 0.9;

/** The thing that a focal point lies on: the ring around it, in outline units, and its box. */
interface Subject {
  readonly ring: readonly number[];
  readonly box: BoxInPicture;
}

const subjectAt = byFocal(findSubject);

/** The box around the thing that a focal point lies on; null where no outline is known there. */
export function subjectBox(facts: PictureFacts, focal: FocalPoint): BoxInPicture | null {
  return subjectAt(facts, focal)?.box ?? null;
}

/** Whether a point, as shares of the picture's sides, lies on the thing that a focal point lies on; false where no outline is known there. */
export function isOnSubject(facts: PictureFacts, focal: FocalPoint, point: FocalPoint): boolean {
  const subject = subjectAt(facts, focal);
  return subject !== null && holds(subject.ring, point.x * OUTLINE_UNITS, point.y * OUTLINE_UNITS);
}

function findSubject({ outline }: PictureFacts, focal: FocalPoint): Subject | null {
  const [x, y] = [focal.x * OUTLINE_UNITS, focal.y * OUTLINE_UNITS];
  // Rings may lie in one another: the tightest around the point is the thing's own.
  const around = (outline ?? []).filter((ring) => holds(ring, x, y)).map((ring) => ({ ring, box: boxOf(ring) }));
  const tightest = around.toSorted((a, b) => a.box.width * a.box.height - b.box.width * b.box.height)[0];
  return tightest && tightest.box.width < MOST_OF_SIDE && tightest.box.height < MOST_OF_SIDE ? tightest : null;
}

/** Whether a ring goes around a point: a line from it to the right crosses the ring an odd number of times. */
function holds(ring: readonly number[], x: number, y: number): boolean {
  let isInside = false;
  for (let at = 0, before = ring.length - 2; at < ring.length; before = at, at += 2) {
    const [x1 = 0, y1 = 0, x2 = 0, y2 = 0] = [ring[at], ring[at + 1], ring[before], ring[before + 1]];
    if (y1 > y !== y2 > y && x < ((x2 - x1) * (y - y1)) / (y2 - y1) + x1) isInside = !isInside;
  }
  return isInside;
}

function boxOf(ring: readonly number[]): BoxInPicture {
  const xs = ring.filter((_, index) => index % 2 === 0);
  const ys = ring.filter((_, index) => index % 2 === 1);
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  return { x: left / OUTLINE_UNITS, y: top / OUTLINE_UNITS, width: (Math.max(...xs) - left) / OUTLINE_UNITS, height: (Math.max(...ys) - top) / OUTLINE_UNITS };
}
