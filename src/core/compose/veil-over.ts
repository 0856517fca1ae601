import type { Picture } from '../crop/crop-window.ts';
import { boxInCut, seenSubject } from '../crop/known-subject.ts';
import { subjectBox } from '../crop/subject-box.ts';
import { boxAround, growBox, type Box } from '../geometry/box.ts';
import type { FillNode } from '../scene/scene.ts';
import type { Edge } from '../template/parts.ts';
import { evenVeil, type Veiling } from './backdrop.ts';
import type { CutFrame } from './cut-frame.ts';
import { rectPath } from './part-outlines.ts';
import type { PlacedPicture } from './report.ts';
import { fadeAround, fadeFromEdge, hiddenAround, sharesAround, sharesOfFade } from './soft-fills.ts';
import { GRADIENT_ROOM_M, HIDES_FROM, openingAround, reachOf, wayFrom, type Point } from './words-on-photo.ts';

/** What a veil leaves clear: where it stands in the cut, and how far it reaches from there; 0 where that is not known. */
export interface ClearSubject extends Point {
  readonly reachPx: number;
}

/** An opening that is smaller than this share of the short side, or of which the subject takes more than this, is a spot on it. */
const LEAST_OPENING = 0.3;
const MOST_OF_OPENING = 0.7;
/** A subject whose outline is not known is taken to reach this far, as a share of the short side. */
const USUAL_REACH = 0.3;
/** Where an opening is a spot on a subject that it shows, the side of the words is only better if it hides at most this share of it. */
const MOST_HIDDEN = 0.45;

/**
 * The subject of a picture in its cut: the middle of what is seen of it, else its focal point. What a person points at stays the middle, however far
 * the outline around it reaches. Null where the focal point is cut off.
 */
export function subjectInCut({ box, window, subject }: PlacedPicture, picture: Picture | undefined): ClearSubject | null {
  if (!subject || !picture) return subject && { ...subject, reachPx: 0 };
  const isPointedAt = picture.focalBy === 'person';
  const seen = isPointedAt ? subjectBox(picture.facts, picture.focal) : seenSubject(picture);
  const at = seen && boxInCut(seen, { box, window });
  if (!at) return { ...subject, reachPx: 0 };
  const middle = isPointedAt ? subject : { xPx: at.xPx + at.widthPx / 2, yPx: at.yPx + at.heightPx / 2 };
  return { ...middle, reachPx: Math.max(at.widthPx, at.heightPx) / 2 };
}

/**
 * A colour over a photograph that leaves its subject clear. The opening is round and ends where words begin; where it would only be a
 * spot on the subject, the colour comes from the side of the words instead: half of a subject in the light is better than a ball of it.
 * @param words the extents of all blocks on the photograph
 */
export function veilOver(over: Box, subject: ClearSubject | null, words: readonly Box[], frame: CutFrame, { colour, strength }: { readonly colour: string; readonly strength: number }): { readonly node: FillNode; readonly veiling: Veiling; readonly hidesSubject: boolean } {
  if (!subject) return { node: { kind: 'fill', path: rectPath(over), colour, alpha: strength }, veiling: evenVeil(over, strength), hidesSubject: false };
  const [near] = words.map((each) => wayFrom(subject, each)).toSorted((a, b) => a.px - b.px);
  const fromSide = near && near.px > 0 && sideVeil(over, subject, edgeOfWords(near), words, frame, strength);
  const { opening } = openingAround(subject, over, words);
  const shortPx = Math.min(over.widthPx, over.heightPx);
  const showsAll = opening.endPx >= (subject.reachPx || shortPx * USUAL_REACH) / MOST_OF_OPENING;
  const hiddenFromSide = fromSide ? fromSide.sharesIn({ ...subject, widthPx: 1, heightPx: 1 })[1] : 1;
  if (!fromSide || (showsAll && (opening.endPx >= shortPx * LEAST_OPENING || hiddenFromSide > MOST_HIDDEN))) {
    const hidden = hiddenAround(opening, Math.hypot(subject.xPx - opening.xPx, subject.yPx - opening.yPx), strength);
    return { node: fadeAround(over, opening, colour, strength), veiling: { box: over, sharesIn: sharesAround(over, opening, strength) }, hidesSubject: hidden >= HIDES_FROM };
  }
  return { node: fadeFromEdge(over, fromSide.edge, fromSide.reach, colour, strength), veiling: { box: over, sharesIn: fromSide.sharesIn }, hidesSubject: hiddenFromSide >= HIDES_FROM };
}

/** A veil that is even as far as the words from an edge, and fades towards the subject. */
function sideVeil(over: Box, subject: Point, edge: Edge, words: readonly Box[], frame: CutFrame, strength: number) {
  const room = growBox(boxAround(words) ?? over, frame.marginPx * GRADIENT_ROOM_M);
  const reach = reachOf(edge, room, strength, { frame, subject });
  return { edge, reach, sharesIn: sharesOfFade(over, edge, reach, strength) };
}

/** The edge that words lie at, seen from a subject that goes away from them in a direction. */
function edgeOfWords({ awayX, awayY }: { readonly awayX: number; readonly awayY: number }): Edge {
  if (awayX !== 0) return awayX > 0 ? 'left' : 'right';
  return awayY > 0 ? 'top' : 'bottom';
}
