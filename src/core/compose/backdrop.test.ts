import { describe, expect, it } from 'vitest';
import type { PictureFacts } from '../crop/picture-facts.ts';
import { Backdrop, chooseInk, evenVeil, worstContrast } from './backdrop.ts';

const region = { xPx: 10, yPx: 10, widthPx: 20, heightPx: 20 };
const whole = { xPx: 0, yPx: 0, widthPx: 100, heightPx: 100 };

describe('Backdrop', () => {
  it('sees only the top layer where that covers a region', () => {
    const backdrop = new Backdrop();
    backdrop.addFlat(whole, '#ffffff');
    backdrop.addFlat({ xPx: 0, yPx: 0, widthPx: 50, heightPx: 50 }, '#000000');
    expect(backdrop.behind(region)).toEqual({ least: 0, most: 0 });
  });

  it('sees both where a layer covers a part of it', () => {
    const backdrop = new Backdrop();
    backdrop.addFlat(whole, '#ffffff');
    backdrop.addFlat({ xPx: 0, yPx: 0, widthPx: 20, heightPx: 100 }, '#000000');
    expect(backdrop.behind(region)).toEqual({ least: 0, most: 1 });
  });
});

describe('how much of a picture is hidden', () => {
  const facts: PictureFacts = { columns: 1, rows: 1, leastLuminance: [0], meanLuminance: [0], mostLuminance: [255], saliency: [0], focal: { x: 0.5, y: 0.5 } };

  it('is what veils over it leave, all of it below a flat colour, and nothing beside them', () => {
    const backdrop = new Backdrop();
    backdrop.addFlat(whole, '#ffffff');
    expect(backdrop.hiddenIn(region)).toBe(1);
    backdrop.add({ kind: 'picture', box: whole, facts, window: { x: 0, y: 0, width: 1, height: 1 } });
    expect(backdrop.hiddenIn(region)).toBe(0);
    backdrop.addVeil('#000000', evenVeil(whole, 0.5));
    backdrop.addVeil('#000000', evenVeil({ xPx: 0, yPx: 0, widthPx: 50, heightPx: 50 }, 0.5));
    expect(backdrop.hiddenIn(region)).toBeCloseTo(0.75);
    expect(backdrop.hiddenIn({ xPx: 60, yPx: 60, widthPx: 10, heightPx: 10 })).toBeCloseTo(0.5);
    backdrop.addFlat({ xPx: 0, yPx: 0, widthPx: 50, heightPx: 50 }, '#000000');
    expect(backdrop.hiddenIn(region)).toBe(1);
  });
});

describe('what is shaded', () => {
  it('is as light as the topmost picture or flat colour on the whole, whatever veils lie over it', () => {
    const backdrop = new Backdrop();
    expect(backdrop.meanBehind(region)).toBeNull();
    backdrop.addFlat(whole, '#ffffff');
    const facts: PictureFacts = { columns: 2, rows: 1, leastLuminance: [0, 0], meanLuminance: [0, 51], mostLuminance: [255, 255], saliency: [0, 0], focal: { x: 0.5, y: 0.5 } };
    backdrop.add({ kind: 'picture', box: whole, facts, window: { x: 0, y: 0, width: 0.5, height: 1 } });
    backdrop.addVeil('#ffffff', evenVeil(whole, 0.9));
    expect(backdrop.meanBehind(region)).toBeCloseTo(0.1, 6);
    expect(backdrop.meanBehind({ ...region, xPx: 200 })).toBeNull();
  });
});

