import { boxAround, clampBox, growBox, intersectBoxes, type Box, type Size } from '../geometry/box.ts';
import type { FillNode } from '../scene/scene.ts';
import type { CalmPlace, Edge } from '../template/parts.ts';
import { evenVeil, type Veiling } from './backdrop.ts';
import type { CutFrame } from './cut-frame.ts';
import { rectPath } from './part-outlines.ts';
import { sidesOf } from './place-words.ts';
import type { ReadingHelp } from './reading-help.ts';
import { fadeAround, fadeFromEdge, sharesOfFade, wayTo, type FadeReach, type Opening } from './soft-fills.ts';

export interface Point {
  readonly xPx: number;
  readonly yPx: number;
}

/** Words and marks that stand on a photograph. */
export interface BlockOnPhoto {
  readonly place: CalmPlace;
  /** Around the ink of all of them. */
  readonly extent: Box;
  readonly frame: CutFrame;
  /** Where the picture's subject stands in the cut; null where it is not seen. */
  readonly subject: Point | null;
  /** The box of the field that they stand on, if the template gives them one. */
  readonly field?: Box | undefined;
}

/** What helps words to be read, as it is painted, and what of the picture it hides. */
interface HelpShapes {
  readonly nodes: readonly FillNode[];
  readonly panel?: Box;
  readonly veil?: Veiling;
}

/** From this shape on, words at a corner are helped from the side, not from above or below. */
const WIDE_ASPECT = 1.2;
/** A block that takes more than this of the cut has the whole picture tinted. */
const LARGE_BLOCK = 0.62;
/** How far help reaches beyond the words, in m. A gradient begins to fade sooner: what it needs to fade is the longer. */
const HELP_ROOM_M = 0.7;
export const GRADIENT_ROOM_M = 0.25;
/** How a gradient fades: as a share of its even part, and at least and at the shortest as shares of the cut. */
const FADE = { side: { share: 0.9, least: 0.32, shortest: 0.24 }, upright: { share: 0.6, least: 0.24, shortest: 0.16 } } as const;
/** At a subject a gradient hides at most this share of it, where it has room to. */
const HIDDEN_AT_SUBJECT = 0.22;
/** An opening around a subject, as shares of the short side: what is wholly clear, where it ends, and where it ends at the least. */
const OPENING = { clear: 0.14, end: 0.44, leastEnd: 0.2 } as const;
/** The hairline to a subject: its distance from the words and from the subject, its width and its end, in m. */
const POINTER_M = { gap: 0.5, end: 1.8, width: 0.05, dot: 0.14 } as const;

/** The edge of the cut that help for a block comes from. */
function helpEdge({ place, frame: { size } }: BlockOnPhoto): Edge {
  const [across, down] = sidesOf(place);
  const isSide = down === 'centre' || (across !== 'centre' && size.widthPx > size.heightPx * WIDE_ASPECT);
  if (isSide) return across === 'start' ? 'left' : 'right';
  return down === 'start' ? 'top' : 'bottom';
}

const isSide = (edge: Edge): boolean => edge === 'left' || edge === 'right';

/** Whether a block takes so much of the cut that a gradient would hide all of it. */
export function isLargeBlock(block: BlockOnPhoto): boolean {
  const { extent, frame } = block;
  return isSide(helpEdge(block)) ? extent.widthPx > frame.size.widthPx * LARGE_BLOCK : extent.heightPx > frame.size.heightPx * LARGE_BLOCK;
}

