import { describe, expect, it } from 'vitest';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import type { PictureFacts } from './picture-facts.ts';
import { salientBox } from './salient-box.ts';

/** Facts of a picture of ten by ten cells, with what stands out in each. */
function factsWith(standsOut: (column: number, row: number) => number): PictureFacts {
  return { ...testPicture().facts, columns: 10, rows: 10, saliency: Array.from({ length: 100 }, (_, cell) => standsOut(cell % 10, Math.floor(cell / 10))) };
}

const isIn = (value: number, from: number, to: number): boolean => value >= from && value <= to;
const kite = factsWith((column, row) => (isIn(column, 5, 7) && isIn(row, 1, 3) ? 200 : column === 0 ? 180 : 10));

describe('salientBox', () => {
  it('goes around what stands out at the focal point and hangs together, not what stands out elsewhere', () => {
    const box = salientBox(kite, { x: 0.62, y: 0.25 });
    expect(box?.x).toBeCloseTo(0.5);
    expect(box?.y).toBeCloseTo(0.1);
    expect(box?.width).toBeCloseTo(0.3);
    expect(box?.height).toBeCloseTo(0.3);
  });

  it('finds the thing from a plain middle that stands out less than its edges', () => {
    const ring = factsWith((column, row) => (isIn(column, 4, 6) && isIn(row, 4, 6) && !(column === 5 && row === 5) ? 200 : 20));
    expect(salientBox(ring, { x: 0.55, y: 0.55 })).toMatchObject({ x: 0.4, y: 0.4, width: 0.3 });
  });

  it('is nothing where the focal point lies on plain ground, or nearly all stands out', () => {
    expect(salientBox(kite, { x: 0.3, y: 0.8 })).toBeNull();
    expect(salientBox(factsWith((_, row) => (row === 4 ? 200 : 10)), { x: 0.5, y: 0.45 })).toBeNull();
    expect(salientBox(factsWith(() => 90), { x: 0.5, y: 0.5 })).toBeNull();
  });
});
