import { slideKinds } from '../template/slide-template.ts';
import type { Template } from '../template/template.ts';
import { emptySlide, pictureSlides } from './draft-slides.ts';
import type { PutPicture } from './put-picture.ts';
import type { Frame, Piece, SlotValue } from './piece.ts';

/**
 * The first frames of a piece. A video begins with its opening, a shot and a closing card, so that there is something to play; other
 * pieces grow from one frame. Pictures fill the slots of a graphic in order; of a carousel each gets a slide, the first the cover as well.
 * @param newId names of slides, each once
 */
export function beginFrames(template: Template, pictures: readonly PutPicture[], newId: () => string): Piece['frames'] {
  const [first] = pictures;
  const slots = template.slots.filter((slot) => slot.kind === 'picture');
  const shown = template.kind === 'graphic' ? pictures : first ? [first] : [];
  const opening: Frame = { id: newId(), slots: Object.fromEntries(slots.flatMap(({ key }, index): [string, SlotValue][] => (shown[index] ? [[key, { kind: 'picture', mediaId: shown[index].id }]] : []))) };
  if (template.kind === 'graphic') return [opening];
  const cover: Frame = template.kind === 'carousel' && first && slots.length > 0 && first.altText !== '' ? { ...opening, altText: first.altText } : opening;
  if (template.kind === 'carousel' && pictures.length === 0) return [cover];
  if (template.kind === 'carousel') return withAltTexts(pictureSlides(template, [cover], pictures.map(({ id }) => id), newId), pictures);
  const kinds = [slideKinds(template).find(({ use }) => use !== 'closing'), slideKinds(template).find(({ use }) => use === 'closing')];
  return [opening, ...kinds.flatMap((kind) => (kind ? [emptySlide(kind, newId())] : []))];
}

/** The alt text of a picture goes to the slide that shows it. */
function withAltTexts([cover, ...rest]: Piece['frames'], pictures: readonly PutPicture[]): Piece['frames'] {
  const slides = rest.map((frame): Frame => {
    const [shown] = Object.values(frame.slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : []));
    const altText = pictures.find(({ id }) => id === shown)?.altText ?? '';
    return altText === '' ? frame : { ...frame, altText };
  });
  return [cover, ...slides];
}
