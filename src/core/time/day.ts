/** A day of the calendar, `YYYY-MM-DD`; it has no zone of its own. */
export const DAY_PATTERN = /^\d{4}-\d{2}-\d{2}$/;
const DAY_MS = 86_400_000;

/** Days since 1970-01-01. @throws RangeError when there is no such day */
export function dayNumber(day: string): number {
  // Parsed, as a date made of numbers takes the years 0 to 99 for those of the last century.
  const number = Date.parse(`${day}T00:00Z`) / DAY_MS;
  if (!DAY_PATTERN.test(day) || dayFromNumber(number) !== day) throw new RangeError(`'${day}' is no day: expected one like 2026-11-28`);
  return number;
}

/** The day so many days after 1970-01-01. */
export function dayFromNumber(number: number): string {
  return Number.isFinite(number) ? new Date(number * DAY_MS).toISOString().slice(0, 10) : '';
}

/** Whether a text names a day that there is. */
export function isDay(text: string): boolean {
  return DAY_PATTERN.test(text) && dayFromNumber(Date.parse(`${text}T00:00Z`) / DAY_MS) === text;
}

export function addDays(day: string, days: number): string {
  return dayFromNumber(dayNumber(day) + days);
}

/** Days from one day to another; negative when the other is earlier. */
export function daysBetween(from: string, to: string): number {
  return dayNumber(to) - dayNumber(from);
}

/** 1 for Monday to 7 for Sunday, as in ISO 8601. */
export function weekdayOf(day: string): number {
  return ((dayNumber(day) + 3) % 7 + 7) % 7 + 1;
}

/** The Monday of a day's week. */
export function mondayOf(day: string): string {
  return addDays(day, 1 - weekdayOf(day));
}

/** The days from one to another, both included. */
export function daysFrom(first: string, last: string): readonly string[] {
  const from = dayNumber(first);
  return Array.from({ length: Math.max(0, dayNumber(last) - from + 1) }, (_, index) => dayFromNumber(from + index));
}
