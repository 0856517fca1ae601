import { describe, expect, it } from 'vitest';
import { Backdrop, chooseInk, worstContrast } from './backdrop.ts';

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

describe('chooseInk', () => {
  it('keeps the wanted ink where it stands out, and takes the strongest where it does not', () => {
    expect(chooseInk('#000000', ['#ffffff'], { least: 0.9, most: 1 }, 4.5).colour).toBe('#000000');
    expect(chooseInk('#111111', ['#ffffff', '#888888'], { least: 0, most: 0.02 }, 4.5).colour).toBe('#ffffff');
  });

  it('counts a colour within the range behind it as unreadable', () => {
    expect(worstContrast('#808080', { least: 0, most: 1 })).toBe(1);
  });
});
