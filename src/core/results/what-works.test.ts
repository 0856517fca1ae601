import { describe, expect, it } from 'vitest';
import { gauss, generator } from '../../../tests/fixtures/seeded-chance.ts';
import { contrast, fitPooled, FREE, type Row } from './partial-pooling.ts';
import type { PostTraits } from './features.ts';
import { whatWorks, type Outcome } from './what-works.ts';
import { differencesOf, nearestEarlier } from './why.ts';

const DAY = 86_400_000;
const START = Date.parse('2026-01-05T12:00:00Z');

const traits = (given: Partial<PostTraits> = {}): PostTraits => ({ channelId: 'c1', format: 'picture', themeId: 't1', templateKey: null, publishedMs: START, slides: 1, captionWords: 20, hashtags: 2, hasFirstComment: false, answeredEarly: false, wordsOnPicture: null, showsPeople: null, ...given });

describe('fitPooled', () => {
  it('gives the weighted mean of a single free column, with its variance', () => {
    // Known variances and no noise to speak of: 1/V = sum of weights.
    const rows: Row[] = [1, 2, 3].map((y) => ({ y, variance: 0, columns: [[0, 1]] }));
    const model = fitPooled(rows, [FREE], [0]);
    expect(model.mean[0]).toBeCloseTo(2, 1);
  });

  it('draws the effect of a single post nearly to none', () => {
    const rows: Row[] = [...Array.from({ length: 40 }, (_, index): Row => ({ y: (index % 5) * 0.1, variance: 0.02, columns: [[0, 1], [1, 1]] })), { y: 2, variance: 0.02, columns: [[0, 1], [2, 1]] }];
    const model = fitPooled(rows, [FREE, 'format'], [0, 1, 1]);
    const { mean } = contrast(model, new Map([[2, 1], [1, -1]]));
    expect([mean > 0, mean < 1.8]).toEqual([true, true]);
  });

  it('holds the truth in its 90% intervals in 87 to 93% of 2,000 runs', { tags: 'long', timeout: 120_000 }, () => {
    let [held, asked] = [0, 0];
    for (let run = 0; run < 2_000; run += 1) {
      const next = generator(run + 1);
      const spreads = [0.1 + 0.2 * next(), 0.1 + 0.2 * next()] as const;
      const truth = [-3, ...Array.from({ length: 4 }, () => gauss(next) * spreads[0]), ...Array.from({ length: 6 }, () => gauss(next) * spreads[1])];
      const rows = Array.from({ length: 60 }, (): Row => {
        const [a, b] = [1 + Math.floor(next() * 4), 5 + Math.floor(next() * 6)];
        const variance = 0.02 + 0.03 * next();
        return { y: (truth[0] ?? 0) + (truth[a] ?? 0) + (truth[b] ?? 0) + gauss(next) * Math.sqrt(0.2 ** 2 + variance), variance, columns: [[0, 1], [a, 1], [b, 1]] };
      });
      const model = fitPooled(rows, [FREE, 'a', 'b'], [0, 1, 1, 1, 1, 2, 2, 2, 2, 2, 2]);
      for (const [one, other] of [[1, 2], [6, 9]] as const) {
        const { mean, deviation } = contrast(model, new Map([[one, 1], [other, -1]]));
        asked += 1;
        if (Math.abs((truth[one] ?? 0) - (truth[other] ?? 0) - mean) <= 1.645 * deviation) held += 1;
      }
    }
    expect(held / asked).toBeGreaterThan(0.87);
    expect(held / asked).toBeLessThan(0.93);
  });
});

