import { isCutOut } from '../../core/crop/picture-facts.ts';
import type { SamplePictures } from '../../core/piece/sample-frame.ts';
import type { MediaItem } from './media-address.ts';

/** How many of the latest pictures are asked for, so that a cut-out is among them where there is one. */
export const SAMPLE_MEDIA = 16;
const MAX_OF_A_KIND = 4;

/** A few of a brand's pictures to look at templates with. */
export function sampleMedia(latest: readonly MediaItem[]): { readonly items: readonly MediaItem[]; readonly pictures: SamplePictures } {
  const photos = latest.filter((item) => !isCutOut(item.facts)).slice(0, MAX_OF_A_KIND);
  const cutOuts = latest.filter((item) => isCutOut(item.facts)).slice(0, MAX_OF_A_KIND);
  const ids = (items: readonly MediaItem[]): readonly string[] => items.map((item) => item.id);
  return { items: [...photos, ...cutOuts], pictures: { photos: ids(photos), cutOuts: ids(cutOuts) } };
}
