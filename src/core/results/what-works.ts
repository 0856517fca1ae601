import { contrast, fitPooled, FREE, type PooledModel, type Row } from './partial-pooling.ts';
import { familyKeys, levelsOf, type Family, type PostTraits } from './features.ts';

/** A post with how it did at the age at which posts are compared. */
export interface Outcome {
  readonly traits: PostTraits;
  readonly engagement: number;
  /** Reach or impressions. */
  readonly seen: number;
}

/** What posts of one level had, against the average post. */
export interface Effect {
  readonly family: Family;
  readonly level: string;
  /** As a factor less one: 0.2 is 20% more. */
  readonly effect: number;
  /** The 90% interval. */
  readonly low: number;
  readonly high: number;
  /** Posts that it rests on. */
  readonly count: number;
  readonly says: 'more' | 'less' | 'no-difference' | 'not-enough';
}

export interface WhatWorks {
  readonly effects: readonly Effect[];
  readonly posts: number;
  readonly model: PooledModel | null;
  /** Column of each level, by `family:level`. */
  readonly columns: ReadonlyMap<string, number>;
}

/** Fewer posts say nothing of anything. */
export const MIN_POSTS = 12;
/** z of a two-sided 90% interval. */
const Z90 = 1.645;
/** That of the wider interval that has to leave out "no effect" before one is named: at most one in twenty is named wrongly. */
const Z_NAMED = 1.96;
/** "Not enough to say" when the interval holds both these and is wider than that many hundredths. */
const SMALL = 0.1;
const MAX_WIDTH = 0.4;
/** Small counts: half an engagement is added, as is usual for logarithms of counts. */
const HALF = 0.5;
/** The rates of a post that nobody engages with come from few people: their variance is known from the count. */
const YEAR_MS = 365 * 86_400_000;

/**
 * How much more or less engagement posts had by what they are, all things at once: the logarithm of the rate is the channel's own level, plus an
 * effect for each family, plus a trend over time. Effects are drawn towards none where there is little data.
 */
export function whatWorks(outcomes: readonly Outcome[], zone: string): WhatWorks {
  const usable = outcomes.filter(({ seen }) => seen > 0);
  if (usable.length < MIN_POSTS) return { effects: [], posts: usable.length, model: null, columns: new Map() };
  const columns = new Map<string, number>();
  const familyOf: number[] = [];
  const names = [FREE, ...familyKeys] as const;
  const columnOf = (key: string, family: number): number => {
    const known = columns.get(key);
    if (known !== undefined) return known;
    columns.set(key, familyOf.length);
    familyOf.push(family);
    return familyOf.length - 1;
  };
  const trend = columnOf('trend', 0);
  const newestMs = Math.max(...usable.map(({ traits }) => traits.publishedMs));
  const counts = new Map<string, number>();
  const rows = usable.map(({ traits, engagement, seen }): Row => {
    const levels = Object.entries(levelsOf(traits, zone)) as readonly (readonly [Family, string])[];
    for (const [family, level] of levels) counts.set(`${family}:${level}`, (counts.get(`${family}:${level}`) ?? 0) + 1);
    return {
      y: Math.log((engagement + HALF) / seen),
      variance: 1 / (engagement + HALF),
      columns: [[columnOf(`channel:${traits.channelId}`, 0), 1], [trend, (traits.publishedMs - newestMs) / YEAR_MS], ...levels.map(([family, level]): readonly [number, number] => [columnOf(`${family}:${level}`, names.indexOf(family)), 1])],
    };
  });
  const model = fitPooled(rows, names, familyOf);
  const effects = familyKeys.flatMap((family) => effectsOf(family, model, columns, counts));
  return { effects: effects.toSorted((a, b) => b.low - a.low), posts: usable.length, model, columns };
}

/** The effects of one family. With two levels the first is told against the second; else each against the average of all posts. */
function effectsOf(family: Family, model: PooledModel, columns: ReadonlyMap<string, number>, counts: ReadonlyMap<string, number>): readonly Effect[] {
  const levels = [...columns].flatMap(([key, column]) => (key.startsWith(`${family}:`) ? [{ level: key.slice(family.length + 1), column, count: counts.get(key) ?? 0 }] : []));
  if (levels.length < 2) return [];
  const total = levels.reduce((sum, { count }) => sum + count, 0);
  const told = levels.length === 2 ? levels.filter(({ level }) => level !== 'no' && level !== 'many').slice(0, 1) : levels;
  return told.map(({ level, column, count }) => {
    const others = total - count;
    // Against the average of the other posts of the family.
    const weights = new Map(levels.map((each) => [each.column, each.column === column ? 1 : -each.count / others]));
    return { family, level, count, ...spoken(contrast(model, weights)) };
  });
}

/** A logarithmic effect as percent with its interval, and what it says. */
export function spoken({ mean, deviation }: { readonly mean: number; readonly deviation: number }): Pick<Effect, 'effect' | 'low' | 'high' | 'says'> {
  const [effect, low, high] = [Math.expm1(mean), Math.expm1(mean - Z90 * deviation), Math.expm1(mean + Z90 * deviation)];
  if (Math.abs(mean) > Z_NAMED * deviation) return { effect, low, high, says: mean > 0 ? 'more' : 'less' };
  const isWide = low <= -SMALL && high >= SMALL && high - low > MAX_WIDTH;
  return { effect, low, high, says: isWide || low > 0 || high < 0 ? 'not-enough' : 'no-difference' };
}
