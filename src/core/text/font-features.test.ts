import { describe, expect, it } from 'vitest';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { featuresFor, type TypeStyle } from './font-features.ts';

const plain: TypeStyle = { figures: 'as-drawn', isColumn: false, isCapitals: false, trackingEm: 0, ligatures: true, language: 'en' };
const tags = (text: string, style: Partial<TypeStyle>): readonly string[] => featuresFor(text, { ...plain, ...style }).map(({ tag, value }) => `${tag}=${value}`);
const fractions = (text: string): readonly string[] => featuresFor(text, plain).flatMap(({ tag, start, end }) => (tag === 'frac' ? [text.slice(start, end)] : []));

describe('what a typeface is asked for', () => {
  it('is nothing for a plain text', () => {
    expect(tags('Kites 2026', {})).toEqual([]);
  });

  it('is the brand’s figures, high ones beside capitals in any case, and even ones in columns', () => {
    expect([tags('12', { figures: 'lining' }), tags('12', { figures: 'old-style' }), tags('12', { figures: 'old-style', isCapitals: true }), tags('12', { isColumn: true })]).toEqual([['lnum=1'], ['onum=1'], ['lnum=1', 'case=1'], ['tnum=1']]);
  });

  it('is no joined letters where they are set apart', () => {
    expect([tags('fi', { trackingEm: 0.05 }), tags('fi', { trackingEm: 0.01 }), tags('fi', { trackingEm: -0.02 })]).toEqual([['liga=0', 'clig=0'], [], []]);
  });

  it('is no joined letters where the brand wants none', () => {
    expect(tags('fi', { ligatures: false })).toEqual(['liga=0', 'clig=0']);
  });

  it('is raised letters in ordinals, in the languages that raise them', () => {
    const ordinals = (text: string, language: TypeStyle['language']): readonly string[] => featuresFor(text, { ...plain, language }).map(({ tag, start, end }) => `${tag} ${text.slice(start, end)}`);
    expect([ordinals('Le 1er mai, la 2e fournée, au XIXe siècle, Ier jour', 'fr'), ordinals('la 2a edición', 'es'), ordinals('1o andar', 'pt')]).toEqual([['sups er', 'sups e', 'sups e', 'sups er'], ['ordn 2a'], ['ordn 1o']]);
    expect([ordinals('Via Roma 12a dal mattino', 'it'), ordinals('Les 12 rues, 3 eaux, Vers le port, Ce soir, Xe2, 5es2', 'fr'), ordinals('the 1st, 2a floor', 'en'), ordinals('Am 1er Tisch', 'de')]).toEqual([[], [], [], []]);
    expect(featuresFor('LE 1ER MAI', { ...plain, isCapitals: true, language: 'fr' }).map(({ tag }) => tag)).toEqual(['case']);
  });

  it('is a proper fraction before what it counts, and nowhere else', () => {
    expect(['Add 1/2 cup of salt', '3/4 l Milch', '1/2l', 'mix 1/3 cup, 2/3 cup'].map(fractions)).toEqual([['1/2'], ['3/4'], ['1/2'], ['1/3', '2/3']]);
    expect(['24/12', '1/2', 'part 1/2.', '1/2/2026', 'Opens 3/4 at noon', 'a1/2 cup', '11/2 m', 'https://x.example/1/2 l'].map(fractions)).toEqual([[], [], [], [], [], [], [], []]);
  });
});

describe('set in type', () => {
  const typesetter = testTypesetter();
  const widths = (text: string, features: readonly { tag: string; value: number }[]): readonly number[] => typesetter.shape(text, ['figtree-500'], 0, undefined, features).runs.flatMap(({ glyphs }) => glyphs.map(({ advanceEm }) => advanceEm));

  it('figures of a column are of one width, whichever they are', () => {
    expect(new Set(widths('1187', [])).size).toBeGreaterThan(1);
    expect(new Set(widths('1187', featuresFor('1187', { ...plain, isColumn: true }))).size).toBe(1);
  });

  it('a fraction takes less room than its three signs, and the rest of the line stays', () => {
    const text = 'Add 1/2 cup';
    const [typed, set] = [widths(text, []), widths(text, featuresFor(text, plain))];
    const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);
    expect(sum(set)).toBeLessThan(sum(typed));
    expect([set.slice(0, 4), set.slice(-4)]).toEqual([typed.slice(0, 4), typed.slice(-4)]);
  });

  it('one text in two styles is shaped twice', () => {
    expect(widths('1187', featuresFor('1187', { ...plain, isColumn: true }))).not.toEqual(widths('1187', []));
  });
});
