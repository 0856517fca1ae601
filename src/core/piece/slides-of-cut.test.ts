import { describe, expect, it } from 'vitest';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { linkedCut } from './adjustment.ts';
import { readPiece, slideAdjustmentOf, type Frame, type Piece } from './piece.ts';
import { filledSlide, ownSlots, placesOf, slidesOfCut, SUM_ID } from './slides-of-cut.ts';

const strand = getShippedTemplate('strand');
const shoreline = getShippedTemplate('shoreline');
const text = (value: string) => ({ kind: 'text' as const, text: value });
const cover: Frame = { id: 'c', slots: { headline: text('Five winds') } };
const point = (id: string): Frame => ({ id, slide: 'point', slots: { heading: text(id) } });
const closing: Frame = { id: 'z', slide: 'closing', slots: {} };
const carousel = (...frames: Frame[]): Pick<Piece, 'kind' | 'frames'> => ({ kind: 'carousel', frames: [cover, ...frames] });
const six = carousel(...['p1', 'p2', 'p3', 'p4', 'p5', 'p6'].map(point), closing);
const ids = (frames: readonly Frame[]): string => frames.map(({ id }) => id).join(' ');
const pictures = (most: number) => ({ least: 2, most, as: 'pictures' as const });

describe('the slides of a cut', () => {
  it.each([
    ['all that there are, where they fit', pictures(10), 'c p1 p2 p3 p4 p5 p6 z', []],
    ['cover, closing card and the first points, where the limit is lower', pictures(5), 'c p1 p2 p3 z', ['p4 limit', 'p5 limit', 'p6 limit']],
    ['the cover alone, where one picture is taken', undefined, 'c', ['p1 single', 'p2 single', 'p3 single', 'p4 single', 'p5 single', 'p6 single', 'z single']],
  ])('are %s', (_, rule, shown, left) => {
    const slides = slidesOfCut(six, strand, rule, linkedCut);
    expect(ids(slides.shown)).toBe(shown);
    expect(slides.left.map(({ frame, because }) => `${frame.id} ${because}`)).toEqual(left);
  });

  it('are those that a person has chosen, as far as the limit goes', () => {
    const chosen = slidesOfCut(six, strand, pictures(5), { withoutSlides: ['p1', 'p2', 'z'] });
    expect(ids(chosen.shown)).toBe('c p3 p4 p5 p6');
    expect(chosen.left.every(({ because }) => because === 'chosen')).toBe(true);
    expect(ids(slidesOfCut(six, strand, undefined, { withoutSlides: ['c'] }).shown)).toBe('p1');
  });

  it('are gathered in one where one picture is taken and a person wants it so: the points as a list, the pictures in order', () => {
    const { shown, left } = slidesOfCut(six, strand, undefined, { gathered: true, withoutSlides: ['p5'] });
    expect(shown).toEqual([{ id: SUM_ID, slide: 'sum', altText: 'Five winds. p1. p2. p3. p4. p6.', slots: { points: text('p1\np2\np3\np4\np6') } }]);
    expect(left.map(({ frame, because }) => `${frame.id} ${because}`)).toEqual(['p5 chosen']);
    expect(filledSlide(shown[0] as Frame, cover, strand, { index: 0, count: 1, ordinal: null }).slots['headline']).toEqual(text('Five winds'));
    const photo = (id: string): Frame => ({ id, ...(id === 'm0' ? {} : { slide: 'picture' }), slots: { photo: { kind: 'picture', mediaId: id } } });
    const series = slidesOfCut({ kind: 'carousel', frames: [photo('m0'), photo('m1'), photo('m2')] }, getShippedTemplate('sheaf'), undefined, { gathered: true });
    expect(Object.entries(series.shown[0]?.slots ?? {}).map(([slot, value]) => `${slot} ${value.kind === 'picture' ? value.mediaId : ''}`)).toEqual(['photo m0', 'second m1', 'third m2']);
  });

  it('are not gathered where a carousel is taken', () => {
    expect(ids(slidesOfCut(six, strand, pictures(10), { gathered: true }).shown)).toBe('c p1 p2 p3 p4 p5 p6 z');
  });

  it('are a graphic’s one picture, whatever the place takes', () => {
    expect(ids(slidesOfCut({ kind: 'graphic', frames: [cover] }, getShippedTemplate('headland'), pictures(10), linkedCut).shown)).toBe('c');
  });
});

describe('a filled slide', () => {
  const places = placesOf([cover, point('p1'), point('p2'), closing], strand);

  it('numbers the points, not the cover and the closing card', () => {
    expect(places.map(({ ordinal }) => ordinal)).toEqual([null, 1, 2, null]);
  });

  it('carries its number, its page mark and the words that lead the carousel, and loses what it has no slot for', () => {
    const filled = filledSlide({ ...point('p2'), slots: { heading: text('Two'), stray: text('?') } }, cover, strand, { index: 2, count: 4, ordinal: 2 });
    expect(filled.slots).toEqual({ ordinal: text('2'), heading: text('Two'), head: text('Five winds') });
    const stop = filledSlide(point('p1'), cover, shoreline, { index: 1, count: 3, ordinal: 1 });
    expect(stop.slots['page']).toEqual(text('2/3'));
  });

  it('takes what slides share from the cover', () => {
    const shared = { ...cover, slots: { ...cover.slots, panorama: { kind: 'picture' as const, mediaId: 'm1' } } };
    expect(filledSlide(point('p1'), shared, shoreline, { index: 1, count: 3, ordinal: 1 }).slots['panorama']).toEqual({ kind: 'picture', mediaId: 'm1' });
  });

  it('asks a person for its own slots alone', () => {
    expect(ownSlots(shoreline, 'point').map(({ key }) => key)).toEqual(['heading', 'text']);
    expect(ownSlots(shoreline, undefined).map(({ key }) => key)).toEqual(['panorama', 'label', 'headline']);
  });
});

describe('a carousel as it is kept', () => {
  const stored = { version: 1, kind: 'carousel', title: '', template: { key: 'strand' }, frames: [cover, point('p1')], cuts: [], adjustments: { 'c1.feed': { scheme: 'dark', hidden: ['line'] }, 'c1.feed/p1': { textStep: 1, hidden: ['text'] } }, words: { shared: { caption: '', altText: '' }, own: {} } };

  it('has many frames, where a graphic has one', () => {
    expect(readPiece(stored).frames).toHaveLength(2);
    expect(() => readPiece({ ...stored, kind: 'graphic' })).toThrow();
    expect(() => readPiece({ ...stored, frames: [cover, point('p1'), point('p1')] })).toThrow('Two slides have one id');
    expect(() => readPiece({ ...stored, frames: Array.from({ length: 101 }, (_, index) => point(`p${index}`)) })).toThrow();
  });

  it('lets one slide of one cut differ further than its cut does', () => {
    const piece = readPiece(stored);
    expect(slideAdjustmentOf(piece, { channelId: 'c1', placement: 'feed' }, 'p1')).toEqual({ scheme: 'dark', textStep: 1, hidden: ['line', 'text'] });
    expect(slideAdjustmentOf(piece, { channelId: 'c1', placement: 'feed' }, 'c')).toEqual({ scheme: 'dark', hidden: ['line'] });
  });
});
