import { describe, expect, it } from 'vitest';
import { addDays } from '../time/day.ts';
import { distinctPosts, isInRotationSeason, RotationHistory, type Rotation } from './rotation.ts';

const rotation: Rotation = { pieceId: 'p', themeId: null, template: 't', channelIds: ['a'], wordings: ['1', '2', '3'], pictures: ['x', 'y', 'z', 'u', 'v', 'w', 's'], pairDays: 60, restDays: 7, lastDay: null, maxRuns: null, season: null };

const runFor = (given: Rotation, outings: number, stepDays: number): readonly string[] => {
  const history = new RotationHistory();
  return Array.from({ length: outings }, (_, index) => {
    const day = addDays('2026-01-01', index * stepDays);
    const turn = history.turn(given, day);
    if (turn.kind === 'rests') return turn.why;
    history.note({ ...turn.pair, day });
    return `${turn.pair.wording}${turn.pair.picture}`;
  });
};

describe('a rotation', () => {
  it('makes as many posts as it has wordings times pictures, and shows each before any comes again', () => {
    expect(distinctPosts(rotation)).toBe(21);
    const ran = runFor(rotation, 42, 7);
    expect(new Set(ran.slice(0, 21)).size).toBe(21);
    expect(ran.slice(21)).toEqual(ran.slice(0, 21));
  });

  it('changes both the wording and the picture from one time to the next', () => {
    const ran = runFor(rotation, 21, 7);
    for (let at = 1; at < 8; at += 1) expect([ran[at]?.[0] === ran[at - 1]?.[0], ran[at]?.[1] === ran[at - 1]?.[1]]).toEqual([false, false]);
  });

  it('shows no pair twice within its days, and rests instead', () => {
    const two = { ...rotation, wordings: ['1'], pictures: ['x', 'y'], restDays: 1 };
    expect(runFor(two, 4, 7)).toEqual(['1x', '1y', 'pairs-rest', 'pairs-rest']);
    expect(runFor({ ...two, pairDays: 14 }, 4, 7)).toEqual(['1x', '1y', '1x', '1y']);
  });

  it('rests between two times, ends by day or number, and keeps to its season', () => {
    expect(runFor({ ...rotation, restDays: 10 }, 3, 7)).toEqual(['1x', 'rests', '2y']);
    expect(runFor({ ...rotation, lastDay: '2026-01-10' }, 3, 7)).toEqual(['1x', '2y', 'ended']);
    expect(runFor({ ...rotation, maxRuns: 1 }, 2, 7)).toEqual(['1x', 'ran-out']);
    expect(runFor({ ...rotation, season: { from: '05-01', until: '09-30' } }, 1, 7)).toEqual(['out-of-season']);
    expect(['2026-12-31', '2026-01-02', '2026-06-01'].map((day) => isInRotationSeason({ from: '11-15', until: '01-10' }, day))).toEqual([true, true, false]);
  });
});
