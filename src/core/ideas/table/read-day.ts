import { Info } from 'luxon';
import { addDays, isDay } from '../../time/day.ts';

/** Which of two numbers comes first where a date has both below 13. */
export type DayOrder = 'day-first' | 'month-first';

export type DayReading =
  | { readonly kind: 'day'; readonly day: string }
  /** `3/12/26` is one of two days. */
  | { readonly kind: 'ambiguous'; readonly dayFirst: string; readonly monthFirst: string }
  /** It looks like a date, and there is no such day: `31.02.2026`. */
  | { readonly kind: 'no-such-day' }
  | { readonly kind: 'none' };

const LOCALES = ['en', 'de', 'fr', 'es', 'pt', 'it', 'nl', 'pl'] as const;

/** Months by their names and short forms in the languages that are known. */
const months: ReadonlyMap<string, number> = new Map(
  LOCALES.flatMap((locale) => (['long', 'short'] as const).flatMap((length) => Info.months(length, { locale }).map((name, index): [string, number] => [name.toLowerCase().replace(/\.$/u, ''), index + 1]))),
);

const pad = (value: number): string => String(value).padStart(2, '0');
const fullYear = (year: number): number => (year < 100 ? 2_000 + year : year);

/**
 * Reads a date as people write it in tables. A date without a year is the next one from today on. The order of day and month is asked for where it is open.
 * @param order what is known of the table's order; null: nothing
 */
export function readDay(given: string, today: string, order: DayOrder | null): DayReading {
  const text = given.trim().toLowerCase().replace(/^[\p{L}]{2,12}\.?,\s*/u, '');
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[t ].*)?$/u.exec(text);
  if (iso) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const numeric = /^(\d{1,2})([./-])\s?(\d{1,2})(?:\2\s?(\d{4}|\d{2})?)?$/u.exec(text);
  if (numeric) {
    const [first, second] = [Number(numeric[1]), Number(numeric[3])];
    const year = numeric[4] === undefined ? null : fullYear(Number(numeric[4]));
    // With full stops the day comes first, wherever people write so.
    const known = numeric[2] === '.' ? 'day-first' : order;
    if (known === null && first <= 12 && second <= 12 && first !== second) {
      const [dayFirst, monthFirst] = [inYear(year, second, first, today), inYear(year, first, second, today)];
      return dayFirst.kind === 'day' && monthFirst.kind === 'day' ? { kind: 'ambiguous', dayFirst: dayFirst.day, monthFirst: monthFirst.day } : dayFirst;
    }
    const monthLeads = known === 'month-first' ? first <= 12 : known === null && first <= 12 && second > 12;
    return monthLeads ? inYear(year, first, second, today) : inYear(year, second, first, today);
  }
  const named = /^(\d{1,2})(?:\.|st|nd|rd|th|er|º|ª)?\s*(?:de\s+|of\s+)?([\p{L}]{3,12})\.?,?(?:\s+(?:de\s+)?(\d{4}|\d{2}))?$/u.exec(text) ?? swapped(/^([\p{L}]{3,12})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?(?:\s+(\d{4}|\d{2}))?$/u.exec(text));
  if (named) {
    const month = months.get(named[2] ?? '');
    return month === undefined ? { kind: 'none' } : inYear(named[3] === undefined ? null : fullYear(Number(named[3])), month, Number(named[1]), today);
  }
  // Days as spreadsheets count them, from 1899-12-30 on.
  if (/^\d{5}$/u.test(text)) return { kind: 'day', day: addDays('1899-12-30', Number(text)) };
  return { kind: 'none' };
}

function swapped(match: RegExpExecArray | null): readonly (string | undefined)[] | null {
  return match ? [match[0], match[2], match[1], match[3]] : null;
}

function dayOf(year: number, month: number, day: number): DayReading {
  const text = `${year}-${pad(month)}-${pad(day)}`;
  return isDay(text) ? { kind: 'day', day: text } : { kind: 'no-such-day' };
}

function inYear(year: number | null, month: number, day: number, today: string): DayReading {
  if (year !== null) return dayOf(year, month, day);
  const own = dayOf(Number(today.slice(0, 4)), month, day);
  return own.kind === 'day' && own.day < today ? dayOf(Number(today.slice(0, 4)) + 1, month, day) : own;
}

/** The order of day and month that a whole column shows: one date that can be read in one way only decides. Null: nothing does. */
export function orderOf(cells: readonly string[]): DayOrder | null {
  for (const cell of cells) {
    const [, first, second] = /^\s*(\d{1,2})[/-](\d{1,2})(?:[/-]\d{2,4})?\s*$/u.exec(cell) ?? [];
    if (Number(first) > 12 && Number(second) <= 12) return 'day-first';
    if (Number(second) > 12 && Number(first) <= 12) return 'month-first';
  }
  return null;
}

/** A time of day as people write it, `18:30`, `6.30 pm`, `7 Uhr`, `18h30`; null: it is none. */
export function readTime(given: string): string | null {
  const match = /^(\d{1,2})(?:(?:[:.]|\s?h\s?)(\d{2}))?(?::\d{2})?\s*(a\.?m\.?|p\.?m\.?|uhr|h)?$/iu.exec(given.trim()) ?? /^(\d{2})(\d{2})()$/u.exec(given.trim());
  if (!match) return null;
  const half = match[3]?.toLowerCase().replaceAll('.', '') ?? '';
  const hour = Number(match[1]);
  if (match[2] === undefined && half === '' ) return null;
  if ((half === 'am' || half === 'pm') && (hour < 1 || hour > 12)) return null;
  const whole = half === 'pm' ? (hour % 12) + 12 : half === 'am' ? hour % 12 : hour;
  const minute = Number(match[2] ?? '0');
  return whole > 23 || minute > 59 ? null : `${pad(whole)}:${pad(minute)}`;
}
