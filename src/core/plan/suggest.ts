import { addDays, weekdayOf } from '../time/day.ts';
import { seriesClock } from '../time/series-clock.ts';
import { wallTimeOf } from '../time/wall-time.ts';
import { hourOf, type HourStanding } from '../results/hours.ts';
import type { LaneRules } from './forecast.ts';

/** What is planned or out already, around the moments that are scored. */
export interface Neighbour {
  readonly channelId: string;
  readonly atMs: number;
  readonly themeId: string | null;
}

export interface SuggestInput {
  readonly zone: string;
  readonly nowMs: number;
  readonly days: number;
  /** The channels that the piece would go out on together. */
  readonly channels: readonly LaneRules[];
  readonly themeId: string | null;
  readonly neighbours: readonly Neighbour[];
  /** How posts of the hours of a week did, as far as the brand has results; missing or empty: general knowledge alone. */
  readonly hours?: readonly HourStanding[];
  /** How many to answer. */
  readonly count: number;
}

/** A moment with its score in [0, 1] and why it is good, as short sentences. */
export interface Suggestion {
  readonly wall: string;
  readonly atMs: number;
  readonly score: number;
  readonly reasons: readonly string[];
}

/** How many people are awake and at their screens by hour of the day, of their most; general knowledge until a brand has results. */
const weekdayHours = [0.05, 0.02, 0.01, 0.01, 0.02, 0.08, 0.25, 0.5, 0.62, 0.6, 0.58, 0.62, 0.78, 0.68, 0.58, 0.6, 0.68, 0.82, 0.92, 1, 0.98, 0.82, 0.5, 0.2] as const;
const weekendHours = [0.12, 0.05, 0.02, 0.01, 0.01, 0.03, 0.1, 0.25, 0.48, 0.72, 0.85, 0.85, 0.78, 0.7, 0.66, 0.68, 0.74, 0.82, 0.9, 0.95, 0.92, 0.78, 0.55, 0.28] as const;
const [FIRST_HOUR, LAST_HOUR] = [7, 21];
const LEAD_MS = 15 * 60_000;
/** Twice on one theme within this time tires its readers. */
const THEME_APART_MS = 24 * 3_600_000;
/** How much an hour's own results count beside what is known in general. */
const RESULTS_WEIGHT = 2;
/** Results are given as a reason from so many posts and so large an effect on. */
const [MIN_NEAR, SHOWN_EFFECT] = [4, 0.05];
/** Whatever a network allows, two posts on one channel within this time take from each other. */
const LEAST_APART_MIN = 180;

/**
 * The best moments of the coming days, at most one a day: people there, far enough from what else is out, room in the day.
 * Score = audience x distance x room, each in [0, 1].
 */
export function suggestMoments({ zone, nowMs, days, channels, themeId, neighbours, hours = [], count }: SuggestInput): readonly Suggestion[] {
  const clock = seriesClock(zone);
  const today = wallTimeOf(nowMs, zone).slice(0, 10);
  const lanes = channels.map((rules) => ({ ...rules, outAt: neighbours.filter(({ channelId }) => channelId === rules.id).map(({ atMs }) => atMs) }));
  const themeAt = themeId === null ? [] : neighbours.filter((each) => each.themeId === themeId).map(({ atMs }) => atMs);
  const bestOfDay: Suggestion[] = [];
  for (let offset = 0; offset < days; offset += 1) {
    const day = addDays(today, offset);
    const [fromMs, toMs] = [clock(day, '00:00').atMs, clock(addDays(day, 1), '00:00').atMs];
    const busy = lanes.map((lane) => ({ ...lane, thatDay: lane.outAt.filter((atMs) => atMs >= fromMs && atMs < toMs).length }));
    let best: Suggestion | null = null;
    for (let hour = FIRST_HOUR; hour <= LAST_HOUR; hour += 1) {
      const time = `${String(hour).padStart(2, '0')}:00`;
      const { atMs } = clock(day, time);
      if (atMs < nowMs + LEAD_MS) continue;
      const scored = scoreMoment({ atMs, weekday: weekdayOf(day), hour }, { lanes: busy, themeAt, hours });
      if (!best || scored.score > best.score) best = { wall: `${day}T${time}`, atMs, ...scored };
    }
    if (best && best.score > 0) bestOfDay.push(best);
  }
  return bestOfDay.toSorted((a, b) => b.score - a.score || a.atMs - b.atMs).slice(0, count).toSorted((a, b) => a.atMs - b.atMs);
}

