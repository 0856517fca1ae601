import type { CropWindow, Picture } from './crop-window.ts';
import { likelySubject } from './known-subject.ts';
import type { BoxInPicture } from './subject-box.ts';

/** The length that two spans have in common, each given by its start and its length. */
export const overlap = (from: number, length: number, otherFrom: number, otherLength: number): number => Math.max(0, Math.min(from + length, otherFrom + otherLength) - Math.max(from, otherFrom));

/** The share of a box of a picture that lies inside a part of it, in [0, 1]; both in shares of the picture. */
export function seenShareOf(box: BoxInPicture, part: CropWindow): number {
  const along = (from: number, length: number, partFrom: number, partLength: number): number => overlap(from, length, partFrom, partLength) / Math.max(Number.EPSILON, length);
  return along(box.x, box.width, part.x, part.width) * along(box.y, box.height, part.y, part.height);
}

/** The share of a picture's likely subject that lies inside a window of it, in [0, 1]; 1 where nothing is known of it. */
export function shownShare(picture: Picture, window: CropWindow): number {
  const subject = likelySubject(picture);
  return subject ? seenShareOf(subject, window) : 1;
}
