import { DateTime } from 'luxon';
import { describe, expect, it } from 'vitest';
import type { PostTraits } from './features.ts';
import { hourOf, hoursOf } from './hours.ts';
import type { Outcome } from './what-works.ts';

const BERLIN = 'Europe/Berlin';
const traits: PostTraits = { channelId: 'c', format: 'picture', themeId: null, templateKey: null, publishedMs: 0, slides: 1, captionWords: 10, hashtags: 0, hasFirstComment: false, answeredEarly: false, wordsOnPicture: null, showsPeople: null };
/** A post at a wall time of Berlin, of so many answers to a thousand people. */
const post = (wall: string, engagement: number, channelId = 'c'): Outcome => ({ traits: { ...traits, channelId, publishedMs: DateTime.fromISO(wall, { zone: BERLIN }).toMillis() }, engagement, seen: 1_000 });
const inWeek = (wall: string, week: number): string => DateTime.fromISO(wall, { zone: BERLIN }).plus({ weeks: week }).toFormat("yyyy-MM-dd'T'HH:mm");
/** Eight weeks of Tuesdays at nine and Thursdays at eighteen. */
const weeks = (tuesday: number, thursday: number, channelId = 'c'): readonly Outcome[] =>
  Array.from({ length: 8 }, (_, week) => [post(inWeek('2026-09-01T09:10', week), tuesday, channelId), post(inWeek('2026-09-03T18:30', week), thursday, channelId)]).flat();

describe('the hours of a week', () => {
  it('are all there, or none without results', () => {
    expect(hoursOf([], BERLIN)).toEqual([]);
    expect(hoursOf([{ ...post('2026-09-01T09:00', 5), seen: 0 }], BERLIN)).toEqual([]);
    expect(hoursOf(weeks(20, 40), BERLIN)).toHaveLength(168);
  });

  it('stand out by what posts in them had, in the zone of the brand', () => {
    const hours = hoursOf(weeks(20, 60), BERLIN);
    const [tuesday, thursday] = [hourOf(hours, 2, 9), hourOf(hours, 4, 18)];
    expect(thursday?.effect).toBeGreaterThan(0.2);
    expect(tuesday?.effect).toBeLessThan(-0.2);
    expect(hours.find(({ weekday, hour }) => weekday === 4 && hour === 18)?.count).toBe(8);
    // The same posts lie at other hours for people elsewhere.
    expect(hoursOf(weeks(20, 60), 'Asia/Tokyo').find(({ weekday, hour }) => weekday === 5 && hour === 1)?.count).toBe(8);
  });

  it('have a smaller effect with fewer posts', () => {
    const effect = (outcomes: readonly Outcome[]): number => hourOf(hoursOf(outcomes, BERLIN), 4, 18)?.effect ?? 0;
    expect(effect(weeks(20, 60).slice(0, 4))).toBeGreaterThan(0);
    expect(effect(weeks(20, 60).slice(0, 4))).toBeLessThan(effect(weeks(20, 60)));
  });

  it('are compared within each account', () => {
    const large = weeks(60, 60, 'large');
    const small = large.map((each) => ({ ...each, traits: { ...each.traits, channelId: 'small', publishedMs: each.traits.publishedMs + 5 * 3_600_000 }, engagement: 3 }));
    expect(Math.max(...hoursOf([...large, ...small], BERLIN).map(({ effect }) => Math.abs(effect)))).toBeLessThan(0.01);
  });

  it('count the posts of neighbouring hours on all days', () => {
    const found = hourOf(hoursOf([...weeks(20, 40), post('2026-09-05T10:00', 20)], BERLIN), 2, 9);
    expect(found?.near).toBe(9);
    expect(found?.strongest).toBeGreaterThan(0);
    expect(hourOf([], 2, 9)).toBeNull();
  });
});