/** Turns help into shapes. A tint and a gradient leave the subject clear where no word stands on it. */
export function helpShapes(help: ReadingHelp, block: BlockOnPhoto): HelpShapes {
  const { extent, frame, subject } = block;
  const { size, marginPx } = frame;
  const cut: Box = { xPx: 0, yPx: 0, ...size };
  const room = growBox(extent, marginPx * HELP_ROOM_M);
  switch (help.kind) {
    case 'none':
      return { nodes: [] };
    case 'panel': {
      const panel = clampBox(room, size);
      return { nodes: [{ kind: 'fill', path: rectPath(panel), colour: help.colour, alpha: 1 }], panel };
    }
    case 'tint': {
      if (!subject || !hasRoomToOpen(subject, block)) return { nodes: [{ kind: 'fill', path: rectPath(cut), colour: help.colour, alpha: help.share }], veil: evenVeil(cut, help.share) };
      const { opening, box } = openingAround(subject, cut, [tintedFor(block)]);
      return { nodes: [fadeAround(cut, opening, help.colour, help.share)], veil: evenVeil(cut, help.share, box) };
    }
    case 'gradient': {
      const edge = helpEdge(block);
      const around = growBox(extent, marginPx * GRADIENT_ROOM_M);
      const reach = reachOf(edge, around, help.share, block);
      return { nodes: [fadeFromEdge(cut, edge, reach, help.colour, help.share)], veil: { box: cut, sharesIn: sharesOfFade(cut, edge, reach, help.share) } };
    }
  }
}

/** What a tint has to cover whole. */
const tintedFor = ({ extent, frame }: BlockOnPhoto): Box => growBox(extent, frame.marginPx * GRADIENT_ROOM_M);

/** Whether a tint can open around its subject: words that stand too near keep all of it. */
const hasRoomToOpen = (subject: Point, block: BlockOnPhoto): boolean => wayFrom(subject, tintedFor(block)).px >= leastOpening(block.frame.size);

/** Help that leaves less than this of a picture to be seen hides it. */
export const HIDES_FROM = 0.3;

/** Whether what helps words to be read, or their own field, hides the subject of their picture. */
export function hidesSubject(help: ReadingHelp, block: BlockOnPhoto): boolean {
  const { extent, frame, subject, field } = block;
  if (!subject) return false;
  const at: Box = { ...subject, widthPx: 1, heightPx: 1 };
  if (field && intersectBoxes(field, at)) return true;
  const room = growBox(extent, frame.marginPx * HELP_ROOM_M);
  switch (help.kind) {
    case 'none':
      return false;
    case 'panel':
      return intersectBoxes(room, at) !== null;
    case 'tint':
      return help.share >= HIDES_FROM && !hasRoomToOpen(subject, block);
    case 'gradient': {
      const edge = helpEdge(block);
      const cut: Box = { xPx: 0, yPx: 0, ...frame.size };
      return sharesOfFade(cut, edge, reachOf(edge, tintedFor(block), help.share, block), help.share)(at)[1] >= HIDES_FROM;
    }
  }
}

/** How far from its edge a gradient is even: to the end of the words. */
function evenPart(edge: Edge, room: Box, { widthPx, heightPx }: Size): number {
  return { top: room.yPx + room.heightPx, bottom: heightPx - room.yPx, left: room.xPx + room.widthPx, right: widthPx - room.xPx }[edge];
}

/** How far a subject lies beyond the even part of a gradient; below 0 inside it. */
function beyondWords(edge: Edge, evenPx: number, { xPx, yPx }: Point, { widthPx, heightPx }: Size): number {
  return { top: yPx, bottom: heightPx - yPx, left: xPx, right: widthPx - xPx }[edge] - evenPx;
}

/** How far a gradient is even, and how far it fades: so that it is thin at the subject, where that lies beyond the words. */
export function reachOf(edge: Edge, room: Box, hidden: number, { frame: { size }, subject }: Pick<BlockOnPhoto, 'frame' | 'subject'>): FadeReach {
  const { share, least, shortest } = isSide(edge) ? FADE.side : FADE.upright;
  const sidePx = isSide(edge) ? size.widthPx : size.heightPx;
  const solidPx = evenPart(edge, room, size);
  const wantedPx = Math.max(solidPx * share, sidePx * least);
  if (!subject) return { solidPx, fadePx: wantedPx };
  const awayPx = beyondWords(edge, solidPx, subject, size);
  return { solidPx, fadePx: awayPx > 0 ? Math.min(wantedPx, Math.max(awayPx / wayTo(HIDDEN_AT_SUBJECT, hidden), sidePx * shortest)) : wantedPx };
}

