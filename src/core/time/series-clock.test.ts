import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from './day.ts';
import { seriesClock } from './series-clock.ts';
import { resolveWallTime, wallTimeOf } from './wall-time.ts';

const iso = (zone: string, day: string, time: string): string => {
  const { atMs, change } = seriesClock(zone)(day, time);
  return `${new Date(atMs).toISOString().slice(0, 16)} ${change}`;
};

describe('a wall time of a series', () => {
  it.each([
    ['Europe/Berlin', '2026-03-29', '02:30', '2026-03-29T01:30 moved'],
    ['Europe/Berlin', '2026-10-25', '02:30', '2026-10-25T00:30 first'],
    ['Europe/Berlin', '2026-07-01', '09:00', '2026-07-01T07:00 none'],
    ['America/New_York', '2026-03-08', '02:30', '2026-03-08T07:30 moved'],
    ['America/New_York', '2026-11-01', '01:30', '2026-11-01T05:30 first'],
    // Half an hour: clocks jump from 02:00 to 02:30, and back from 02:00 to 01:30.
    ['Australia/Lord_Howe', '2026-10-04', '02:15', '2026-10-03T15:45 moved'],
    ['Australia/Lord_Howe', '2026-04-05', '01:45', '2026-04-04T14:45 first'],
    // Clocks go back for the month of fasting.
    ['Africa/Casablanca', '2026-02-15', '02:30', '2026-02-15T01:30 first'],
    ['Africa/Casablanca', '2026-03-22', '02:30', '2026-03-22T02:30 moved'],
    ['Pacific/Auckland', '2026-12-24', '19:00', '2026-12-24T06:00 none'],
  ])('in %s on %s at %s is %s', (zone, day, time, expected) => expect(iso(zone, day, time)).toBe(expected));

  it('keeps its wall time all year, wherever clocks show it', () => {
    fc.assert(
      fc.property(fc.constantFrom('Europe/Berlin', 'America/New_York', 'Australia/Lord_Howe', 'Africa/Casablanca', 'Asia/Kathmandu'), fc.integer({ min: 0, max: 730 }), fc.integer({ min: 0, max: 1_439 }), (zone, days, minutes) => {
        const day = addDays('2026-01-01', days);
        const time = `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
        const { atMs, change } = seriesClock(zone)(day, time);
        const resolved = resolveWallTime(`${day}T${time}`, zone);
        expect(change).toBe(resolved.kind === 'exact' ? 'none' : resolved.kind === 'skipped' ? 'moved' : 'first');
        if (resolved.kind === 'exact') expect(atMs).toBe(resolved.atMs);
        if (resolved.kind === 'repeated') expect(atMs).toBe(resolved.earlierMs);
        if (resolved.kind !== 'skipped') expect(wallTimeOf(atMs, zone)).toBe(`${day}T${time}`);
        else expect(atMs).toBeGreaterThanOrEqual(resolved.resumesAtMs);
      }),
    );
  });

  it('is refused in a zone that there is not, and at a time that there is not', () => {
    expect(() => seriesClock('Europe/Gullwick')).toThrow('no zone');
    expect(() => seriesClock('Europe/London')('2026-01-01', '24:00')).toThrow('no time');
  });
});
