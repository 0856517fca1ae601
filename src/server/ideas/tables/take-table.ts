import { nanoid } from 'nanoid';
import { mapColumns, signatureOf } from '../../../core/ideas/table/map-columns.ts';
import { matchRows } from '../../../core/ideas/table/match-rows.ts';
import { orderOf } from '../../../core/ideas/table/read-day.ts';
import { cellsOf } from '../../../core/ideas/table/read-row.ts';
import { decodeTable, tableFromCells, tableFromText, type ReadTable } from '../../../core/ideas/table/read-table.ts';
import { listChannels, listSheetsOf, type Brand } from '../../db/brand-repository.ts';
import { findAlike, findMapping, findTable, pageRows, writeTable, type PostTable, type TableRow, type TableSettings } from '../../db/post-table-repository.ts';
import { ProblemError } from '../../errors.ts';
import type { Services } from '../../services.ts';
import { standingCells, standingRow, tableContext } from './table-context.ts';

const usualSettings: TableSettings = { order: null, usualTime: '09:00', usualChannelIds: [], templateKey: null, together: true };
const ALL = 10_000;

/** What a table was before, and what of it is new. */
export interface TakenTable {
  readonly table: PostTable;
  readonly known: number;
  readonly fresh: number;
}

/** The bytes of a table file, told apart by what is in them. @throws ProblemError 422 when there is no table in it */
export async function tableFromBytes({ readers }: Pick<Services, 'readers'>, bytes: Uint8Array): Promise<ReadTable> {
  const isWorkbook = bytes[0] === 0x50 && bytes[1] === 0x4b;
  if (!isWorkbook) {
    const text = decodeTable(bytes);
    if (text.includes('\u0000')) throw new ProblemError(422, 'not-a-table', 'This is no table. CSV and XLSX are read.');
    return tableOr422(tableFromText(text));
  }
  return tableOr422(tableFromCells(await readers.read({ kind: 'sheet', bytes })));
}

/** @throws ProblemError 422 */
export function tableOr422(result: ReturnType<typeof tableFromText>): ReadTable {
  if (result.kind === 'none') throw new ProblemError(422, 'not-a-table', result.sentence);
  return result.table;
}

/**
 * Keeps a table. One of the same name and columns is updated: its rows are found again, with what was made of them; nothing is doubled.
 * @param into the table that is updated whatever it is called; null: the one that is alike
 */
export async function takeTable(services: Services, brand: Brand, read: ReadTable, { name, into, personId }: { readonly name: string; readonly into: string | null; readonly personId: string }, nowMs: number): Promise<TakenTable> {
  const { db, clock } = services;
  const signature = signatureOf(read.header);
  const before = into === null ? await findAlike(db, brand.id, name, signature) : await findTable(db, brand.id, into);
  const read_ = before ?? (await findMapping(db, brand.id, signature));
  const [channels, sheets] = await Promise.all([listChannels(db, brand.id), listSheetsOf(db, brand.id)]);
  const mapping = read_ && signature === signatureOf(before?.header ?? read.header) ? read_.mapping : mapColumns(read, [...channels.map((channel) => channel.name), ...sheets.map((sheet) => sheet.name)]);
  const settings: TableSettings = { ...usualSettings, ...read_?.settings, order: read_?.settings.order ?? (mapping.date === undefined ? null : orderOf(read.rows.map((row) => row[mapping.date ?? 0] ?? ''))) };
  const table: PostTable = { id: before?.id ?? nanoid(12), brandId: brand.id, name, header: read.header, mapping, settings, createdBy: before?.createdBy ?? personId, updatedMs: nowMs };
  const old = before ? await pageRows(db, before.id, { after: 0, limit: ALL, only: null }) : [];
  // What a person wrote over a cell stays with its row, unless the file says something else there by now.
  const matched = matchRows(read.rows.map((row) => cellsOf(row, mapping)), old.map((row) => ({ number: row.number, cells: before ? cellsOf(row.raw, before.mapping) : {} })));
  const rows = read.rows.map((raw, index): TableRow => {
    const known = old.find(({ number }) => number === matched[index]?.number);
    const isSame = known !== undefined && JSON.stringify(known.raw) === JSON.stringify(raw);
    return { number: index + 1, raw, own: isSame ? known.own : {}, faults: [], pieceId: known?.pieceId ?? null, madeFrom: known?.madeFrom ?? null, isLeftOut: known?.isLeftOut ?? false };
  });
  await writeTable(db, { ...table, signature }, await withFaults(services, brand, table, rows, nowMs), clock.machineNowMs());
  const known = matched.filter((each) => each !== null).length;
  return { table, known, fresh: rows.length - known };
}

/** Rows with what their cells alone say is wrong; their cuts are checked apart. */
export async function withFaults(services: Services, brand: Brand, table: PostTable, rows: readonly TableRow[], nowMs: number): Promise<readonly TableRow[]> {
  const context = await tableContext(services, brand, table, rows, nowMs);
  return rows.map((row) => ({ ...row, faults: standingRow(table, row, context).read.faults }));
}

/** Some dates of a table that can be read in two ways. */
export function ambiguousOf(table: PostTable, rows: readonly TableRow[]): readonly string[] {
  if (table.settings.order !== null) return [];
  return [...new Set(rows.filter(({ faults }) => faults.some(({ field, sentence }) => field === 'date' && sentence.includes('say for the whole table'))).map((row) => standingCells(table, row).date ?? ''))].slice(0, 5);
}
