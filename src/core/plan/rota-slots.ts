import { addDays, dayNumber, daysBetween, daysFrom, mondayOf } from '../time/day.ts';
import { seriesClock } from '../time/series-clock.ts';
import { wallTimeOf } from '../time/wall-time.ts';
import { spansIn } from './days.ts';
import type { Plan, RotaRule } from './plan.ts';

/** A place of the rota on one day. Its key is its rule and its day, so it keeps what was put into it when the rule's time changes. */
export interface Slot {
  readonly key: string;
  readonly ruleId: string;
  readonly day: string;
  readonly time: string;
  readonly atMs: number;
  readonly themeId: string | null;
  readonly channelIds: readonly string[];
  /** What a change of clocks does to it. */
  readonly change: 'none' | 'moved' | 'first';
}

const WEEK = 7;

/** The rule and the day of a slot's key; null when it is none. */
export function readSlotKey(key: string): { readonly ruleId: string; readonly day: string } | null {
  const [ruleId = '', day = '', ...more] = key.split('@');
  return ruleId === '' || day === '' || more.length > 0 ? null : { ruleId, day };
}

/**
 * The slots of a rota in [from, to), the earliest first: in their season, in their week of the cycle, without pauses.
 * @throws RangeError for an unknown zone
 */
export function slotsOf({ rota }: Pick<Plan, 'rota'>, zone: string, fromMs: number, toMs: number): readonly Slot[] {
  if (toMs <= fromMs || rota.rules.length === 0) return [];
  const clock = seriesClock(zone);
  const [firstDay, lastDay] = [wallTimeOf(fromMs, zone).slice(0, 10), wallTimeOf(toMs, zone).slice(0, 10)];
  const byWeek = new Map<number, RotaRule[]>();
  for (const rule of rota.rules) byWeek.set(rule.week % rota.weeks, [...(byWeek.get(rule.week % rota.weeks) ?? []), rule]);
  const pauses = spansIn(rota.pauses, firstDay, lastDay);
  const isPaused = (day: string): boolean => pauses.some(({ from, until }) => from <= day && day <= until);
  const slots: Slot[] = [];
  for (let monday = mondayOf(firstDay); monday <= lastDay; monday = addDays(monday, WEEK)) {
    const days = daysFrom(monday, addDays(monday, WEEK - 1));
    const isOpen = days.map((day) => day >= firstDay && day <= lastDay && !isPaused(day));
    for (const rule of byWeek.get(weekOfCycle(rota, monday)) ?? []) {
      const day = days[rule.weekday - 1] ?? monday;
      if (isOpen[rule.weekday - 1] !== true || !isInSeason(rule, day)) continue;
      const { atMs, change } = clock(day, rule.time);
      if (atMs >= fromMs && atMs < toMs) slots.push({ key: `${rule.id}@${day}`, ruleId: rule.id, day, time: rule.time, atMs, themeId: rule.themeId, channelIds: rule.channelIds, change });
    }
  }
  return slots.toSorted((a, b) => a.atMs - b.atMs || (a.key < b.key ? -1 : 1));
}

/** Which week of the cycle a day lies in, from 0. */
export function weekOfCycle({ weeks, anchor }: Pick<Plan['rota'], 'weeks' | 'anchor'>, day: string): number {
  const week = Math.floor(daysBetween(anchor, day) / WEEK);
  return ((week % weeks) + weeks) % weeks;
}

/** Whether a rule holds on a day: both ends of its season are part of it. */
export function isInSeason({ from, until }: Pick<RotaRule, 'from' | 'until'>, day: string): boolean {
  return (from === null || from <= day) && (until === null || day <= until);
}

/** One slot by its key, wherever its rule stands by now; null when the rule is gone, out of season or paused that day. */
export function findSlot(plan: Pick<Plan, 'rota'>, zone: string, key: string): Slot | null {
  const named = readSlotKey(key);
  const rule = plan.rota.rules.find(({ id }) => id === named?.ruleId);
  if (!named || !rule) return null;
  const noonMs = dayNumber(named.day) * 86_400_000 + 43_200_000;
  return slotsOf(plan, zone, noonMs - 2 * 86_400_000, noonMs + 2 * 86_400_000).find((slot) => slot.key === key) ?? null;
}
