import { IANAZone } from 'luxon';
import { dayNumber } from './day.ts';

/** When a wall time of a series falls, and whether clocks change there. */
export interface SeriesMoment {
  readonly atMs: number;
  /** `moved`: clocks jump over it, so it comes later by the jump. `first`: clocks show it twice; this is the first time. */
  readonly change: 'none' | 'moved' | 'first';
}

export type SeriesClock = (day: string, time: string) => SeriesMoment;

/** A day as if it were of UTC, with its offset in minutes; null where that changes within or near it. */
interface DayOfClock {
  readonly startMs: number;
  readonly offset: number | null;
}

const MINUTE_MS = 60_000;
const DAY_MS = 86_400_000;
const HALF_DAY_MS = DAY_MS / 2;

/**
 * Wall times of a series in one zone: they keep their wall time through the year. Where clocks jump over one it moves forward by the
 * jump; where they show one twice it is the first. Days without a change of clocks cost one look at the zone each.
 * @throws RangeError for an unknown zone
 */
export function seriesClock(zone: string): SeriesClock {
  if (!IANAZone.isValidZone(zone)) throw new RangeError(`'${zone}' is no zone: expected one like Europe/London`);
  const rules = IANAZone.create(zone);
  const days = new Map<string, DayOfClock>();
  const dayOfClock = (day: string): DayOfClock => {
    const known = days.get(day);
    if (known !== undefined) return known;
    const startMs = dayNumber(day) * DAY_MS;
    const [before, after] = [rules.offset(startMs - HALF_DAY_MS), rules.offset(startMs + DAY_MS + HALF_DAY_MS)];
    const made = { startMs, offset: before === after ? before : null };
    days.set(day, made);
    return made;
  };
  return (day, time) => {
    const { startMs, offset } = dayOfClock(day);
    const local = startMs + minutesOf(time) * MINUTE_MS;
    if (offset !== null) return { atMs: local - offset * MINUTE_MS, change: 'none' };
    const offsets = [...new Set([rules.offset(local - DAY_MS), rules.offset(local + DAY_MS)])];
    const readings = offsets.map((each) => local - each * MINUTE_MS).filter((atMs) => atMs + rules.offset(atMs) * MINUTE_MS === local).toSorted((a, b) => a - b);
    const [first, second] = readings;
    if (first === undefined) return { atMs: local - rules.offset(local - DAY_MS) * MINUTE_MS, change: 'moved' };
    return { atMs: first, change: second === undefined ? 'none' : 'first' };
  };
}

export const TIME_PATTERN = /^(?:[01]\d|2[0-3]):[0-5]\d$/;

/** Minutes since midnight of `HH:MM`. @throws RangeError when it is no time */
export function minutesOf(time: string): number {
  if (!TIME_PATTERN.test(time)) throw new RangeError(`'${time}' is no time: expected one like 09:30`);
  return Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));
}
