import type { CarouselRule } from '../network/network-sheet.ts';
import type { Slot } from '../template/template.ts';
import { fillsItself, type Template } from '../template/template.ts';
import { slideOf, slideTemplate, sumSlide } from '../template/slide-template.ts';
import type { Adjustment } from './adjustment.ts';
import { firstWords, type Frame, type Piece, type SlotValue } from './piece.ts';

/** Which slides of a carousel go into one cut, in order, and which stay behind. */
export interface CutSlides {
  readonly shown: readonly Frame[];
  readonly left: readonly LeftSlide[];
}

/** `chosen`: a person has left it out; `limit`: the place takes no more; `single`: the place takes one picture. */
export interface LeftSlide {
  readonly frame: Frame;
  readonly because: 'chosen' | 'limit' | 'single';
}

/**
 * The slides that go out in one place. What a person has left out stays out. Beyond the limit of the place the cover, the closing
 * card and the first of the others stay; where it takes one picture alone, the first slide goes, or one that gathers them all.
 */
export function slidesOfCut(piece: Pick<Piece, 'kind' | 'frames'>, template: Template, rule: CarouselRule | undefined, adjustment: Adjustment): CutSlides {
  if (piece.kind === 'graphic') return { shown: piece.frames, left: [] };
  const without = new Set(adjustment.withoutSlides ?? []);
  const played = piece.frames.filter((frame) => !frame.shot?.onlyCover);
  const wanted = played.filter((frame) => !without.has(frame.id));
  const chosen = played.filter((frame) => without.has(frame.id)).map((frame): LeftSlide => ({ frame, because: 'chosen' }));
  // All shots of a video go out in every place.
  const most = piece.kind === 'video' ? Infinity : (rule?.most ?? 1);
  const sum = adjustment.gathered && !rule && wanted.length > 1 ? sumFrame(piece.frames, wanted, template) : null;
  if (sum) return { shown: [sum], left: chosen };
  if (wanted.length <= most) return { shown: wanted, left: chosen };
  const kept = new Set(keptWithin(wanted, template, most));
  const over = wanted.filter((frame) => !kept.has(frame)).map((frame): LeftSlide => ({ frame, because: rule ? 'limit' : 'single' }));
  return { shown: wanted.filter((frame) => kept.has(frame)), left: [...chosen, ...over] };
}

function keptWithin(frames: readonly Frame[], template: Template, most: number): readonly Frame[] {
  const last = frames.at(-1);
  const closes = most > 2 && last?.slide !== undefined && slideOf(template, last.slide)?.use === 'closing';
  return closes && last ? [...frames.slice(0, most - 1), last] : frames.slice(0, most);
}

/** The slide that sums up has this id; no slide that a person makes is called so. */
export const SUM_ID = 'sum';

/** One picture for all slides: what leads each point as a line of a list, and their pictures in order. Null where the template has no such slide. */
function sumFrame([cover]: Piece['frames'], wanted: readonly Frame[], template: Template): Frame | null {
  const kind = sumSlide(template);
  if (!kind) return null;
  const points = wanted.filter((frame) => isPoint(template, frame));
  const lines = points.map((frame) => firstWords({ frames: [frame] })).filter((line) => line !== '');
  const pictures = wanted.flatMap((frame) => Object.values(frame.slots).filter((value) => value.kind === 'picture'));
  const gathered = kind.slots.filter((slot) => slot.gathers);
  const slots = gathered.flatMap((slot): [string, SlotValue][] => {
    if (slot.kind === 'list') return [[slot.key, { kind: 'text', text: lines.join('\n') }]];
    const picture = slot.kind === 'picture' ? pictures.shift() : undefined;
    return picture ? [[slot.key, picture]] : [];
  });
  const altText = [firstWords({ frames: [cover] }), ...lines].filter((line) => line !== '').map((line) => (/[.!?…]$/u.test(line) ? line : `${line}.`)).join(' ');
  return { id: SUM_ID, slide: kind.key, altText, slots: Object.fromEntries(slots) };
}

/** Whether a slide is one of the points: neither cover nor closing card. */
export function isPoint(template: Template, frame: Frame): boolean {
  const use = frame.slide === undefined ? null : slideOf(template, frame.slide)?.use;
  return use === 'point' || use === 'picture';
}

/** Where a slide stands among those of its cut. */
export interface SlidePlace {
  readonly index: number;
  readonly count: number;
  /** Its number among the points, from 1; null for a cover or a closing card. */
  readonly ordinal: number | null;
}

export const ALONE: SlidePlace = { index: 0, count: 1, ordinal: null };

/** The places of slides that go out together. */
export function placesOf(shown: readonly Frame[], template: Template): readonly SlidePlace[] {
  let points = 0;
  return shown.map((frame, index) => {
    const counts = isPoint(template, frame);
    if (counts) points += 1;
    return { index, count: shown.length, ordinal: counts ? points : null };
  });
}

/**
 * A slide with all that it shows: its own values, those it shares with the cover, its page mark, its number and the running head.
 * @param cover the piece's first frame, which holds what slides share
 */
export function filledSlide(frame: Frame, cover: Frame, template: Template, place: SlidePlace): Frame {
  const { slots } = slideTemplate(template, frame.slide);
  const values = slots.flatMap((slot): [string, SlotValue][] => {
    const value = valueFor(slot, frame, cover, place);
    return value ? [[slot.key, value]] : [];
  });
  return { ...frame, slots: Object.fromEntries(values) };
}

function valueFor(slot: Slot, frame: Frame, cover: Frame, { index, count, ordinal }: SlidePlace): SlotValue | undefined {
  if (slot.kind === 'page') return count > 1 ? { kind: 'text', text: `${index + 1}/${count}` } : undefined;
  if (slot.kind === 'ordinal') return ordinal === null ? undefined : { kind: 'text', text: String(ordinal) };
  if (slot.kind === 'head') {
    const head = firstWords({ frames: [cover] });
    return head === '' ? undefined : { kind: 'text', text: head };
  }
  return slot.shared ? cover.slots[slot.key] : frame.slots[slot.key];
}

/** Slots of a kind of slide that a person fills in there: not what fills itself, and what is shared only on the cover. */
export function ownSlots(template: Template, slide: string | undefined): readonly Slot[] {
  const isCover = slideTemplate(template, slide) === template;
  return slideTemplate(template, slide).slots.filter((slot) => !fillsItself(slot.kind) && !slot.gathers && (isCover || !slot.shared));
}
