import { describe, expect, it } from 'vitest';
import { filtersOf, isFilteredPlan, monthBefore, monthGrid, nextMonth, readPlanQuery } from './plan-query.ts';

describe('the query of a plan’s address', () => {
  it('takes what can be, and leaves out the rest', () => {
    expect(readPlanQuery('?from=2026-12-01&days=28&theme=loft&evil=1')).toMatchObject({ from: '2026-12-01', days: 28, theme: 'loft' });
    for (const search of ['?from=2026-02-30&days=2', '?from=today&days=85', '?days=x']) expect(readPlanQuery(search)).toMatchObject({ from: undefined, days: undefined });
  });

  it('knows its filters from where it stands in time', () => {
    expect([isFilteredPlan({ from: '2026-12-01', days: 7 }), isFilteredPlan({ label: 'shop' })]).toEqual([false, true]);
    expect(filtersOf({ from: '2026-12-01', theme: 'loft', state: '' })).toEqual({ theme: 'loft' });
  });
});

describe('a month', () => {
  it.each([['2026-02-10', '2026-01-26', 35], ['2027-02-10', '2027-02-01', 28], ['2026-11-30', '2026-10-26', 42], ['2026-12-05', '2026-11-30', 35]])('around %s begins on %s and has %i days', (day, from, days) => expect(monthGrid(day)).toMatchObject({ from, days }));

  it('has a month before and after it, over the year', () => expect([nextMonth('2026-12-31'), monthBefore('2027-01-15')]).toEqual(['2027-01-01', '2026-12-01']));
});
