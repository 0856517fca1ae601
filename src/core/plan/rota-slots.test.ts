import { describe, expect, it } from 'vitest';
import { planWith, ruleOf } from '../../../tests/fixtures/plan.ts';
import { readPlan } from './plan.ts';
import { findSlot, slotsOf, weekOfCycle } from './rota-slots.ts';

const at = (text: string): number => Date.parse(text);
const keys = (plan: Parameters<typeof slotsOf>[0], from: string, to: string, zone = 'Europe/London'): readonly string[] => slotsOf(plan, zone, at(from), at(to)).map(({ key, time }) => `${key} ${time}`);

describe('slots of a rota', () => {
  it('come every week, in the order of time, within the span: its start is part of it, its end is not', () => {
    const plan = planWith([ruleOf('b', 2, '18:00'), ruleOf('a', 2, '09:00'), ruleOf('c', 7, '12:00')]);
    expect(keys(plan, '2026-11-24T09:00Z', '2026-12-01T18:00Z')).toEqual(['a@2026-11-24 09:00', 'b@2026-11-24 18:00', 'c@2026-11-29 12:00', 'a@2026-12-01 09:00']);
  });

  it('keep their wall time through changes of clocks', () => {
    const slots = slotsOf(planWith([ruleOf('a', 7, '02:30')]), 'Europe/Berlin', at('2026-10-18T00:00Z'), at('2026-11-02T00:00Z'));
    expect(slots.map(({ atMs, change }) => `${new Date(atMs).toISOString().slice(5, 16)} ${change}`)).toEqual(['10-18T00:30 none', '10-25T00:30 first', '11-01T01:30 none']);
  });

  it('follow the week of the cycle, the season and the pauses', () => {
    const cycle = planWith([ruleOf('a', 1, '09:00', { week: 0 }), ruleOf('b', 1, '09:00', { week: 1 })], { weeks: 2 });
    expect(keys(cycle, '2026-11-23T00:00Z', '2026-12-14T12:00Z')).toEqual(['a@2026-11-23 09:00', 'b@2026-11-30 09:00', 'a@2026-12-07 09:00', 'b@2026-12-14 09:00']);
    expect([weekOfCycle(cycle.rota, '2026-11-22'), weekOfCycle(cycle.rota, '2026-11-16')]).toEqual([1, 1]);
    const season = planWith([ruleOf('a', 1, '09:00', { from: '2026-11-30', until: '2026-12-07' })], { pauses: [{ id: 'p', name: 'Stocktaking', from: '2026-12-01', until: '2026-12-07' }] });
    expect(keys(season, '2026-11-20T00:00Z', '2026-12-20T00:00Z')).toEqual(['a@2026-11-30 09:00']);
  });

  it('are found by their key, also after their rule has another time', () => {
    const plan = planWith([ruleOf('a', 1, '09:00')]);
    const moved = planWith([ruleOf('a', 1, '11:00')]);
    expect([findSlot(plan, 'Europe/London', 'a@2026-11-30')?.time, findSlot(moved, 'Europe/London', 'a@2026-11-30')?.time]).toEqual(['09:00', '11:00']);
    expect([findSlot(plan, 'Europe/London', 'a@2026-12-01'), findSlot(plan, 'Europe/London', 'gone@2026-11-30'), findSlot(plan, 'Europe/London', 'nonsense')]).toEqual([null, null, null]);
  });
});

describe('a plan from JSON', () => {
  it('is refused with two slots of one channel at one minute, unless their seasons or weeks are apart', () => {
    const two = [ruleOf('a', 1, '09:00'), ruleOf('b', 1, '09:00')] as const;
    expect(() => readPlan(planWith(two))).toThrow('Two slots at 09:00');
    for (const other of [{ channelIds: ['b'] }, { weekday: 2 }, { time: '09:01' }]) expect(readPlan(planWith([two[0], { ...two[1], ...other }])).rota.rules).toHaveLength(2);
    expect(readPlan(planWith([{ ...two[0], until: '2026-12-01' }, { ...two[1], from: '2026-12-02' }])).rota.rules).toHaveLength(2);
    expect(readPlan(planWith([two[0], { ...two[1], week: 1 }], { weeks: 2 })).rota.rules).toHaveLength(2);
  });

  it.each([
    ['a day that there is not', planWith([ruleOf('a', 1, '09:00', { from: '2026-02-30' })])],
    ['a time that there is not', planWith([ruleOf('a', 1, '25:00')])],
    ['a slot for no channel', planWith([ruleOf('a', 1, '09:00', { channelIds: [] })])],
    ['a pause that ends before it begins', planWith([], { pauses: [{ id: 'p', name: 'P', from: '2026-12-02', until: '2026-12-01' }] })],
    ['a cycle that begins on a Tuesday', { ...planWith([]), rota: { ...planWith([]).rota, anchor: '2026-11-24' } }],
  ])('is refused with %s', (_, plan) => expect(() => readPlan(plan)).toThrow());
});
