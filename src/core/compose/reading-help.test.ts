import { describe, expect, it } from 'vitest';
import { relativeLuminance } from '../colour/contrast.ts';
import { veiled, worstContrast } from './backdrop.ts';
import { readingHelp } from './reading-help.ts';

const inks = ['#ffffff', '#101820'];
const veils = ['#101820', '#ffffff'];
const help = (least: number, most: number, needed = 4.5, isLarge = false) => readingHelp([{ behind: { least, most }, needed }], inks, veils, '#101820', isLarge);

describe('readingHelp', () => {
  it('helps nothing where one colour reads as it is', () => {
    expect(help(0, 0.08)).toEqual({ kind: 'none' });
    expect(help(0.7, 1)).toEqual({ kind: 'none' });
    expect(readingHelp([], inks, veils, '#101820', false)).toEqual({ kind: 'none' });
  });

  it('takes the thinnest gradient that is enough, and no thicker one', () => {
    const found = help(0.05, 0.5);
    if (found.kind !== 'gradient') throw new Error(`not a gradient but ${found.kind}`);
    const worst = (share: number): number => Math.max(...inks.map((ink) => worstContrast(ink, veiled({ least: 0.05, most: 0.5 }, { luminance: relativeLuminance(found.colour), share }))));
    expect(worst(found.share)).toBeGreaterThanOrEqual(4.5);
    expect(worst(found.share - 0.05)).toBeLessThan(4.5 * 1.12);
  });

  it('asks more for small words than for large ones', () => {
    const [small, large] = [help(0, 0.6), help(0, 0.6, 3)];
    if (small.kind !== 'gradient' || large.kind !== 'gradient') throw new Error('no gradients');
    expect(small.share).toBeGreaterThan(large.share);
  });

  it('needs one colour for all words of a block, even where each would read in its own', () => {
    const dark = { behind: { least: 0, most: 0.02 }, needed: 4.5 };
    const light = { behind: { least: 0.8, most: 1 }, needed: 4.5 };
    expect(readingHelp([dark], inks, veils, '#101820', false).kind).toBe('none');
    expect(readingHelp([light], inks, veils, '#101820', false).kind).toBe('none');
    expect(readingHelp([dark, light], inks, veils, '#101820', false).kind).not.toBe('none');
  });

  it('tints the whole picture below a large block, and puts a panel where no veil is enough', () => {
    expect(help(0, 0.6, 4.5, true).kind).toBe('tint');
    expect(help(0, 1, 17)).toEqual({ kind: 'panel', colour: '#101820' });
  });

  it('prefers the ground of the scheme, and a dark veil to a light one', () => {
    const found = help(0, 0.9);
    expect(found).toMatchObject({ kind: 'gradient', colour: '#101820' });
  });
});
