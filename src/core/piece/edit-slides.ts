import { MAX_SLIDES, type Frame } from './piece.ts';

/** Slides in order; there is always at least one. */
export type Slides = readonly [Frame, ...Frame[]];

function slidesFrom(frames: readonly Frame[], otherwise: Slides): Slides {
  const [first, ...rest] = frames;
  return first ? [first, ...rest] : otherwise;
}

/**
 * Slides moved together, in the order they have, to before another one (null: to the end). Moving slides before one of
 * themselves leaves them where that one stands.
 */
export function moveSlides(slides: Slides, ids: ReadonlySet<string>, beforeId: string | null): Slides {
  const moved = slides.filter(({ id }) => ids.has(id));
  const at = beforeId === null ? slides.length : slides.findIndex(({ id }) => id === beforeId);
  if (moved.length === 0 || at < 0) return slides;
  const before = slides.slice(0, at).filter(({ id }) => !ids.has(id));
  const behind = slides.slice(at).filter(({ id }) => !ids.has(id));
  const next = [...before, ...moved, ...behind];
  return next.every((frame, index) => frame === slides[index]) ? slides : slidesFrom(next, slides);
}

/** Slides moved together by one place, to the left (-1) or right (1); at the end of the row they stay. */
export function stepSlides(slides: Slides, ids: ReadonlySet<string>, by: -1 | 1): Slides {
  const places = slides.flatMap(({ id }, index) => (ids.has(id) ? [index] : []));
  const [first, last] = [places[0], places.at(-1)];
  if (first === undefined || last === undefined) return slides;
  if (by < 0) return first === 0 ? slides : moveSlides(slides, ids, slides[first - 1]?.id ?? null);
  return last === slides.length - 1 ? slides : moveSlides(slides, ids, slides[last + 2]?.id ?? null);
}

/** Copies behind their originals; `newId` names each of them. A row that is full stays as it is. */
export function duplicateSlides(slides: Slides, ids: ReadonlySet<string>, newId: () => string): Slides {
  const copies = slides.filter(({ id }) => ids.has(id)).length;
  if (copies === 0 || slides.length + copies > MAX_SLIDES) return slides;
  return slidesFrom(slides.flatMap((frame) => (ids.has(frame.id) ? [frame, { ...frame, id: newId() }] : [frame])), slides);
}

/** Slides without some of them; the last one of all cannot go. */
export function removeSlides(slides: Slides, ids: ReadonlySet<string>): Slides {
  return slidesFrom(slides.filter(({ id }) => !ids.has(id)), slides);
}

/** Slides with new ones behind a given one (null: at the end), as far as there is room. */
export function insertSlides(slides: Slides, added: readonly Frame[], behindId: string | null): Slides {
  const at = behindId === null ? -1 : slides.findIndex(({ id }) => id === behindId);
  const index = at < 0 ? slides.length : at + 1;
  return slidesFrom([...slides.slice(0, index), ...added.slice(0, MAX_SLIDES - slides.length), ...slides.slice(index)], slides);
}
