import ICAL from 'ical.js';
import { addDays } from '../../core/time/day.ts';
import { ProblemError } from '../errors.ts';

/** A day or a span of days from a calendar file. */
export interface CalendarDay {
  readonly name: string;
  readonly from: string;
  readonly until: string;
}

export const MAX_CALENDAR_BYTES = 2 * 1024 * 1024;
const MAX_DAYS = 1_000;
const MAX_NAME = 60;

/**
 * The days of an iCalendar file, each with its name: whole days, and the days on which its hours lie. Repeats count by their first day.
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
  const days = events.slice(0, MAX_DAYS).flatMap((event): readonly CalendarDay[] => {
    const [start, end] = [event.getFirstPropertyValue('dtstart'), event.getFirstPropertyValue('dtend')];
    if (!(start instanceof ICAL.Time)) return [];
    const from = dayOf(start);
    // The end of whole days is the day after the last one.
    const until = end instanceof ICAL.Time ? (end.isDate ? addDays(dayOf(end), -1) : dayOf(end)) : from;
    const name = String(event.getFirstPropertyValue('summary') ?? '').trim().slice(0, MAX_NAME);
    return name === '' ? [] : [{ name, from, until: until < from ? from : until }];
  });
  if (days.length === 0) throw new ProblemError(422, 'no-days', 'This calendar names no days.');
  return days;
}

const dayOf = (time: ICAL.Time): string => `${String(time.year).padStart(4, '0')}-${String(time.month).padStart(2, '0')}-${String(time.day).padStart(2, '0')}`;
