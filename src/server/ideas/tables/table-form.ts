import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { tableFields } from '../../../core/ideas/table/table-fields.ts';
import { listChannels, type Brand } from '../../db/brand-repository.ts';
import type { Services } from '../../services.ts';

/** A table to fill in, with the brand's channels in its first row. */
export async function tableForm({ db }: Pick<Services, 'db'>, brand: Brand, as: 'csv' | 'xlsx', today: string): Promise<Uint8Array> {
  const channels = (await listChannels(db, brand.id)).filter(({ state }) => state !== 'ended').map(({ name }) => name);
  const header = tableFields.map(({ name }) => name);
  const example: Readonly<Record<string, string>> = { Key: 'post-1', Date: today, Time: '09:30', Channels: channels.join(', '), Headline: 'The words on the picture', Caption: 'The words below it', Picture: 'file-name.jpg' };
  const rows = [header, header.map((name) => example[name] ?? '')];
  if (as === 'csv') return Buffer.from(`\uFEFF${Papa.unparse(rows, { escapeFormulae: true })}`);
  const workbook = new ExcelJS.Workbook();
  const sheet = workbook.addWorksheet('Posts', { views: [{ state: 'frozen', ySplit: 1 }] });
  rows.forEach((row) => sheet.addRow(row));
  sheet.getRow(1).font = { bold: true };
  sheet.columns.forEach((column, index) => { column.width = Math.max(14, (header[index]?.length ?? 0) + 4); });
  tableFields.forEach(({ hint }, index) => { if (hint !== '') sheet.getCell(1, index + 1).note = hint; });
  return new Uint8Array(await workbook.xlsx.writeBuffer());
}
