import { slideTemplate } from '../template/slide-template.ts';
import type { SlideTemplate, Template } from '../template/template.ts';
import type { Slides } from './edit-slides.ts';
import type { Frame, SlotValue } from './piece.ts';
import type { Point } from './read-points.ts';
import { ownSlots } from './slides-of-cut.ts';

/** What slides are made of. */
export interface SlideDraft {
  readonly title: string;
  readonly points: readonly Point[];
}

/**
 * The slides of a carousel from points: the cover as it is, with the title on it where it has none, a slide a point, and the closing
 * card that is there already, or a new one.
 * @param newId names of slides, each once
 */
export function draftSlides(template: Template, before: Slides, { title, points }: SlideDraft, newId: () => string): Slides {
  const [cover] = before;
  const kind = slideFor(template, 'point') ?? slideFor(template, 'picture');
  const closing = slideFor(template, 'closing');
  const last = before.at(-1);
  const kept = last && closing && last.slide === closing.key ? last : null;
  return [
    title === '' || filledText(cover, leadingSlot(template)) ? cover : withTexts(cover, template, [title]),
    ...points.map(({ heading, text }) => withTexts({ id: newId(), slots: {}, ...(kind ? { slide: kind.key } : {}) }, template, [heading, text])),
    ...(kept ? [kept] : closing ? [emptySlide(closing, newId())] : []),
  ];
}

/** Whether pictures alone can begin a piece in a template: a graphic has a slot for one, a carousel a kind of slide. */
export function takesPictures(template: Template): boolean {
  if (template.kind === 'graphic') return template.slots.some((slot) => slot.kind === 'picture');
  const kind = slideFor(template, 'picture') ?? slideFor(template, 'point');
  return kind !== undefined && ownSlots(template, kind.key).some((slot) => slot.kind === 'picture');
}

/** A slide a picture, in the order given; what is there between cover and closing card stays before them. */
export function pictureSlides(template: Template, before: Slides, mediaIds: readonly string[], newId: () => string): Slides {
  const kind = slideFor(template, 'picture') ?? slideFor(template, 'point');
  const closing = slideFor(template, 'closing');
  const [cover, ...rest] = before;
  const slot = kind ? ownSlots(template, kind.key).find((each) => each.kind === 'picture') : undefined;
  if (!kind || !slot) return before;
  const added = mediaIds.map((mediaId): Frame => ({ id: newId(), slide: kind.key, slots: { [slot.key]: { kind: 'picture', mediaId } } }));
  const last = rest.at(-1);
  const closes = last !== undefined && closing !== undefined && last.slide === closing.key;
  return closes ? [cover, ...rest.slice(0, -1), ...added, last] : [cover, ...rest, ...added, ...(closing ? [emptySlide(closing, newId())] : [])];
}

export function emptySlide(slide: SlideTemplate, id: string): Frame {
  return { id, slide: slide.key, slots: {} };
}

function slideFor(template: Template, use: SlideTemplate['use']): SlideTemplate | undefined {
  return template.slides?.find((slide) => slide.use === use);
}

/** The slot that leads the cover: the first that is needed and takes words. */
function leadingSlot(template: Template): string {
  return slideTemplate(template, undefined).slots.find((slot) => slot.required && slot.kind === 'text')?.key ?? '';
}

function filledText(frame: Frame, slot: string): boolean {
  const value = frame.slots[slot];
  return value?.kind === 'text' && value.text.trim() !== '';
}

/** Texts into a slide's own text slots: the needed ones first, then the others, in order. */
function withTexts(frame: Frame, template: Template, texts: readonly string[]): Frame {
  const slots = ownSlots(template, frame.slide).filter((slot) => slot.kind === 'text');
  const inOrder = [...slots.filter((slot) => slot.required), ...slots.filter((slot) => !slot.required)];
  const filled = texts.flatMap((text, index): [string, SlotValue][] => {
    const slot = inOrder[index];
    return slot && text !== '' ? [[slot.key, { kind: 'text', text }]] : [];
  });
  return { ...frame, slots: { ...frame.slots, ...Object.fromEntries(filled) } };
}
