const whole = new Intl.NumberFormat('en-GB');
// British letters for thousands and millions differ between browsers of different years.
const compact = new Intl.NumberFormat('en', { notation: 'compact', maximumFractionDigits: 1 });

/** A count as people read it; a dash where the network gives none. */
export function countOf(value: number | null | undefined): string {
  return value === null || value === undefined ? '—' : whole.format(Math.round(value));
}

/** A count where there is little room: `12.9K`. */
export function shortCount(value: number | null | undefined): string {
  return value === null || value === undefined ? '—' : Math.abs(value) < 10_000 ? whole.format(Math.round(value)) : compact.format(value);
}

/** A rate as percent with one digit. */
export function rateOf(value: number | null | undefined): string {
  return value === null || value === undefined ? '—' : `${(value * 100).toFixed(1)}%`;
}

/** A change as a signed percent; null where there is nothing to compare with. */
export function changeOf(now: number | null, before: number | null): number | null {
  return now === null || before === null || before === 0 ? null : now / before - 1;
}

/** A factor less one as a signed, whole percent: `+34%`. A true minus sign stands where it is less. */
export function signed(value: number): string {
  const percent = Math.round(value * 100);
  return `${percent > 0 ? '+' : percent < 0 ? '−' : ''}${Math.abs(percent)}%`;
}

const HOUR_MS = 3_600_000;

/** A length of time as people say it: `35 min`, `4 h`, `2 days`. */
export function lengthOf(ms: number): string {
  if (ms < HOUR_MS) return `${Math.max(1, Math.round(ms / 60_000))} min`;
  const hours = ms / HOUR_MS;
  if (hours < 48) return `${hours < 10 ? Number(hours.toFixed(1)) : Math.round(hours)} h`;
  return `${Math.round(hours / 24)} days`;
}
