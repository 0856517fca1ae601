import type { CellFault } from '../../core/ideas/table/read-row.ts';
import type { Mapping, RowCells } from '../../core/ideas/table/table-fields.ts';
import type { DayOrder } from '../../core/ideas/table/read-day.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

export interface TableSettings {
  readonly order: DayOrder | null;
  readonly usualTime: string;
  readonly usualChannelIds: readonly string[];
  readonly templateKey: string | null;
  readonly together: boolean;
}

/** A table of posts that a person brought. */
export interface PostTable {
  readonly id: string;
  readonly brandId: string;
  readonly name: string;
  readonly header: readonly string[];
  readonly mapping: Mapping;
  readonly settings: TableSettings;
  readonly createdBy: string;
  readonly updatedMs: number;
}

/** A row: its cells as they came, what a person wrote over them, and what was made of it. */
export interface TableRow {
  readonly number: number;
  readonly raw: readonly string[];
  readonly own: RowCells;
  readonly faults: readonly CellFault[];
  readonly pieceId: string | null;
  /** Hash of what the piece was made from. */
  readonly madeFrom: string | null;
  readonly isLeftOut: boolean;
}

interface TableRecord {
  id: string;
  brand_id: string;
  name: string;
  mapping: string;
  settings: string;
  created_by: string;
  updated_ms: number | string;
}

const toTable = (row: TableRecord): PostTable => {
  const { header, ...settings } = JSON.parse(row.settings) as TableSettings & { readonly header: readonly string[] };
  return { id: row.id, brandId: row.brand_id, name: row.name, header, mapping: JSON.parse(row.mapping) as Mapping, settings, createdBy: row.created_by, updatedMs: Number(row.updated_ms) };
};

interface RowRecord {
  number: number;
  cells: string;
  faults: string;
  piece_id: string | null;
  made_from: string | null;
  is_left_out: boolean | number;
}

const toRow = ({ number, cells, faults, piece_id, made_from, is_left_out }: RowRecord): TableRow => ({ number, ...(JSON.parse(cells) as Pick<TableRow, 'raw' | 'own'>), faults: JSON.parse(faults) as CellFault[], pieceId: piece_id, madeFrom: made_from, isLeftOut: Boolean(is_left_out) });

const BATCH = 200;

export async function findTable(db: Db, brandId: string, id: string): Promise<PostTable | null> {
  const row: TableRecord | undefined = await db('post_tables').where({ brand_id: brandId, id }).first();
  return row ? toTable(row) : null;
}

/** The latest table of a name whose columns are the same; null: none. */
export async function findAlike(db: Db, brandId: string, name: string, signature: string): Promise<PostTable | null> {
  const row: TableRecord | undefined = await db('post_tables').where({ brand_id: brandId, name, signature }).orderBy('updated_ms', 'desc').first();
  return row ? toTable(row) : null;
}

/** How the columns of a table with these names were read last. */
export async function findMapping(db: Db, brandId: string, signature: string): Promise<Pick<PostTable, 'mapping' | 'settings'> | null> {
  const row: TableRecord | undefined = await db('post_tables').where({ brand_id: brandId, signature }).orderBy('updated_ms', 'desc').first();
  return row ? toTable(row) : null;
}

export async function listTables(db: Db, brandId: string, limit: number): Promise<readonly { readonly id: string; readonly name: string; readonly rows: number; readonly made: number; readonly updatedMs: number }[]> {
  const rows: { id: string; name: string; updated_ms: number | string }[] = await db('post_tables').where({ brand_id: brandId }).orderBy('updated_ms', 'desc').limit(limit).select('id', 'name', 'updated_ms');
  return Promise.all(rows.map(async ({ id, name, updated_ms }) => { const { rows: all, made } = await countRows(db, id); return { id, name, updatedMs: Number(updated_ms), rows: all, made }; }));
}

