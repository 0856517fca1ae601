import { describe, expect, it } from 'vitest';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { beginFrames } from './begin-frames.ts';

const ids = (): (() => string) => {
  let last = 0;
  return () => `f${(last += 1)}`;
};
const pictures = [{ id: 'm1', altText: 'Bread' }, { id: 'm2', altText: '' }, { id: 'm3', altText: 'Rolls' }];
const shown = (slots: Readonly<Record<string, { readonly kind: string; readonly mediaId?: string }>>): readonly (string | undefined)[] => Object.values(slots).map(({ mediaId }) => mediaId);

describe('the first frames of a piece', () => {
  it('are one empty frame, or the pictures in the slots of a graphic', () => {
    expect(beginFrames(getShippedTemplate('headland'), [], ids())).toEqual([{ id: 'f1', slots: {} }]);
    expect(beginFrames(getShippedTemplate('quilt'), pictures, ids()).map(({ slots }) => shown(slots))).toEqual([['m1', 'm2', 'm3']]);
    expect(beginFrames(getShippedTemplate('headland'), pictures, ids()).map(({ slots }) => shown(slots))).toEqual([['m1']]);
  });

  it('are a slide a picture in a carousel, with its alt text, and a closing card', () => {
    const frames = beginFrames(getShippedTemplate('sheaf'), pictures, ids());
    expect(frames.slice(1, 4).map(({ slots, altText }) => [...shown(slots), altText])).toEqual([['m1', 'Bread'], ['m2', undefined], ['m3', 'Rolls']]);
    expect(frames.at(-1)?.slide).toBe('closing');
    expect(new Set(frames.map(({ id }) => id)).size).toBe(frames.length);
    expect(beginFrames(getShippedTemplate('sheaf'), [], ids())).toHaveLength(1);
  });

  it('are an opening, a shot and a closing card in a video', () => {
    expect(beginFrames(getShippedTemplate('gust'), [], ids()).map(({ slide }) => slide)).toEqual([undefined, 'moment', 'closing']);
  });
});
