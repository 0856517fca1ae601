import { gatherMetadata, type PictureMetadata } from '../../core/export/picture-metadata.ts';
import { getPlacement } from '../../core/network/network-sheet.ts';
import { adjustmentOf, type CutRef } from '../../core/piece/piece.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import type { MediaStore } from '../media/media-store.ts';
import type { CutSource } from './render-cut.ts';

/** What one cut of a snapshot is made of, with the files its pictures lie in. */
export function cutSourceOf(snapshot: Snapshot, network: string, cut: CutRef, store: MediaStore): CutSource {
  const sheet = snapshot.sheets.find((each) => each.key === network);
  if (!sheet) throw new RangeError(`The snapshot has no sheet of '${network}'`);
  return {
    template: snapshot.template,
    frame: snapshot.piece.frames[0],
    book: snapshot.book,
    placement: getPlacement(sheet, cut.placement),
    adjustment: adjustmentOf(snapshot.piece, cut),
    typefaceFiles: Object.fromEntries(snapshot.book.typefaces.map((typeface) => [typeface.key, store.pathOf(typeface.hash)])),
    pictures: snapshot.pictures.map((picture) => ({ picture, filePath: store.pathOf(picture.storedHash) })),
  };
}

/** What travels inside the files of a snapshot's cuts. */
export function metadataOf({ pictures }: Pick<Snapshot, 'pictures'>, title: string, altText: string): PictureMetadata {
  return gatherMetadata(title, altText, pictures.map((picture) => ({ credit: picture.credit ?? '', licence: picture.licence ?? '' })));
}
