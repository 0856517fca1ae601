import { readFile, rm } from 'node:fs/promises';
import * as contracts from '../../contract/table-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { roleMay } from '../../core/access/access.ts';
import { tableFromText } from '../../core/ideas/table/read-table.ts';
import type { RowCells } from '../../core/ideas/table/table-fields.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { enqueueJob, findJobs, moveJob, type Job } from '../db/job-repository.ts';
import * as tables from '../db/post-table-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { checkJob, checkRows } from '../ideas/tables/check-table.ts';
import { makeJob, makeJobKey } from '../ideas/tables/make-table.ts';
import { draftOf, madeFrom, standingRow, tableContext, type StandingRow } from '../ideas/tables/table-context.ts';
import { ambiguousOf, tableFromBytes, tableOr422, takeTable, withFaults } from '../ideas/tables/take-table.ts';
import { receiveUpload } from '../media/receive-upload.ts';
import { MAX_SHEET_BYTES } from '../readers/reading-limits.ts';
import type { Services } from '../services.ts';
import { attachment } from './attachment.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

type TableAnswer = AnswerOf<typeof contracts.getTable>;
type RowAnswer = AnswerOf<typeof contracts.changeTableRow>;

const PAGE = 40;
const MAX_LISTED = 40;
const ALL = 10_000;
/** From this share on, what it has taken so far says how long the rest will take. */
const MIN_SHARE = 0.05;

/** @throws ProblemError 404 */
async function found(services: Services, brand: Brand, id: string): Promise<tables.PostTable> {
  const table = await tables.findTable(services.db, brand.id, id);
  if (!table) throw notFound('table');
  return table;
}

async function describe({ db, clock }: Services, table: tables.PostTable): Promise<TableAnswer> {
  const { id, name, header, mapping, settings, updatedMs, brandId } = table;
  const jobs = await findJobs(db, [checkJob(id, brandId).key, makeJobKey(id)]);
  const [check, make] = [jobs.get(checkJob(id, brandId).key), jobs.get(makeJobKey(id))];
  const isOn = (job: Job | undefined): boolean => job?.state === 'running' || job?.state === 'waiting';
  const shown = isOn(make) ? make : isOn(check) ? check : (check?.startedMs ?? 0) > (make?.startedMs ?? 0) ? check : make;
  const faulty = settings.order === null ? await tables.pageRows(db, id, { after: 0, limit: 200, only: 'faulty' }) : [];
  return { id, name, header: [...header], mapping, settings: { ...settings, usualChannelIds: [...settings.usualChannelIds] }, ambiguous: [...ambiguousOf(table, faulty)], counts: await tables.countRows(db, id), job: shown ? describeJob(shown, clock.machineNowMs()) : null, updatedMs };
}

function describeJob({ kind, state, progress, problem, startedMs }: Job, machineNowMs: number): NonNullable<TableAnswer['job']> {
  const leftMs = state === 'running' && startedMs !== null && progress >= MIN_SHARE ? ((machineNowMs - startedMs) * (1 - progress)) / progress : null;
  return { kind: kind === 'table-make' ? 'make' : 'check', state, share: state === 'done' ? 1 : progress, problem, leftMs };
}

function describeRow({ row, cells, read, template, faults }: StandingRow & { readonly faults: tables.TableRow['faults'] }): RowAnswer {
  const each = { row, cells, read, template };
  return { number: row.number, cells, faults: faults.map((fault) => ({ ...fault })), wall: read.wall, channelIds: [...read.channelIds], draft: draftOf(each) as RowAnswer['draft'], pieceId: row.pieceId, isChanged: row.pieceId !== null && row.madeFrom !== madeFrom(each), isLeftOut: row.isLeftOut };
}

const upload = defineEndpoint({
  contract: contracts.uploadTable,
  may: 'make',
  async handle({ services, brand, request, query, caller, nowMs }) {
    const received = await receiveUpload(request, services.media, () => MAX_SHEET_BYTES);
    try {
      const read = await tableFromBytes(services, new Uint8Array(await readFile(received.path)));
      const { table, known, fresh } = await takeTable(services, brand, read, { name: query.name.replace(/\.(?:csv|tsv|txt|xlsx)$/iu, ''), into: query.table ?? null, personId: caller.person.id }, nowMs);
      return { table: await describe(services, table), known, fresh };
    } finally {
      await rm(received.path, { force: true });
    }
  },
});

const paste = defineEndpoint({
  contract: contracts.pasteTable,
  may: 'make',
  async handle({ services, brand, body, caller, nowMs }) {
    const { table, known, fresh } = await takeTable(services, brand, tableOr422(tableFromText(body.text)), { name: body.name, into: null, personId: caller.person.id }, nowMs);
    return { table: await describe(services, table), known, fresh };
  },
});

