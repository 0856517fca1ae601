import { describe, expect, it } from 'vitest';
import type { Frame } from '../piece/piece.ts';
import { describePost, describeText } from './describe-post.ts';

const frame = (text: string, altText?: string): Frame => ({ id: text, slots: { headline: { kind: 'text', text } }, ...(altText === undefined ? {} : { altText }) });

describe('what is compared of a post', () => {
  it('tells words from hashtags, in any script', () => {
    expect(describeText('Up we go on Saturday #KiteDay #ÜberSee')).toEqual({ captionWords: 5, hashtags: 2 });
    expect(describeText('凧を上げよう')).toMatchObject({ hashtags: 0 });
    expect(describeText('凧を上げよう').captionWords).toBeGreaterThan(1);
    expect(describeText('')).toEqual({ captionWords: 0, hashtags: 0 });
  });

  it('is its form: a picture, a carousel, a document or a video', () => {
    const frames = [frame('Sixty lanterns'), frame('one tide table')];
    expect(describePost({}, frames.slice(0, 1), 'pictures')).toMatchObject({ format: 'picture', traits: { slides: 1, wordsOnPicture: 2 } });
    expect(describePost({}, frames, 'pictures')).toMatchObject({ format: 'carousel', traits: { slides: 2, wordsOnPicture: 2 } });
    expect(describePost({}, frames, 'document').format).toBe('document');
    expect(describePost({}, frames, 'video')).toMatchObject({ format: 'video', traits: { slides: 1, wordsOnPicture: null } });
    expect(describePost({}, [], 'pictures').traits.wordsOnPicture).toBeNull();
  });

  it('is who is on its picture, by its own alt text before that of the words', () => {
    const shows = (own: string | undefined, words: string): boolean | null => describePost({ altText: words }, [frame('Go', own)], 'pictures').traits.showsPeople;
    expect(shows('A girl holds a kite', 'A kite in the sky')).toBe(true);
    expect(shows(undefined, 'Two women at a workbench')).toBe(true);
    expect(shows('A kite in the sky', 'A girl')).toBe(false);
    expect(shows(undefined, '')).toBeNull();
  });

  it('knows a first comment', () => {
    expect(describePost({ firstComment: 'More here' }, [frame('Go')], 'pictures').traits.hasFirstComment).toBe(true);
    expect(describePost({}, [frame('Go')], 'pictures').traits.hasFirstComment).toBe(false);
  });
});
