import { describe, expect, it } from 'vitest';
import { deliveryStates, type DeliveryState } from './delivery-state.ts';
import { findRepeats, SAME_MOMENT_MS } from './repeats.ts';

const cut = { channelId: 'c', placement: 'story' };
const before = (dueMs: number, state: DeliveryState = 'scheduled') => ({ ...cut, dueMs, state });
const planned = { ...cut, dueMs: 5_000_000 };

describe('outings of a cut that is on its way already', () => {
  it.each(deliveryStates)('count while it is %s, unless nothing of it goes out', (state) => {
    expect(findRepeats([before(0, state)], [planned]).length).toBe(['failed', 'cancelled', 'removed'].includes(state) ? 0 : 1);
  });

  it('are the same within a minute, and again at any other moment', () => {
    expect(findRepeats([before(planned.dueMs + SAME_MOMENT_MS - 1)], [planned])).toMatchObject([{ kind: 'same' }]);
    expect(findRepeats([before(planned.dueMs - SAME_MOMENT_MS)], [planned])).toMatchObject([{ kind: 'again' }]);
  });

  it('are held against the nearest of several, and never against another place', () => {
    expect(findRepeats([before(1), before(planned.dueMs + 90_000), before(9_999_999)], [planned])[0]?.before.dueMs).toBe(planned.dueMs + 90_000);
    expect(findRepeats([{ ...before(planned.dueMs), placement: 'feed' }, { ...before(planned.dueMs), channelId: 'd' }], [planned])).toEqual([]);
  });
});
