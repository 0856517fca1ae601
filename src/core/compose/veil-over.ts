import type { Picture } from '../crop/crop-window.ts';
import { subjectBox } from '../crop/subject-box.ts';
import { boxAround, growBox, type Box } from '../geometry/box.ts';
import type { FillNode } from '../scene/scene.ts';
import type { Edge } from '../template/parts.ts';
import { evenVeil, type Veiling } from './backdrop.ts';
import type { CutFrame } from './cut-frame.ts';
import { rectPath } from './part-outlines.ts';
import type { PlacedPicture } from './report.ts';
import { fadeAround, fadeFromEdge, sharesOfFade } from './soft-fills.ts';
import { GRADIENT_ROOM_M, openingAround, reachOf, wayFrom, type Point } from './words-on-photo.ts';

/** What a veil leaves clear: where it stands in the cut, and how far it reaches from there; 0 where that is not known. */
export interface ClearSubject extends Point {
  readonly reachPx: number;
}

/** An opening that is smaller than this share of the short side, or of which the subject takes more than this, is a spot on it. */
const LEAST_OPENING = 0.3;
const MOST_OF_OPENING = 0.7;
/** How far a veil from a side fades at least, as a share of the cut: it is strong, and a short fade would be a line across the subject. */
const LEAST_FADE = 0.18;

/** The subject of a picture in its cut; null where it is cut off. */
export function subjectInCut({ box, window, subject }: PlacedPicture, picture: Picture | undefined): ClearSubject | null {
  if (!subject) return null;
  const known = picture ? subjectBox(picture.facts, picture.focal) : null;
  return { ...subject, reachPx: known ? Math.max((known.width / window.width) * box.widthPx, (known.height / window.height) * box.heightPx) / 2 : 0 };
}

/**
 * A colour over a photograph that leaves its subject clear. The opening is round and ends where words begin; where it would only be a
 * spot on the subject, the colour comes from the side of the words instead, and is gone beyond them.
 * @param words the extents of all blocks on the photograph
 */
export function veilOver(over: Box, subject: ClearSubject | null, words: readonly Box[], frame: CutFrame, { colour, strength }: { readonly colour: string; readonly strength: number }): { readonly node: FillNode; readonly veiling: Veiling } {
  if (!subject) return { node: { kind: 'fill', path: rectPath(over), colour, alpha: strength }, veiling: evenVeil(over, strength) };
  const { opening, box } = openingAround(subject, over, words);
  const edge = edgeOfWords(subject, words);
  if (!edge || opening.endPx >= Math.max(subject.reachPx / MOST_OF_OPENING, Math.min(over.widthPx, over.heightPx) * LEAST_OPENING)) return { node: fadeAround(over, opening, colour, strength), veiling: evenVeil(over, strength, box) };
  const room = growBox(boxAround(words) ?? over, frame.marginPx * GRADIENT_ROOM_M);
  const found = reachOf(edge, room, strength, { frame, subject });
  const reach = { ...found, fadePx: Math.max(found.fadePx, (edge === 'left' || edge === 'right' ? over.widthPx : over.heightPx) * LEAST_FADE) };
  return { node: fadeFromEdge(over, edge, reach, colour, strength), veiling: { box: over, sharesIn: sharesOfFade(over, edge, reach, strength) } };
}

/** The edge that words lie at, seen from the subject; null where there are none, or the subject lies among them. */
function edgeOfWords(subject: Point, words: readonly Box[]): Edge | null {
  const [near] = words.map((each) => wayFrom(subject, each)).toSorted((a, b) => a.px - b.px);
  if (!near || near.px === 0) return null;
  if (near.awayX !== 0) return near.awayX > 0 ? 'left' : 'right';
  return near.awayY > 0 ? 'top' : 'bottom';
}
