import { DateTime } from 'luxon';
import type { ReportSchedule } from './report.ts';

/** The next moment after one at which a report goes out. A month without the chosen day has its last one instead; a wall time that a clock change skips moves on to the one that follows. */
export function nextReportMs({ every, day, time }: Pick<ReportSchedule, 'every' | 'day' | 'time'>, afterMs: number, zone: string): number {
  const after = DateTime.fromMillis(afterMs, { zone });
  const [hour = 0, minute = 0] = time.split(':').map(Number);
  const at = (date: DateTime): number => date.set({ hour, minute, second: 0, millisecond: 0 }).toMillis();
  for (let step = 0; step < 40; step += 1) {
    const candidate = every === 'week' ? after.startOf('week').plus({ weeks: step, days: Math.min(day, 7) - 1 }) : onDay(after.startOf('month').plus({ months: step }), day);
    if (at(candidate) > afterMs) return at(candidate);
  }
  throw new RangeError('There is no such moment');
}

function onDay(month: DateTime, day: number): DateTime {
  return month.set({ day: Math.min(day, month.daysInMonth ?? 28) });
}
