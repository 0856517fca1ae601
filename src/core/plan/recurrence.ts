import * as library from 'rrule';
import type { Options } from 'rrule';
import { resolveWallTime, wallTimeOf, WALL_TIME_PATTERN } from '../time/wall-time.ts';
import { seriesClock } from '../time/series-clock.ts';

/** A repeat as RFC 5545 writes it, in wall times of a zone. */
export interface Repeat {
  /** The rule without its `RRULE:`, e.g. `FREQ=MONTHLY;BYDAY=-1FR`. */
  readonly rule: string;
  /** The first occurrence, a wall time. */
  readonly start: string;
  readonly zone: string;
  /** Occurrences that are left out, by their wall times. */
  readonly except: readonly string[];
}

/** One time that a repeat comes round. Its key is the wall time that the rule gives it, whatever becomes of it. */
export interface Occurrence {
  readonly key: string;
  readonly atMs: number;
  readonly change: 'none' | 'moved' | 'first';
}

/** A rule that is no repeat of days, weeks, months or years. */
export class RecurrenceError extends RangeError {
  override readonly name = 'RecurrenceError';
  readonly code = 'not-a-repeat';
}

// Node reads the package's CommonJS file, which names its exports only in its default; bundlers read its module.
const { RRule } = 'RRule' in library ? library : (library as { readonly default: typeof library }).default;

const MAX_RULE = 500;
const MAX_COUNT = 100_000;
const allowed: ReadonlySet<string> = new Set(['FREQ', 'INTERVAL', 'COUNT', 'UNTIL', 'BYDAY', 'BYMONTHDAY', 'BYMONTH', 'BYSETPOS', 'BYWEEKNO', 'BYYEARDAY', 'WKST', 'BYHOUR', 'BYMINUTE']);
const frequencies: ReadonlySet<string> = new Set(['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY']);
/** Occurrences that one look answers at most: whoever wants more asks again from the last one. */
export const MAX_OCCURRENCES = 2_000;

/** Wall times are counted as if they were UTC, so that clock changes do not touch the rule. */
const asDate = (wall: string): Date => new Date(`${wall}:00Z`);
const asWall = (date: Date): string => date.toISOString().slice(0, 16);

/**
 * The parts of a rule, checked.
 * @throws RecurrenceError with what is wrong
 * @see https://www.rfc-editor.org/rfc/rfc5545#section-3.3.10
 */
export function readRule(rule: string, start: string): Partial<Options> {
  if (rule.length > MAX_RULE) throw new RecurrenceError('This repeat is longer than any rule needs to be.');
  const parts = new Map(rule.replace(/^RRULE:/i, '').split(';').map((part) => [part.slice(0, part.indexOf('=')).toUpperCase(), part.slice(part.indexOf('=') + 1)] as const));
  const unknown = [...parts.keys()].find((key) => !allowed.has(key));
  if (unknown !== undefined) throw new RecurrenceError(`Confetti does not know ${unknown === '' ? 'a part' : unknown} of this repeat.`);
  if (!frequencies.has(parts.get('FREQ')?.toUpperCase() ?? '')) throw new RecurrenceError('A post repeats daily, weekly, monthly or yearly.');
  if (parts.has('COUNT') && parts.has('UNTIL')) throw new RecurrenceError('A repeat ends on a day or after a number of times, not both.');
  if (!WALL_TIME_PATTERN.test(start)) throw new RecurrenceError('A repeat begins at a day and a time.');
  try {
    const options = RRule.parseString([...parts].map(([key, value]) => `${key}=${value}`).join(';'));
    if ((options.interval ?? 1) < 1 || (options.interval ?? 1) > 1_000) throw new RecurrenceError('Repeat every 1 to 1,000 days, weeks, months or years.');
    if (options.count !== undefined && options.count !== null && (options.count < 1 || options.count > MAX_COUNT)) throw new RecurrenceError(`A repeat comes 1 to ${MAX_COUNT.toLocaleString('en-GB')} times.`);
    return { ...options, dtstart: asDate(start) };
  } catch (error) {
    if (error instanceof RecurrenceError) throw error;
    throw new RecurrenceError('This repeat cannot be read. Choose one from the list.');
  }
}

/**
 * The occurrences of a repeat in [fromMs, toMs), at most `MAX_OCCURRENCES`; the rule is not followed beyond them.
 * @throws RecurrenceError for a rule that is none
 */
export function occurrencesBetween({ rule, start, zone, except }: Repeat, fromMs: number, toMs: number): readonly Occurrence[] {
  if (toMs <= fromMs) return [];
  const options = readRule(rule, start);
  // An end in UTC is meant as an instant; the rule runs on wall times.
  const until = options.until && /UNTIL=\d{8}T\d{6}Z/i.test(rule) ? asDate(wallTimeOf(options.until.getTime(), zone)) : options.until;
  const rules = new RRule({ ...options, ...(until ? { until } : {}) });
  const clock = seriesClock(zone);
  const left = new Set(except);
  const dayMs = 86_400_000;
  // Wall times differ from instants by less than a day and a clock change.
  const [from, to] = [asDate(wallTimeOf(fromMs - dayMs, zone)), asDate(wallTimeOf(toMs + dayMs, zone))];
  const dates = rules.between(from, to, true, (_, index) => index < MAX_OCCURRENCES);
  return dates.map(asWall).filter((wall) => !left.has(wall)).map((wall): Occurrence => {
    const { atMs, change } = clock(wall.slice(0, 10), wall.slice(11));
    return { key: wall, atMs, change };
  }).filter(({ atMs }) => atMs >= fromMs && atMs < toMs);
}

/** The same rule ended before one of its occurrences: what stays when "this and following" goes elsewhere. */
export function endBefore(rule: string, wall: string): string {
  const parts = rule.split(';').filter((part) => !/^(?:COUNT|UNTIL)=/i.test(part));
  const last = asWall(new Date(asDate(wall).getTime() - 60_000)).replace(/[-:]/g, '');
  return [...parts, `UNTIL=${last}00`].join(';');
}

/** A repeat in words: `every 2 weeks on Friday`. */
export function ruleInWords(rule: string, start: string): string {
  return new RRule(readRule(rule, start)).toText();
}

/** Whether clocks leave out or repeat the time of a series within a year from its start: asked about once for the series. */
export function seriesMeetsClockChange({ start, zone }: Pick<Repeat, 'start' | 'zone'>): boolean {
  const year = Number(start.slice(0, 4));
  for (let month = 1; month <= 12; month += 1) {
    for (let day = 1; day <= 31; day += 1) {
      const wall = `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}T${start.slice(11)}`;
      if (!Number.isNaN(Date.parse(`${wall}Z`)) && resolvesUnevenly(wall, zone)) return true;
    }
  }
  return false;
}

function resolvesUnevenly(wall: string, zone: string): boolean {
  try {
    return resolveWallTime(wall, zone).kind !== 'exact';
  } catch {
    return false;
  }
}
