import { setImmediate } from 'node:timers/promises';
import { nanoid } from 'nanoid';
import { mergeMade } from './merge-made.ts';
import { pieceName, type Piece } from '../../../core/piece/piece.ts';
import { findBrandById, type Brand } from '../../db/brand-repository.ts';
import { noteChange } from '../../db/change-repository.ts';
import { findJob, type NewJob } from '../../db/job-repository.ts';
import { findMediaByIds } from '../../db/media-repository.ts';
import { findPiece, insertPiece, savePiece, type StoredPiece } from '../../db/piece-repository.ts';
import { noPiecePlan, savePiecePlan } from '../../db/piece-plan-repository.ts';
import { changePlanEntry, deletePlanEntry, listEntriesOfPiece } from '../../db/plan-entry-repository.ts';
import { changeRow, countRows, findTable, pageRows, type PostTable } from '../../db/post-table-repository.ts';
import { ProblemError } from '../../errors.ts';
import type { JobHandler } from '../../jobs/job-handler.ts';
import { keepEntry, momentOfSpot, placePiece, usualCutsOf } from '../../plan/place-piece.ts';
import type { Services } from '../../services.ts';
import { fetchPicture } from '../fetch-picture.ts';
import { checkRows } from './check-table.ts';
import { pieceOfRows } from './row-piece.ts';
import { madeFrom, type StandingRow } from './table-context.ts';
import { listDeliveriesOfPiece } from '../../db/delivery-repository.ts';
import { cancelPostsOf } from './undo-made.ts';
import { templatesOf } from '../proposals.ts';

const KIND = 'table-make';
const PAGE = 100;

export const makeJobKey = (tableId: string): string => `${KIND}:${tableId}`;
export const makeJob = (tableId: string, brandId: string, personId: string, schedule: boolean): NewJob => ({ key: makeJobKey(tableId), kind: KIND, lane: 'ideas', payload: { tableId, brandId, personId, schedule }, maxAttempts: 3 });

/** What one run has made, so that it can go again when a person stops the run. */
interface MadeInRun {
  readonly pieceIds: string[];
  readonly rows: { readonly number: number; readonly before: Pick<StandingRow['row'], 'pieceId' | 'madeFrom'> }[];
}

/**
 * Makes pieces of the rows that are ready, one after the other, and puts them into the plan. A row that was made before is updated. When a person stops it, what this run has
 * made goes again, so that nothing half made stays.
 */
export function makeTableHandler(services: Services): JobHandler {
  return {
    async run({ key, payload }, { progress, signal }) {
      const { db, clock } = services;
      const brand = await findBrandById(db, payload['brandId'] as string);
      const table = brand && (await findTable(db, brand.id, payload['tableId'] as string));
      if (!brand || !table) return { kind: 'done' };
      const run: MadeInRun = { pieceIds: [], rows: [] };
      const { ready } = await countRows(db, table.id);
      let done = 0;
      const groups = await readyGroups(services, brand, table, await clock.nowMs());
      for (const group of groups) {
        if (signal.aborted || (await isCancelled(services, key))) break;
        await makeGroup(services, brand, table, group, { personId: payload['personId'] as string, schedule: payload['schedule'] === true, run });
        done += group.length;
        progress(done / Math.max(1, ready));
        // The database answers at once, so nothing else of this process would have its turn in between.
        await setImmediate();
      }
      if (await isCancelled(services, key)) await undo(services, brand, table, run);
      await db.transaction((trx) => noteChange(trx, { brandId: brand.id, kind: 'table', subjectId: table.id }, clock.machineNowMs()));
      return { kind: 'done', result: { made: run.pieceIds.length } };
    },
  };
}

/** A person has stopped the run. */
async function isCancelled({ db }: Services, key: string): Promise<boolean> {
  return (await findJob(db, key))?.state === 'cancelled';
}

type Group = readonly [StandingRow, ...StandingRow[]];

/** Rows that are ready, those that belong together in one group. */
async function readyGroups(services: Services, brand: Brand, table: PostTable, nowMs: number): Promise<readonly Group[]> {
  const groups = new Map<string, Group>();
  for (let page = await pageRows(services.db, table.id, { after: 0, limit: PAGE, only: 'ready' }); page.length > 0; page = await pageRows(services.db, table.id, { after: page.at(-1)?.number ?? 0, limit: PAGE, only: 'ready' })) {
    for (const checked of await checkRows(services, brand, table, page, nowMs)) {
      if (checked.faults.some(({ severity }) => severity === 'stops')) continue;
      const name = table.settings.together && checked.cells.key !== undefined ? `key ${checked.cells.key}` : `row ${checked.row.number}`;
      const known = groups.get(name);
      groups.set(name, known ? [...known, checked] : [checked]);
    }
  }
  return [...groups.values()];
}

interface Making {
  readonly personId: string;
  readonly schedule: boolean;
  readonly run: MadeInRun;
}

