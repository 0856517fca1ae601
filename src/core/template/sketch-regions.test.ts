import { describe, expect, it } from 'vitest';
import { MAX_REGIONS, templateFromSketch } from './from-sketch.ts';
import { addRegion, firstSketch, GRID, moveRegion, removeRegion, sharesOf, sizeRegion, type SketchRegion } from './sketch-regions.ts';

const areInside = (regions: readonly SketchRegion[]): boolean => regions.every(({ column, row, columns, rows }) => column >= 0 && row >= 0 && column + columns <= GRID.columns && row + rows <= GRID.rows);

describe('a sketch', () => {
  it('begins with one that is a template already', () => {
    expect(templateFromSketch('First', sharesOf(firstSketch)).slots.map(({ key }) => key)).toEqual(['photo', 'headline', 'line']);
  });

  it('takes regions up to its most, each with a name of its own, all on the sheet', () => {
    let regions: readonly SketchRegion[] = removeRegion(firstSketch, 'r2');
    for (let count = 0; count < 20; count += 1) regions = addRegion(regions, count % 2 === 0 ? 'picture' : 'list');
    expect(regions).toHaveLength(MAX_REGIONS);
    expect(new Set(regions.map(({ id }) => id)).size).toBe(MAX_REGIONS);
    expect(areInside(regions)).toBe(true);
  });

  it('keeps a region on the sheet however far it is moved or sized', () => {
    for (const by of [-40, -1, 0, 3, 40]) {
      expect(areInside(moveRegion(firstSketch, 'r2', by, by))).toBe(true);
      const sized = sizeRegion(firstSketch, 'r2', by, by);
      expect(areInside(sized)).toBe(true);
      expect(sized[1]).toMatchObject({ columns: expect.toSatisfy((value: number) => value >= 2), rows: expect.toSatisfy((value: number) => value >= 1) });
    }
    expect(moveRegion(firstSketch, 'r2', 0, 3)[1]).toMatchObject({ column: 0, row: 3 });
  });
});
