import { cropWindow, type Picture } from '../crop/crop-window.ts';
import { shownShare } from '../crop/seen-share.ts';
import type { Size } from '../geometry/box.ts';
import type { CalmPlace, Edge, Field, PicturePart, StackPart } from '../template/parts.ts';
import type { Arrangement } from '../template/template.ts';
import type { CutFrame } from './cut-frame.ts';
import { sidesOf } from './place-words.ts';
import { marksBelow } from './mark-off-subject.ts';
import { safeInset } from './shown-parts.ts';

/** Up to this shape words go above or below their photograph, from that one on beside it; in between to where more of the subject is seen. */
const [TALL, WIDE] = [0.8, 1.25] as const;
/** Shares of the cut that the photograph has beside its words, and at least above or below them. */
const PHOTO_SHARE = { row: 0.52, column: 0.46 } as const;
/** Between words and their photograph, in m. */
const TOWARDS_PHOTO_M = 1;
/** Between words and the edges of the cut, and between them and a mark that comes along, in m. */
const [OUTER_M, MARK_GAP_M] = [1.2, 1.3] as const;

const opposite: Readonly<Record<Edge, Edge>> = { top: 'bottom', right: 'left', bottom: 'top', left: 'right' };

/** A cut whose words stand on a photograph, as far as the two are parted. */
interface OnPhoto {
  readonly root: StackPart;
  readonly picture: PicturePart;
  /** What lies over the photograph at its place: the stack in which the words choose theirs. */
  readonly afloat: StackPart;
  readonly block: StackPart;
}

/** What lies over a photograph with words on it: the words alone, a field below them, or a veil that opens around the subject. */
export type Cover = 'words' | 'field' | 'veil';

/** The photograph that the words of an arrangement stand on, and what lies over it; null where they stand on none, or in several blocks. */
export function photoBelowWords({ root }: Arrangement): { readonly slot: string; readonly cover: Cover } | null {
  const found = onPhoto(root);
  if (!found) return null;
  const isVeiled = root.children.some((child) => child.part === 'veil' && child.around === found.picture.slot);
  return { slot: found.picture.slot, cover: found.block.field ? 'field' : isVeiled ? 'veil' : 'words' };
}

/**
 * Arrangements in which words and photograph stand side by side, for a subject that has no room beside words on it: the ones in which
 * more of the subject can be seen come first. The words keep their field, at the side of the cut where least has to stay free.
 * @param place where the words would stand on the photograph
 */
export function setAside(arrangement: Arrangement, picture: Picture, place: CalmPlace, frame: CutFrame): readonly Arrangement[] {
  const found = onPhoto(arrangement.root);
  if (!found) return [];
  const aspect = frame.size.widthPx / frame.size.heightPx;
  const ways = (['column', 'row'] as const).filter((way) => (way === 'column' ? aspect < WIDE : aspect >= TALL));
  const rated = ways.map((way) => ({ arrangement: partedOnce(arrangement, found, way, edgeOfWords(found.afloat, way, place, frame)), seen: seenIn(picture, partOf(frame.size, way)) }));
  return rated.toSorted((a, b) => b.seen - a.seen).map((each) => each.arrangement);
}

function onPhoto(root: StackPart): OnPhoto | null {
  const stacks = root.children.filter((child): child is StackPart => child.part === 'stack' && child.afloat !== undefined);
  const [afloat] = stacks;
  const picture = root.children.find((child): child is PicturePart => child.part === 'picture' && child.slot === afloat?.afloat?.picture && child.over === undefined);
  const block = afloat?.children[0];
  return stacks.length === 1 && afloat && picture && block?.part === 'stack' ? { root, picture, afloat, block } : null;
}

const known = new WeakMap<Arrangement, Map<string, Arrangement>>();

/** Answers the same objects for the same arrangement, as marks are told apart by their parts. */
function partedOnce(arrangement: Arrangement, found: OnPhoto, way: 'column' | 'row', at: Edge): Arrangement {
  const ways = known.get(arrangement) ?? new Map<string, Arrangement>();
  known.set(arrangement, ways);
  const key = `${way} ${at}`;
  const made = ways.get(key) ?? { ...arrangement, root: parted(found, way, at) };
  ways.set(key, made);
  return made;
}

function parted({ root, picture, block }: OnPhoto, way: 'column' | 'row', at: Edge): StackPart {
  const inner = opposite[at];
  const edges = (['top', 'right', 'bottom', 'left'] as const).filter((edge) => edge !== inner);
  const isFirst = at === 'top' || at === 'left';
  // Beside a photograph a row is too narrow for a wide mark next to words.
  const { direction, align, gapM, children } = way === 'row' ? marksBelow(block) : block;
  const inside = (edge: Edge): number => (edge === inner ? Math.max(TOWARDS_PHOTO_M, block.padM?.[edge] ?? 0) : Math.max(OUTER_M, block.padM?.[edge] ?? 0));
  const words: StackPart = {
    part: 'stack',
    direction: 'column',
    ...(way === 'row' ? { grow: 1, share: 0, justify: 'centre' as const } : {}),
    align: block.align,
    gapM: MARK_GAP_M,
    padM: { top: inside('top'), right: inside('right'), bottom: inside('bottom'), left: inside('left') },
    safe: edges,
    ...(block.field ? { field: turned(block.field, inner) } : {}),
    // A mark in a corner of the photograph comes along, so that all of it is left to the subject.
    children: [
      { part: 'stack', direction, align, gapM, children },
      ...root.children.flatMap((child) => (child.part === 'mark' ? [{ ...child, over: undefined, alignSelf: 'start' as const }] : [])),
    ],
  };
  const photo: PicturePart = { ...picture, ...(way === 'row' ? { grow: undefined, share: PHOTO_SHARE.row } : { grow: 1, share: 0, leastShare: PHOTO_SHARE.column }) };
  return { ...root, direction: way, align: 'stretch', children: isFirst ? [words, photo] : [photo, words] };
}

/** A shape of its own would stand alone; a slant leans over the photograph. */
function turned({ ink, slant }: Field, edge: Edge): Field {
  return { ink, ...(slant ? { slant: { ...slant, edge } } : {}) };
}

/** The edge of the cut that the words go to: where less has to stay free, else as they stood on the photograph. */
function edgeOfWords(afloat: StackPart, way: 'column' | 'row', place: CalmPlace, frame: CutFrame): Edge {
  const [across, down] = sidesOf(place);
  const [one, other]: readonly [Edge, Edge] = way === 'row' ? ['left', 'right'] : ['top', 'bottom'];
  const cost = (edge: Edge): number => Math.max(safeInset(frame, edge), (afloat.over?.[edge] ?? 0) * frame.marginPx);
  const stood = (way === 'row' ? across : down) === 'end' ? other : one;
  return cost(one) === cost(other) ? stood : cost(one) < cost(other) ? one : other;
}

/** About what the photograph has of the cut beside its words. */
function partOf({ widthPx, heightPx }: Size, way: 'column' | 'row'): Size {
  return way === 'row' ? { widthPx: widthPx * PHOTO_SHARE.row, heightPx } : { widthPx, heightPx: heightPx * PHOTO_SHARE.column };
}

/** The share of a subject that a picture shows in a box of a size. */
function seenIn(picture: Picture, size: Size): number {
  const box = { xPx: 0, yPx: 0, ...size };
  return shownShare(picture, cropWindow(picture, box, box));
}
