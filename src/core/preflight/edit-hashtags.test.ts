import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { editHashtags, hashtagsIn, isSameTag } from './edit-hashtags.ts';

const keepAll = (tag: string): string => tag;
const without = (gone: string) => (tag: string): string | null => (isSameTag(tag, gone) ? null : tag);

describe('hashtagsIn', () => {
  it('takes every word of the field for them, with or without its sign, and elsewhere only those with one', () => {
    expect(hashtagsIn('hashtags', 'wind, #Kites; quay')).toEqual(['#wind', '#Kites', '#quay']);
    expect(hashtagsIn('caption', 'wind, #Kites; quay')).toEqual(['#Kites']);
  });
});

describe('editHashtags', () => {
  it('changes a hashtag as a whole, not the beginning of a longer one', () => {
    expect(editHashtags('caption', 'Up #kites #kitesonthequay', (tag) => (tag === '#kites' ? '#Kites' : tag))).toBe('Up #Kites #kitesonthequay');
  });

  it('takes the spaces before a hashtag along, and leaves all others', () => {
    expect(editHashtags('caption', 'One  two  #wind three\n#wind four', without('#Wind'))).toBe('One  two three\n four');
    expect(editHashtags('caption', '#wind', without('#wind'))).toBe('');
  });

  it('counts hashtags from the first', () => {
    expect(editHashtags('caption', '#a1 #b2 #c3', (tag, index) => (index < 2 ? tag : null))).toBe('#a1 #b2');
    expect(editHashtags('hashtags', 'a1 b2 c3', (tag, index) => (index < 2 ? tag : null))).toBe('#a1 #b2');
  });

  const word = fc.constantFrom('Kites', '#wind', '#Wind', '#quay', 'up', '\n', '🪁', '#2026', 'a#b');
  const text = fc.array(word, { maxLength: 12 }).map((words) => words.join(' '));

  it('changes nothing but outer spaces where every hashtag stays', () => {
    fc.assert(
      fc.property(text, (each) => {
        expect(editHashtags('caption', each, keepAll)).toBe(each.trim());
      }),
    );
  });

  it('leaves exactly the hashtags that are kept, in their order, and every other word', () => {
    fc.assert(
      fc.property(text, fc.constantFrom('#wind', '#quay', '#none'), (each, gone) => {
        const edited = editHashtags('caption', each, without(gone));
        expect(hashtagsIn('caption', edited)).toEqual(hashtagsIn('caption', each).filter((tag) => !isSameTag(tag, gone)));
        const plain = (of: string): readonly string[] => of.split(/\s+/u).filter((part) => part !== '' && !isSameTag(part, gone));
        expect(plain(edited)).toEqual(plain(each));
      }),
    );
  });
});
