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
    expect(chooseMark(kite, plain(foam), [navy, foam])).toMatchObject({ mark: { key: 'light' }, plate: null });
    expect(chooseMark(kite, plain('#06121f'), [navy, foam])).toMatchObject({ mark: { key: 'dark' }, plate: null });
  });

  it('stands on a plate of a brand colour where a plain ground swallows a part of every mark', () => {
    expect(chooseMark(kite, plain(red), [red, navy, foam])).toMatchObject({ mark: { key: 'light' }, plate: foam });
  });

  it('has no plate over a photograph, nor where no colour shows all of it', () => {
    expect(chooseMark(kite, { least: 0.05, most: 0.8 }, [navy, foam]).plate).toBeNull();
    expect(chooseMark(kite, plain(red), [red]).plate).toBeNull();
  });
});
