import Papa from 'papaparse';
import { cellsOfHtml } from './cells-of-html.ts';
import type { Place, Range, SheetSize } from './selection.ts';

/** Rows of cells as a spreadsheet takes them: parted by tabs, with quotes around what has tabs, quotes or line ends in it. */
export function writeTable(rows: readonly (readonly string[])[]): string {
  return Papa.unparse(rows.map((row) => [...row]), { delimiter: '\t', newline: '\n', quotes: false });
}

/** Most characters that are read from a clipboard: more is no table that anybody means. */
const MAX_PASTED = 2_000_000;

/** A cell in quotes that needs none: somebody's own quotation marks. */
const OWN_QUOTES = /(?:^|[\t\n])"[^"\t\n]*"(?=$|[\t\n])/u;

/**
 * Rows of cells out of what was copied in a spreadsheet as plain text. A text without tabs is one cell, unless a spreadsheet has put it in
 * quotes; quotation marks that no spreadsheet would write belong to the text.
 */
export function readTable(text: string): readonly (readonly string[])[] {
  const plain = text.slice(0, MAX_PASTED).replace(/\r\n?/gu, '\n').replace(/\n$/u, '');
  const { data, errors } = Papa.parse<string[]>(plain, { delimiter: '\t', newline: '\n', skipEmptyLines: false });
  const isQuoted = /(?:^|[\t\n])"/u.test(plain) && errors.length === 0 && !OWN_QUOTES.test(plain);
  if (isQuoted) return data;
  return plain.includes('\t') ? plain.split('\n').map((row) => row.split('\t')) : [[plain]];
}

/** What of a clipboard is used here. */
export interface CellClipboard {
  setData(format: string, data: string): void;
  getData(format: string): string;
}

type Table = readonly (readonly string[])[];

/** Cells as a sheet of Confetti copies them: plain text cannot tell a column of cells from one text of several lines. */
const CELLS = 'application/x-confetti-cells';

export function copyTable(clipboard: CellClipboard, table: Table): void {
  clipboard.setData('text/plain', writeTable(table));
  clipboard.setData(CELLS, JSON.stringify(table));
}

/** The table on a clipboard: as a sheet has copied it, else as another program has drawn it, else as plain text tells it. */
export function pastedTable(clipboard: CellClipboard): Table {
  return ownCells(clipboard.getData(CELLS)) ?? cellsOfHtml(clipboard.getData('text/html')) ?? readTable(clipboard.getData('text/plain'));
}

function ownCells(json: string): Table | null {
  if (json === '' || json.length > MAX_PASTED) return null;
  try {
    const table: unknown = JSON.parse(json);
    return isTable(table) ? table : null;
  } catch {
    return null;
  }
}

function isTable(value: unknown): value is Table {
  return Array.isArray(value) && value.length > 0 && value.every((row) => Array.isArray(row) && row.every((cell) => typeof cell === 'string'));
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
