import type Holidays from 'date-holidays';
import { daysFrom } from '../../core/time/day.ts';

/** A day that matters, by its name. */
export interface DayName {
  readonly day: string;
  readonly name: string;
  /** Whose day it is: a country's public holiday, or one of the brand's own. */
  readonly of: string;
}

const calendars = new Map<string, Holidays>();

/** The rules of all countries are large, and many plans name none. */
const library = async (): Promise<typeof Holidays> => (await import('date-holidays')).default;

async function calendarOf(code: string): Promise<Holidays> {
  const known = calendars.get(code);
  if (known) return known;
  const [country = '', part] = code.split('-');
  const Calendar = await library();
  const made = part === undefined ? new Calendar(country) : new Calendar(country, part);
  calendars.set(code, made);
  return made;
}

/** Public holidays of countries in some days, each name once a day. A country that is not known has none. */
export function publicDays(countries: readonly string[], firstDay: string, lastDay: string): Promise<readonly DayName[]> {
  return daysOfType(countries, firstDay, lastDay, (type) => type === 'public');
}

/** Days that people keep and that are no public holidays: days of mothers, of the trees, of a saint. */
export function daysWorthKnowing(countries: readonly string[], firstDay: string, lastDay: string): Promise<readonly DayName[]> {
  return daysOfType(countries, firstDay, lastDay, (type) => type === 'observance' || type === 'optional' || type === 'bank');
}

async function daysOfType(countries: readonly string[], firstDay: string, lastDay: string, isWanted: (type: string) => boolean): Promise<readonly DayName[]> {
  const years = [...new Set(daysFrom(`${firstDay.slice(0, 4)}-01-01`, `${lastDay.slice(0, 4)}-01-01`).map((day) => Number(day.slice(0, 4))))];
  const calendarsOf = await Promise.all(countries.map(async (code) => ({ code, calendar: await calendarOf(code) })));
  const found = calendarsOf.flatMap(({ code, calendar }) =>
    years.flatMap((year) =>
      calendar
        .getHolidays(year, 'en')
        .filter(({ type, date }) => isWanted(type) && date.slice(0, 10) >= firstDay && date.slice(0, 10) <= lastDay)
        .map(({ date, name }): DayName => ({ day: date.slice(0, 10), name, of: code })),
    ),
  );
  return [...new Map(found.map((each) => [`${each.day} ${each.name}`, each])).values()].toSorted((a, b) => (a.day < b.day ? -1 : 1));
}

/** Countries whose holidays are known, by their codes. */
export async function holidayCountries(): Promise<readonly { readonly code: string; readonly name: string }[]> {
  const countries = new (await library())().getCountries('en');
  return Object.entries(countries).map(([code, name]) => ({ code, name })).toSorted((a, b) => a.name.localeCompare(b.name));
}
