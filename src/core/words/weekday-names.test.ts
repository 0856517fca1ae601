import { expect, it } from 'vitest';
import { weekdayNames } from './weekday-names.ts';

it('weekdays begin with Monday and a capital, in each language; without one they are English', () => {
  expect(weekdayNames('de')).toEqual(['Montag', 'Dienstag', 'Mittwoch', 'Donnerstag', 'Freitag', 'Samstag', 'Sonntag']);
  expect((['fr', 'es', 'it', 'nl', 'pt', 'pl'] as const).map((language) => weekdayNames(language)[2])).toEqual(['Mercredi', 'Miércoles', 'Mercoledì', 'Woensdag', 'Quarta-feira', 'Środa']);
  expect(weekdayNames(undefined)).toEqual(weekdayNames('en'));
  expect(weekdayNames('en').at(-1)).toBe('Sunday');
});
