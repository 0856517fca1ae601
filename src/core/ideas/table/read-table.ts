import Papa from 'papaparse';

/** A table as it was read: the names of its columns and its rows, all of one width. */
export interface ReadTable {
  readonly header: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

export type TableResult = { readonly kind: 'table'; readonly table: ReadTable } | { readonly kind: 'none'; readonly sentence: string };

export const MAX_ROWS = 5_000;
export const MAX_COLUMNS = 60;
const MAX_CELL = 20_000;

/**
 * Reads a table from text: comma, semicolon or tab, with quotes in quotes and line breaks in cells, as spreadsheets write and copy it. The first row names the columns.
 */
export function tableFromText(given: string): TableResult {
  const text = given.replace(/^\uFEFF/u, '').replace(/^sep=.\r?\n/iu, '');
  if (text.trim() === '') return { kind: 'none', sentence: 'There is no table in it.' };
  const { data, errors } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', delimitersToGuess: [';', ',', '\t', '|'] });
  const broken = errors.find(({ code }) => code === 'MissingQuotes');
  if (broken) return { kind: 'none', sentence: `A quote that begins in row ${(broken.row ?? 0) + 1} never ends. Close it, then try again.` };
  return tableFromCells(data);
}

/** A table from cells: empty rows and columns at its ends go. */
export function tableFromCells(data: readonly (readonly string[])[]): TableResult {
  const filled = data.map((row) => row.map((cell) => cell.trim())).filter((row) => row.some((cell) => cell !== ''));
  const [head, ...body] = filled;
  if (!head) return { kind: 'none', sentence: 'There is no table in it.' };
  const width = Math.max(...filled.map((row) => row.findLastIndex((cell) => cell !== '') + 1));
  if (width > MAX_COLUMNS) return { kind: 'none', sentence: `The table has ${width} columns; at most ${MAX_COLUMNS} are read. Remove those that are not needed.` };
  if (body.length > MAX_ROWS) return { kind: 'none', sentence: `The table has ${body.length.toLocaleString('en')} rows; at most ${MAX_ROWS.toLocaleString('en')} are read at once. Split it.` };
  if (body.length === 0) return { kind: 'none', sentence: 'The table has names of columns and no rows. The first row names the columns.' };
  const long = body.findIndex((row) => row.some((cell) => cell.length > MAX_CELL));
  if (long >= 0) return { kind: 'none', sentence: `A cell of row ${long + 2} has over ${MAX_CELL.toLocaleString('en')} characters.` };
  const even = (row: readonly string[]): readonly string[] => Array.from({ length: width }, (_, index) => row[index] ?? '');
  return { kind: 'table', table: { header: even(head).map((name, index) => (name === '' ? `Column ${index + 1}` : name)), rows: body.map(even) } };
}

/** The bytes of a text file as text: UTF-8, UTF-16 with its mark, else Windows-1252, as older spreadsheets write it. */
export function decodeTable(bytes: Uint8Array): string {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
