import { array, boolean, mixed, number, object, string } from 'yup';
import { MAX_COLUMNS } from '../core/ideas/table/read-table.ts';
import type { CellFault } from '../core/ideas/table/read-row.ts';
import { tableFieldKeys, type RowCells } from '../core/ideas/table/table-fields.ts';
import type { Frame } from '../core/piece/piece.ts';
import { brandParams } from './brand-params.ts';
import { contract } from './contract.ts';
import { ids } from './plan-fields.ts';

const tableParams = brandParams.shape({ table: string().max(40).required() });
const rowParams = tableParams.shape({ row: string().matches(/^\d{1,5}$/).required() });

/** Longest text that is pasted as a table. */
export const MAX_PASTED = 1_500_000;

const mappingSchema = object(Object.fromEntries(tableFieldKeys.map((key) => [key, number().integer().min(0).max(MAX_COLUMNS)]))).noUnknown();
const cellsSchema = object(Object.fromEntries(tableFieldKeys.map((key) => [key, string().max(20_000)]))).noUnknown();

export const tableSettings = object({
  /** Which number of `3/12` is the day; null: not said yet. */
  order: string<'day-first' | 'month-first'>().oneOf(['day-first', 'month-first']).nullable().defined(),
  usualTime: string().matches(/^(?:[01]\d|2[0-3]):[0-5]\d$/, 'Give a time like 09:30').required(),
  usualChannelIds: ids(200),
  /** The template of rows that name none; null: the one that suits each. */
  templateKey: string().matches(/^[a-z][a-z0-9-]*$/).max(60).nullable().defined(),
  /** Rows of one key are one post: a row a channel. */
  together: boolean().required(),
}).noUnknown();

const counts = object({ rows: number().required(), ready: number().required(), faulty: number().required(), made: number().required(), leftOut: number().required() });
const job = object({ kind: string<'check' | 'make'>().oneOf(['check', 'make']).required(), state: string().required(), share: number().required(), problem: string().nullable().defined(), leftMs: number().nullable().defined() });

const tableSchema = object({
  id: string().required(),
  name: string().required(),
  header: array(string().required()).required(),
  mapping: mappingSchema.required(),
  settings: tableSettings.required(),
  /** Dates that can be read in two ways, some of them. */
  ambiguous: array(string().required()).required(),
  counts: counts.required(),
  /** What works on it now, or did last. */
  job: job.nullable().defined(),
  updatedMs: number().required(),
});

const upload = { params: brandParams, answer: object({ table: tableSchema.required(), /** Rows that it had before, and rows that are new. */ known: number().required(), fresh: number().required() }), status: 201 as const };

export const uploadTable = contract({ method: 'POST', path: '/api/brands/{brand}/post-tables', summary: 'Read a table of posts (CSV or XLSX, up to 12 MB and 5,000 rows); one with the same columns and name updates its rows', ...upload, query: object({ name: string().max(200).required(), table: string().max(40) }), body: 'bytes' });
export const pasteTable = contract({ method: 'POST', path: '/api/brands/{brand}/post-tables/paste', summary: 'Read a table of posts from pasted text', ...upload, body: object({ name: string().trim().max(200).required(), text: string().max(MAX_PASTED, 'That is too much to paste. Save it as a file.').required() }).noUnknown() });
export const getTableForm = contract({ method: 'GET', path: '/api/brands/{brand}/post-table-form', summary: 'A table to fill in, with the brand’s channels in it', params: brandParams, query: object({ as: string<'csv' | 'xlsx'>().oneOf(['csv', 'xlsx']).required() }), answer: 'archive' });

export const listTables = contract({ method: 'GET', path: '/api/brands/{brand}/post-tables', summary: 'Tables of posts, the latest first', params: brandParams, answer: object({ items: array(object({ id: string().required(), name: string().required(), rows: number().required(), made: number().required(), updatedMs: number().required() }).required()).required() }) });
export const getTable = contract({ method: 'GET', path: '/api/brands/{brand}/post-tables/{table}', summary: 'A table of posts: its columns, how they are read, and how many rows are ready', params: tableParams, answer: tableSchema });
export const changeTable = contract({ method: 'PATCH', path: '/api/brands/{brand}/post-tables/{table}', summary: 'Say which column is what, and how the table is read; all rows are read again', params: tableParams, body: object({ mapping: mappingSchema.required(), settings: tableSettings.required() }).noUnknown(), answer: tableSchema });
export const deleteTable = contract({ method: 'DELETE', path: '/api/brands/{brand}/post-tables/{table}', summary: 'Delete a table; what was made of it stays', params: tableParams });

const rowSchema = object({
  number: number().required(),
  cells: mixed<RowCells>().required(),
  faults: array(mixed<CellFault>().required()).required(),
  wall: string().nullable().defined(),
  channelIds: array(string().required()).required(),
  /** What the row shows, to be painted; null: nothing yet. */
  draft: object({ template: string().required(), frames: array(mixed<Frame>().required()).required() }).nullable().defined(),
  pieceId: string().nullable().defined(),
  /** The piece is older than what the row says by now. */
  isChanged: boolean().required(),
  isLeftOut: boolean().required(),
});

export const listTableRows = contract({ method: 'GET', path: '/api/brands/{brand}/post-tables/{table}/rows', summary: 'Rows of a table with what they mean and what is wrong in each cell', params: tableParams, query: object({ after: number().integer().min(0), limit: number().integer().min(1).max(100), only: string<'faulty' | 'ready' | 'made'>().oneOf(['faulty', 'ready', 'made']) }), answer: object({ rows: array(rowSchema.required()).required(), next: number().nullable().defined() }) });
export const changeTableRow = contract({ method: 'PATCH', path: '/api/brands/{brand}/post-tables/{table}/rows/{row}', summary: 'Change cells of a row, or leave the row out; it is checked at once', params: rowParams, body: object({ cells: cellsSchema, isLeftOut: boolean() }).noUnknown(), answer: rowSchema });

export const checkTable = contract({ method: 'POST', path: '/api/brands/{brand}/post-tables/{table}/check', summary: 'Check all rows as preflight would, with the reports of their cuts', params: tableParams, body: object({}).noUnknown(), answer: tableSchema });
export const makeTable = contract({ method: 'POST', path: '/api/brands/{brand}/post-tables/{table}/make', summary: 'Make pieces of the rows that are ready, as drafts in the plan, or schedule them; rows that were made before are updated', params: tableParams, body: object({ schedule: boolean().required() }).noUnknown(), answer: tableSchema });
export const cancelTableWork = contract({ method: 'POST', path: '/api/brands/{brand}/post-tables/{table}/cancel', summary: 'Stop what works on a table; what this run has made goes again', params: tableParams, body: object({}).noUnknown(), answer: tableSchema });
