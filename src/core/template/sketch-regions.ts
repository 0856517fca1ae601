import { MAX_REGIONS, type Region, type RegionKind } from './from-sketch.ts';

/** The grid that regions snap to, on a sheet of 4:5. */
export const GRID = { columns: 12, rows: 15 } as const;

/** A region as it is drawn, in cells of the grid. */
export interface SketchRegion {
  readonly id: string;
  readonly kind: RegionKind;
  readonly column: number;
  readonly row: number;
  readonly columns: number;
  readonly rows: number;
}

/** How large a region of a kind is when it is added, in cells. */
const usualSizes: Readonly<Record<RegionKind, readonly [columns: number, rows: number]>> = { picture: [12, 8], headline: [10, 3], label: [5, 1], line: [7, 1], list: [10, 5], mark: [2, 2] };

/** What a sketch begins with: a picture above words. */
export const firstSketch: readonly SketchRegion[] = [
  { id: 'r1', kind: 'picture', column: 0, row: 0, columns: 12, rows: 9 },
  { id: 'r2', kind: 'headline', column: 1, row: 10, columns: 10, rows: 2 },
  { id: 'r3', kind: 'line', column: 1, row: 13, columns: 7, rows: 1 },
  { id: 'r4', kind: 'mark', column: 9, row: 12, columns: 2, rows: 2 },
];

const within = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, Math.round(value)));

/** A sketch with one more region, below the others where there is room; the same where there may be no more. */
export function addRegion(regions: readonly SketchRegion[], kind: RegionKind): readonly SketchRegion[] {
  if (regions.length >= MAX_REGIONS) return regions;
  const [columns, rows] = usualSizes[kind];
  const count = 1 + Math.max(0, ...regions.map(({ id }) => Number(id.slice(1))));
  const end = Math.max(0, ...regions.map((each) => each.row + each.rows));
  return [...regions, { id: `r${count}`, kind, column: columns === GRID.columns ? 0 : 1, row: Math.min(end, GRID.rows - rows), columns, rows }];
}

export function removeRegion(regions: readonly SketchRegion[], id: string): readonly SketchRegion[] {
  return regions.filter((each) => each.id !== id);
}

/** A sketch with a region somewhere else, as near as the sheet lets it. */
export function moveRegion(regions: readonly SketchRegion[], id: string, column: number, row: number): readonly SketchRegion[] {
  return regions.map((each) => (each.id === id ? { ...each, column: within(column, 0, GRID.columns - each.columns), row: within(row, 0, GRID.rows - each.rows) } : each));
}

/** A sketch with a region of another size: at least two cells wide and one high, and no larger than the sheet. */
export function sizeRegion(regions: readonly SketchRegion[], id: string, columns: number, rows: number): readonly SketchRegion[] {
  return regions.map((each) => (each.id === id ? { ...each, columns: within(columns, 2, GRID.columns - each.column), rows: within(rows, 1, GRID.rows - each.row) } : each));
}

/** The regions as shares of the sheet. */
export function sharesOf(regions: readonly SketchRegion[]): readonly Region[] {
  return regions.map(({ id, kind, column, row, columns, rows }) => ({ id, kind, x: column / GRID.columns, y: row / GRID.rows, width: columns / GRID.columns, height: rows / GRID.rows }));
}
