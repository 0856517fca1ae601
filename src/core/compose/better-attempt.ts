import type { Picture } from '../crop/crop-window.ts';
import { shownShare } from '../crop/seen-share.ts';
import type { Size } from '../geometry/box.ts';
import type { Arrangement } from '../template/template.ts';
import type { Emitted } from './emit.ts';
import type { FitOutcome } from './fit.ts';
import { markBoxes } from './ink-boxes.ts';
import type { SetBeside } from './report.ts';
import { marksOnSubject, standFree, withMarksMoved } from './mark-off-subject.ts';
import type { Cover } from './set-aside.ts';

/** A cut that was set in one way, as far as it is compared with another. */
export interface Tried {
  readonly fitted: FitOutcome;
  readonly emitted: Emitted;
  readonly dropped: readonly string[];
  readonly setting: { readonly bound: { readonly pictures: Readonly<Record<string, Picture>> } };
}

/** Words may become this much smaller for their mark to stand below them or to stand beside a photograph, and in another arrangement, which sets each of them otherwise. */
const LEAST_SIZE = { moved: 0.75, arranged: 0.6 } as const;

/** How amiss the place of a mark is: 2 where it has less room than its brand asks for, 1 where it lies on the subject of a photograph, else 0. */
export function markAmiss({ fitted, emitted, setting }: Tried): number {
  if (emitted.findings.some(({ kind }) => kind === 'small-mark')) return 2;
  return marksOnSubject(markBoxes(fitted.laidOut), emitted.pictures, setting.bound.pictures) ? 1 : 0;
}

/** A place for the marks of a cut beside the usual one. */
interface OtherPlace {
  readonly arrangement: Arrangement;
  readonly inCorner: boolean;
}

/**
 * Where else the marks of a cut may stand: below their words, and in the corners that look free by the cut as it is. A whole attempt costs as
 * much as the cut itself, and in most photographs no corner is better.
 */
export function otherPlaces(arrangement: Arrangement, { fitted, emitted, setting }: Tried, cut: Size, mayCross: boolean): readonly OtherPlace[] {
  const { below, corners } = withMarksMoved(arrangement);
  const marks = markBoxes(fitted.laidOut);
  const free = corners.filter(({ take }) => {
    const taken = marks.map((mark) => take(mark, cut));
    return mayCross && standFree(taken, emitted) && !marksOnSubject(taken, emitted.pictures, setting.bound.pictures);
  });
  return [...(below ? [{ arrangement: below, inCorner: false }] : []), ...free.map(({ arrangement: turned }) => ({ arrangement: turned, inCorner: true }))];
}

/** Whether a cut gains by its mark elsewhere: it is less amiss there and, in a corner, free of words, nothing is missing that was there, and the words are still large. */
export function isBetterMoved(moved: Tried, usual: Tried, inCorner: boolean): boolean {
  if (markAmiss(moved) >= markAmiss(usual) || !keepsAll(moved, usual) || (coversSubject(moved) && !coversSubject(usual)) || moved.emitted.findings.length > usual.emitted.findings.length) return false;
  if (inCorner && !standFree(markBoxes(moved.fitted.laidOut), moved.emitted)) return false;
  return staysLarge(moved, usual, LEAST_SIZE.moved);
}

function staysLarge(moved: Tried, usual: Tried, least: number): boolean {
  const sizes = new Map(usual.emitted.placed.map(({ slot, sizePx }) => [slot, sizePx]));
  return moved.emitted.placed.every(({ slot, sizePx }) => sizePx >= (sizes.get(slot) ?? 0) * least);
}

/** Whether words, or what helps them to be read, hide the subject of their photograph. */
export const coversSubject = ({ emitted }: Tried): boolean => emitted.findings.some(({ kind }) => kind === 'covered-subject');

/** Words crowd a subject of which they and their help hide more than this. Smaller ones let a veil open wider around it, which is what the veil is for. */
const CROWDED_FROM: Readonly<Record<Cover, number>> = { words: 0.3, veil: 0.12, field: 0.3 };
/** Smaller words have to hide at most this share of what was hidden. */
const MOST_STILL_HIDDEN = 0.6;

const hiddenBy = ({ emitted }: Tried): number => Math.max(0, ...emitted.blocks.map(({ hiddenShare }) => hiddenShare));