/** Posts of half a year with effects that are known: carousels 30% more, first comments 20% more, Tuesdays 15% less. */
function posts(seed: number, count: number): readonly Outcome[] {
  const next = generator(seed);
  const pick = <Item>(list: readonly [Item, ...Item[]]): Item => list[Math.floor(next() * list.length)] ?? list[0];
  return Array.from({ length: count }, (_, index): Outcome => {
    const own = traits({ channelId: pick(['c1', 'c2', 'c3']), format: pick(['picture', 'carousel', 'video']), themeId: pick(['t1', 't2', 't3', 't4']), publishedMs: START + index * 0.9 * DAY + Math.floor(next() * 14) * 3_600_000, captionWords: pick([5, 20, 60]), hashtags: pick([0, 2, 6]), hasFirstComment: next() < 0.5, answeredEarly: next() < 0.3, wordsOnPicture: pick([3, 12]), showsPeople: pick([true, false]) });
    const effect = (own.format === 'carousel' ? 0.3 : 0) + (own.hasFirstComment ? 0.2 : 0) - (new Date(own.publishedMs).getUTCDay() === 2 ? 0.15 : 0);
    const seen = 600 + Math.floor(next() * 1_200);
    return { traits: own, seen, engagement: Math.round(seen * 0.06 * Math.exp(effect + gauss(next) * 0.2)) };
  });
}

describe('whatWorks', () => {
  it('finds the effects that are there, and hardly any that are not', () => {
    let [found, wrong, absent] = [0, 0, 0];
    for (let seed = 1; seed <= 30; seed += 1) {
      const { effects } = whatWorks(posts(seed, 200), 'UTC');
      if (effects.find(({ family, level }) => family === 'format' && level === 'carousel')?.says === 'more') found += 1;
      if (effects.find(({ family }) => family === 'firstComment')?.says === 'more') found += 1;
      for (const { family, says } of effects) {
        if (!['caption', 'hashtags', 'picture', 'answers', 'theme'].includes(family)) continue;
        absent += 1;
        if (says === 'more' || says === 'less') wrong += 1;
      }
    }
    expect(found).toBeGreaterThanOrEqual(58);
    expect(wrong / absent).toBeLessThanOrEqual(0.05);
  }, 60_000);

  it('says nothing of eleven posts, and that it is not enough of a single video', () => {
    expect(whatWorks(posts(1, 11), 'UTC').effects).toEqual([]);
    const few = posts(3, 30).map((each, index): Outcome => ({ ...each, traits: { ...each.traits, format: index === 4 ? 'video' : 'picture', templateKey: null } }));
    const video = whatWorks(few, 'UTC').effects.find(({ family }) => family === 'format');
    expect(['not-enough', 'no-difference']).toContain(video?.says);
  });

  it('sorts by the lower end', () => {
    const lows = whatWorks(posts(5, 120), 'UTC').effects.map(({ low }) => low);
    expect(lows).toEqual(lows.toSorted((a, b) => b - a));
  });
});

describe('what was different', () => {
  const others = posts(7, 150);
  const works = whatWorks(others, 'UTC');

  it('compares with the earlier posts of the channel that are most alike', () => {
    const post = traits({ channelId: 'c2', format: 'carousel', publishedMs: START + 200 * DAY });
    const nearest = nearestEarlier(post, [...others, { traits: traits({ channelId: 'c2', format: 'carousel', publishedMs: START + 300 * DAY }) }], 'UTC');
    expect(nearest).toHaveLength(10);
    expect(nearest.every((each) => each.traits.channelId === 'c2' && each.traits.format === 'carousel' && each.traits.publishedMs < post.publishedMs)).toBe(true);
  });

  it('names what most of them had otherwise, with what it goes along with', () => {
    const post = traits({ hasFirstComment: true, publishedMs: START + 200 * DAY });
    const before = Array.from({ length: 10 }, (_, index) => traits({ publishedMs: START + index * 7 * DAY }));
    const differences = differencesOf(post, before, works, 'UTC');
    expect(differences[0]).toMatchObject({ family: 'firstComment', level: 'yes', earlier: ['no'], effect: { says: 'more' } });
    expect(differences.some(({ family }) => family === 'format')).toBe(false);
    // Two levels: the other one is told as the opposite.
    const without = differencesOf({ ...post, hasFirstComment: false }, before.map((each) => ({ ...each, hasFirstComment: true })), works, 'UTC');
    expect(without.find(({ family }) => family === 'firstComment')?.effect).toMatchObject({ level: 'no', says: 'less' });
  });
});
