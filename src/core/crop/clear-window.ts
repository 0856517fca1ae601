import type { Box } from '../geometry/box.ts';
import { cropWindow, type CropWindow, type Picture } from './crop-window.ts';
import { knownSubject, likelySubject } from './known-subject.ts';
import { seenShareOf } from './seen-share.ts';
import type { BoxInPicture } from './subject-box.ts';

/** A subject of which this much can be seen counts as whole. */
const WHOLE = 0.97;
/** Closer crops that are tried: in any that is closer still, a photograph loses the place that its subject is in. */
const ZOOMS = [1, 1.1, 1.2, 1.3] as const;
/** What being closer by its whole width costs, in shares of the subject that it has to show more. */
const ZOOM_COST = 0.4;
/** A window is only taken for this much more of the subject: otherwise crops would jump between cuts for nothing. */
const MIN_GAIN = 0.06;
/** How far a guess is taken to reach beyond what stands out, as a share of its longer side. */
const AIR = 0.2;
/** Places that are looked at, the largest first. */
const MAX_PLACES = 5;

/**
 * The window of a picture on which something lies: its subject goes to the largest part of the box that nothing covers. Where it does
 * not go there whole, it goes to another part that has more room for its shape, a little closer if only that gets it out from under
 * what lies over it.
 * @param box where the picture is painted
 * @param places the parts of the box that nothing covers, the largest first
 */
export function clearWindow(picture: Picture, box: Box, places: readonly [Box, ...Box[]]): CropWindow {
  const [largest] = places;
  const usual = cropWindow(picture, box, largest);
  const subject = knownSubject(picture) ?? withAir(likelySubject(picture), picture);
  const isCovered = largest.widthPx * largest.heightPx < box.widthPx * box.heightPx * WHOLE;
  if (!subject || !isCovered) return usual;
  const seen = seenIn(largest, subject, usual, box);
  if (seen >= WHOLE) return usual;
  // Closer than its pixels allow would be blurred.
  const sharp = Math.max(1, (usual.width * picture.widthPx) / box.widthPx);
  let best = { window: usual, worth: seen + MIN_GAIN };
  for (const zoom of ZOOMS.filter((each) => each <= sharp)) {
    for (const place of places.slice(0, MAX_PLACES)) {
      const window = movedTo(place, subject, box, { width: usual.width / zoom, height: usual.height / zoom });
      const worth = seenIn(place, subject, window, box) - ZOOM_COST * (zoom - 1);
      if (worth > best.worth) best = { window, worth };
    }
  }
  return best.window;
}

/** A guess at a subject with air around it: what stands out is seldom all of a thing, and a strip that just holds it would cut off the rest. */
function withAir(subject: BoxInPicture | null, { widthPx, heightPx }: Picture): BoxInPicture | null {
  if (!subject) return null;
  const airPx = Math.max(subject.width * widthPx, subject.height * heightPx) * AIR;
  const [left, top] = [Math.max(0, subject.x - airPx / widthPx), Math.max(0, subject.y - airPx / heightPx)];
  return { x: left, y: top, width: Math.min(1, subject.x + subject.width + airPx / widthPx) - left, height: Math.min(1, subject.y + subject.height + airPx / heightPx) - top };
}

/** The window of a size in which the middle of a subject is as near to the middle of a place as the picture's edges allow. */
function movedTo(place: Box, subject: BoxInPicture, box: Box, { width, height }: Pick<CropWindow, 'width' | 'height'>): CropWindow {
  const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
  const across = (place.xPx + place.widthPx / 2 - box.xPx) / box.widthPx;
  const down = (place.yPx + place.heightPx / 2 - box.yPx) / box.heightPx;
  return { x: within(subject.x + subject.width / 2 - across * width, 1 - width), y: within(subject.y + subject.height / 2 - down * height, 1 - height), width, height };
}

/** The share of a subject's box that lies in a place of the box where a window of its picture is painted, in [0, 1]. */
function seenIn(place: Box, subject: BoxInPicture, window: CropWindow, box: Box): number {
  const [across, down] = [window.width / box.widthPx, window.height / box.heightPx];
  return seenShareOf(subject, { x: window.x + (place.xPx - box.xPx) * across, y: window.y + (place.yPx - box.yPx) * down, width: place.widthPx * across, height: place.heightPx * down });
}