/** Writes a table and its rows anew; what was made of rows goes along with them. */
export async function writeTable(db: Db, table: PostTable & { readonly signature: string }, rows: readonly TableRow[], machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    const fields = { name: table.name, signature: table.signature, mapping: JSON.stringify(table.mapping), settings: JSON.stringify({ ...table.settings, header: table.header }), updated_ms: table.updatedMs };
    await trx('post_tables').insert({ id: table.id, brand_id: table.brandId, created_by: table.createdBy, ...fields }).onConflict('id').merge(fields);
    await trx('post_table_rows').where({ table_id: table.id }).delete();
    for (let from = 0; from < rows.length; from += BATCH) {
      await trx('post_table_rows').insert(rows.slice(from, from + BATCH).map((row) => ({ table_id: table.id, number: row.number, row_key: row.own.key ?? '', cells: JSON.stringify({ raw: row.raw, own: row.own }), faults: JSON.stringify(row.faults), is_faulty: row.faults.some(({ severity }) => severity === 'stops'), piece_id: row.pieceId, made_from: row.madeFrom, is_left_out: row.isLeftOut })));
    }
    await noteChange(trx, { brandId: table.brandId, kind: 'table', subjectId: table.id }, machineNowMs);
  });
}

export async function changeTableReading(db: Db, table: Pick<PostTable, 'id' | 'brandId' | 'header'>, mapping: Mapping, settings: TableSettings, nowMs: number): Promise<void> {
  await db('post_tables').where({ id: table.id }).update({ mapping: JSON.stringify(mapping), settings: JSON.stringify({ ...settings, header: table.header }), updated_ms: nowMs });
}

export async function deleteTable(db: Db, brandId: string, id: string): Promise<boolean> {
  return (await db('post_tables').where({ brand_id: brandId, id }).delete()) > 0;
}

export interface RowFilter {
  readonly after: number;
  readonly limit: number;
  readonly only: 'faulty' | 'ready' | 'made' | null;
}

export async function pageRows(db: Db, tableId: string, { after, limit, only }: RowFilter): Promise<readonly TableRow[]> {
  const query = db('post_table_rows').where({ table_id: tableId }).where('number', '>', after).orderBy('number').limit(limit);
  if (only === 'faulty') query.where({ is_left_out: false, is_faulty: true });
  if (only === 'ready') query.where({ is_left_out: false, is_faulty: false });
  if (only === 'made') query.whereNotNull('piece_id');
  return ((await query) as RowRecord[]).map(toRow);
}

export async function findRow(db: Db, tableId: string, number: number): Promise<TableRow | null> {
  const row: RowRecord | undefined = await db('post_table_rows').where({ table_id: tableId, number }).first();
  return row ? toRow(row) : null;
}

export async function countRows(db: Db, tableId: string): Promise<{ readonly rows: number; readonly ready: number; readonly faulty: number; readonly made: number; readonly leftOut: number }> {
  const rows: { is_left_out: boolean | number; is_faulty: boolean | number; is_made: boolean | number; count: number | string }[] = await db('post_table_rows').where({ table_id: tableId }).groupByRaw('is_left_out, is_faulty, (case when piece_id is null then 0 else 1 end)').select('is_left_out', 'is_faulty').select(db.raw('(case when piece_id is null then 0 else 1 end) as is_made')).count({ count: '*' });
  const sum = (is: (row: (typeof rows)[number]) => boolean): number => rows.filter(is).reduce((total, { count }) => total + Number(count), 0);
  return { rows: sum(() => true), ready: sum((row) => !row.is_left_out && !row.is_faulty), faulty: sum((row) => !row.is_left_out && Boolean(row.is_faulty)), made: sum((row) => Number(row.is_made) === 1), leftOut: sum((row) => Boolean(row.is_left_out)) };
}

export type RowChange = Partial<Pick<TableRow, 'own' | 'faults' | 'pieceId' | 'madeFrom' | 'isLeftOut'>> & { readonly raw?: readonly string[] };

export async function changeRow(trx: Db, tableId: string, row: TableRow, change: RowChange): Promise<void> {
  const columns = {
    cells: change.own === undefined ? undefined : JSON.stringify({ raw: change.raw ?? row.raw, own: change.own }),
    faults: change.faults === undefined ? undefined : JSON.stringify(change.faults),
    is_faulty: change.faults === undefined ? undefined : change.faults.some(({ severity }) => severity === 'stops'),
    piece_id: change.pieceId,
    made_from: change.madeFrom,
    is_left_out: change.isLeftOut,
  };
  await trx('post_table_rows').where({ table_id: tableId, number: row.number }).update(Object.fromEntries(Object.entries(columns).filter(([, value]) => value !== undefined)));
}
