import { describe, expect, it } from 'vitest';
import { gauss, generator } from '../../../tests/fixtures/seeded-chance.ts';
import { compareArms } from './experiment.ts';
import { engagementOf, rateOf } from './measures.ts';
import { stretchesOf, valueAtAge, type Measurement } from './series.ts';
import { standingOf, usualOf } from './usual.ts';

const HOUR = 3_600_000;
const at = (hours: number, value: number, counted = 1): Measurement => ({ atMs: hours * HOUR, value, counted });

describe('rateOf', () => {
  it('divides what people did by who saw it, and never takes missing for zero', () => {
    expect(rateOf({ reactions: 30, comments: 10, reach: 400, impressions: 800 }, 'reach')).toEqual({ rate: 0.1, base: 'reach' });
    expect(rateOf({ reactions: 30, comments: 10, reach: 400, impressions: 800 }, 'impressions')).toEqual({ rate: 0.05, base: 'impressions' });
    expect(rateOf({ reactions: 8, impressions: 80 }, 'reach')).toEqual({ rate: 0.1, base: 'impressions' });
    expect([engagementOf({ clicks: 4, reach: 100 }), rateOf({ clicks: 4, reach: 100 }, 'reach'), rateOf({ reactions: 1, reach: 0 }, 'reach')]).toEqual([null, null, null]);
  });
});

describe('valueAtAge', () => {
  const measured = [at(1, 100), at(3, 160), at(24, 400)];

  it('goes by straight line between measurements, from nothing at the start', () => {
    expect(valueAtAge(measured, 0, 2 * HOUR)).toBe(130);
    expect(valueAtAge(measured, 0, HOUR / 2)).toBe(50);
    expect(valueAtAge(measured, 0, 24 * HOUR)).toBe(400);
  });

  it('says nothing of an age that was not reached, and nothing across a gap', () => {
    expect(valueAtAge(measured, 0, 25 * HOUR)).toBeNull();
    expect(valueAtAge([at(1, 100), at(24 * 20, 900)], 0, 72 * HOUR)).toBeNull();
    expect(valueAtAge([], 0, HOUR)).toBeNull();
  });

  it('does not mix what a network counts anew with what it counted before', () => {
    const anew = [...measured, at(30, 210, 2), at(40, 230, 2)];
    expect(valueAtAge(anew, 0, 24 * HOUR)).toBeNull();
    expect(valueAtAge(anew, 0, 35 * HOUR)).toBe(220);
    expect(stretchesOf(anew, 0)).toEqual([[[0, 0], [1, 100], [3, 160], [24, 400]], [[30, 210], [40, 230]]]);
  });

  it('breaks a curve where measurements are missing', () => {
    expect(stretchesOf([at(1, 5), at(24 * 12, 9), at(24 * 13, 10)], 0).map((each) => each.length)).toEqual([2, 2]);
  });
});

describe('usualOf', () => {
  it('gives percentiles, as the text book does for equal weights', () => {
    // Hazen's percentiles of 1…10: the 10th is 1.5, the 50th 5.5, the 90th 9.5.
    const usual = usualOf(Array.from({ length: 10 }, (_, index) => ({ value: index + 1, daysBefore: 0 })));
    expect(usual).toEqual({ kind: 'usual', low: 1.5, middle: 5.5, high: 9.5, count: 10 });
    expect([standingOf(12, usual), standingOf(5, usual), standingOf(1, usual)]).toEqual(['above', 'within', 'below']);
  });

  it('says that seven posts are too few', () => {
    const usual = usualOf(Array.from({ length: 7 }, () => ({ value: 1, daysBefore: 1 })));
    expect([usual, standingOf(3, usual)]).toEqual([{ kind: 'too-few', count: 7 }, null]);
  });

  it('lets old posts count less', () => {
    const usual = usualOf([...Array.from({ length: 10 }, () => ({ value: 10, daysBefore: 720 })), ...Array.from({ length: 8 }, () => ({ value: 1, daysBefore: 1 }))]);
    expect(usual.kind === 'usual' && usual.middle).toBe(1);
  });
});

describe('compareArms', () => {
  const arm = (id: string, seen: number, engaged: number, posts: number) => ({ id, seen, engaged, posts });

  it('cannot tell equal versions apart, and says how many posts are wanted', () => {
    const { arms, isDecided, postsWanted } = compareArms([arm('a', 4_000, 200, 4), arm('b', 4_000, 200, 4)]);
    expect(arms.map(({ leads }) => Math.round(leads * 100))).toEqual([50, 50]);
    expect([isDecided, postsWanted > 0]).toEqual([false, true]);
  });

  it('decides for a version that is clearly better', () => {
    const { leader, isDecided, arms } = compareArms([arm('a', 20_000, 1_600, 20), arm('b', 20_000, 1_000, 20)]);
    expect([leader, isDecided, (arms[0]?.leads ?? 0) > 0.97, (arms[1]?.loss ?? 0) > 0.2]).toEqual(['a', true, true, true]);
  });

  it('does not lose more than it allows when one looks after every post', () => {
    let lost = 0;
    const runs = 300;
    for (let run = 0; run < runs; run += 1) {
      const random = generator(run);
      const rates = [0.05 * Math.exp(0.15 * gauss(random)), 0.05 * Math.exp(0.15 * gauss(random))] as const;
      const counts = [arm('0', 0, 0, 0), arm('1', 0, 0, 0)];
      let kept = 0;
      for (let post = 0; post < 120; post += 1) {
        const which = post % 2;
        const before = counts[which] ?? arm('', 0, 0, 0);
        const seen = 900;
        const engaged = Math.max(0, Math.round(seen * (rates[which] ?? 0) * Math.exp(0.2 * gauss(random))));
        counts[which] = arm(String(which), before.seen + seen, before.engaged + engaged, before.posts + 1);
        if (post < 5) continue;
        const standing = compareArms(counts);
        kept = Number(standing.leader);
        if (standing.isDecided) break;
      }
      lost += Math.max(0, Math.max(...rates) / (rates[kept] ?? 1) - 1);
    }
    expect(lost / runs).toBeLessThan(0.025);
  }, 60_000);

  it('decides nothing before each version has had three posts, however far one leads', () => {
    const { isDecided, postsWanted, leader } = compareArms([arm('a', 4_000, 400, 1), arm('b', 40_000, 1_600, 20)]);
    expect([leader, isDecided, postsWanted]).toEqual(['a', false, 2]);
  });

  it('refuses one version alone', () => expect(() => compareArms([arm('a', 1, 1, 1)])).toThrow(RangeError));
});
