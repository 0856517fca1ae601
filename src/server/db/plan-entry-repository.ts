import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

/** Something in the plan that is no post yet: a placeholder with a text, or a draft of a piece, at a moment. */
export interface PlanEntry {
  readonly id: string;
  /** Null: a placeholder. */
  readonly pieceId: string | null;
  readonly pieceName: string | null;
  readonly kind: 'graphic' | 'carousel' | 'video' | null;
  readonly text: string;
  readonly themeId: string | null;
  readonly campaignId: string | null;
  readonly wall: string;
  readonly zone: string;
  readonly dueMs: number;
  readonly slotKey: string | null;
  readonly revision: number;
  readonly cuts: readonly { readonly channelId: string; readonly placement: string }[];
}

export type NewPlanEntry = Omit<PlanEntry, 'pieceName' | 'kind' | 'revision'>;

interface EntryRow {
  id: string;
  piece_id: string | null;
  piece_name: string | null;
  kind: PlanEntry['kind'];
  text: string;
  theme_id: string | null;
  campaign_id: string | null;
  wall: string;
  zone: string;
  due_ms: number;
  slot_key: string | null;
  revision: number;
}

/** Entries in [fromMs, toMs), at most so many. */
export async function listPlanEntries(db: Db, brandId: string, range: { readonly fromMs: number; readonly toMs: number; readonly limit: number } | { readonly ids: readonly string[] }): Promise<readonly PlanEntry[]> {
  const query = db('plan_entries')
    .leftJoin('pieces', 'pieces.id', 'plan_entries.piece_id')
    .where({ 'plan_entries.brand_id': brandId })
    .orderBy([{ column: 'plan_entries.due_ms' }, { column: 'plan_entries.id' }])
    .select('plan_entries.*', 'pieces.name as piece_name', 'pieces.kind');
  if ('ids' in range) query.whereIn('plan_entries.id', [...range.ids]);
  else query.where('plan_entries.due_ms', '>=', range.fromMs).where('plan_entries.due_ms', '<', range.toMs).limit(range.limit);
  const rows: EntryRow[] = await query;
  const cuts: { entry_id: string; channel_id: string; placement: string }[] = await db('plan_entry_cuts').whereIn('entry_id', rows.map(({ id }) => id)).select('entry_id', 'channel_id', 'placement');
  return rows.map((row) => ({
    id: row.id,
    pieceId: row.piece_id,
    pieceName: row.piece_name,
    kind: row.kind,
    text: row.text,
    themeId: row.theme_id,
    campaignId: row.campaign_id,
    wall: row.wall,
    zone: row.zone,
    dueMs: Number(row.due_ms),
    slotKey: row.slot_key,
    revision: row.revision,
    cuts: cuts.filter(({ entry_id }) => entry_id === row.id).map(({ channel_id, placement }) => ({ channelId: channel_id, placement })),
  }));
}

/** Drafts of a piece in the plan. */
export async function listEntriesOfPiece(db: Db, brandId: string, pieceId: string): Promise<readonly PlanEntry[]> {
  return listPlanEntries(db, brandId, { ids: await db('plan_entries').where({ brand_id: brandId, piece_id: pieceId }).orderBy('due_ms').pluck('id') });
}

export async function insertPlanEntry(trx: Db, brandId: string, entry: NewPlanEntry, personId: string, machineNowMs: number): Promise<void> {
  const { id, pieceId, text, themeId, campaignId, wall, zone, dueMs, slotKey, cuts } = entry;
  await trx('plan_entries').insert({ id, brand_id: brandId, piece_id: pieceId, text, theme_id: themeId, campaign_id: campaignId, wall, zone, due_ms: dueMs, slot_key: slotKey, created_by: personId });
  await trx('plan_entry_cuts').insert(cuts.map(({ channelId, placement }) => ({ entry_id: id, channel_id: channelId, placement })));
  await noteChange(trx, { brandId, kind: 'entry', subjectId: id }, machineNowMs);
}

export type EntryChange = Partial<Pick<PlanEntry, 'text' | 'themeId' | 'campaignId' | 'wall' | 'zone' | 'dueMs' | 'slotKey'>>;

/** Changes an entry that is still at `revision`; false when somebody was faster, or it is gone. */
export async function changePlanEntry(trx: Db, brandId: string, id: string, revision: number, change: EntryChange, machineNowMs: number): Promise<boolean> {
  const columns = { text: change.text, theme_id: change.themeId, campaign_id: change.campaignId, wall: change.wall, zone: change.zone, due_ms: change.dueMs, slot_key: change.slotKey };
  const given = Object.fromEntries(Object.entries(columns).filter(([, value]) => value !== undefined));
  const changed = await trx('plan_entries').where({ brand_id: brandId, id, revision }).update({ ...given, revision: revision + 1 });
  if (changed > 0) await noteChange(trx, { brandId, kind: 'entry', subjectId: id }, machineNowMs);
  return changed > 0;
}

export async function deletePlanEntry(trx: Db, brandId: string, id: string, machineNowMs: number): Promise<boolean> {
  const deleted = await trx('plan_entries').where({ brand_id: brandId, id }).delete();
  if (deleted > 0) await noteChange(trx, { brandId, kind: 'entry', subjectId: id }, machineNowMs);
  return deleted > 0;
}
