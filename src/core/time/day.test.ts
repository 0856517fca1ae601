import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, dayNumber, daysBetween, daysFrom, isDay, mondayOf, weekdayOf } from './day.ts';

describe('days', () => {
  it.each([['2026-11-28', 6], ['2026-11-29', 7], ['2026-11-30', 1], ['1969-12-31', 3], ['2024-02-29', 4]] as const)('%s is weekday %i', (day, weekday) => expect(weekdayOf(day)).toBe(weekday));

  it('go over months and leap days', () => {
    expect([addDays('2024-02-28', 2), addDays('2025-12-31', 1), addDays('2026-03-01', -1), mondayOf('2026-11-29'), daysBetween('2026-01-01', '2027-01-01')]).toEqual(['2024-03-01', '2026-01-01', '2026-02-28', '2026-11-23', 365]);
    expect(daysFrom('2026-02-27', '2026-03-01')).toEqual(['2026-02-27', '2026-02-28', '2026-03-01']);
    expect(daysFrom('2026-03-01', '2026-02-27')).toEqual([]);
  });

  it('may lie in years that are half typed', () => {
    expect([isDay('0020-05-04'), addDays('0020-05-04', 1), weekdayOf('0020-05-04')]).toEqual([true, '0020-05-05', 1]);
    expect(daysBetween('0002-12-31', '0003-01-01')).toBe(1);
  });

  it('are refused where there is none', () => {
    expect(['2025-02-29', '2026-13-01', '2026-1-1', '', 'today'].map(isDay)).toEqual([false, false, false, false, false]);
    expect(() => dayNumber('2025-02-29')).toThrow('no day');
  });

  it('come back from any number of steps', () => {
    fc.assert(fc.property(fc.integer({ min: -20_000, max: 40_000 }), (steps) => void expect(daysBetween('2026-11-28', addDays('2026-11-28', steps))).toBe(steps)));
  });
});
