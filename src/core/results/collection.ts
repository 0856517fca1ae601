const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const MONTH_MS = 30 * DAY_MS;
const QUARTER_MS = 92 * DAY_MS;

/** When a post is measured next: hourly for a day, daily for a month, weekly for a quarter; then its figures stay as they are: null. */
export function nextMeasureMs(publishedMs: number, nowMs: number): number | null {
  const ageMs = Math.max(0, nowMs - publishedMs);
  if (ageMs < DAY_MS) return nowMs + HOUR_MS;
  if (ageMs < MONTH_MS) return nowMs + DAY_MS;
  return ageMs < QUARTER_MS ? nowMs + 7 * DAY_MS : null;
}

/** Ages at which posts are compared with each other. */
export const COMPARED_HOURS = [24, 72, 168] as const;
export type ComparedHours = (typeof COMPARED_HOURS)[number];
