import { DateTime } from 'luxon';

/** What a clock on a wall shows, `YYYY-MM-DDTHH:MM`; it means a moment only together with a zone. */
export const WALL_TIME_PATTERN = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/;

/** What a wall time means in a zone. Around clock changes it may come twice or not at all. */
export type WallTimeResolution =
  | { readonly kind: 'exact'; readonly atMs: number }
  | { readonly kind: 'repeated'; readonly earlierMs: number; readonly laterMs: number }
  | { readonly kind: 'skipped'; readonly resumesAtMs: number };

/**
 * The moment of a wall time in an IANA zone.
 * @throws RangeError when the wall time is no real date and time, or the zone is unknown
 */
export function resolveWallTime(wall: string, zone: string): WallTimeResolution {
  const local = DateTime.fromISO(wall, { zone });
  if (!WALL_TIME_PATTERN.test(wall) || !local.isValid) {
    throw new RangeError(`'${wall}' in zone '${zone}': expected a date and time like 2026-11-25T09:30 and an IANA zone`);
  }
  // Luxon moves a skipped time forward and settles a repeated one by today's date; ask for both readings instead.
  if (wallTimeOf(local.toMillis(), zone) !== wall) {
    return { kind: 'skipped', resumesAtMs: firstMomentAfterGap(local.toMillis(), zone) };
  }
  const readings = local.getPossibleOffsets().map((each) => each.toMillis()).sort((a, b) => a - b);
  const [earlierMs, laterMs] = readings;
  return earlierMs !== undefined && laterMs !== undefined && earlierMs !== laterMs
    ? { kind: 'repeated', earlierMs, laterMs }
    : { kind: 'exact', atMs: earlierMs ?? local.toMillis() };
}

/** The first moment behind the clock change that swallowed a wall time, found by bisecting the change of offset. */
function firstMomentAfterGap(nearMs: number, zone: string): number {
  const offsetAt = (ms: number): number => DateTime.fromMillis(ms, { zone }).offset;
  let [before, after] = [nearMs - 6 * 3_600_000, nearMs + 6 * 3_600_000];
  while (after - before > 1) {
    const middle = Math.floor((before + after) / 2);
    if (offsetAt(middle) === offsetAt(before)) before = middle;
    else after = middle;
  }
  return after;
}

/** A wall time so many minutes later on the clock, whatever the zone does meanwhile. */
export function addMinutes(wall: string, minutes: number): string {
  return new Date(Date.parse(`${wall}:00Z`) + minutes * 60_000).toISOString().slice(0, 16);
}

/** What the clock shows in a zone at a moment. */
export function wallTimeOf(ms: number, zone: string): string {
  return DateTime.fromMillis(ms, { zone }).toFormat("yyyy-MM-dd'T'HH:mm");
}

/** The place part of a zone, as people say it: `Europe/London` is London. */
export function zonePlace(zone: string): string {
  return (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ');
}

/** A moment as the interface writes it everywhere, always with the zone: `Wed 25 Nov 2026, 09:30 London`. */
export function formatMoment(ms: number, zone: string): string {
  return `${DateTime.fromMillis(ms, { zone, locale: 'en-GB' }).toFormat('ccc d LLL yyyy, HH:mm')} ${zonePlace(zone)}`;
}

/** A short clock reading: `Wed 09:30`. */
export function formatClock(ms: number, zone: string): string {
  return DateTime.fromMillis(ms, { zone, locale: 'en-GB' }).toFormat('ccc HH:mm');
}

/** A day as lists write it: with the time today and yesterday, with the year when it is another one. */
export function shortDay(ms: number, nowMs: number, zone: string): string {
  const at = DateTime.fromMillis(ms, { zone, locale: 'en-GB' });
  const now = DateTime.fromMillis(nowMs, { zone });
  const days = now.startOf('day').diff(at.startOf('day'), 'days').days;
  if (days === 0) return `today ${at.toFormat('HH:mm')}`;
  if (days === 1) return `yesterday ${at.toFormat('HH:mm')}`;
  return at.toFormat(at.year === now.year ? 'd LLL' : 'd LLL yyyy');
}
