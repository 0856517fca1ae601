import { describe, expect, it } from 'vitest';
import { distanceFactor, suggestMoments, type SuggestInput } from './suggest.ts';
import { retimeMissed } from './hold.ts';
import { shuffleTiles, type Tile } from './shuffle.ts';
import { readTypedMoment } from './typed-moment.ts';

const input: SuggestInput = { zone: 'Europe/London', nowMs: Date.parse('2026-11-27T08:30Z'), days: 14, channels: [{ id: 'a', dailyMax: 4, leastGapMin: 60 }], themeId: null, neighbours: [], count: 5 };

describe('suggestions', () => {
  it('are the best moment of each of the best days, with reasons, in the order of time', () => {
    const made = suggestMoments(input);
    expect(made).toHaveLength(5);
    expect(new Set(made.map(({ wall }) => wall.slice(0, 10))).size).toBe(5);
    expect(made.map(({ atMs }) => atMs)).toEqual(made.map(({ atMs }) => atMs).toSorted((a, b) => a - b));
    expect(made[0]?.reasons).toEqual(['the busiest hours of the day', 'nothing else goes out on this channel that day']);
  });

  it('keep away from what is planned there, and from the past', () => {
    const [plain] = suggestMoments({ ...input, count: 1 });
    if (!plain) throw new Error('nothing was suggested');
    const moved = suggestMoments({ ...input, count: 14, neighbours: [{ channelId: 'a', atMs: plain.atMs, themeId: null }] });
    const thatDay = moved.find(({ wall }) => wall.startsWith(plain.wall.slice(0, 10)));
    expect(Math.abs((thatDay?.atMs ?? 0) - plain.atMs)).toBeGreaterThanOrEqual(3 * 3_600_000);
    expect(thatDay?.reasons.join()).toMatch(/1 other post on this channel that day, the nearest \d+ hours away/);
    expect(suggestMoments({ ...input, count: 30 }).every(({ atMs }) => atMs > input.nowMs)).toBe(true);
  });

  it('leave out a full day, and a theme that is out near by counts less', () => {
    const full = Array.from({ length: 4 }, (_, index) => ({ channelId: 'a', atMs: Date.parse('2026-11-29T06:00Z') + index * 60_000, themeId: null }));
    expect(suggestMoments({ ...input, neighbours: full, count: 30 }).some(({ wall }) => wall.startsWith('2026-11-29'))).toBe(false);
    const elsewhere = [{ channelId: 'b', atMs: Date.parse('2026-11-29T19:00Z'), themeId: 'k' }];
    const scoreOn = (themeId: string | null): number => suggestMoments({ ...input, themeId, neighbours: elsewhere, count: 30 }).find(({ wall }) => wall.startsWith('2026-11-29'))?.score ?? 0;
    expect(scoreOn('k')).toBeLessThan(scoreOn(null));
  });

  it('follow what posts of those hours had, and say so', () => {
    const hours = Array.from({ length: 168 }, (_, index) => ({ weekday: Math.floor(index / 24) + 1, hour: index % 24, effect: index % 24 === 10 ? 0.4 : -0.1, count: index % 24 === 10 ? 2 : 0 }));
    const made = suggestMoments({ ...input, hours });
    expect(made.every(({ wall }) => wall.endsWith('T10:00'))).toBe(true);
    expect(made[0]?.reasons).toContain('posts around then had +40% engagement (n 14)');
    expect(suggestMoments(input).some(({ wall }) => wall.endsWith('T10:00') && !wall.startsWith('2026-11-28') && !wall.startsWith('2026-11-29'))).toBe(false);
  });

  it('count distance from the least gap to three times that', () => expect([0, 59, 60, 120, 180, 1_000].map((minutes) => distanceFactor(minutes, 60))).toEqual([0, 0, 0, 0.5, 1, 1]));
});

