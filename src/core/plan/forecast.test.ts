import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planWith, ruleOf, themeOf } from '../../../tests/fixtures/plan.ts';
import { forecast, runwayDays, type Fixed, type ForecastInput, type Waiting } from './forecast.ts';
import { slotsOf } from './rota-slots.ts';
import type { Rotation } from './rotation.ts';

const ZONE = 'Europe/London';
const from = Date.parse('2026-11-23T00:00Z');
const week = 7 * 86_400_000;
const waits = (id: string, rest: Partial<Waiting> = {}): Waiting => ({ id, pieceId: `piece-${id}`, channelId: 'a', themeId: null, template: 't', mediaIds: [], ...rest });
const lane = { id: 'a', dailyMax: 10, leastGapMin: 1 };
const inputOf = (plan: ReturnType<typeof planWith>, rest: Partial<ForecastInput> = {}, weeks = 2): ForecastInput => ({ plan, slots: slotsOf(plan, ZONE, from, from + weeks * week), channels: [lane], waiting: [], rotations: [], runs: [], fixed: [], ...rest });
const shown = (input: ForecastInput): readonly string[] => forecast(input).fills.map(({ slot, filling }) => `${slot.day.slice(5)} ${filling.kind === 'open' ? filling.why : filling.kind === 'waiting' ? filling.entryId : `${filling.pair.wording}${filling.pair.picture}`}`);
const tuesdays = planWith([ruleOf('r', 2, '09:00')]);
const fixedAt = (wall: string, rest: Partial<Fixed> = {}): Fixed => ({ channelId: 'a', atMs: Date.parse(`${wall}Z`), day: wall.slice(0, 10), slotKey: null, themeId: null, template: null, mediaIds: [], ...rest });
const evergreen: Rotation = { pieceId: 'green', themeId: null, template: 'g', channelIds: ['a'], wordings: ['1'], pictures: ['x', 'y'], pairDays: 30, restDays: 1, lastDay: null, maxRuns: null, season: null };

describe('filling slots', () => {
  it('takes what waits in its order, then what is evergreen, and says why a slot stays open', () => {
    expect(shown(inputOf(tuesdays, { waiting: [waits('1')] }))).toEqual(['11-24 1', '12-01 nothing-waits']);
    expect(shown(inputOf(tuesdays, { waiting: [waits('1')], rotations: [evergreen] }, 4))).toEqual(['11-24 1', '12-01 1x', '12-08 1y', '12-15 pairs-rest']);
  });

  it('gives a theme’s slot to that theme alone, and a slot without one to whatever comes next', () => {
    const plan = planWith([ruleOf('r', 2, '09:00', { themeId: 'kites' }), ruleOf('s', 3, '09:00')], { themes: [themeOf('kites'), themeOf('loft')] });
    expect(shown(inputOf(plan, { waiting: [waits('1', { themeId: 'loft' }), waits('2', { themeId: 'kites' })] }))).toEqual(['11-24 2', '11-25 1', '12-01 nothing-waits', '12-02 nothing-waits']);
  });

  it('leaves out channels that a theme does not go to', () => {
    const plan = planWith([ruleOf('r', 2, '09:00', { themeId: 'kites', channelIds: ['a', 'b'] })], { themes: [themeOf('kites', ['b'])] });
    const { fills } = forecast(inputOf(plan, { channels: [lane, { ...lane, id: 'b' }], waiting: [waits('1', { themeId: 'kites' }), waits('2', { themeId: 'kites', channelId: 'b' })] }, 1));
    expect(fills.map(({ channelId, filling }) => [channelId, filling.kind])).toEqual([['b', 'waiting']]);
  });

  it('keeps the network’s gap and daily maximum, from both sides', () => {
    const plan = planWith([ruleOf('r', 2, '09:00'), ruleOf('s', 2, '12:00')]);
    const near = { ...lane, leastGapMin: 60 };
    expect(shown(inputOf(plan, { channels: [near], waiting: [waits('1'), waits('2')], fixed: [fixedAt('2026-11-24T09:30')] }, 1))).toEqual(['11-24 gap', '11-24 1']);
    expect(shown(inputOf(plan, { channels: [{ ...lane, dailyMax: 1 }], waiting: [waits('1'), waits('2')] }, 1))).toEqual(['11-24 1', '11-24 day-full']);
  });

  it('keeps templates and pictures apart, and takes the next that fits', () => {
    const plan = { ...planWith([ruleOf('r', 2, '09:00'), ruleOf('s', 3, '09:00'), ruleOf('u', 4, '09:00')]), apart: { themeTwice: false, template: 1, picture: 1 } };
    const queue = [waits('1', { template: 'x', mediaIds: ['m'] }), waits('2', { template: 'x' }), waits('3', { template: 'y', mediaIds: ['m'] }), waits('4', { template: 'z' })];
    expect(shown(inputOf(plan, { waiting: queue }, 1))).toEqual(['11-24 1', '11-25 4', '11-26 2']);
    const twice = { ...planWith([ruleOf('r', 2, '09:00'), ruleOf('s', 3, '09:00')], { themes: [themeOf('k')] }), apart: { themeTwice: true, template: 0, picture: 0 } };
    expect(shown(inputOf(twice, { waiting: [waits('1', { themeId: 'k' }), waits('2', { themeId: 'k' })] }, 1))).toEqual(['11-24 1', '11-25 theme-twice']);
  });

  it('does not fill what a person has filled, and tells when a lane runs dry', () => {
    const taken = fixedAt('2026-11-24T09:00', { slotKey: 'r@2026-11-24' });
    const made = forecast(inputOf(tuesdays, { waiting: [waits('1')], fixed: [taken] }, 3));
    expect(made.fills.map(({ slot }) => slot.day)).toEqual(['2026-12-01', '2026-12-08']);
    const [found] = [...made.lanes.values()];
    expect(found).toMatchObject({ slots: 2, open: 1, left: [], dryAtMs: Date.parse('2026-12-08T09:00Z') });
    expect(runwayDays({ dryAtMs: found?.dryAtMs ?? null }, from)).toBe(15);
    expect(runwayDays({ dryAtMs: null }, from)).toBeNull();
  });
});

