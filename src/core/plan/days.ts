import { addDays, daysBetween } from '../time/day.ts';
import type { NamedSpan } from './plan.ts';

/** Named days within some days; a yearly one comes in each year that they touch, a leap day on 28 February in the others. */
export function spansIn(spans: readonly NamedSpan[], firstDay: string, lastDay: string): readonly NamedSpan[] {
  return spans.flatMap((span): readonly NamedSpan[] => {
    if (span.yearly !== true) return span.from <= lastDay && span.until >= firstDay ? [span] : [];
    const length = daysBetween(span.from, span.until);
    const [first, last] = [Number(firstDay.slice(0, 4)) - 1, Number(lastDay.slice(0, 4))];
    return Array.from({ length: Math.max(0, last - first + 1) }, (_, index) => inYear(span.from, first + index))
      .map((from): NamedSpan => ({ ...span, from, until: addDays(from, length) }))
      .filter(({ from, until }) => from >= span.from && from <= lastDay && until >= firstDay);
  });
}

function inYear(day: string, year: number): string {
  const own = `${String(year).padStart(4, '0')}${day.slice(4)}`;
  const isLeap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
  return own.endsWith('-02-29') && !isLeap ? `${own.slice(0, 5)}02-28` : own;
}
