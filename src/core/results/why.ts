import { DateTime } from 'luxon';
import { hourBlockOf, levelsOf, type Family, type PostTraits } from './features.ts';
import type { Effect, WhatWorks } from './what-works.ts';

/** One thing in which a post differs from the posts before that are most like it. */
export interface Difference {
  readonly family: Family;
  readonly level: string;
  /** Levels that the earlier posts had, the most frequent first. */
  readonly earlier: readonly string[];
  /** What posts of that level had in general; null where it cannot be told. */
  readonly effect: Effect | null;
}

export const MAX_NEAREST = 10;

/** The earlier posts of the channel that are most like a post: by format, hours and theme, then the latest. */
export function nearestEarlier<Post extends { readonly traits: PostTraits }>(post: PostTraits, others: readonly Post[], zone: string): readonly Post[] {
  const block = (each: PostTraits) => hourBlockOf(DateTime.fromMillis(each.publishedMs, { zone }).hour);
  const likeness = (each: PostTraits): number => (each.format === post.format ? 4 : 0) + (block(each) === block(post) ? 2 : 0) + (each.themeId !== null && each.themeId === post.themeId ? 1 : 0);
  return others
    .filter(({ traits }) => traits.channelId === post.channelId && traits.publishedMs < post.publishedMs)
    .toSorted((a, b) => likeness(b.traits) - likeness(a.traits) || b.traits.publishedMs - a.traits.publishedMs)
    .slice(0, MAX_NEAREST);
}

/**
 * What was different about a post: the families in which most of its nearest earlier posts had another level, those with the clearest effects
 * first. A difference is no cause.
 */
export function differencesOf(post: PostTraits, nearest: readonly PostTraits[], works: WhatWorks, zone: string): readonly Difference[] {
  const own = levelsOf(post, zone);
  const earlier = nearest.map((each) => levelsOf(each, zone));
  const found = (Object.entries(own) as readonly (readonly [Family, string])[]).flatMap(([family, level]): readonly Difference[] => {
    const counts = new Map<string, number>();
    for (const each of earlier) {
      const other = each[family];
      if (other !== undefined) counts.set(other, (counts.get(other) ?? 0) + 1);
    }
    const same = counts.get(level) ?? 0;
    if (earlier.length === 0 || same * 2 > earlier.length) return [];
    return [{ family, level, earlier: [...counts].filter(([each]) => each !== level).toSorted((a, b) => b[1] - a[1]).map(([each]) => each), effect: effectOf(works, family, level) }];
  });
  const clearness = ({ effect }: Difference): number => (effect === null ? -1 : effect.says === 'not-enough' ? 0 : effect.says === 'no-difference' ? 1 : 2 + Math.abs(effect.effect));
  return found.toSorted((a, b) => clearness(b) - clearness(a));
}

/** The effect of a level; of two levels one is told, and the other is its opposite. */
function effectOf({ effects }: WhatWorks, family: Family, level: string): Effect | null {
  const told = effects.filter((each) => each.family === family);
  const own = told.find((each) => each.level === level);
  if (own) return own;
  const [only] = told;
  if (told.length !== 1 || !only) return null;
  const turned = (value: number): number => 1 / (1 + value) - 1;
  return { ...only, level, effect: turned(only.effect), low: turned(only.high), high: turned(only.low), says: only.says === 'more' ? 'less' : only.says === 'less' ? 'more' : only.says };
}