describe('a veil', () => {
  it('hides its share of what lies below, by perceived lightness, and nothing outside its box or in its opening', () => {
    const backdrop = new Backdrop();
    backdrop.addFlat(whole, '#ffffff');
    backdrop.addVeil('#000000', evenVeil({ xPx: 0, yPx: 0, widthPx: 60, heightPx: 100 }, 0.5, { xPx: 40, yPx: 40, widthPx: 10, heightPx: 10 }));
    const { least, most } = backdrop.behind(region);
    expect(most).toBeCloseTo(0.5 ** 2.2, 3);
    expect(least).toBe(most);
    expect(backdrop.behind({ xPx: 70, yPx: 10, widthPx: 20, heightPx: 20 }).most).toBe(1);
    // Words that reach beyond it, or into its opening, stand on both.
    for (const both of [{ xPx: 50, yPx: 10, widthPx: 20, heightPx: 20 }, { xPx: 30, yPx: 30, widthPx: 20, heightPx: 20 }]) {
      expect(backdrop.behind(both).most).toBe(1);
      expect(backdrop.behind(both).least).toBeCloseTo(0.5 ** 2.2, 3);
    }
  });

  it('is hidden by what is painted over it', () => {
    const backdrop = new Backdrop();
    backdrop.addFlat(whole, '#000000');
    backdrop.addVeil('#ffffff', evenVeil(whole, 0.5));
    backdrop.addFlat(whole, '#000000');
    expect(backdrop.behind(region)).toEqual({ least: 0, most: 0 });
  });
});

describe('chooseInk', () => {
  it('keeps the wanted ink where it stands out, and takes the strongest where it does not', () => {
    expect(chooseInk('#000000', ['#ffffff'], { least: 0.9, most: 1 }, 4.5).colour).toBe('#000000');
    expect(chooseInk('#111111', ['#ffffff', '#888888'], { least: 0, most: 0.02 }, 4.5).colour).toBe('#ffffff');
  });

  it('counts a colour within the range behind it as unreadable', () => {
    expect(worstContrast('#808080', { least: 0, most: 1 })).toBe(1);
  });
});

describe('what most of a region is like', () => {
  /** Night on the left, a flash in one cell of the right half. */
  const facts: PictureFacts = { columns: 4, rows: 1, leastLuminance: [0, 0, 0, 0], meanLuminance: [5, 5, 5, 85], mostLuminance: [10, 10, 10, 255], saliency: [0, 0, 0, 0], focal: { x: 0.5, y: 0.5 } };
  const night = { kind: 'picture', box: whole, facts, window: { x: 0, y: 0, width: 1, height: 1 } } as const;
  const across = { xPx: 0, yPx: 10, widthPx: 100, heightPx: 20 };

  it('is the mean of the picture there, not its darkest and lightest spots', () => {
    const backdrop = new Backdrop();
    backdrop.add(night);
    expect(backdrop.typicalBehind(across)).toBeCloseTo(25 / 255, 6);
    expect(backdrop.typicalBehind({ ...across, widthPx: 40 })).toBeCloseTo(5 / 255, 6);
    expect(backdrop.behind(across).most).toBe(1);
  });

  it('is a flat colour’s own, and nothing where nothing covers the region', () => {
    const backdrop = new Backdrop();
    expect(backdrop.typicalBehind(across)).toBeNull();
    backdrop.addFlat({ ...whole, widthPx: 50 }, '#ffffff');
    expect(backdrop.typicalBehind(across)).toBeNull();
    expect(backdrop.typicalBehind({ ...across, widthPx: 40 })).toBe(1);
  });

  it('is what lies on top, in its looks, below the veils that were laid over it since', () => {
    const backdrop = new Backdrop();
    backdrop.addFlat(whole, '#ffffff');
    backdrop.addVeil('#000000', evenVeil(whole, 0.9));
    backdrop.add({ ...night, tone: { dark: '#ffffff', light: '#ffffff' } });
    expect(backdrop.typicalBehind(across)).toBeCloseTo(1, 6);
    backdrop.addVeil('#000000', evenVeil(whole, 0.5));
    expect(backdrop.typicalBehind(across)).toBeCloseTo(0.5 ** 2.2, 3);
    backdrop.addVeil('#000000', evenVeil({ ...whole, yPx: 60, heightPx: 40 }, 0.5));
    expect(backdrop.typicalBehind(across)).toBeCloseTo(0.5 ** 2.2, 3);
  });
});