describe('what was missed while everything was held', () => {
  const missed = [{ id: 'b', dueMs: 3 * 3_600_000, channelIds: ['y'] }, { id: 'a', dueMs: 3_600_000, channelIds: ['x'] }];
  const nowMs = 10 * 3_600_000;
  const slots = [{ key: '0', atMs: 1, channelIds: ['x'] }, { key: '1', atMs: nowMs + 1, channelIds: ['x', 'y'] }, { key: '2', atMs: nowMs + 2, channelIds: ['y'] }];
  it.each([
    ['now', [nowMs, nowMs]],
    ['slot', [nowMs + 1, nowMs + 2]],
    ['keep-order', [nowMs, nowMs + 2 * 3_600_000]],
    ['drop', [null, null]],
  ] as const)('is timed by the rule %s', (rule, expected) => {
    const made = retimeMissed(missed, rule, nowMs, slots);
    expect([made.map(({ id }) => id), made.map(({ atMs }) => atMs)]).toEqual([['a', 'b'], expected]);
  });
});

describe('a shuffled profile', () => {
  const tiles = Array.from({ length: 18 }, (_, index): Tile => ({ id: String(index), themeId: ['k', 'l', 'm'][index % 3] ?? null, template: ['x', 'y'][index % 2] ?? '', kind: 'graphic', mediaIds: [`p${index % 6}`], ground: { l: (index % 5) / 4, a: 0, b: 0 } }));
  const rules = { columns: 3, themeTwice: true, template: 0, picture: 2 };

  it('holds every tile once, gives each seed its own order, and the same one again', () => {
    const made = [1, 2, 1].map((seed) => shuffleTiles(tiles, [], rules, seed).map(({ id }) => id));
    expect(made[0]?.toSorted()).toEqual(tiles.map(({ id }) => id).toSorted());
    expect([made[0]?.join() === made[2]?.join(), made[0]?.join() === made[1]?.join()]).toEqual([true, false]);
  });

  it('puts no theme twice in a row and no picture within its distance, where that is possible', () => {
    for (let seed = 1; seed <= 8; seed += 1) {
      const made = shuffleTiles(tiles, [tiles[0] as Tile], rules, seed);
      expect(made.filter((tile, at) => made[at - 1]?.themeId === tile.themeId)).toEqual([]);
      expect(made.filter((tile, at) => made.slice(Math.max(0, at - 2), at).some(({ mediaIds }) => mediaIds[0] === tile.mediaIds[0]))).toEqual([]);
    }
  });
});

describe('a wall of two grounds', () => {
  const rules = { columns: 3, themeTwice: false, template: 0, picture: 0 };
  const wall = Array.from({ length: 18 }, (_, index): Tile => ({ id: String(index), themeId: null, template: String(index), kind: index % 4 === 0 ? 'carousel' : 'graphic', mediaIds: [], ground: index < 9 ? { l: 0.3, a: 0.1, b: 0 } : { l: 0.9, a: 0, b: 0.05 } }));
  const alike = (made: readonly Tile[]): number => made.reduce((sum, tile, at) => sum + [made[at - 1], made[at - rules.columns]].filter((other) => other?.ground === tile.ground || (other && Math.abs((other.ground?.l ?? 0) - (tile.ground?.l ?? 0)) < 0.1)).length, 0);

  it('lets them alternate as on a chessboard, nearly', () => {
    for (let seed = 1; seed <= 8; seed += 1) expect(alike(shuffleTiles(wall, [], rules, seed))).toBeLessThanOrEqual(alike(wall) / 3);
  });
});

describe('a typed moment', () => {
  const nowMs = Date.parse('2026-11-27T08:30Z');
  it.each([
    ['fri 9.30', '2026-11-27T09:30'],
    ['fri 8.15', '2026-12-04T08:15'],
    ['fri 18:00', '2026-11-27T18:00'],
    ['tomorrow 18h', '2026-11-28T18:00'],
    ['tomorrow', '2026-11-28T12:00'],
    ['18h', '2026-11-27T18:00'],
    ['7.15', '2026-11-28T07:15'],
    ['9h30', '2026-11-27T09:30'],
    ['next monday at 10', '2026-11-30T10:00'],
    ['24 december 9pm', '2026-12-24T21:00'],
    ['24.12. 9:00', '2026-12-24T09:00'],
    ['morgen 18 Uhr', '2026-11-28T18:00'],
    ['in 2 hours', '2026-11-27T10:30'],
    ['2026-12-01 08:05', '2026-12-01T08:05'],
    ['whenever', null],
    ['', null],
    ['fri 9.30 and something else', null],
  ])('%s is %s', (text, expected) => expect(readTypedMoment(text, 'Europe/London', nowMs, '2026-11-27T12:00')).toBe(expected));
});
