import { describe, expect, it } from 'vitest';
import type { Cut } from '../use-cuts.ts';
import { placesOf } from '../../../core/cut/places.ts';
import { afterScheduling, choose, followShared, rowsOf, type Choices, type EarlierDelivery } from './places.ts';

const cut = (channel: string, placement: string, surface: string, [width, height]: readonly [number, number], slides = 1): Cut =>
  ({ key: `${channel}.${placement}`, channel: { id: channel, name: channel.toUpperCase() }, placement: { key: placement, name: placement, surface, exportPx: { width, height } }, slides: Array.from({ length: slides }) }) as unknown as Cut;
const cuts = [cut('a', 'square', 'feed', [1080, 1080]), cut('a', 'portrait', 'feed', [1080, 1350]), cut('a', 'story', 'story', [1080, 1920]), cut('b', 'wide', 'feed', [1600, 900])];
const shared = { wall: '2026-12-01T09:00' };
const rows = (choices: Choices = {}, deliveries: readonly EarlierDelivery[] | null = []) => rowsOf(placesOf(cuts), choices, shared, deliveries);

describe('rows of places', () => {
  it('are one a surface of a channel, with the tallest of its cuts, or the one with more slides', () => {
    expect(rows().map(({ place, cut: { key } }) => [place.name, key])).toEqual([['A feed', 'a.portrait'], ['A story', 'a.story'], ['B feed', 'b.wide']]);
    const [first] = rowsOf(placesOf([cut('a', 'square', 'feed', [1080, 1080], 5), cut('a', 'portrait', 'feed', [1080, 1350])]), {}, shared, []);
    expect(first?.cut.key).toBe('a.square');
  });

  it('are ticked until the piece is scheduled or out somewhere, and then until somebody ticks them again', () => {
    const out = { channelId: 'a', placement: 'square', state: 'sent', dueMs: 5 } as const;
    expect(rows({}, [out, { ...out, dueMs: 9, state: 'scheduled' }]).map(({ isOn, earlier }) => [isOn, earlier?.dueMs ?? null])).toEqual([[false, 9], [false, null], [false, null]]);
    expect(rows({ 'a.feed': { isOn: true } }, [out])[0]?.isOn).toBe(true);
    expect(rows({}, [{ ...out, state: 'failed' }, { ...out, state: 'cancelled' }])[0]).toMatchObject({ isOn: true, earlier: null });
  });

  it('are not ticked while it is not known where the piece goes out already, so that no tick goes away by itself', () => {
    expect(rows({}, null).map(({ isOn }) => isOn)).toEqual([false, false, false]);
  });

  it('go out at the shared moment, or at one of their own, which ticks them', () => {
    const own = { wall: '2026-12-02T18:00' };
    const choices = choose(choose({}, 'b.feed', { isOn: false }), 'b.feed', { moment: own });
    expect(rows(choices).map(({ moment, hasOwnMoment, isOn }) => [moment.wall, hasOwnMoment, isOn])).toEqual([[shared.wall, false, true], [shared.wall, false, true], [own.wall, true, true]]);
    expect(rows(followShared(choices, 'b.feed'))[2]).toMatchObject({ moment: shared, hasOwnMoment: false, isOn: true });
  });

  it('that a person left out stay out once the others are scheduled, also in a page that is opened anew', () => {
    const choices = choose(choose(choose({}, 'a.feed', { isOn: true }), 'a.story', { isOn: false }), 'b.feed', { isOn: false });
    const out = { channelId: 'a', placement: 'portrait', state: 'scheduled', dueMs: 5 } as const;
    for (const kept of [afterScheduling(choices), {}]) expect(rows(kept, [out]).map(({ isOn }) => isOn)).toEqual([false, false, false]);
    expect(rows(afterScheduling(choose({}, 'a.feed', { moment: { wall: '2026-12-02T18:00' } })))[0]).toMatchObject({ isOn: true, hasOwnMoment: true });
  });

  it('take the cut that a person has chosen', () => {
    expect(rows(choose({}, 'a.feed', { cutKey: 'a.square' }))[0]?.cut.key).toBe('a.square');
  });
});