/** Whether words leave a part of their photograph's subject to be seen, but too little. */
export const crowdsSubject = (tried: Tried, cover: Cover): boolean => hiddenBy(tried) > CROWDED_FROM[cover];

/** Whether smaller words leave the subject free, or far more of it, and nothing is missing that was there. */
export function isFreer(smaller: Tried, usual: Tried): boolean {
  if (!keepsAll(smaller, usual) || coversSubject(smaller)) return false;
  return coversSubject(usual) || hiddenBy(smaller) <= hiddenBy(usual) * MOST_STILL_HIDDEN;
}

const keepsAll = (other: Tried, usual: Tried): boolean => (!other.fitted.overflow || Boolean(usual.fitted.overflow)) && other.dropped.length <= usual.dropped.length;

/**
 * Words go beside a photograph on which less than this of its subject is seen, where that shows at least so much more of it. What a field hides is
 * gone, and a subject that stands half in its light and half in the dark looks like a fault.
 */
const SEEN_ENOUGH: Readonly<Record<Cover, number>> = { words: 0.75, veil: 0.84, field: 0.86 };
const MORE_SEEN = 0.12;
/** For so much more of a subject words may get as small as in another arrangement, unless they were tried smaller on the photograph. */
const FAR_MORE_SEEN = 0.3;

/** The share of a photograph's subject that can be seen: neither cut off nor below words and what helps to read them. */
export function seenShare({ emitted, setting }: Tried, slot: string): number {
  const [at, picture] = [emitted.pictures.find((each) => each.slot === slot), setting.bound.pictures[slot]];
  const hidden = emitted.blocks.find((each) => each.picture === slot)?.hiddenShare ?? 0;
  return at && picture ? shownShare(picture, at.window) * (1 - hidden) : 1;
}

/** Whether a cut shows too little of the subject that its words stand on. */
export const losesSubject = (tried: Tried, slot: string, cover: Cover): boolean => seenShare(tried, slot) < SEEN_ENOUGH[cover];

/** Another arrangement is tried where less than this of a subject is seen, and taken where it shows at least so much more. */
const [SEEN_IN_USUAL, MORE_IN_OTHER] = [0.72, 0.13] as const;

/** Of the photograph of which least of its subject is seen, how much that is. */
export const worstSeen = (tried: Tried): number => Math.min(1, ...tried.emitted.pictures.map(({ slot }) => (tried.emitted.fronts.some(({ picture }) => picture === slot) ? 1 : seenShare(tried, slot))));

/** Whether a cut cuts off too much of a subject. */
export const cutsSubject = (tried: Tried): boolean => worstSeen(tried) < SEEN_IN_USUAL;

/** Whether another arrangement shows far more of the subject, with all that is there, nothing amiss that was not, and words that are still large. */
export function isBetterArranged(other: Tried, usual: Tried): boolean {
  return worstSeen(other) >= worstSeen(usual) + MORE_IN_OTHER && keepsAll(other, usual) && staysLarge(other, usual, LEAST_SIZE.arranged) && hasNoMoreFindings(other, usual);
}

const hasNoMoreFindings = (other: Tried, usual: Tried): boolean => other.emitted.findings.every(({ kind }) => usual.emitted.findings.some((each) => each.kind === kind));

/** Whether a cut gains by its words beside the photograph: more of the subject is seen, nothing is missing, and the words are as large as that is worth. */
export function isBetterAside(aside: Tried, usual: Tried, { seenShare, seenOnPhoto }: SetBeside, isSmallAlready: boolean): boolean {
  const gain = seenShare - seenOnPhoto;
  const least = gain >= FAR_MORE_SEEN && !isSmallAlready ? LEAST_SIZE.arranged : LEAST_SIZE.moved;
  return gain >= MORE_SEEN && keepsAll(aside, usual) && staysLarge(aside, usual, least) && hasNoMoreFindings(aside, usual);
}

/** Sizes of which none is above a share of the largest. */
export function cappedSizes(sizes: ReadonlyMap<string, number>, share: number): ReadonlyMap<string, number> {
  const most = Math.max(...sizes.values()) * share;
  return new Map([...sizes].map(([key, sizePx]) => [key, Math.min(sizePx, most)]));
}