async function makeGroup(services: Services, brand: Brand, table: PostTable, group: Group, { personId, schedule, run }: Making): Promise<void> {
  const { db, clock } = services;
  const [lead] = group;
  const nowMs = await clock.nowMs();
  try {
    const document = await pieceOfRows(services, brand, await templatesOf(services, brand), group, await picturesOf(services, brand, lead, nowMs));
    const name = madeFrom(lead);
    const known = lead.row.pieceId === null ? null : await findPiece(db, brand.id, lead.row.pieceId);
    const piece = known ? await updated(services, known, document, lead.row.madeFrom !== name, personId, nowMs) : await insertPiece(db, { id: nanoid(12), brandId: brand.id, document, createdBy: personId }, nowMs);
    if (!known) run.pieceIds.push(piece.id);
    await db.transaction(async (trx) => {
      if (!known) await savePiecePlan(trx, brand.id, piece.id, { ...noPiecePlan, themeId: lead.read.themeId }, clock.machineNowMs());
      for (const { row } of group) {
        run.rows.push({ number: row.number, before: { pieceId: row.pieceId, madeFrom: row.madeFrom } });
        await changeRow(trx, table.id, row, { pieceId: piece.id, madeFrom: name });
      }
    });
    await plan(services, brand, piece, group, { personId, schedule }, nowMs);
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    const field = lead.read.picture?.kind === 'address' && /picture|answer|fetched/u.test(error.sentence) ? ('picture' as const) : ('date' as const);
    await changeRow(db, table.id, lead.row, { faults: [...lead.read.faults, { field, severity: 'stops', sentence: error.sentence, fix: null }] });
  }
}

async function picturesOf(services: Services, brand: Brand, { read }: StandingRow, nowMs: number): Promise<readonly { readonly id: string; readonly altText: string }[]> {
  if (read.picture === null) return [];
  if (read.picture.kind === 'address') {
    const { id, altText } = await fetchPicture(services, brand, read.picture.address, nowMs);
    return [{ id, altText }];
  }
  return (await findMediaByIds(services.db, brand.id, [read.picture.id])).map(({ id, altText }) => ({ id, altText }));
}

/** A piece that was made before takes what the row says now; what a person has done to it otherwise stays. */
async function updated(services: Services, piece: StoredPiece, made: Piece, isChanged: boolean, personId: string, nowMs: number): Promise<StoredPiece> {
  if (!isChanged) return piece;
  const saved = await savePiece(services.db, piece, mergeMade(piece.document, made), personId, nowMs);
  if (!saved) throw new ProblemError(409, 'busy', 'Somebody changes this piece at the moment. Make the table again.');
  return saved;
}

/** Puts a piece at its moment: a draft where it has none yet, moved where it stands as one; a post stays as it was scheduled. */
async function plan(services: Services, brand: Brand, piece: StoredPiece, group: Group, { personId, schedule }: Pick<Making, 'personId' | 'schedule'>, nowMs: number): Promise<void> {
  const { db, clock } = services;
  const [{ read }] = group;
  if (read.wall === null) return;
  const channelIds = [...new Set(group.flatMap((each) => each.read.channelIds))];
  if ((await listDeliveriesOfPiece(db, piece.id, piece.document.cuts)).some(({ state }) => state !== 'cancelled')) return;
  const [entry] = await listEntriesOfPiece(db, brand.id, piece.id);
  const spot = { kind: 'at', wall: read.wall } as const;
  if (schedule) {
    await placePiece(services, brand, { pieceId: piece.id, channelIds, spot, again: false, ...(entry ? { entryId: entry.id } : {}) }, personId, nowMs);
    return;
  }
  const { wall, dueMs } = await momentOfSpot(services, brand, spot, nowMs);
  if (entry) {
    if (entry.wall !== wall) await db.transaction((trx) => changePlanEntry(trx, brand.id, entry.id, entry.revision, { wall, dueMs, zone: brand.zone, slotKey: null }, clock.machineNowMs()));
    return;
  }
  const cuts = await usualCutsOf(services, brand, piece, channelIds);
  if (cuts.length === 0) throw new ProblemError(422, 'no-cut', `“${pieceName(piece.document)}” has no cut for these channels.`);
  await keepEntry(services, brand, { id: nanoid(12), pieceId: piece.id, text: '', themeId: read.themeId, campaignId: null, wall, dueMs, zone: brand.zone, slotKey: null, cuts }, personId);
}

/** Removes the pieces and plan entries of a cancelled run. */
async function undo(services: Services, brand: Brand, table: PostTable, { pieceIds, rows }: MadeInRun): Promise<void> {
  const { db, clock } = services;
  for (const pieceId of pieceIds) {
    await cancelPostsOf(services, pieceId);
    for (const { id } of await listEntriesOfPiece(db, brand.id, pieceId)) await db.transaction((trx) => deletePlanEntry(trx, brand.id, id, clock.machineNowMs()));
  }
  await db.transaction(async (trx) => {
    for (const { number, before } of rows) await trx('post_table_rows').where({ table_id: table.id, number }).update({ piece_id: before.pieceId, made_from: before.madeFrom });
    // Posts that were made and cancelled keep their piece, unseen; all others go.
    await trx('pieces').whereIn('id', pieceIds).whereNotExists(trx('posts').select(trx.raw('1')).whereRaw('?? = ??', ['posts.piece_id', 'pieces.id'])).delete();
    await trx('pieces').whereIn('id', pieceIds).update({ shelf: 'deleted', shelved_ms: await clock.nowMs() });
  });
}
