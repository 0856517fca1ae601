import { likelySubject } from '../../core/crop/known-subject.ts';
import { isCutOut } from '../../core/crop/picture-facts.ts';
import type { SamplePictures } from '../../core/piece/sample-frame.ts';
import type { MediaItem } from './media-address.ts';

/** How many of the latest pictures are asked for, so that good ones and a cut-out are among them where there are any. */
export const SAMPLE_MEDIA = 32;
const MAX_OF_A_KIND = 4;
/** A photograph of fewer pixels on its short side looks soft in a cut. */
const MIN_SHORT_SIDE_PX = 900;

/** Luminances (of 255) that are closer together than this show nothing. */
const MIN_SPREAD = 48;
/** A photograph without light and dark, as of a misty day, makes templates look dull. */
const LIVELY_SPREAD = 140;
const spreadOf = ({ leastLuminance, mostLuminance }: MediaItem['facts']): number => Math.max(...mostLuminance) - Math.min(...leastLuminance);

/** A mark, a frame of a clip or an even field is no photograph to judge a template by. */
const isPhoto = ({ recording, tags, facts }: MediaItem): boolean => recording === null && !tags.includes('mark') && !isCutOut(facts) && spreadOf(facts) >= MIN_SPREAD;
const isSharp = ({ widthPx, heightPx }: MediaItem): boolean => Math.min(widthPx, heightPx) >= MIN_SHORT_SIDE_PX;
/** Somebody has looked at it: it is described, or its focal point was placed. */
const isCaredFor = ({ altText, focalBy }: MediaItem): boolean => altText.trim() !== '' || focalBy === 'person';

/** Templates are shown with subjects of at most this share of their photograph: a larger one leaves words no room on it, and all templates would look alike. */
const MOST_OF_PHOTO = 0.12;
const showsWell = (item: MediaItem): boolean => {
  const subject = likelySubject(item);
  return subject !== null && subject.width * subject.height <= MOST_OF_PHOTO && spreadOf(item.facts) >= LIVELY_SPREAD;
};

/** A few of a brand's pictures to look at templates with: its best photographs, not whatever came in last. */
export function sampleMedia(latest: readonly MediaItem[]): { readonly items: readonly MediaItem[]; readonly pictures: SamplePictures } {
  const rank = (item: MediaItem): number => (isPhoto(item) ? 8 : 0) + (isSharp(item) ? 4 : 0) + (isCaredFor(item) ? 2 : 0) + (showsWell(item) ? 1 : 0);
  const ranked = latest.filter((item) => !isCutOut(item.facts)).toSorted((a, b) => rank(b) - rank(a));
  const photos = ranked.slice(0, MAX_OF_A_KIND);
  const clear = ranked.filter((item) => isPhoto(item) && item.facts.outline).slice(0, MAX_OF_A_KIND);
  const cutOuts = latest.filter((item) => isCutOut(item.facts) && !item.tags.includes('mark')).slice(0, MAX_OF_A_KIND);
  const ids = (items: readonly MediaItem[]): readonly string[] => items.map((item) => item.id);
  return { items: [...new Set([...photos, ...clear, ...cutOuts])], pictures: { photos: ids(photos), clear: ids(clear), cutOuts: ids(cutOuts) } };
}
