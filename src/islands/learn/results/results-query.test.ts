import { describe, expect, it } from 'vitest';
import { filtersOf, periodOf, readResultsQuery } from './results-query.ts';

describe('periodOf', () => {
  it('is four weeks until today, a span, or chosen days in their order', () => {
    expect(periodOf({}, '2026-03-31')).toEqual({ from: '2026-03-04', until: '2026-03-31' });
    expect(periodOf({ span: '7' }, '2026-03-03')).toEqual({ from: '2026-02-25', until: '2026-03-03' });
    expect(periodOf({ span: 'own', from: '2026-01-01', until: '2026-01-02' }, '2026-03-03')).toEqual({ from: '2026-01-01', until: '2026-01-02' });
    expect(periodOf({ span: 'own', from: '2026-02-01', until: '2026-01-02' }, '2026-03-31').from).toBe('2026-03-04');
  });
});

describe('readResultsQuery', () => {
  it('takes what the server knows, and leaves out days that there are not', () => {
    const query = readResultsQuery('?span=own&from=2026-02-30&until=2026-02-02&theme=skies&outside=yes&junk=1');
    expect(query).toEqual({ span: 'own', until: '2026-02-02', theme: 'skies', outside: 'yes' });
    expect(filtersOf(query, '2026-03-31')).toEqual({ from: '2026-03-04', until: '2026-03-31', theme: 'skies', outside: 'yes' });
  });
});