const form = defineEndpoint({
  contract: contracts.getTableForm,
  may: 'see',
  async handle({ services, brand, query, nowMs }) {
    const { tableForm } = await import('../ideas/tables/table-form.ts');
    const bytes = await tableForm(services, brand, query.as, wallTimeOf(nowMs, brand.zone).slice(0, 10));
    return new Response(bytes as Uint8Array<ArrayBuffer>, { headers: { 'content-type': query.as === 'csv' ? 'text/csv; charset=utf-8' : 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', 'content-disposition': attachment(`${brand.slug}-posts.${query.as}`) } });
  },
});

const list = defineEndpoint({ contract: contracts.listTables, may: 'see', handle: async ({ services, brand }) => ({ items: (await tables.listTables(services.db, brand.id, MAX_LISTED)).map((each) => ({ ...each })) }) });

const get = defineEndpoint({ contract: contracts.getTable, may: 'see', handle: async ({ services, brand, params }) => describe(services, await found(services, brand, params.table)) });

/** @throws ProblemError 409 while something works on the table */
async function requireQuiet(services: Services, table: tables.PostTable): Promise<void> {
  const jobs = await findJobs(services.db, [makeJobKey(table.id)]);
  const job = jobs.get(makeJobKey(table.id));
  if (job?.state === 'running' || job?.state === 'waiting') throw new ProblemError(409, 'being-made', 'Pieces are being made of this table. Wait until it is done, or stop it.');
}

const change = defineEndpoint({
  contract: contracts.changeTable,
  may: 'make',
  async handle({ services, brand, params, body, nowMs }) {
    const { db, clock } = services;
    const table = await found(services, brand, params.table);
    await requireQuiet(services, table);
    const known = new Set((await listChannels(db, brand.id)).map(({ id }) => id));
    if (body.settings.usualChannelIds.some((id) => !known.has(id))) throw new ProblemError(422, 'unknown-channel', 'One of the channels is not the brand’s.');
    if (Object.values(body.mapping).some((column) => (column ?? 0) >= table.header.length)) throw new ProblemError(422, 'unknown-column', 'The table has no such column.');
    const changed = { ...table, mapping: body.mapping as tables.PostTable['mapping'], settings: body.settings };
    await tables.changeTableReading(db, table, changed.mapping, changed.settings, nowMs);
    const rows = await tables.pageRows(db, table.id, { after: 0, limit: ALL, only: null });
    const read = await withFaults(services, brand, changed, rows, nowMs);
    await db.transaction(async (trx) => {
      for (const [index, row] of rows.entries()) {
        const faults = read[index]?.faults ?? [];
        if (JSON.stringify(faults) !== JSON.stringify(row.faults)) await tables.changeRow(trx, table.id, row, { faults });
      }
    });
    await enqueueJob(db, checkJob(table.id, brand.id), clock.machineNowMs(), { again: true });
    return describe(services, changed);
  },
});

const remove = defineEndpoint({
  contract: contracts.deleteTable,
  may: 'make',
  async handle({ services, brand, params }) {
    if (!(await tables.deleteTable(services.db, brand.id, params.table))) throw notFound('table');
    return undefined;
  },
});

const listRows = defineEndpoint({
  contract: contracts.listTableRows,
  may: 'see',
  async handle({ services, brand, params, query, nowMs }) {
    const table = await found(services, brand, params.table);
    const limit = query.limit ?? PAGE;
    const page = await tables.pageRows(services.db, table.id, { after: query.after ?? 0, limit, only: query.only ?? null });
    const context = await tableContext(services, brand, table, page, nowMs);
    return { rows: page.map((row) => describeRow({ ...standingRow(table, row, context), faults: row.faults })), next: page.length < limit ? null : (page.at(-1)?.number ?? null) };
  },
});

const changeRow = defineEndpoint({
  contract: contracts.changeTableRow,
  may: 'make',
  async handle({ services, brand, params, body, nowMs }) {
    const { db } = services;
    const table = await found(services, brand, params.table);
    await requireQuiet(services, table);
    const row = await tables.findRow(db, table.id, Number(params.row));
    if (!row) throw notFound('row');
    const cells = Object.fromEntries(Object.entries(body.cells ?? {}).filter(([, value]) => value !== undefined)) as RowCells;
    const next = { ...row, own: { ...row.own, ...cells }, isLeftOut: body.isLeftOut ?? row.isLeftOut };
    await tables.changeRow(db, table.id, row, { own: next.own, isLeftOut: next.isLeftOut });
    const [checked] = await checkRows(services, brand, table, [next], nowMs);
    if (!checked) throw notFound('row');
    return describeRow(checked);
  },
});

const check = defineEndpoint({
  contract: contracts.checkTable,
  may: 'make',
  async handle({ services, brand, params }) {
    const table = await found(services, brand, params.table);
    await requireQuiet(services, table);
    await enqueueJob(services.db, checkJob(table.id, brand.id), services.clock.machineNowMs(), { again: true });
    return describe(services, table);
  },
});

const make = defineEndpoint({
  contract: contracts.makeTable,
  may: 'make',
  async handle({ services, brand, params, body, caller, role }) {
    if (body.schedule && !roleMay(role, 'send')) throw new ProblemError(403, 'role-too-low', 'You may make pieces and not schedule them. Make them as drafts.');
    const table = await found(services, brand, params.table);
    await requireQuiet(services, table);
    await enqueueJob(services.db, makeJob(table.id, brand.id, caller.person.id, body.schedule), services.clock.machineNowMs(), { again: true });
    return describe(services, table);
  },
});

const cancel = defineEndpoint({
  contract: contracts.cancelTableWork,
  may: 'make',
  async handle({ services, brand, params }) {
    const table = await found(services, brand, params.table);
    for (const key of [makeJobKey(table.id), checkJob(table.id, brand.id).key]) await moveJob(services.db, key, 'cancel', services.clock.machineNowMs());
    return describe(services, table);
  },
});

export const tableEndpoints: readonly Endpoint[] = [upload, paste, form, list, get, change, remove, listRows, changeRow, check, make, cancel];
