import { describe, expect, it } from 'vitest';
import { shelfFamilies } from './font-shelf.ts';
import { matchFamily } from './match-family.ts';

describe('a family of a brand’s page', () => {
  it('is the one of the shelf where that has it, variable or not', () => {
    for (const { family } of shelfFamilies) {
      expect(matchFamily(family, false)).toMatchObject({ exact: true, font: { family } });
      expect(matchFamily(`${family.toUpperCase()} Variable`, true)).toMatchObject({ exact: true, font: { family } });
    }
  });

  it.each([
    ['Somebody Mono', 'JetBrains Mono'],
    ['Bodoni Elsewhere', 'Playfair Display'],
    ['Big Brush', 'Caveat'],
    ['Gothic Condensed', 'Oswald'],
    ['Some Serif', 'Lora'],
    ['Some Sans Serif', 'Figtree'],
    ['Rounded Thing', 'Fredoka'],
    ['Grotesk Extended', 'Unbounded'],
    ['Nothing Known', 'Figtree'],
  ])('that the shelf has not, %s, is stood in for by %s', (family, standIn) => {
    expect(matchFamily(family, false)).toMatchObject({ exact: false, font: { family: standIn } });
  });

  it('is bold for headlines and light for text, never italic', () => {
    for (const { family, fonts } of shelfFamilies) {
      const weights = fonts.filter(({ italic }) => !italic).map(({ weight }) => weight);
      expect(matchFamily(family, true).font).toMatchObject({ weight: Math.max(...weights), italic: false });
      expect(matchFamily(family, false).font).toMatchObject({ weight: Math.min(...weights), italic: false });
    }
  });
});
