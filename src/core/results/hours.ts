import { DateTime } from 'luxon';
import type { Outcome } from './what-works.ts';

/** How posts of one hour of the week did, against the average: 0.1 is 10% more. `count`: posts in that hour itself. */
export interface HourStanding {
  readonly weekday: number;
  readonly hour: number;
  readonly effect: number;
  readonly count: number;
}

/** One hour of the week, with how many posts lie around it on any day, and the strongest effect of all hours; null without results. */
export function hourOf(hours: readonly HourStanding[], weekday: number, hour: number): { readonly effect: number; readonly near: number; readonly strongest: number } | null {
  const own = hours.find((each) => each.weekday === weekday && each.hour === hour);
  if (!own) return null;
  const near = hours.filter((each) => Math.abs(each.hour - hour) <= 1).reduce((sum, { count }) => sum + count, 0);
  return { effect: own.effect, near, strongest: Math.max(0, ...hours.map(({ effect }) => effect)) };
}

/** Posts of so much weight are as good as the belief that no hour is better than another. */
const SHRINK = 4;
/** How far hours lend each other weight, around the clock. */
const HOURS_SPREAD = 1.5;
const OTHER_DAY_WEIGHT = 0.25;

/** A week of hours: each smoothed over its neighbours and the same hour on other days, and drawn towards the average. */
export function hoursOf(outcomes: readonly Outcome[], zone: string): readonly HourStanding[] {
  const usable = outcomes.filter(({ seen }) => seen > 0);
  if (usable.length === 0) return [];
  const means = channelMeans(usable);
  const points = usable.map(({ traits, engagement, seen }) => {
    const local = DateTime.fromMillis(traits.publishedMs, { zone });
    return { weekday: local.weekday, hour: local.hour, y: Math.log((engagement + 0.5) / seen) - (means.get(traits.channelId) ?? 0) };
  });
  return Array.from({ length: 7 * 24 }, (_, index) => {
    const [weekday, hour] = [Math.floor(index / 24) + 1, index % 24];
    let [sum, weight, count] = [0, 0, 0];
    for (const point of points) {
      const apart = Math.min(Math.abs(point.hour - hour), 24 - Math.abs(point.hour - hour));
      const own = Math.exp(-((apart / HOURS_SPREAD) ** 2) / 2) * (point.weekday === weekday ? 1 : OTHER_DAY_WEIGHT);
      sum += own * point.y;
      weight += own;
      if (apart === 0 && point.weekday === weekday) count += 1;
    }
    return { weekday, hour, effect: Math.expm1(sum / (weight + SHRINK)), count };
  });
}

function channelMeans(outcomes: readonly Outcome[]): ReadonlyMap<string, number> {
  const sums = new Map<string, { sum: number; count: number }>();
  for (const { traits, engagement, seen } of outcomes) {
    const known = sums.get(traits.channelId) ?? { sum: 0, count: 0 };
    sums.set(traits.channelId, { sum: known.sum + Math.log((engagement + 0.5) / seen), count: known.count + 1 });
  }
  return new Map([...sums].map(([channelId, { sum, count }]) => [channelId, sum / count]));
}
