import { describe, expect, it } from 'vitest';
import { relativeLuminance } from '../colour/contrast.ts';
import { usualMarkRoom, type VectorMark } from '../brand/brand-book.ts';
import { chooseMark } from './choose-mark.ts';

const mark = (key: string, ...fills: readonly string[]): VectorMark => ({ kind: 'vector', key, for: 'light', ...usualMarkRoom, viewBox: { width: 100, height: 100 }, paths: fills.map((fill, index) => ({ d: `M${index * 30} 0H${index * 30 + 20}V100H${index * 30}Z`, fill })) });
const plain = (colour: string) => ({ least: relativeLuminance(colour), most: relativeLuminance(colour) });
const [navy, red, foam] = ['#12355b', '#d7263d', '#f4f7f5'];
const kite = { marks: [mark('light', navy, red), mark('dark', foam, red)] };

describe('the mark for a place', () => {
  it('is the one whose weakest part stands out most', () => {
    expect(chooseMark(kite, plain(foam), plain(foam).least, [navy, foam])).toMatchObject({ mark: { key: 'light' }, plate: null });
    expect(chooseMark(kite, plain('#06121f'), plain('#06121f').least, [navy, foam])).toMatchObject({ mark: { key: 'dark' }, plate: null });
  });

  it('stands on a plate of a brand colour where a plain ground swallows a part of every mark', () => {
    expect(chooseMark(kite, plain(red), plain(red).least, [red, navy, foam])).toMatchObject({ mark: { key: 'light' }, plate: foam });
  });

  it('stands on a plate over a photograph most of which swallows a part of every mark', () => {
    const photo = { least: 0.02, most: 0.8 };
    expect(chooseMark(kite, photo, plain(red).least, [red, navy, foam])).toMatchObject({ mark: { key: 'light' }, plate: foam });
    expect(chooseMark(kite, photo, plain(foam).least, [red, navy, foam]).plate).toBeNull();
  });

  it('has no plate over a photograph most of which shows it, nor where no colour shows all of it', () => {
    expect(chooseMark(kite, { least: 0.05, most: 0.8 }, 0.4, [navy, foam]).plate).toBeNull();
    expect(chooseMark(kite, plain(red), plain(red).least, [red]).plate).toBeNull();
  });

  it('is the one that shows on most of a photograph, where a part of every mark is lost somewhere on it', () => {
    const [nightWithFlash, noonWithShadow] = [0.02, 0.7];
    const words = { marks: [mark('light', navy), mark('dark', foam)] };
    expect(chooseMark(words, { least: 0, most: 1 }, nightWithFlash, []).mark.key).toBe('dark');
    expect(chooseMark(words, { least: 0, most: 1 }, noonWithShadow, []).mark.key).toBe('light');
  });
});
