import { describe, expect, it } from 'vitest';
import { cellKey, cellsOf, groupItems, itemsOf, oncePerLane, reasonInWords } from './plan-items.ts';

const outing = (id: string, rest: Partial<Parameters<typeof itemsOf>[0]['outings'][number]> = {}) => ({ id, postId: 'p', pieceId: 'k', pieceName: 'Box Kite', kind: 'graphic' as const, channelId: 'a', state: 'scheduled' as const, dueMs: 100, wall: '2026-11-27T12:00', origin: 'person', themeId: null, campaignId: null, hasChanged: false, problem: null, ...rest });
const entry = { id: 'e', pieceId: null, name: 'Something', kind: null, themeId: null, campaignId: null, dueMs: 50, wall: '2026-11-27T08:00', slotKey: null, revision: 3, cuts: [{ channelId: 'a' }, { channelId: 'b' }, { channelId: 'a' }] };
const fill = (channelId: string, kind: 'waiting' | 'rotation' | 'open' = 'waiting') => ({ slotKey: 'r@2026-11-28', channelId, atMs: 200, wall: '2026-11-28T09:00', themeId: 't', kind, pieceId: kind === 'open' ? null : 'k', pieceName: kind === 'open' ? null : 'Box Kite', why: kind === 'open' ? ('gap' as const) : null });

describe('items of the plan', () => {
  it('stand in the order of time, an entry once a channel, each with its state', () => {
    const items = itemsOf({ outings: [outing('1')], entries: [entry, { ...entry, id: 'f', pieceId: 'k', dueMs: 60 }], fills: [fill('a', 'open'), fill('b', 'rotation')] });
    expect(items.map(({ state, channelId, time }) => [state, channelId, time])).toEqual([
      ['placeholder', 'a', '08:00'], ['placeholder', 'b', '08:00'], ['draft', 'a', '08:00'], ['draft', 'b', '08:00'], ['scheduled', 'a', '12:00'], ['open', 'a', '09:00'], ['rotation', 'b', '09:00'],
    ]);
    expect(reasonInWords(items.find(({ why }) => why !== null)?.why ?? 'nothing-waits')).toBe('Another post on this channel is too close.');
  });

  it('of one post, entry or piece in a slot are one group with its channels; a failed one stands for it', () => {
    const items = itemsOf({ outings: [outing('1'), outing('2'), outing('3', { channelId: 'b', state: 'failed' }), outing('4', { dueMs: 900 })], entries: [entry], fills: [fill('a'), fill('b')] });
    expect(groupItems(items).map(({ first, channels }) => [first.state, channels])).toEqual([['placeholder', 2], ['failed', 2], ['waiting', 2], ['scheduled', 1]]);
  });

  it('stand once in a lane where a post goes to several places of its channel, and in the cell of their day', () => {
    const items = oncePerLane(itemsOf({ outings: [outing('1'), outing('2', { state: 'failed' }), outing('3', { channelId: 'b' })], entries: [], fills: [] }));
    expect(items.map(({ key, state }) => [key, state])).toEqual([['2', 'failed'], ['3', 'scheduled']]);
    expect(cellsOf(items).get(cellKey('b', '2026-11-27'))?.map(({ key }) => key)).toEqual(['3']);
  });
});
