import { describe, expect, it } from 'vitest';
import { overtake } from './overtake.ts';
import type { PaintRequest } from './wall-protocol.ts';

const request = (id: number, again: PaintRequest['again']): PaintRequest => ({ kind: 'paint', id, cuts: [], ghosts: false, again });

describe('a request that overtakes another', () => {
  it('sends again what either was to send again', () => {
    expect(overtake(request(1, ['a', 'b']), request(2, ['b', 'c']))).toEqual(request(2, ['a', 'b', 'c']));
  });

  it('sends all again where one of them had to', () => {
    expect(overtake(request(1, 'all'), request(2, [])).again).toBe('all');
    expect(overtake(request(1, ['a']), request(2, 'all')).again).toBe('all');
  });
});
