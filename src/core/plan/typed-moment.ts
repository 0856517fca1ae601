import * as chrono from 'chrono-node';
import { DateTime } from 'luxon';

const MAX_TEXT = 80;
const parsers = [chrono.en.GB, chrono.de, chrono.fr] as const;

/**
 * The wall time that somebody has typed, as `fri 9.30`, `tomorrow 18h`, `24.12. 9:00`, `morgen 18 Uhr` or `in 2 hours`; null when it
 * cannot be read. What names no time keeps the time that stands there; what names no day means the next such time.
 * @param standing the wall time that stands in the field now
 */
export function readTypedMoment(text: string, zone: string, nowMs: number, standing: string): string | null {
  const plain = plainTimes(text.trim().slice(0, MAX_TEXT).toLowerCase());
  if (plain === '') return null;
  const now = DateTime.fromMillis(nowMs, { zone });
  for (const parser of parsers) {
    const [result, ...more] = parser.parse(plain, { instant: now.toJSDate(), timezone: now.offset }, { forwardDate: true });
    // What is read has to be all that was typed: a part of it would be a guess.
    if (!result || more.length > 0 || result.text.replace(/\W/g, '').length < plain.replace(/\b(?:at|um|on|am|the|le|à)\b|\W/g, '').length) continue;
    const part = (name: chrono.Component): number => result.start.get(name) ?? 0;
    const hasTime = result.start.isCertain('hour');
    const hasDay = result.start.isCertain('day') || result.start.isCertain('weekday');
    const time = hasTime ? { hour: part('hour'), minute: part('minute') } : { hour: Number(standing.slice(11, 13)), minute: Number(standing.slice(14, 16)) };
    const moment = DateTime.fromObject({ year: part('year'), month: part('month'), day: part('day'), ...time }, { zone: 'utc' });
    if (!moment.isValid) return null;
    const wall = moment.toFormat("yyyy-MM-dd'T'HH:mm");
    const isOver = wall <= now.toFormat("yyyy-MM-dd'T'HH:mm");
    return !hasDay && isOver ? moment.plus({ days: 1 }).toFormat("yyyy-MM-dd'T'HH:mm") : wall;
  }
  return null;
}

/** Times as people type them, with a colon: `9.30`, `18h`, `9h30`, `18 uhr`. A date such as `24.12.` is left alone. */
function plainTimes(text: string): string {
  return text
    .replace(/(?<![\d.])(\d{1,2})\.(\d{1,2})\.(?=\s|$)/g, '$1/$2')
    .replace(/(?<![\d.])(\d{1,2})\s?h\s?(\d{2})(?!\d)/g, '$1:$2')
    .replace(/(?<![\d.])(\d{1,2})\s?(?:h|uhr)(?![a-z])/g, '$1:00')
    .replace(/(?<![\d.])([01]?\d|2[0-3])\.([0-5]\d)(?![\d.])/g, '$1:$2');
}
