import { describe, expect, it } from 'vitest';
import { tidyText } from './tidy.ts';

describe('tidyText', () => {
  it.each([
    ['From 2 pm, all ages', 'From 2\u00a0pm, all ages'],
    ['3 km from 4 kites', '3\u00a0km from 4 kites'],
    ['9 minutes', '9 minutes'],
    ['Prêt ? Oui !', 'Prêt\u00a0? Oui\u00a0!'],
    ['« Salut »', '«\u00a0Salut\u00a0»'],
    ['@kites · site', '@kites\u00a0· site'],
    ['two  spaces', 'two spaces'],
  ])('%j becomes %j', (given, expected) => {
    expect(tidyText(given)).toBe(expected);
  });
});
