import Papa from 'papaparse';
import type { Place, Range, SheetSize } from './selection.ts';

/** Rows of cells as a spreadsheet takes them: parted by tabs, with quotes around what has tabs, quotes or line ends in it. */
export function writeTable(rows: readonly (readonly string[])[]): string {
  return Papa.unparse(rows.map((row) => [...row]), { delimiter: '\t', newline: '\n', quotes: false });
}

/** Most characters that are read from a clipboard: more is no table that anybody means. */
const MAX_PASTED = 2_000_000;

/** Rows of cells out of what was copied in a spreadsheet. A text with line ends and neither tabs nor quotes is one cell. */
export function readTable(text: string): readonly (readonly string[])[] {
  const plain = text.slice(0, MAX_PASTED).replace(/\r\n?/gu, '\n');
  if (!/[\t]|^"|\n"/u.test(plain)) return [[plain.replace(/\n$/u, '')]];
  return Papa.parse<string[]>(plain.replace(/\n$/u, ''), { delimiter: '\t', newline: '\n', skipEmptyLines: false }).data;
}

/** A text that goes to one place. */
export interface Pasted extends Place {
  readonly text: string;
}

/**
 * Where the cells of a table go. One cell fills the whole selection; a table begins at its first cell. What reaches over the edge of the sheet
 * has no place.
 */
export function pasteInto(table: readonly (readonly string[])[], range: Range, size: SheetSize): { readonly cells: readonly Pasted[]; readonly left: number } {
  const [first] = table;
  const isSingle = table.length === 1 && first?.length === 1;
  if (isSingle) {
    const cells: Pasted[] = [];
    for (let row = range.top; row <= range.bottom; row += 1) for (let column = range.left; column <= range.right; column += 1) cells.push({ row, column, text: first[0] ?? '' });
    return { cells, left: 0 };
  }
  const all = table.flatMap((cells, down) => cells.map((text, across): Pasted => ({ row: range.top + down, column: range.left + across, text })));
  const cells = all.filter(({ row, column }) => row < size.rows && column < size.columns);
  return { cells, left: all.length - cells.length };
}

/** The cells of a range that get what stands in its first row. */
export function fillDown({ top, bottom, left, right }: Range): readonly { readonly from: Place; readonly to: Place }[] {
  const filled: { from: Place; to: Place }[] = [];
  for (let column = left; column <= right; column += 1) for (let row = top + 1; row <= bottom; row += 1) filled.push({ from: { row: top, column }, to: { row, column } });
  return filled;
}
