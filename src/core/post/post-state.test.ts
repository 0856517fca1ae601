import { describe, expect, it } from 'vitest';
import type { DeliveryState } from './delivery-state.ts';
import { postStateOf } from './post-state.ts';

describe('the state of a post', () => {
  it.each<[string, DeliveryState[]]>([
    ['scheduled', ['scheduled']],
    ['scheduled', ['scheduled', 'sent', 'failed', 'cancelled']],
    ['sending', ['scheduled', 'sending', 'sent']],
    ['held', ['held', 'sent', 'failed']],
    ['in review', ['in review', 'in review', 'cancelled']],
    ['by hand', ['by hand', 'sent', 'failed', 'held']],
    ['scheduled', ['by hand', 'scheduled']],
    ['out', ['sent', 'removed']],
    ['removed', ['removed', 'cancelled']],
    ['out', ['sent', 'sent']],
    ['out', ['sent', 'cancelled']],
    ['partly out', ['sent', 'failed']],
    ['failed', ['failed', 'cancelled']],
    ['cancelled', ['cancelled', 'cancelled']],
  ])('is %s with %j', (state, deliveries) => {
    expect(postStateOf(deliveries)).toBe(state);
    expect(postStateOf(deliveries.toReversed())).toBe(state);
  });

  it('does not exist without deliveries', () => {
    expect(() => postStateOf([])).toThrow(RangeError);
  });
});
