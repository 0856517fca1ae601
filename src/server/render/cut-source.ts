import { gatherMetadata, type PictureMetadata } from '../../core/export/picture-metadata.ts';
import { getPlacement } from '../../core/network/network-sheet.ts';
import { adjustmentOf, slideAdjustmentOf, type CutRef, type Frame } from '../../core/piece/piece.ts';
import { filledSlide, placesOf, slidesOfCut, ALONE } from '../../core/piece/slides-of-cut.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { slideTemplate } from '../../core/template/slide-template.ts';
import { COVER } from '../../core/template/template.ts';
import { withOwnTimes } from '../../core/video/shot-times.ts';
import type { MediaStore } from '../media/media-store.ts';
import type { CutSource, SlideSource } from './render-cut.ts';

/** The slides of a snapshot that go out in one cut, in order; a graphic has one. */
export function slidesIn({ piece, template, sheets }: Pick<Snapshot, 'piece' | 'template' | 'sheets'>, network: string, cut: CutRef): readonly Frame[] {
  const sheet = sheets.find((each) => each.key === network);
  if (!sheet) throw new RangeError(`The snapshot has no sheet of '${network}'`);
  const { shown } = slidesOfCut(piece, template, getPlacement(sheet, cut.placement).carousel, adjustmentOf(piece, cut));
  return shown.map((frame) => withOwnTimes(frame, slideAdjustmentOf(piece, cut, frame.id)));
}

/** What one cut of a snapshot is made of, with the files its pictures lie in. */
export function cutSourceOf(snapshot: Snapshot, network: string, cut: CutRef, store: MediaStore): CutSource {
  const { piece, template } = snapshot;
  const sheet = snapshot.sheets.find((each) => each.key === network);
  if (!sheet) throw new RangeError(`The snapshot has no sheet of '${network}'`);
  const frames = slidesIn(snapshot, network, cut);
  const places = placesOf(frames, template);
  return {
    slides: frames.map((frame, index): SlideSource => {
      const place = places[index] ?? ALONE;
      return {
        template: slideTemplate(template, frame.slide),
        // What a graphic keeps aside does no harm; a slide is filled with what it shares and what fills itself.
        frame: piece.kind === 'graphic' ? frame : filledSlide(frame, piece.frames[0], template, place),
        adjustment: slideAdjustmentOf(piece, cut, frame.id),
        place,
        family: frame.slide ?? COVER,
      };
    }),
    book: snapshot.book,
    placement: getPlacement(sheet, cut.placement),
    typefaceFiles: Object.fromEntries(snapshot.book.typefaces.map((typeface) => [typeface.key, store.pathOf(typeface.hash)])),
    pictures: snapshot.pictures.map((picture) => ({ picture, filePath: store.pathOf(picture.storedHash) })),
  };
}

/** What travels inside the files of a snapshot's cuts: a slide's own alt text, else that of the piece. */
export function metadataOf({ pictures }: Pick<Snapshot, 'pictures'>, title: string, altText: string, frames: readonly Frame[]): readonly PictureMetadata[] {
  const terms = pictures.map((picture) => ({ credit: picture.credit ?? '', licence: picture.licence ?? '' }));
  return frames.map((frame) => gatherMetadata(title, (frame.altText ?? '').trim() || altText, terms));
}
