import { describe, expect, it } from 'vitest';
import { nameInTitle } from './name-in-title.ts';

describe('the name of a brand in the title of its page', () => {
  it.each([
    ['Kornblick & Töchter: Brot aus Übersee', [], 'Kornblick & Töchter'],
    ['Home | Salt & Rye', [], 'Salt & Rye'],
    ['Startseite – Bäckerei Ost', [], 'Bäckerei Ost'],
    ['Bread by the harbour – Salt & Rye', ['a loaf', 'SALT & RYE'], 'Salt & Rye'],
    ['Salt-and-Rye', [], 'Salt-and-Rye'],
    ['Rye 12:30', [], 'Rye 12:30'],
    ['Home', [], 'Home'],
    ['', ['Salt'], ''],
  ] as const)('“%s” with pictures %j is “%s”', (title, pictured, name) => {
    expect(nameInTitle(title, pictured)).toBe(name);
  });
});