/** How far a box around a subject may reach in all directions until it meets words, and in which direction it goes away from them; 0 on them. */
export function wayFrom({ xPx, yPx }: Point, words: Box): { readonly px: number; readonly awayX: number; readonly awayY: number } {
  const [acrossPx, downPx] = [xPx - nearest(xPx, words.xPx, words.widthPx), yPx - nearest(yPx, words.yPx, words.heightPx)];
  return Math.abs(acrossPx) >= Math.abs(downPx) ? { px: Math.abs(acrossPx), awayX: Math.sign(acrossPx), awayY: 0 } : { px: Math.abs(downPx), awayX: 0, awayY: Math.sign(downPx) };
}

const leastOpening = ({ widthPx, heightPx }: Size): number => Math.min(widthPx, heightPx) * OPENING.leastEnd;

/**
 * A round opening around a subject, and the box of all that it leaves less hidden. It ends where words begin; where they are too near, it lies
 * a little beside the subject, away from them.
 */
export function openingAround(subject: Point, over: Size, words: readonly Box[]): { readonly opening: Opening; readonly box: Box } {
  const [near] = words.map((each) => wayFrom(subject, each)).toSorted((a, b) => a.px - b.px);
  const wayPx = near?.px ?? Infinity;
  const endPx = Math.max(leastOpening(over), Math.min(wayPx, Math.min(over.widthPx, over.heightPx) * OPENING.end));
  const besidePx = Math.max(0, endPx - wayPx);
  const [xPx, yPx] = [subject.xPx + besidePx * (near?.awayX ?? 0), subject.yPx + besidePx * (near?.awayY ?? 0)];
  const clearPx = (endPx * OPENING.clear) / OPENING.end;
  return { opening: { xPx, yPx, clearPx, endPx }, box: { xPx: xPx - endPx, yPx: yPx - endPx, widthPx: endPx * 2, heightPx: endPx * 2 } };
}

/**
 * A hairline with a dot from a block of words to the subject; nothing where the way is too short.
 * @param colourOn the colour that stands out in a region
 */
export function pointerTo({ extent, subject, frame: { marginPx } }: BlockOnPhoto, colourOn: (region: Box) => string): readonly FillNode[] {
  if (!subject) return [];
  const from: Point = { xPx: nearest(subject.xPx, extent.xPx, extent.widthPx), yPx: nearest(subject.yPx, extent.yPx, extent.heightPx) };
  const [acrossPx, downPx] = [subject.xPx - from.xPx, subject.yPx - from.yPx];
  const lengthPx = Math.hypot(acrossPx, downPx);
  const [startPx, endPx] = [marginPx * POINTER_M.gap, lengthPx - marginPx * POINTER_M.end];
  if (endPx - startPx < marginPx) return [];
  const [unitX, unitY] = [acrossPx / lengthPx, downPx / lengthPx];
  const half = Math.max(1, marginPx * POINTER_M.width) / 2;
  const at = (along: number, aside: number): string => `${(from.xPx + unitX * along - unitY * aside).toFixed(2)} ${(from.yPx + unitY * along + unitX * aside).toFixed(2)}`;
  const end: Point = { xPx: from.xPx + unitX * endPx, yPx: from.yPx + unitY * endPx };
  const dotPx = marginPx * POINTER_M.dot;
  const around = boxAround([{ ...from, widthPx: 1, heightPx: 1 }, { ...end, widthPx: 1, heightPx: 1 }]);
  const colour = colourOn(around ?? extent);
  return [
    { kind: 'fill', path: `M${at(startPx, -half)}L${at(endPx, -half)}L${at(endPx, half)}L${at(startPx, half)}Z`, colour, alpha: 1 },
    { kind: 'fill', path: `M${(end.xPx - dotPx).toFixed(2)} ${end.yPx.toFixed(2)}a${dotPx} ${dotPx} 0 1 0 ${2 * dotPx} 0a${dotPx} ${dotPx} 0 1 0 ${-2 * dotPx} 0Z`, colour, alpha: 1 },
  ];
}

function nearest(value: number, from: number, length: number): number {
  return Math.min(from + length, Math.max(from, value));
}
