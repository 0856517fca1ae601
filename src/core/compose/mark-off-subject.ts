import type { Picture } from '../crop/crop-window.ts';
import type { FocalPoint, PictureFacts } from '../crop/picture-facts.ts';
import { isOnSubject } from '../crop/subject-box.ts';
import { boxContains, intersectBoxes, type Box, type Size } from '../geometry/box.ts';
import type { Part, StackPart } from '../template/parts.ts';
import type { Arrangement } from '../template/template.ts';
import type { PlacedPicture } from './report.ts';
import { mirroredEdges } from './vary.ts';

/** Points of a mark, across and down, at which it is looked whether the subject lies behind it. */
const [ACROSS, DOWN] = [9, 3];
/** Fewer points than these touch the subject, and do not lie on it. */
const LEAST_POINTS = 2;
/** From this saliency on, of 255, a place draws the eye: there is the subject where no outline of it is known. */
const DRAWS_THE_EYE = 100;

/** Whether a mark lies on the subject of a photograph, or on what draws the eye in it. */
export function marksOnSubject(marks: readonly Box[], placed: readonly PlacedPicture[], pictures: Readonly<Record<string, Picture>>): boolean {
  return placed.some(({ slot, box, window }) => {
    const picture = pictures[slot];
    if (!picture) return false;
    return marks.some((mark) => {
      const seen = intersectBoxes(mark, box);
      if (!seen) return false;
      const points = pointsIn(seen).map(({ xPx, yPx }) => ({ x: window.x + ((xPx - box.xPx) / box.widthPx) * window.width, y: window.y + ((yPx - box.yPx) / box.heightPx) * window.height }));
      return points.filter((point) => isOnSubject(picture.facts, picture.focal, point) || saliencyAt(picture.facts, point) >= DRAWS_THE_EYE).length >= LEAST_POINTS;
    });
  });
}

function saliencyAt({ saliency, columns, rows }: PictureFacts, { x, y }: FocalPoint): number {
  const cell = (share: number, count: number): number => Math.min(count - 1, Math.max(0, Math.floor(share * count)));
  return saliency[cell(y, rows) * columns + cell(x, columns)] ?? 0;
}

function pointsIn({ xPx, yPx, widthPx, heightPx }: Box): readonly { readonly xPx: number; readonly yPx: number }[] {
  return Array.from({ length: ACROSS * DOWN }, (_, index) => ({ xPx: xPx + (widthPx * (index % ACROSS)) / (ACROSS - 1), yPx: yPx + (heightPx * Math.floor(index / ACROSS)) / (DOWN - 1) }));
}

/** Where else the marks of an arrangement can stand. */
interface MovedMarks {
  /** Below the words that they stand beside on a photograph; null where none stands so. */
  readonly below: Arrangement | null;
  /** In the other corners of what they are laid over, across, up or down, and both, with where that takes a mark's box in its cut. */
  readonly corners: readonly { readonly arrangement: Arrangement; readonly take: (mark: Box, cut: Size) => Box }[];
}

const moved = new WeakMap<Arrangement, MovedMarks>();

/** The arrangement with its marks elsewhere. Answers the same objects for the same arrangement, as marks are told apart by their parts. */
export function withMarksMoved(arrangement: Arrangement): MovedMarks {
  const known = moved.get(arrangement);
  if (known) return known;
  const withRoot = (root: StackPart): Arrangement | null => (root === arrangement.root ? null : { ...arrangement, root });
  const corners = [
    { turn: mirroredEdges<Over>, take: acrossCut },
    { turn: upsideDown, take: downCut },
    { turn: (over: Over) => upsideDown(mirroredEdges(over)), take: (mark: Box, cut: Size) => downCut(acrossCut(mark, cut), cut) },
  ].flatMap(({ turn, take }) => {
    const turned = withRoot(inCorner(arrangement.root, turn));
    return turned ? [{ arrangement: turned, take }] : [];
  });
  const made = { below: withRoot(below(arrangement.root, false)), corners };
  moved.set(arrangement, made);
  return made;
}

type Over = NonNullable<Part['over']>;

const acrossCut = (mark: Box, { widthPx }: Size): Box => ({ ...mark, xPx: widthPx - mark.xPx - mark.widthPx });
const downCut = (mark: Box, { heightPx }: Size): Box => ({ ...mark, yPx: heightPx - mark.yPx - mark.heightPx });

function upsideDown({ top, bottom, ...others }: Over): Over {
  return { ...others, ...(bottom === undefined ? {} : { top: bottom }), ...(top === undefined ? {} : { bottom: top }) };
}

function inCorner(part: StackPart, turn: (over: Over) => Over): StackPart {
  const children = part.children.map((child) => {
    if (child.part === 'stack') return inCorner(child, turn);
    return child.part === 'mark' && child.over ? { ...child, over: turn(child.over) } : child;
  });
  return children.every((child, index) => child === part.children[index]) ? part : { ...part, children };
}

/** Whether marks stand on the photographs, clear of words and of the panels that hold them. */
export function standFree(marks: readonly Box[], { pictures, placed, panels }: { readonly pictures: readonly { readonly box: Box }[]; readonly placed: readonly { readonly box: Box }[]; readonly panels: readonly Box[] }): boolean {
  const taken = [...placed.map(({ box }) => box), ...panels];
  return marks.every((mark) => pictures.some(({ box }) => boxContains(box, mark, 1)) && !taken.some((box) => intersectBoxes(box, mark)));
}

/** Words with their marks below them, where these stand at the end of a row. */
export const marksBelow = (words: StackPart): StackPart => below(words, true);

function below(part: StackPart, isAfloat: boolean): StackPart {
  const onPhoto = isAfloat || part.afloat !== undefined;
  if (isAfloat && isRowToMark(part)) {
    return { ...part, direction: 'column', align: 'start', justify: 'start', children: part.children.map(inColumn) };
  }
  const children = part.children.map((child) => (child.part === 'stack' ? below(child, onPhoto) : child));
  return children.every((child, index) => child === part.children[index]) ? part : { ...part, children };
}

/** Words with a mark at their end. */
function isRowToMark({ direction, children }: StackPart): boolean {
  return direction === 'row' && children.length > 1 && children.at(-1)?.part === 'mark';
}

/** In a row words take the room that the mark leaves; below one another each is as high as it is. */
function inColumn(part: Part): Part {
  const { grow: _grow, share: _share, ...rest } = part;
  return { ...rest, alignSelf: 'start' } as Part;
}
