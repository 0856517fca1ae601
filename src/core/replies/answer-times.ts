import { DateTime } from 'luxon';

/** When somebody wrote, and how long the first answer took. */
export interface AnsweredOnce {
  readonly channelId: string;
  readonly firstMs: number;
  readonly afterMs: number;
}

export interface AnswerTime {
  readonly key: string;
  readonly medianMs: number;
  readonly ninetiethMs: number;
  readonly count: number;
}

/** Median and 90th percentile of first answers by channel, or by weekday (1 is Monday) in the brand's zone. */
export function answerTimes(answered: readonly AnsweredOnce[], by: 'channel' | 'weekday', zone: string): readonly AnswerTime[] {
  const groups = new Map<string, number[]>();
  for (const { channelId, firstMs, afterMs } of answered) {
    const key = by === 'channel' ? channelId : String(DateTime.fromMillis(firstMs, { zone }).weekday);
    groups.set(key, [...(groups.get(key) ?? []), Math.max(0, afterMs)]);
  }
  return [...groups].map(([key, times]) => {
    const sorted = times.toSorted((a, b) => a - b);
    return { key, medianMs: percentile(sorted, 0.5), ninetiethMs: percentile(sorted, 0.9), count: sorted.length };
  });
}

/** A percentile by straight line between the values around it. */
function percentile(sorted: readonly number[], share: number): number {
  const at = (sorted.length - 1) * share;
  const [low, high] = [sorted[Math.floor(at)] ?? 0, sorted[Math.ceil(at)] ?? 0];
  return low + (high - low) * (at - Math.floor(at));
}
