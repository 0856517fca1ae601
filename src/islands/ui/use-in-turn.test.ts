import { describe, expect, it } from 'vitest';
import { onePartMore } from './use-in-turn.ts';

const rows = ['a', 'b', 'c', 'd', 'e'].map((key) => ({ key }));

describe('rows drawn in turn', () => {
  it('grow by one part a frame until all are whole', () => {
    let drawn: ReturnType<typeof onePartMore> = new Map([['c', 3]]);
    const sums = Array.from({ length: 14 }, () => {
      drawn = onePartMore(rows, drawn, 3);
      return [...drawn.values()].reduce((sum, parts) => sum + parts, 0);
    });
    expect(sums).toEqual([4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 15, 15]);
  });

  it('show something of each row before any is finished, the middle of the view first', () => {
    const order: string[] = [];
    let drawn: ReturnType<typeof onePartMore> = new Map([['a', 1]]);
    for (let frame = 0; frame < 5; frame += 1) {
      const next = onePartMore(rows, drawn, 2);
      order.push(rows.find(({ key }) => next.get(key) !== drawn.get(key))?.key ?? '');
      drawn = next;
    }
    expect(order).toEqual(['c', 'b', 'd', 'e', 'c']);
  });

  it('forget what has left the view', () => {
    expect([...onePartMore(rows, new Map([['z', 2], ['b', 2]]), 2).keys()].sort()).toEqual(['b', 'c']);
  });
});
