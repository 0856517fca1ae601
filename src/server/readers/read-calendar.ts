import ICAL from 'ical.js';
import { addDays, daysBetween } from '../../core/time/day.ts';
import { ProblemError } from '../errors.ts';

/** A day or a span of days from a calendar file. */
export interface CalendarDay {
  readonly name: string;
  readonly from: string;
  readonly until: string;
  /** It comes again each year. */
  readonly yearly?: true;
}

export const MAX_CALENDAR_BYTES = 2 * 1024 * 1024;
const MAX_DAYS = 1_000;
/** Of one repeat. */
const MAX_OCCURRENCES = 60;
const MAX_NAME = 60;

/**
 * The days of an iCalendar file, each with its name: whole days, and the days on which its hours lie. What comes each year is one day that does; other repeats are their
 * next occurrences, without their exceptions.
 * @throws ProblemError 422 when it is no calendar or holds no days
 * @see https://www.rfc-editor.org/rfc/rfc5545
 */
export function readCalendar(text: string): readonly CalendarDay[] {
  let events: readonly ICAL.Component[];
  try {
    events = new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents('vevent');
  } catch {
    throw new ProblemError(422, 'not-a-calendar', 'This is no iCalendar file. Export the calendar as .ics and choose that file.');
  }
  const days = events.flatMap(daysOf).slice(0, MAX_DAYS);
  if (days.length === 0) throw new ProblemError(422, 'no-days', 'This calendar names no days.');
  return days;
}

function daysOf(component: ICAL.Component): readonly CalendarDay[] {
  const [start, end] = [component.getFirstPropertyValue('dtstart'), component.getFirstPropertyValue('dtend')];
  const name = String(component.getFirstPropertyValue('summary') ?? '').trim().slice(0, MAX_NAME);
  if (!(start instanceof ICAL.Time) || name === '') return [];
  const from = dayOf(start);
  // The end of whole days is the day after the last one.
  const last = end instanceof ICAL.Time ? (end.isDate ? addDays(dayOf(end), -1) : dayOf(end)) : from;
  const length = Math.max(0, daysBetween(from, last < from ? from : last));
  const rule = component.getFirstPropertyValue('rrule');
  if (!(rule instanceof ICAL.Recur)) return [{ name, from, until: addDays(from, length) }];
  if (rule.freq === 'YEARLY' && (rule.interval ?? 1) === 1 && !rule.count && !rule.until && Object.keys(rule.parts).length === 0) return [{ name, from, until: addDays(from, length), yearly: true }];
  const found: CalendarDay[] = [];
  const occurrences = new ICAL.Event(component).iterator();
  for (let next = occurrences.next() as ICAL.Time | null; next && found.length < MAX_OCCURRENCES; next = occurrences.next() as ICAL.Time | null) found.push({ name, from: dayOf(next), until: addDays(dayOf(next), length) });
  return found;
}

const dayOf = (time: ICAL.Time): string => `${String(time.year).padStart(4, '0')}-${String(time.month).padStart(2, '0')}-${String(time.day).padStart(2, '0')}`;
