import { describe, expect, it } from 'vitest';
import { spansIn } from './days.ts';

const span = (from: string, until: string, yearly?: boolean) => ({ id: 'd', name: 'Brotfest', from, until, ...(yearly === undefined ? {} : { yearly }) });
const found = (spans: Parameters<typeof spansIn>[0], first: string, last: string): readonly string[] => spansIn(spans, first, last).map(({ from, until }) => `${from} ${until}`);

describe('named days', () => {
  it('come once, or each year from the first on', () => {
    expect(found([span('2026-12-12', '2026-12-13')], '2027-12-01', '2027-12-31')).toEqual([]);
    expect(found([span('2026-12-12', '2026-12-13', true)], '2027-12-01', '2028-12-31')).toEqual(['2027-12-12 2027-12-13', '2028-12-12 2028-12-13']);
    expect(found([span('2026-12-12', '2026-12-13', true)], '2025-12-01', '2025-12-31')).toEqual([]);
  });

  it('reach over the new year', () => {
    expect(found([span('2025-12-30', '2026-01-02', true)], '2027-01-01', '2027-01-01')).toEqual(['2026-12-30 2027-01-02']);
  });

  it('on a leap day come on 28 February in other years', () => {
    expect(found([span('2024-02-29', '2024-02-29', true)], '2026-02-01', '2026-03-01')).toEqual(['2026-02-28 2026-02-28']);
  });
});