interface Moment {
  readonly atMs: number;
  /** 1 is Monday, 7 is Sunday. */
  readonly weekday: number;
  readonly hour: number;
}

interface MomentSurroundings {
  /** The channels with when something is out on each, and how much that is on the moment's day. */
  readonly lanes: readonly (LaneRules & { readonly outAt: readonly number[]; readonly thatDay: number })[];
  /** When the theme is out, on any channel. */
  readonly themeAt: readonly number[];
  readonly hours: readonly HourStanding[];
}

const nearestOf = (atMs: number, others: readonly number[]): number => others.reduce((least, each) => Math.min(least, Math.abs(each - atMs)), Infinity);

/** The score of a moment and its reasons. 0 within a least gap or on a full day. */
function scoreMoment({ atMs, weekday, hour }: Moment, { lanes, themeAt, hours }: MomentSurroundings): Pick<Suggestion, 'score' | 'reasons'> {
  const audience = (weekday >= 6 ? weekendHours : weekdayHours)[hour] ?? 0;
  let [distance, room, nearestMs, busiest] = [1, 1, Infinity, 0];
  for (const { outAt, thatDay, leastGapMin, dailyMax } of lanes) {
    const nearest = nearestOf(atMs, outAt);
    distance = Math.min(distance, distanceFactor(nearest, Math.max(leastGapMin, LEAST_APART_MIN) * 60_000));
    nearestMs = Math.min(nearestMs, nearest);
    busiest = Math.max(busiest, thatDay);
    room = Math.min(room, Math.max(0, 1 - thatDay / dailyMax));
  }
  const sameTheme = nearestOf(atMs, themeAt);
  const themeFactor = sameTheme >= THEME_APART_MS ? 1 : 0.5 + (0.5 * sameTheme) / THEME_APART_MS;
  const own = hourOf(hours, weekday, hour);
  // What the brand's own posts had outweighs what is known in general, up to the score of the best hour.
  const results = own === null ? 1 : Math.min(1, Math.max(0.2, (1 + RESULTS_WEIGHT * own.effect) / (1 + RESULTS_WEIGHT * own.strongest)));
  return { score: audience * results * distance * themeFactor * room, reasons: reasonsOf({ audience, own, hour, nearestMs, busiest, sameTheme, channels: lanes.length }) };
}

/** 0 within the least gap, 1 from three times that. */
export function distanceFactor(distanceMs: number, leastMs: number): number {
  if (distanceMs < leastMs) return 0;
  return Math.min(1, (distanceMs - leastMs) / (2 * leastMs) || (leastMs === 0 ? 1 : 0));
}

function reasonsOf({ audience, own, hour, nearestMs, busiest, sameTheme, channels }: { readonly audience: number; readonly own: ReturnType<typeof hourOf>; readonly hour: number; readonly nearestMs: number; readonly busiest: number; readonly sameTheme: number; readonly channels: number }): readonly string[] {
  const there = channels === 1 ? 'on this channel' : 'on these channels';
  return [
    audience >= 0.9 ? 'the busiest hours of the day' : audience >= 0.6 ? (hour < 12 ? 'a good morning hour' : hour < 15 ? 'people look around lunch' : 'a good hour') : 'a quiet hour',
    busiest === 0 ? `nothing else goes out ${there} that day` : `${busiest} other ${busiest === 1 ? 'post' : 'posts'} ${there} that day, the nearest ${span(nearestMs)} away`,
    ...(own !== null && own.near >= MIN_NEAR && Math.abs(own.effect) >= SHOWN_EFFECT ? [`posts around then had ${own.effect > 0 ? '+' : '−'}${Math.round(Math.abs(own.effect) * 100)}% engagement (n ${own.near})`] : []),
    ...(sameTheme === Infinity ? [] : sameTheme < THEME_APART_MS ? [`its theme is out ${span(sameTheme)} away`] : []),
  ];
}

function span(ms: number): string {
  const hours = Math.round(ms / 3_600_000);
  if (hours < 1) return 'less than an hour';
  return hours < 48 ? `${hours} hour${hours === 1 ? '' : 's'}` : `${Math.round(hours / 24)} days`;
}
