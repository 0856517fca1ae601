import { DateTime } from 'luxon';
import { addDays, daysBetween, daysFrom } from '../../core/time/day.ts';
import type { RateBase } from '../../core/results/measures.ts';
import { listChannelsEver, type Brand } from '../db/brand-repository.ts';
import { listAudiences, listDays, type AccountDay } from '../db/collection-repository.ts';
import { listPublishedMoments, pagePublications, sumByChannel, type ChannelSums, type ResultsFilter } from '../db/results-repository.ts';
import type { Services } from '../services.ts';
import { postRows } from './post-rows.ts';

const MAX_MOMENTS = 50_000;
const SHOWN_POSTS = 3;

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
  const shown = channels.filter(({ id, removedMs }) => removedMs === null || sumsNow.some((each) => each.channelId === id));
  const days = await listDays(db, shown.map(({ id }) => id), periods.besideFrom < periods.from ? addDays(periods.from, -1) : periods.from, periods.until);
  const daysBeside = await listDays(db, shown.map(({ id }) => id), periods.besideFrom, periods.besideUntil);
  const followers = (channelId: string, list: readonly AccountDay[]): readonly AccountDay[] => list.filter((each) => each.channelId === channelId && each.metric === 'followers');
  const lastOf = (list: readonly AccountDay[]): number | null => list.at(-1)?.value ?? null;
  const accounts = shown.map(({ id }) => ({
    channelId: id,
    now: sumsAnswer(sumsNow.find((each) => each.channelId === id), lastOf(followers(id, days))),
    beside: sumsAnswer(sumsBeside.find((each) => each.channelId === id), lastOf(followers(id, daysBeside))),
    followersByDay: followers(id, days).map(({ value }) => value),
    problem: collections.find((each) => each.channelId === id)?.problem ?? null,
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
    days: byDay(periods, days, moments, brand.zone),
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

/** Followers of all accounts together by day, with how many posts went out. A day on which an account was not told is a gap. */
function byDay({ from, until }: Periods, days: readonly AccountDay[], moments: readonly number[], zone: string) {
  const posts = new Map<string, number>();
  const format = new Intl.DateTimeFormat('en-CA', { timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit' });
  for (const moment of moments) {
    const day = format.format(moment);
    posts.set(day, (posts.get(day) ?? 0) + 1);
  }
  const sums = new Map<string, { followers: number; reach: number; accounts: number }>();
  const accounts = new Set<string>();
  for (const { channelId, day, metric, value } of days) {
    const known = sums.get(day) ?? { followers: 0, reach: 0, accounts: 0 };
    if (metric === 'followers') {
      accounts.add(channelId);
      sums.set(day, { ...known, followers: known.followers + value, accounts: known.accounts + 1 });
    } else if (metric === 'reach') sums.set(day, { ...known, reach: known.reach + value });
  }
  return daysFrom(from, until).map((day) => {
    const sum = sums.get(day);
    return { day, followers: sum && sum.accounts === accounts.size && accounts.size > 0 ? sum.followers : null, reach: sum?.reach ?? null, posts: posts.get(day) ?? 0 };
  });
}