describe('whatever waits, and wherever', () => {
  const anyPlan = planWith([ruleOf('r', 1, '09:00', { themeId: 'k', channelIds: ['a', 'b'] }), ruleOf('s', 3, '12:00', { channelIds: ['a', 'b'] }), ruleOf('u', 3, '12:20'), ruleOf('v', 6, '18:00', { themeId: 'l' })], { themes: [themeOf('k'), themeOf('l', ['a'])] });
  const queues = fc.array(fc.record({ channelId: fc.constantFrom('a', 'b'), themeId: fc.constantFrom(null, 'k', 'l'), template: fc.constantFrom('x', 'y'), mediaIds: fc.subarray(['m', 'n', 'o']) }), { maxLength: 30 }).map((all) => all.map((each, index) => waits(String(index), each)));
  const rules = fc.record({ themeTwice: fc.boolean(), template: fc.integer({ min: 0, max: 2 }), picture: fc.integer({ min: 0, max: 3 }) });
  const inputs = fc.tuple(queues, rules).map(([waiting, apart]) => inputOf({ ...anyPlan, apart }, { waiting, rotations: [evergreen], channels: [{ ...lane, leastGapMin: 30 }, { ...lane, id: 'b' }] }, 6));

  it('no piece is lost or doubled, and no slot holds two', () => {
    fc.assert(
      fc.property(inputs, (input) => {
        const { fills, lanes } = forecast(input);
        const placed = fills.flatMap(({ filling }) => (filling.kind === 'waiting' ? [filling.entryId] : []));
        const left = [...lanes.values()].flatMap((each) => each.left);
        // A piece of a theme that does not go to its channel is not that channel's to place.
        const possible = input.waiting.filter(({ channelId, themeId }) => !(channelId === 'b' && themeId === 'l')).map(({ id }) => id);
        expect([...placed, ...left].toSorted()).toEqual(possible.toSorted());
        expect(new Set(fills.map(({ slot, channelId }) => `${slot.key} ${channelId}`)).size).toBe(fills.length);
      }),
    );
  });

  it('the answer is the same in whatever order channels and rotations arrive, and what is made first stays when the horizon grows', () => {
    fc.assert(
      fc.property(inputs, (input) => {
        const plain = JSON.stringify(forecast(input).fills);
        expect(JSON.stringify(forecast({ ...input, channels: input.channels.toReversed(), fixed: input.fixed.toReversed() }).fills)).toBe(plain);
        const short = forecast({ ...input, slots: input.slots.slice(0, 8) }).fills;
        expect(JSON.stringify(forecast(input).fills.slice(0, short.length))).toBe(JSON.stringify(short));
      }),
    );
  });

  it('entries of one channel and theme keep their order unless a rule forbids it', () => {
    fc.assert(
      fc.property(queues, (waiting) => {
        const { fills } = forecast(inputOf(anyPlan, { waiting, channels: [lane, { ...lane, id: 'b' }] }, 6));
        for (const channelId of ['a', 'b']) {
          for (const themeId of [null, 'k', 'l']) {
            const order = fills.flatMap(({ channelId: at, filling }) => (at === channelId && filling.kind === 'waiting' && waiting.find(({ id }) => id === filling.entryId)?.themeId === themeId ? [Number(filling.entryId)] : []));
            expect(order).toEqual(order.toSorted((x, y) => x - y));
          }
        }
      }),
    );
  });
});
