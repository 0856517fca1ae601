import type { Raster } from './picture-facts.ts';

/** A rectangle as shares of a picture's width and height. */
export interface ChangedArea {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Fields along the longer side. */
const FIELDS = 24;
/** Mean difference of a field's colours, of 255, from which it has changed: what saving a picture smaller does to it stays below. */
const CHANGED_FROM = 16;
/** More areas than these are a picture that has changed as a whole. */
const MAX_AREAS = 8;

interface Cells {
  readonly columns: number;
  readonly rows: number;
  readonly changed: readonly boolean[];
}

/**
 * Where a picture differs from another one of its size: neighbouring fields that changed, as rectangles that do not overlap, from the top.
 * @throws RangeError when the sizes differ
 */
export function changedAreas(before: Raster, now: Raster): readonly ChangedArea[] {
  if (before.widthPx !== now.widthPx || before.heightPx !== now.heightPx) throw new RangeError('Pictures of different sizes cannot be compared');
  const cells = changedCells(before, now);
  const areas = joined(groupsOf(cells));
  const { columns, rows } = cells;
  const shares = areas.map(({ x, y, width, height }) => ({ x: x / columns, y: y / rows, width: width / columns, height: height / rows }));
  return shares.length > MAX_AREAS ? [{ x: 0, y: 0, width: 1, height: 1 }] : shares.toSorted((a, b) => a.y - b.y || a.x - b.x);
}

function changedCells(before: Raster, now: Raster): Cells {
  const { widthPx: width, heightPx: height } = now;
  const field = Math.max(1, Math.max(width, height) / FIELDS);
  const [columns, rows] = [Math.max(1, Math.round(width / field)), Math.max(1, Math.round(height / field))];
  const [sums, counts] = [new Float64Array(columns * rows), new Float64Array(columns * rows)];
  for (let y = 0; y < height; y += 1) {
    const row = Math.floor((y * rows) / height);
    for (let x = 0; x < width; x += 1) {
      const cell = row * columns + Math.floor((x * columns) / width);
      const at = (y * width + x) * 4;
      let difference = 0;
      for (let channel = 0; channel < 3; channel += 1) difference = Math.max(difference, Math.abs((before.rgba[at + channel] ?? 0) - (now.rgba[at + channel] ?? 0)));
      sums[cell] = (sums[cell] ?? 0) + difference;
      counts[cell] = (counts[cell] ?? 0) + 1;
    }
  }
  return { columns, rows, changed: Array.from(sums, (sum, cell) => sum / (counts[cell] ?? 1) >= CHANGED_FROM) };
}

/** The rectangles around fields that touch, also by a corner; in fields. */
function groupsOf({ columns, rows, changed }: Cells): readonly ChangedArea[] {
  const seen = new Set<number>();
  const areas: ChangedArea[] = [];
  for (let start = 0; start < changed.length; start += 1) {
    if (!changed[start] || seen.has(start)) continue;
    const group = [start];
    seen.add(start);
    for (const cell of group) {
      const [column, row] = [cell % columns, Math.floor(cell / columns)];
      for (const [dx, dy] of [[-1, -1], [0, -1], [1, -1], [-1, 0], [1, 0], [-1, 1], [0, 1], [1, 1]] as const) {
        const next = (row + dy) * columns + column + dx;
        if (column + dx < 0 || column + dx >= columns || row + dy < 0 || row + dy >= rows || !changed[next] || seen.has(next)) continue;
        seen.add(next);
        group.push(next);
      }
    }
    const [xs, ys] = [group.map((cell) => cell % columns), group.map((cell) => Math.floor(cell / columns))];
    const [x, y] = [Math.min(...xs), Math.min(...ys)];
    areas.push({ x, y, width: Math.max(...xs) - x + 1, height: Math.max(...ys) - y + 1 });
  }
  return areas;
}

/** Joins rectangles until none overlaps another. */
function joined(areas: readonly ChangedArea[]): readonly ChangedArea[] {
  const done: ChangedArea[] = [];
  for (let area of areas) {
    for (let at = done.findIndex((each) => overlap(each, area)); at !== -1; at = done.findIndex((each) => overlap(each, area))) {
      const [other] = done.splice(at, 1);
      if (other) area = around(other, area);
    }
    done.push(area);
  }
  return done;
}

function overlap(a: ChangedArea, b: ChangedArea): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}

function around(a: ChangedArea, b: ChangedArea): ChangedArea {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return { x, y, width: Math.max(a.x + a.width, b.x + b.width) - x, height: Math.max(a.y + a.height, b.y + b.height) - y };
}
