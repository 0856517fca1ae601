import { expect, it } from 'vitest';
import { monthRange } from './month-range.ts';
import { wallTimeOf } from './wall-time.ts';

const HOUR_MS = 3_600_000;

it.each([
  ['2026-11', 'Europe/London', 30 * 24],
  // The clock is put forward in March and back in October.
  ['2026-03', 'Europe/London', 31 * 24 - 1],
  ['2026-10', 'Europe/London', 31 * 24 + 1],
  ['2026-02', 'Asia/Kolkata', 28 * 24],
  ['2028-02', 'Pacific/Auckland', 29 * 24],
  ['2026-12', 'America/St_Johns', 31 * 24],
])('%s in %s has %i hours, from midnight to midnight', (month, zone, hours) => {
  const { fromMs, toMs } = monthRange(month, zone);
  expect((toMs - fromMs) / HOUR_MS).toBe(hours);
  expect(wallTimeOf(fromMs, zone)).toBe(`${month}-01T00:00`);
  expect(wallTimeOf(toMs, zone).slice(7)).toBe('-01T00:00');
  expect(wallTimeOf(toMs - 1, zone).slice(0, 7)).toBe(month);
});

it.each([['2026-13', 'Europe/London'], ['next', 'Europe/London'], ['2026-11', 'Middle/Nowhere']])('%s in %s is none', (month, zone) => {
  expect(() => monthRange(month, zone)).toThrow(RangeError);
});
