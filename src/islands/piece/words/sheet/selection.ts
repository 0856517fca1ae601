/** A place in the sheet: row and column, counted from 0. */
export interface Place {
  readonly row: number;
  readonly column: number;
}

/** What is chosen: from where it began to where the cursor is. One cell where both are the same. */
export interface Selection {
  readonly anchor: Place;
  readonly cursor: Place;
}

export interface SheetSize {
  readonly rows: number;
  readonly columns: number;
}

/** The first and the last row and column of a selection, both within it. */
export interface Range {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

export function rangeOf({ anchor, cursor }: Selection): Range {
  return { top: Math.min(anchor.row, cursor.row), bottom: Math.max(anchor.row, cursor.row), left: Math.min(anchor.column, cursor.column), right: Math.max(anchor.column, cursor.column) };
}

export function isWithin({ top, bottom, left, right }: Range, { row, column }: Place): boolean {
  return row >= top && row <= bottom && column >= left && column <= right;
}

export function single(place: Place): Selection {
  return { anchor: place, cursor: place };
}

/** A selection within a sheet that may have become smaller. */
export function clamped({ anchor, cursor }: Selection, { rows, columns }: SheetSize): Selection {
  const clamp = ({ row, column }: Place): Place => ({ row: Math.max(0, Math.min(rows - 1, row)), column: Math.max(0, Math.min(columns - 1, column)) });
  return { anchor: clamp(anchor), cursor: clamp(cursor) };
}

const steps: Readonly<Partial<Record<string, readonly [rows: number, columns: number]>>> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1], PageUp: [-8, 0], PageDown: [8, 0] };

/** Where a key leads, with Shift as a range; null for a key that does not move, and at the end of the sheet for Tab. */
export function moved(selection: Selection, key: string, { shift, jump }: { readonly shift: boolean; readonly jump: boolean }, size: SheetSize): Selection | null {
  const { cursor } = selection;
  if (key === 'Tab') {
    const next = cursor.row * size.columns + cursor.column + (shift ? -1 : 1);
    return next < 0 || next >= size.rows * size.columns ? null : single({ row: Math.floor(next / size.columns), column: next % size.columns });
  }
  const last = { row: size.rows - 1, column: size.columns - 1 };
  const step = steps[key];
  const to =
    key === 'Home'
      ? { row: jump ? 0 : cursor.row, column: 0 }
      : key === 'End'
        ? { row: jump ? last.row : cursor.row, column: last.column }
        : step && jump
          ? { row: step[0] === 0 ? cursor.row : step[0] < 0 ? 0 : last.row, column: step[1] === 0 ? cursor.column : step[1] < 0 ? 0 : last.column }
          : step && { row: cursor.row + step[0], column: cursor.column + step[1] };
  if (!to) return null;
  return clamped({ anchor: shift ? selection.anchor : to, cursor: to }, size);
}

/** Everything. */
export function whole({ rows, columns }: SheetSize): Selection {
  return { anchor: { row: 0, column: 0 }, cursor: { row: rows - 1, column: columns - 1 } };
}
