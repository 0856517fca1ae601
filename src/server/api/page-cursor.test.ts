import { describe, expect, it } from 'vitest';
import { ProblemError } from '../errors.ts';
import { nextCursor, readCursor } from './page-cursor.ts';

const key = (item: { ms: number; id: string }) => item;

describe('page cursors', () => {
  it('are read back as they were written', () => {
    const cursor = nextCursor([{ ms: 5, id: 'a_b-C' }], 1, key);
    expect(readCursor(cursor ?? undefined)).toEqual({ ms: 5, id: 'a_b-C' });
    expect(readCursor(undefined)).toBeNull();
  });

  it('end with the last page', () => {
    expect(nextCursor([{ ms: 5, id: 'a' }], 2, key)).toBeNull();
    expect(nextCursor([], 2, key)).toBeNull();
  });

  it.each(['', '5', 'x_y', "5_a'; DROP TABLE media", `5_${'a'.repeat(60)}`])('refuses %j', (text) => {
    expect(() => readCursor(text)).toThrow(ProblemError);
  });
});
