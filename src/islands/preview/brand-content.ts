import type { getBrand } from '../../contract/brand-contracts.ts';
import { getTypefaceFile } from '../../contract/brand-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import type { Picture } from '../../core/crop/crop-window.ts';
import type { WallContent } from '../../workers/wall-protocol.ts';
import { addressOf } from '../ui/call.ts';
import { mediaAddress, type MediaItem } from '../media/media-address.ts';

export type BrandData = AnswerOf<typeof getBrand>;

/** Pictures on the wall are small; the large view asks for more. */
export const WALL_PICTURE_PX = 1280;

export function pictureOf(item: MediaItem): Picture {
  return { id: item.id, widthPx: item.widthPx, heightPx: item.heightPx, facts: item.facts, focal: item.focal, focalBy: item.focalBy };
}

/** The content of a painting: a book with its typefaces, the pictures that marks are made of, and those of a piece. */
export function brandContent(brand: Pick<BrandData, 'slug' | 'markPictures'>, book: BrandBook, items: readonly MediaItem[]): WallContent {
  const all = [...new Map([...brand.markPictures, ...items].map((item) => [item.id, item])).values()];
  return {
    book,
    pictures: all.map((item) => ({ picture: pictureOf(item), address: mediaAddress(brand.slug, item, WALL_PICTURE_PX) })),
    typefaces: Object.fromEntries(book.typefaces.map(({ key, hash }) => [key, addressOf(getTypefaceFile, { brand: brand.slug, hash })])),
  };
}
