import { describe, expect, it } from 'vitest';
import { hasLongWord, hyphenateText, loadHyphenation, SOFT_HYPHEN } from './hyphenation.ts';
import { languages } from '../words/language.ts';

const seen = (text: string): string => text.replaceAll(SOFT_HYPHEN, '|');

describe('hyphenation', () => {
  it('parts long words by their language, and leaves no stumps', async () => {
    const hyphenate = await loadHyphenation('de');
    expect(seen(hyphenateText('Sicherheitsleinenbefestigung', hyphenate))).toBe('Sicher|heits|lei|nen|be|fes|ti|gung');
    for (const part of seen(hyphenateText('Windgeschwindigkeitsmessgerät am Donaudampfschiff', hyphenate)).split(/[| ]/).filter((each) => each !== 'am')) expect(part.length).toBeGreaterThanOrEqual(2);
    expect(seen(hyphenateText('Samstagnachmittag', hyphenate))).not.toMatch(/^.{1,3}\||\|.{1,3}$/);
  });

  it('leaves short words, addresses and handles whole', async () => {
    const hyphenate = await loadHyphenation('en');
    for (const text of ['A short line', 'gullwickkites.example/afternoons', '@gullwickkitesandmore']) expect(hyphenateText(text, hyphenate)).toBe(text);
  });

  it('is there for every language', async () => {
    const words = { en: 'representation', de: 'Geschwindigkeit', fr: 'extraordinaire', es: 'extraordinario', it: 'straordinario', nl: 'buitengewoonheid', pt: 'extraordinário', pl: 'nadzwyczajności' };
    for (const language of languages) expect(seen(hyphenateText(words[language], await loadHyphenation(language))), language).toContain('|');
  });

  it('is asked for only where a word is long', () => {
    expect(hasLongWord('Build your own kite')).toBe(false);
    expect(hasLongWord('Am Samstagnachmittag')).toBe(true);
  });
});
