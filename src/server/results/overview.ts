import { DateTime } from 'luxon';
import { addDays, daysBetween, daysFrom } from '../../core/time/day.ts';
import type { RateBase } from '../../core/results/measures.ts';
import { listChannelsEver, type Brand } from '../db/brand-repository.ts';
import { listAudiences, listOnDays, sumDays } from '../db/collection-repository.ts';
import { listPublishedMoments, pagePublications, sumByChannel, type ChannelSums, type ResultsFilter } from '../db/results-repository.ts';
import type { Services } from '../services.ts';
import { postRows } from './post-rows.ts';

const MAX_MOMENTS = 50_000;
const SHOWN_POSTS = 3;
/** Points of a small line. */
const MAX_LINE_POINTS = 16;
/** Days within which a network has told the last figures of an account. */
const SETTLED_DAYS = 3;

/** Days of two periods, first and last. */
export interface Periods {
  readonly from: string;
  readonly until: string;
  readonly besideFrom: string;
  readonly besideUntil: string;
}

/** A period and the one it is seen beside: as long, just before it or a year ago. */
export function periodsOf(from: string, until: string, beside: 'before' | 'year'): Periods {
  const days = daysBetween(from, until) + 1;
  if (beside === 'before') return { from, until, besideFrom: addDays(from, -days), besideUntil: addDays(from, -1) };
  const yearAgo = (day: string): string => DateTime.fromISO(day, { zone: 'UTC' }).minus({ years: 1 }).toISODate() ?? day;
  return { from, until, besideFrom: yearAgo(from), besideUntil: yearAgo(until) };
}

/** First moment of a day, and the one after the last, on the brand's clock. */
export function momentsOf(from: string, until: string, zone: string): { readonly fromMs: number; readonly untilMs: number } {
  return { fromMs: DateTime.fromISO(from, { zone }).toMillis(), untilMs: DateTime.fromISO(until, { zone }).plus({ days: 1 }).toMillis() };
}

export async function overviewOf({ db }: Pick<Services, 'db'>, brand: Brand, periods: Periods, filter: Omit<ResultsFilter, 'fromMs' | 'untilMs'>, rateBase: RateBase) {
  const [now, beside] = [{ ...filter, ...momentsOf(periods.from, periods.until, brand.zone) }, { ...filter, ...momentsOf(periods.besideFrom, periods.besideUntil, brand.zone) }];
  const channels = (await listChannelsEver(db, brand.id)).filter(({ id }) => filter.channelIds === undefined || filter.channelIds.includes(id));
  const [sumsNow, sumsBeside, moments, collections] = [await sumByChannel(db, brand.id, now, rateBase), await sumByChannel(db, brand.id, beside, rateBase), await listPublishedMoments(db, brand.id, now, MAX_MOMENTS), await listAudiences(db, brand.id)];
  const [byChannel, besideByChannel, problems] = [new Map(sumsNow.map((each) => [each.channelId, each])), new Map(sumsBeside.map((each) => [each.channelId, each])), new Map(collections.map(({ channelId, problem }) => [channelId, problem]))];
  const shown = channels.filter(({ id, removedMs }) => removedMs === null || byChannel.has(id));
  const ids = shown.map(({ id }) => id);
  const [followers, followersBeside] = [await listOnDays(db, ids, 'followers', sampledDays(periods.from, periods.until)), await listOnDays(db, ids, 'followers', daysFrom(addDays(periods.besideUntil, -SETTLED_DAYS), periods.besideUntil))];
  const [followersByDay, reachByDay] = [await sumDays(db, ids, 'followers', periods.from, periods.until), await sumDays(db, ids, 'reach', periods.from, periods.until)];
  const accounts = shown.map(({ id }) => ({
    channelId: id,
    now: sumsAnswer(byChannel.get(id), followers.get(id)?.at(-1) ?? null),
    beside: sumsAnswer(besideByChannel.get(id), followersBeside.get(id)?.at(-1) ?? null),
    followersByDay: [...(followers.get(id) ?? [])],
    problem: problems.get(id) ?? null,
  }));
  const sorted = (descending: boolean) => pagePublications(db, brand.id, now, { sort: 'rate', descending, base: rateBase, offset: 0, limit: SHOWN_POSTS });
  const [best, worst] = [await sorted(true), await sorted(false)];
  const isRated = ({ rateReach, rateImpressions }: { readonly rateReach: number | null; readonly rateImpressions: number | null }): boolean => rateReach !== null || rateImpressions !== null;
  return {
    ...periods,
    rateBase,
    now: total(sumsNow, accounts.map((each) => each.now.followers)),
    beside: total(sumsBeside, accounts.map((each) => each.beside.followers)),
    accounts,
    days: byDay(periods, followersByDay, reachByDay, moments, brand.zone),
    best: await postRows(db, brand.id, best.filter(isRated), rateBase),
    worst: await postRows(db, brand.id, worst.filter((each) => isRated(each) && !best.some(({ id }) => id === each.id)), rateBase),
  };
}

