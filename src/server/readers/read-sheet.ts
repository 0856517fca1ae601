import ExcelJS from 'exceljs';
import { MAX_COLUMNS, MAX_ROWS } from '../../core/ideas/table/read-table.ts';
import { ProblemError } from '../errors.ts';

/**
 * The cells of the first sheet of a workbook that is not empty, as texts: dates as `2026-12-05`, times as `18:30`, formulas as their results.
 * @throws ProblemError 422 when it is no workbook
 */
export async function readSheet(bytes: Uint8Array): Promise<readonly (readonly string[])[]> {
  const workbook = new ExcelJS.Workbook();
  try {
    await workbook.xlsx.load(Buffer.from(bytes) as unknown as ArrayBuffer);
  } catch {
    throw new ProblemError(422, 'not-a-table', 'This is no XLSX file. Save it as .xlsx or .csv.');
  }
  const sheet = workbook.worksheets.find(({ actualRowCount }) => actualRowCount > 0);
  const rows: string[][] = [];
  sheet?.eachRow((row) => {
    // Reads past the limit, so that the error names the true number of rows.
    if (rows.length > MAX_ROWS * 12) return;
    rows.push(Array.from({ length: Math.min(row.cellCount, MAX_COLUMNS + 1) }, (_, index) => textOf(row.getCell(index + 1).value)));
  });
  return rows;
}

function textOf(value: ExcelJS.CellValue): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return dateText(value);
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map(({ text }) => text).join('');
  if ('text' in value) return typeof value.text === 'string' ? value.text : textOf(value.text as ExcelJS.CellValue);
  if ('result' in value) return textOf(value.result as ExcelJS.CellValue);
  if ('error' in value) return String(value.error);
  return '';
}

/** Spreadsheets keep times as moments of their first day, and dates as midnights, both without a zone. */
function dateText(value: Date): string {
  const iso = value.toISOString();
  const [day = '', time = ''] = [iso.slice(0, 10), iso.slice(11, 16)];
  if (day < '1900-01-02') return time;
  return time === '00:00' ? day : `${day} ${time}`;
}
