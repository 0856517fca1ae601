import { getCut } from '../../core/cut/resolve-cuts.ts';
import { gatherMetadata, type PictureMetadata } from '../../core/export/picture-metadata.ts';
import type { CutRef, Frame } from '../../core/piece/piece.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import type { MediaStore } from '../media/media-store.ts';
import type { CutSource } from './render-cut.ts';

/** The slides of a snapshot that go out in one cut, in order; a graphic has one. */
export function slidesIn(snapshot: Pick<Snapshot, 'piece' | 'template' | 'sheets'>, network: string, cut: CutRef): readonly Frame[] {
  return getCut(snapshot, network, cut).slides.map(({ frame }) => frame);
}

/** What one cut of a snapshot is made of, with the files its pictures lie in. */
export function cutSourceOf(snapshot: Snapshot, network: string, ref: CutRef, store: MediaStore): CutSource {
  const { slides, placement } = getCut(snapshot, network, ref);
  return {
    slides: slides.map(({ template, filled, adjustment, place, family }) => ({ template, frame: filled, adjustment, place, family })),
    book: snapshot.book,
    placement,
    typefaceFiles: Object.fromEntries(snapshot.book.typefaces.map((typeface) => [typeface.key, store.pathOf(typeface.hash)])),
    pictures: snapshot.pictures.map((picture) => ({ picture, filePath: store.pathOf(picture.storedHash) })),
  };
}

/** What travels inside the files of a snapshot's cuts: a slide's own alt text, else that of the piece. */
export function metadataOf({ pictures }: Pick<Snapshot, 'pictures'>, title: string, altText: string, frames: readonly Frame[]): readonly PictureMetadata[] {
  const terms = pictures.map((picture) => ({ credit: picture.credit ?? '', licence: picture.licence ?? '' }));
  return frames.map((frame) => gatherMetadata(title, (frame.altText ?? '').trim() || altText, terms));
}
