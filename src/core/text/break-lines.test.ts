import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { breakLines, countLines, widestChunkEm } from './break-lines.ts';
import type { ShapedText } from './typesetter.ts';

const typesetter = testTypesetter();
const shape = (text: string): ShapedText => typesetter.shape(text, ['figtree-500', 'unbounded-500'], 0);
const textsOf = (text: string, widthEm: number): string[] => {
  const shaped = shape(text);
  return breakLines(shaped, widthEm).map((line) => shaped.text.slice(line.start, line.end));
};

describe('breakLines', () => {
  it('balances the lines instead of filling the first', () => {
    expect(textsOf('Build your own kite in an afternoon', 12)).toEqual(['Build your own kite', 'in an afternoon']);
  });

  it('keeps all that is written, also while it ends in a hyphen or a dash', () => {
    for (const text of ['Windward-', 'The wind-', 'Wind–', 'Open Sat–', 'Sat–Sun, 8–', '- ', 'well-known, half-']) expect(textsOf(text, 30).join(' '), text).toBe(text.trimEnd());
    const pieces = fc.array(fc.constantFrom('kite', 'a', '-', '–', '—', ' ', '8', '.', '/', '\u2010'), { minLength: 1, maxLength: 14 });
    fc.assert(
      fc.property(pieces, fc.double({ min: 1, max: 20, noNaN: true }), (parts, widthEm) => {
        const text = parts.join('').trim();
        expect(textsOf(text, widthEm).join('').replaceAll(' ', '')).toBe(text.replaceAll(' ', ''));
      }),
    );
  });

  it('leaves no word alone on the last line where another break avoids it', () => {
    const lines = textsOf('Forty box kites sewn in the loft this month', 15);
    expect(lines.length).toBeGreaterThan(1);
    expect(lines.at(-1)?.split(' ').length).toBeGreaterThan(1);
  });

  it('leaves no article hanging where another break costs little', () => {
    expect(textsOf('Meet us at the quay for a kite and a cup of tea', 12).every((line) => !/\b(a|the|at|for)$/.test(line))).toBe(true);
  });

  it('keeps what a no-break space joins', () => {
    expect(textsOf('Doors open at 2\u00a0pm today', 6).some((line) => line.includes('2\u00a0pm'))).toBe(true);
  });

  it('breaks a hyphenated word only where nothing else will do', () => {
    expect(textsOf('Build-a-kite afternoon', 9)).toEqual(['Build-a-kite', 'afternoon']);
  });

  it('keeps short parts of a hyphenated word, days and numbers together', () => {
    for (const text of ['Open Di-Sa', 'Open Sat–Sun', 'Wind 8–14', 'An e-bike', 'Wind km/h', 'Kites and/or']) {
      for (let width = 2; width < 8; width += 0.5) expect(textsOf(text, width).some((line) => /[-–/]$/u.test(line)), `${text} in ${width}`).toBe(false);
    }
    expect(textsOf('Dreizimmer-Wohnungen', 8)).toEqual(['Dreizimmer-', 'Wohnungen']);
  });

  it('gives no small word a line to itself', () => {
    expect(textsOf('A week in the loft', 4.2)).not.toContain('in');
  });

  it('breaks where the text says so', () => {
    expect(textsOf('One\nTwo three', 40)).toEqual(['One', 'Two three']);
  });

  it('makes as few lines as filling would, none wider than asked but for a single word, and loses no letter', () => {
    const words = fc.array(fc.stringMatching(/^[A-Za-zäöü]{1,12}$/), { minLength: 1, maxLength: 30 });
    fc.assert(
      fc.property(words, fc.double({ min: 3, max: 25, noNaN: true }), (list, widthEm) => {
        const shaped = shape(list.join(' '));
        const lines = breakLines(shaped, widthEm);
        expect(lines.length).toBe(countLines(shaped, widthEm));
        const widest = Math.max(widthEm, widestChunkEm(shaped));
        for (const line of lines) expect(line.widthEm).toBeLessThanOrEqual(widest + 1e-6);
        expect(lines.map((line) => shaped.text.slice(line.start, line.end)).join(' ')).toBe(list.join(' '));
      }),
    );
  });
});
