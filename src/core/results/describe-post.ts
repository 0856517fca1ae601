import type { Words } from '../words/fields.ts';
import type { Frame } from '../piece/piece.ts';
import { showsPeople } from './people-shown.ts';

/** What of a post's words and pictures is compared between posts. */
export interface DescribedPost {
  readonly format: 'picture' | 'carousel' | 'video' | 'document' | 'text';
  readonly traits: {
    readonly slides: number;
    readonly captionWords: number;
    readonly hashtags: number;
    readonly hasFirstComment: boolean;
    readonly wordsOnPicture: number | null;
    /** As the alt text of its first picture says; null: nobody described it. */
    readonly showsPeople: boolean | null;
  };
}

const HASHTAG = /#[\p{L}\p{M}\p{N}_]+/gu;

/** Describes a post as it went out: its words, and the frames that it showed. */
export function describePost(words: Words, frames: readonly Frame[], as: 'pictures' | 'document' | 'video'): DescribedPost {
  const slides = as === 'video' ? 1 : frames.length;
  const onPicture = frames[0] && as !== 'video' ? countWordsIn(Object.values(frames[0].slots).map((slot) => (slot.kind === 'text' ? slot.text : '')).join(' ')) : null;
  return {
    format: as === 'video' ? 'video' : as === 'document' ? 'document' : slides > 1 ? 'carousel' : 'picture',
    traits: { ...describeText(words.caption ?? ''), slides, hasFirstComment: (words.firstComment ?? '') !== '', wordsOnPicture: onPicture, showsPeople: showsPeople(frames[0]?.altText?.trim() || (words.altText ?? '')) },
  };
}

/** What of a text alone is compared. */
export function describeText(text: string): { readonly captionWords: number; readonly hashtags: number } {
  return { captionWords: countWordsIn(text.replace(HASHTAG, '')), hashtags: text.match(HASHTAG)?.length ?? 0 };
}

const segmenter = new Intl.Segmenter('und', { granularity: 'word' });

function countWordsIn(text: string): number {
  let count = 0;
  for (const { isWordLike } of segmenter.segment(text)) if (isWordLike) count += 1;
  return count;
}
