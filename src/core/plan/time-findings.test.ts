import { describe, expect, it } from 'vitest';
import { timeFindings, type TimeCheck } from './time-findings.ts';

const atMs = Date.parse('2026-12-25T12:00Z');
const check: TimeCheck = { atMs, day: '2026-12-25', zone: 'Europe/London', nowMs: Date.parse('2026-12-01T09:00Z'), channels: [{ id: 'a', name: 'Petalry', dailyMax: 2, leastGapMin: 10 }], planned: [], days: [] };
const planned = (minutes: number, name = 'Box Kite') => ({ channelId: 'a', atMs: atMs + minutes * 60_000, day: '2026-12-25', name });
const said = (rest: Partial<TimeCheck>): readonly string[] => timeFindings({ ...check, ...rest }).map(({ severity, sentence }) => `${severity}: ${sentence}`);

describe('the moment of a post', () => {
  it('is fine where nothing stands against it', () => expect(said({})).toEqual([]));
  it('cannot be past', () => expect(said({ nowMs: atMs })).toEqual(['stops: Fri 25 Dec 2026, 12:00 London has passed. Choose a later moment.']));
  it('keeps the network’s gap, and is warned about within the hour', () => {
    expect(said({ planned: [planned(5)] })).toEqual(['stops: Petalry wants 10 minutes between two posts; “Box Kite” goes out 5 minutes away.']);
    expect(said({ planned: [planned(-30)] })).toEqual(['warns: “Box Kite” goes out on Petalry 30 minutes away.']);
    expect(said({ planned: [planned(0)], channels: [{ ...(check.channels[0] as TimeCheck['channels'][number]), leastGapMin: 0 }] })).toEqual(['warns: “Box Kite” goes out on Petalry at the same time.']);
    expect(said({ planned: [planned(60), { ...planned(1), channelId: 'b' }] })).toEqual([]);
  });
  it('cannot be on a full day', () => expect(said({ planned: [planned(300), planned(-300)] })).toEqual(['stops: Petalry takes 2 posts a day, and 2 are planned on 2026-12-25. Choose another day.']));
  it('is told of holidays and pauses, not of days of one’s own', () => {
    const days = [{ day: '2026-12-25', until: '2026-12-25', name: 'Christmas Day', of: 'GB' }, { day: '2026-12-24', until: '2026-12-26', name: 'Loft closed', of: 'pause' }, { day: '2026-12-25', until: '2026-12-25', name: 'Our day', of: 'own' }];
    expect(said({ days })).toEqual(['warns: 2026-12-25 is Christmas Day: many readers are off then.', 'warns: The rota pauses on 2026-12-25: Loft closed.']);
  });
});
