import { expect, it } from 'vitest';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { byFocal } from './by-focal.ts';

it('looks once at each focal point of each picture, also where it finds nothing', () => {
  const looked: string[] = [];
  const find = byFocal(({ columns }, { x, y }) => {
    looked.push(`${columns} ${x} ${y}`);
    return x < 0.5 ? null : x;
  });
  const [one, other] = [testPicture().facts, { ...testPicture().facts, columns: 7 }];
  const [left, right] = [{ x: 0.2, y: 0.5 }, { x: 0.8, y: 0.5 }];
  expect([find(one, left), find(one, right), find(one, left), find(one, right), find(other, right)]).toEqual([null, 0.8, null, 0.8, 0.8]);
  expect(looked).toEqual([`${one.columns} 0.2 0.5`, `${one.columns} 0.8 0.5`, '7 0.8 0.5']);
});
