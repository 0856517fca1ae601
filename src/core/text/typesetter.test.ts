import { describe, expect, it } from 'vitest';
import { readFileSync } from 'node:fs';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { variableTypeface } from '../../../tests/fixtures/variable-typeface.ts';
import { breakLines } from './break-lines.ts';
import { Typesetter } from './typesetter.ts';
import { placeLine } from './visual-line.ts';

const typesetter = testTypesetter();

describe('Typesetter', () => {
  it('applies kerning', () => {
    const width = (text: string): number => typesetter.shape(text, ['figtree-500'], 0).offsetsEm.at(-1) ?? 0;
    expect(width('AV')).toBeLessThan(width('A') + width('V'));
  });

  it('adds tracking behind every glyph', () => {
    const plain = typesetter.shape('kite', ['figtree-500'], 0).offsetsEm.at(-1) ?? 0;
    expect(typesetter.shape('kite', ['figtree-500'], 0.1).offsetsEm.at(-1)).toBeCloseTo(plain + 0.4, 6);
  });

  it('names what no typeface can write, and only that', () => {
    expect(typesetter.shape('Kite 凧', ['figtree-500'], 0).missing).toEqual(['凧']);
    expect(typesetter.shape('Größe, œuvre, Łódź', ['figtree-500'], 0).missing).toEqual([]);
  });

  it('draws a variable typeface for the size it is read at: closer in large type, more open in small', async () => {
    const variable = new Typesetter();
    variable.add('own', await variableTypeface());
    const [small, large] = [9, 36].map((size) => variable.drawnFor('own', size));
    expect([small, large]).toEqual(['own@12', 'own@36']);
    const widthIn = (key: string): number => variable.shape('Hamburgefonts', [key], 0).offsetsEm.at(-1) ?? 0;
    expect(widthIn(large ?? '')).toBeLessThan(widthIn(small ?? '') * 0.98);
    expect(variable.shape('H', [large ?? ''], 0).runs[0]?.fontKey).toBe('own@36');
    // Its letters are others, and another file under its name takes their place.
    const outlineIn = (key: string): string => variable.outline(key, variable.shape('H', [key], 0).runs[0]?.glyphs[0]?.id ?? 0);
    expect(outlineIn(large ?? '')).not.toBe(outlineIn(small ?? ''));
    variable.add('own', readFileSync('fonts/lora/lora-700.ttf'));
    expect(variable.drawnFor('own', 36)).toBe('own');
    expect(variable.has('own@36')).toBe(false);
  });

  it('leaves a typeface that is drawn once as it is, and one that is not there', () => {
    expect(['figtree-500', 'nowhere'].map((key) => typesetter.drawnFor(key, 36))).toEqual(['figtree-500', 'nowhere']);
  });

  it('names letters that half a typeface names and does not draw', () => {
    const half = new Typesetter();
    const whole = readFileSync('fonts/lora/lora-700.ttf');
    // The first bytes of a download, with nothing behind them.
    half.add('half', Buffer.concat([whole.subarray(0, 20_074), Buffer.alloc(whole.length - 20_074)]));
    const { missing } = half.shape('Build your own kite', ['half'], 0);
    expect(missing.length).toBeGreaterThan(8);
    expect(typesetter.shape('Build\u00a0your own kite – ½', ['lora-700'], 0).missing).toEqual([]);
  });

  it('asks the next typeface for what the first cannot write', () => {
    const { runs } = typesetter.shape('a\u0434b', ['gloock-400', 'unbounded-500'], 0);
    expect(runs.map((run) => run.fontKey)).toEqual(['gloock-400', 'unbounded-500', 'gloock-400']);
  });

  it('sets right-to-left stretches from right to left within a line', () => {
    const shaped = typesetter.shape('abc \u05d0\u05d1 def', ['figtree-500'], 0);
    const [line] = breakLines(shaped, 100);
    expect(shaped.runs.map((run) => run.level)).toEqual([0, 1, 0]);
    expect(line).toBeDefined();
    if (!line) return;
    const xs = placeLine(shaped, line).map((glyph) => glyph.xEm);
    expect(xs).toEqual([...xs].sort((a, b) => a - b));
  });

  it('refuses a typeface that was not loaded', () => {
    expect(() => typesetter.shape('a', ['nowhere-900'], 0)).toThrow(RangeError);
  });
});
