import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { duplicateSlides, insertSlides, moveSlides, removeSlides, stepSlides, type Slides } from './edit-slides.ts';

const row = (ids: string): Slides => ids.split('').map((id) => ({ id, slots: {} })) as unknown as Slides;
const ids = (slides: Slides): string => slides.map(({ id }) => id).join('');
const set = (names: string): ReadonlySet<string> => new Set(names.split(''));

describe('moving slides', () => {
  it.each([
    ['one to the right', 'b', 'e', 'acdbef'],
    ['one to the end', 'b', null, 'acdefb'],
    ['several at once, in their own order', 'ea', 'c', 'baecdf'],
    ['before one of themselves', 'bd', 'd', 'acbdef'],
    ['what is not there', 'z', 'a', 'abcdef'],
    ['to where nothing is', 'a', 'z', 'abcdef'],
  ])('%s', (_, moved, before, result) => {
    expect(ids(moveSlides(row('abcdef'), set(moved), before))).toBe(result);
  });

  it('by one place, and not beyond the ends', () => {
    expect(ids(stepSlides(row('abcdef'), set('c'), -1))).toBe('acbdef');
    expect(ids(stepSlides(row('abcdef'), set('cd'), 1))).toBe('abecdf');
    expect(ids(stepSlides(row('abcdef'), set('e'), 1))).toBe('abcdfe');
    const slides = row('abc');
    expect(stepSlides(slides, set('a'), -1)).toBe(slides);
    expect(stepSlides(slides, set('c'), 1)).toBe(slides);
  });

  it('loses none and doubles none, whatever is moved where', () => {
    fc.assert(
      fc.property(fc.subarray([...'abcdef']), fc.constantFrom(...'abcdef', null), (moved, before) => {
        expect([...ids(moveSlides(row('abcdef'), new Set(moved), before))].sort().join('')).toBe('abcdef');
      }),
    );
  });
});

describe('slides', () => {
  it('are doubled behind their originals, removed, and added, but never fewer than one or more than a hundred', () => {
    let next = 0;
    expect(ids(duplicateSlides(row('abc'), set('ac'), () => String((next += 1))))).toBe('a1bc2');
    expect(ids(removeSlides(row('abc'), set('b')))).toBe('ac');
    const slides = row('ab');
    expect(removeSlides(slides, set('ab'))).toBe(slides);
    expect(ids(insertSlides(slides, row('xy'), 'a'))).toBe('axyb');
    expect(ids(insertSlides(slides, row('x'), null))).toBe('abx');
    const full = Array.from({ length: 100 }, (_, index) => ({ id: `s${index}`, slots: {} })) as unknown as Slides;
    expect(insertSlides(full, row('x'), null)).toHaveLength(100);
    expect(duplicateSlides(full, new Set(['s1']), () => 'n')).toBe(full);
  });
});
