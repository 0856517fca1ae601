import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { backoffMs, FIRST_WAIT_MS, MAX_WAIT_MS } from './backoff.ts';

const seeds = fc.double({ min: 0, max: 0.999, noNaN: true });

describe('backoffMs', () => {
  it('stays between half the doubled wait and the cap', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), seeds, (attempt, seed) => {
        const wait = backoffMs(attempt, seed, null);
        expect(wait).toBeGreaterThanOrEqual(Math.min(MAX_WAIT_MS, FIRST_WAIT_MS * 2 ** (attempt - 1)) / 2);
        expect(wait).toBeLessThanOrEqual(MAX_WAIT_MS);
      }),
    );
  });

  it('never comes back before the network asked', () => {
    fc.assert(fc.property(seeds, fc.integer({ min: 0, max: 3_600_000 }), (seed, asked) => backoffMs(1, seed, asked) >= asked));
  });
});
