import { describe, expect, it } from 'vitest';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { breakLines, linesCost, lineText } from './break-lines.ts';
import type { Language } from '../words/language.ts';
import { breakCost, settingCost, settingWeights, type BreakPlace } from './setting-rules.ts';

const typesetter = testTypesetter();
const costOf = (before: string, after: string, more: Partial<BreakPlace> = {}): number => breakCost({ before, after, opensSentence: false, language: 'en', capitalsMeanNothing: false, ...more });
const line = (width: number, words: number, cost = 0): { width: number; words: number; breakCost: number } => ({ width, words, breakCost: cost });
const linesOf = (text: string, widthEm: number, language: Language): readonly string[] => {
  const shaped = typesetter.shape(text, ['figtree-500'], 0, language);
  return breakLines(shaped, widthEm).map((each) => lineText(shaped.text, each));
};

describe('the cost of a break', () => {
  it('is lowest behind a sentence, low behind a phrase, and low before a small word', () => {
    expect(costOf('free.', 'The')).toBeLessThan(costOf('lanterns,', 'one'));
    expect(costOf('lanterns,', 'one')).toBeLessThan(costOf('kite', 'in'));
    expect(costOf('kite', 'in')).toBeLessThan(costOf('every', 'sail'));
  });

  it('knows the small words of the language alone', () => {
    expect(costOf('die', 'Brote', { language: 'de' })).toBe(settingWeights.smallWord);
    expect(costOf('die', 'laughing', { language: 'en' })).toBe(0);
    expect(costOf('aux', 'fraises', { language: 'fr' })).toBe(settingWeights.smallWord);
    expect(costOf('der', 'Brote', { language: undefined })).toBe(settingWeights.smallWord);
  });

  it('keeps a number with what it counts, and a word with its number', () => {
    for (const [before, after] of [['40', 'kites'], ['£24', 'off'], ['Pier', '9'], ['Nr.', '7'], ['3.', 'Oktober']] as const) expect(costOf(before, after), `${before} ${after}`).toBeGreaterThanOrEqual(settingWeights.partedNumber);
  });

  it('leaves no emoji alone at the start of a line', () => {
    expect(costOf('sandwiches', '🪁🌬️')).toBeGreaterThan(costOf('and', 'sandwiches'));
    expect(linesOf('Kites, wind and sandwiches 🪁', 8, 'en').some((each) => each.startsWith('🪁'))).toBe(false);
  });

  it('keeps names together, where capitals say what a name is', () => {
    expect(costOf('Ottoline', 'Brack')).toBe(settingWeights.partedName);
    expect(costOf('Meet', 'Ottoline', { opensSentence: true })).toBe(0);
    expect(costOf('Frische', 'Brote', { language: 'de', capitalsMeanNothing: true })).toBe(0);
  });
});

describe('the cost of a setting', () => {
  it('prefers two good lines at 80% of the size to four ragged ones', () => {
    const ragged = settingCost([line(5, 1), line(9, 1, settingWeights.phraseEnd), line(7, 2), line(5, 1)], 1);
    const good = settingCost([line(14, 2, settingWeights.phraseEnd), line(13, 3)], 1 / 0.8);
    expect(good).toBeLessThan(ragged);
  });

  it('finds a line much shorter than both neighbours worse than one at the end', () => {
    expect(settingCost([line(10, 2), line(5, 2), line(10, 2)], 1)).toBeGreaterThan(settingCost([line(10, 2), line(10, 2), line(5, 2)], 1));
  });

  it('counts no break that somebody typed', () => {
    const cost = (text: string): number => {
      const shaped = typesetter.shape(text, ['figtree-500'], 0, 'en');
      return linesCost(shaped, breakLines(shaped, 100), 1);
    };
    expect(cost('First the\nwind now')).toBeLessThan(settingWeights.smallWord);
  });
});

describe('lines by the rules', () => {
  it('break by sense in each language', () => {
    expect(linesOf('Süße Grüße aus der Backstube', 9, 'de')).toEqual(['Süße Grüße', 'aus der Backstube']);
    expect(linesOf('The wind is free. The rest is knots.', 9, 'en')).toEqual(['The wind is free.', 'The rest is knots.']);
  });

  it('part a word at a soft hyphen where nothing else will do, and show it there alone', () => {
    const word = 'Sicherheits\u00adleinen\u00adbefestigung';
    expect(linesOf(word, 30, 'de')).toEqual(['Sicherheitsleinenbefestigung']);
    const lines = linesOf(word, 9, 'de');
    expect(lines.length).toBeGreaterThan(1);
    expect(lines.slice(0, -1).every((each) => each.endsWith('-'))).toBe(true);
    expect(lines.join('').replaceAll('-', '')).toBe('Sicherheitsleinenbefestigung');
  });

  it('count the hyphen into the width of its line', () => {
    const shaped = typesetter.shape('Sicherheits\u00adleinen', ['figtree-500'], 0, 'de');
    const plain = typesetter.shape('Sicherheits', ['figtree-500'], 0, 'de');
    const [first] = breakLines(shaped, 6);
    expect(first?.widthEm).toBeGreaterThan((plain.offsetsEm.at(-1) ?? 0) + 0.1);
  });
});
