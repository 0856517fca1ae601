import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatMoment, resolveWallTime, shortDay, wallTimeOf } from './wall-time.ts';

const utc = (iso: string): number => Date.parse(iso);

describe('resolveWallTime', () => {
  it('gives the exact moment of an ordinary time', () => {
    expect(resolveWallTime('2026-11-25T09:30', 'Pacific/Auckland')).toEqual({ kind: 'exact', atMs: utc('2026-11-24T20:30:00Z') });
    expect(resolveWallTime('2028-02-29T12:00', 'Europe/London')).toEqual({ kind: 'exact', atMs: utc('2028-02-29T12:00:00Z') });
  });

  it.each([
    ['2026-10-25T01:30', 'Europe/London', '2026-10-25T00:30:00Z', '2026-10-25T01:30:00Z'],
    ['2025-10-26T02:30', 'Europe/Berlin', '2025-10-26T00:30:00Z', '2025-10-26T01:30:00Z'],
    // Lord Howe moves by half an hour.
    ['2026-04-05T01:45', 'Australia/Lord_Howe', '2026-04-04T14:45:00Z', '2026-04-04T15:15:00Z'],
  ])('shows both moments of %s in %s, which comes twice', (wall, zone, earlier, later) => {
    expect(resolveWallTime(wall, zone)).toEqual({ kind: 'repeated', earlierMs: utc(earlier), laterMs: utc(later) });
  });

  it.each([
    ['2026-03-29T01:30', 'Europe/London', '2026-03-29T01:00:00Z'],
    ['2026-03-29T02:00', 'Europe/Berlin', '2026-03-29T01:00:00Z'],
    ['2026-10-04T02:15', 'Australia/Lord_Howe', '2026-10-03T15:30:00Z'],
  ])('says that %s in %s does not exist and when the clock resumes', (wall, zone, resumes) => {
    expect(resolveWallTime(wall, zone)).toEqual({ kind: 'skipped', resumesAtMs: utc(resumes) });
  });

  it.each([
    ['2026-02-30T09:00', 'Europe/London'],
    ['2026-11-25', 'Europe/London'],
    ['2026-11-25T09:30', 'Atlantis/Quay'],
  ])('refuses %j in %j', (wall, zone) => {
    expect(() => resolveWallTime(wall, zone)).toThrow(RangeError);
  });

  it('is undone by wallTimeOf for every moment, whichever reading a repeated time has', () => {
    fc.assert(
      fc.property(fc.integer({ min: utc('2026-01-01T00:00:00Z') / 60_000, max: utc('2027-01-01T00:00:00Z') / 60_000 }), fc.constantFrom('Europe/Berlin', 'Pacific/Auckland', 'Australia/Lord_Howe', 'UTC'), (minute, zone) => {
        const atMs = minute * 60_000;
        const resolved = resolveWallTime(wallTimeOf(atMs, zone), zone);
        expect(resolved.kind === 'exact' ? [resolved.atMs] : resolved.kind === 'repeated' ? [resolved.earlierMs, resolved.laterMs] : []).toContain(atMs);
      }),
    );
  });
});

describe('formatMoment', () => {
  it('always names the zone', () => {
    expect(formatMoment(utc('2026-11-25T09:30:00Z'), 'Europe/London')).toBe('Wed 25 Nov 2026, 09:30 London');
  });
});

describe('shortDay', () => {
  it.each([
    ['2026-11-25T00:05:00Z', 'today 00:05'],
    ['2026-11-24T23:59:00Z', 'yesterday 23:59'],
    ['2026-11-01T09:30:00Z', '1 Nov'],
    ['2025-11-01T09:30:00Z', '1 Nov 2025'],
  ])('writes %s as %s', (at, expected) => {
    expect(shortDay(utc(at), utc('2026-11-25T09:30:00Z'), 'Europe/London')).toBe(expected);
  });

  it('goes by the days of the zone', () => {
    expect(shortDay(utc('2026-11-24T23:59:00Z'), utc('2026-11-25T09:30:00Z'), 'Europe/Berlin')).toBe('today 00:59');
  });
});
