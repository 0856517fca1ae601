import type { AnswerOf } from '../../contract/contract.ts';
import { getMediaFile, type getMedia, type listMedia } from '../../contract/media-contracts.ts';
import { addressOf } from '../ui/call.ts';

/** An item with all that layout needs to know of it. */
export type MediaItem = AnswerOf<typeof getMedia>;
/** What lists say of an item. */
export type MediaSummary = AnswerOf<typeof listMedia>['items'][number];

/** Where a picture of some size is fetched. The revision is part of it, so that a replaced file shows at once. */
export function mediaAddress(brand: string, item: Pick<MediaItem, 'id' | 'revision'>, fit: 240 | 640 | 1280 | 2048): string {
  return addressOf(getMediaFile, { brand, media: item.id }, { fit, of: item.revision });
}
