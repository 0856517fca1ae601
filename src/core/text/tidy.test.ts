import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tidyText } from './tidy.ts';

describe('tidyText', () => {
  it.each([
    ['From 2 pm, all ages', 'From 2\u00a0pm, all ages'],
    ['3 km from 4 kites', '3\u00a0km from 4 kites'],
    ['9 minutes', '9 minutes'],
    ['Wind 14 km/h, 8 °C, 20 % off', 'Wind 14\u00a0km/h, 8\u00a0°C, 20\u00a0% off'],
    ['2 a day', '2 a day'],
    ['à 18 h 30', 'à 18\u00a0h\u00a030'],
    ['Kutter № 7 (S. 12)', 'Kutter №\u00a07 (S.\u00a012)'],
    ['on 28 November 2026', 'on 28\u00a0November 2026'],
    ['am 3. Oktober', 'am 3.\u00a0Oktober'],
    ['Sat 12 Sept', 'Sat 12\u00a0Sept'],
    ['le 4 févr. à midi', 'le 4\u00a0févr. à midi'],
    ['Take 3 out of 5', 'Take 3 out of 5'],
    ['le 1er mai, 30 maisons', 'le 1er\u00a0mai, 30 maisons'],
    ['Prêt ? Oui !', 'Prêt\u00a0? Oui\u00a0!'],
    ['« Salut »', '«\u00a0Salut\u00a0»'],
    ['@kites · site', '@kites\u00a0· site'],
    ['two  spaces', 'two spaces'],
    ['a\ttab', 'a tab'],
  ])('%j becomes %j', (given, expected) => {
    expect(tidyText(given)).toBe(expected);
  });

  const written = fc.array(fc.constantFrom('28', 'November', 'sept.', 'km/h', '9', 'Uhr', '«', '»', 'Oui', '!', '·', '№', 'no.', '18', 'h', '30', 'kites', '\t', '  ', '1er', 'mai'), { maxLength: 10 }).map((parts) => parts.join(' '));

  it('changes nothing but spaces, and nothing more a second time', () => {
    fc.assert(
      fc.property(written, (text) => {
        const once = tidyText(text);
        expect(once.replace(/\s/gu, '')).toBe(text.replace(/\s/gu, ''));
        expect(tidyText(once)).toBe(once);
      }),
    );
  });

  it('neither parts words nor joins them', () => {
    fc.assert(
      fc.property(written, (text) => {
        const words = (of: string): readonly string[] => of.split(/\s+/u).filter((word) => word !== '');
        expect(words(tidyText(text))).toEqual(words(text));
      }),
    );
  });
});
