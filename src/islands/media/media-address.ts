import type { AnswerOf } from '../../contract/contract.ts';
import { getMediaFile, type getMedia } from '../../contract/media-contracts.ts';
import { addressOf } from '../ui/call.ts';

export type MediaItem = AnswerOf<typeof getMedia>;

/** Where a picture of some size is fetched. The revision is part of it, so that a replaced file shows at once. */
export function mediaAddress(brand: string, item: Pick<MediaItem, 'id' | 'revision'>, fit: 240 | 640 | 1280 | 2048): string {
  return addressOf(getMediaFile, { brand, media: item.id }, { fit, of: item.revision });
}
