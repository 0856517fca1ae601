import { describe, expect, it } from 'vitest';
import { fromRow } from './row.ts';

describe('fromRow', () => {
  it('names columns as properties, and leaves their values alone', () => {
    const at = new Date(0);
    expect(fromRow({ id: 'a', due_ms: 3, access_ends_ms: null, idempotency_key: 'k_e_y', at })).toEqual({ id: 'a', dueMs: 3, accessEndsMs: null, idempotencyKey: 'k_e_y', at });
  });

  it('takes columns that are new after others, and rows with fewer of them', () => {
    expect(fromRow({ due_ms: 1 })).toEqual({ dueMs: 1 });
    expect(fromRow({ not_before_ms: 2, due_ms: 5 })).toEqual({ notBeforeMs: 2, dueMs: 5 });
    expect(fromRow({})).toEqual({});
  });
});
