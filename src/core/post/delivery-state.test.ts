import { describe, expect, it } from 'vitest';
import { canDelivery, deliveryStates, IllegalTransitionError, nextDeliveryState, statesAllowing, type DeliveryEvent } from './delivery-state.ts';

const expected: Record<string, string> = {
  'in review approve': 'scheduled',
  'in review cancel': 'cancelled',
  'scheduled ask-again': 'in review',
  'held ask-again': 'in review',
  'sending hand-over': 'by hand',
  'sending pause': 'held',
  'by hand place': 'sent',
  'by hand cancel': 'cancelled',
  'sent remove': 'removed',
  'scheduled claim': 'sending',
  'scheduled cancel': 'cancelled',
  'scheduled hold': 'held',
  'held release': 'scheduled',
  'held cancel': 'cancelled',
  'sending claim': 'sending',
  'sending confirm': 'sent',
  'sending postpone': 'scheduled',
  'sending refuse': 'failed',
  'failed retry': 'scheduled',
  'failed cancel': 'cancelled',
};
const events: DeliveryEvent[] = ['approve', 'ask-again', 'claim', 'confirm', 'postpone', 'refuse', 'hand-over', 'place', 'cancel', 'retry', 'hold', 'pause', 'release', 'remove'];
const pairs = deliveryStates.flatMap((state) => events.map((event) => [state, event] as const));

describe('nextDeliveryState', () => {
  it.each(pairs)('%s, %s', (state, event) => {
    const next = expected[`${state} ${event}`];
    expect(canDelivery(state, event)).toBe(next !== undefined);
    if (next) expect(nextDeliveryState(state, event)).toBe(next);
    else expect(() => nextDeliveryState(state, event)).toThrow(IllegalTransitionError);
  });

  it('names where an event can start', () => {
    expect(statesAllowing('claim')).toEqual(['scheduled', 'sending']);
    expect(statesAllowing('confirm')).toEqual(['sending']);
    expect(statesAllowing('hold')).toEqual(['scheduled']);
  });
});