function sumsAnswer(sums: ChannelSums | undefined, followers: number | null) {
  return { posts: sums?.posts ?? 0, reach: sums?.reach ?? null, impressions: sums?.impressions ?? null, engagement: sums?.engagement ?? null, clicks: sums?.clicks ?? null, rate: sums && sums.seen > 0 ? sums.rated / sums.seen : null, followers };
}

/** All accounts together; a figure that none of them gives is missing. */
function total(all: readonly ChannelSums[], followers: readonly (number | null)[]) {
  const add = (values: readonly (number | null)[]): number | null => {
    const known = values.flatMap((value) => value ?? []);
    return known.length === 0 ? null : known.reduce((sum, value) => sum + value, 0);
  };
  const seen = all.reduce((sum, each) => sum + each.seen, 0);
  return {
    posts: all.reduce((sum, each) => sum + each.posts, 0),
    reach: add(all.map((each) => each.reach)),
    impressions: add(all.map((each) => each.impressions)),
    engagement: add(all.map((each) => each.engagement)),
    clicks: add(all.map((each) => each.clicks)),
    rate: seen > 0 ? all.reduce((sum, each) => sum + each.rated, 0) / seen : null,
    followers: add(followers),
  };
}

/** Days of a period that a small line is drawn of, the last ones among them: figures of yesterday may not have come yet. */
function sampledDays(from: string, until: string): readonly string[] {
  const days = daysFrom(from, until);
  const step = Math.max(1, Math.ceil(days.length / MAX_LINE_POINTS));
  return days.filter((_, index) => (days.length - 1 - index) % step === 0 || index >= days.length - 1 - SETTLED_DAYS);
}

/** How many posts went out on each day, from their moments, the latest first. */
function postsByDay(days: readonly string[], moments: readonly number[], zone: string): ReadonlyMap<string, number> {
  const found = new Map<string, number>();
  let at = 0;
  for (const day of days.toReversed()) {
    const startMs = DateTime.fromISO(day, { zone }).toMillis();
    const first = at;
    while (at < moments.length && (moments[at] ?? 0) >= startMs) at += 1;
    found.set(day, at - first);
  }
  return found;
}

type DaySums = Awaited<ReturnType<typeof sumDays>>;

/** Followers and reach of all accounts together by day, with how many posts went out. A day on which an account was not told is a gap. */
function byDay({ from, until }: Periods, followers: DaySums, reach: DaySums, moments: readonly number[], zone: string) {
  const days = daysFrom(from, until);
  const posts = postsByDay(days, moments, zone);
  const accounts = Math.max(0, ...[...followers.values()].map((each) => each.accounts));
  return days.map((day) => {
    const told = followers.get(day);
    return { day, followers: told && told.accounts === accounts ? told.sum : null, reach: reach.get(day)?.sum ?? null, posts: posts.get(day) ?? 0 };
  });
}
