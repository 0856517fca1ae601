import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

/** What a piece is about and belongs to. It is the team's own and never goes out, so changing it changes no post. */
export interface PiecePlan {
  readonly themeId: string | null;
  readonly campaignId: string | null;
  readonly subject: string;
  readonly notes: string;
  readonly labels: readonly string[];
}

export const noPiecePlan: PiecePlan = { themeId: null, campaignId: null, subject: '', notes: '', labels: [] };

interface PlanRow {
  piece_id: string;
  theme_id: string | null;
  campaign_id: string | null;
  subject: string;
  notes: string;
}

/** The plans of some pieces, by their ids; a piece without one is missing. */
export async function listPiecePlans(db: Db, brandId: string, pieceIds: readonly string[]): Promise<ReadonlyMap<string, PiecePlan>> {
  const ids = [...new Set(pieceIds)];
  const rows: PlanRow[] = await db('piece_plans').where({ brand_id: brandId }).whereIn('piece_id', ids).select('piece_id', 'theme_id', 'campaign_id', 'subject', 'notes');
  const labels: { piece_id: string; label: string }[] = await db('piece_labels').whereIn('piece_id', ids).orderBy('label_key').select('piece_id', 'label');
  const plans = new Map(rows.map((row) => [row.piece_id, { themeId: row.theme_id, campaignId: row.campaign_id, subject: row.subject, notes: row.notes, labels: [] as string[] }]));
  for (const { piece_id, label } of labels) {
    const plan = plans.get(piece_id) ?? { ...noPiecePlan, labels: [] as string[] };
    plan.labels.push(label);
    plans.set(piece_id, plan);
  }
  return plans;
}

export async function getPiecePlan(db: Db, brandId: string, pieceId: string): Promise<PiecePlan> {
  return (await listPiecePlans(db, brandId, [pieceId])).get(pieceId) ?? noPiecePlan;
}

export async function savePiecePlan(trx: Db, brandId: string, pieceId: string, { themeId, campaignId, subject, notes, labels }: PiecePlan, machineNowMs: number): Promise<void> {
  const fields = { theme_id: themeId, campaign_id: campaignId, subject, notes };
  await trx('piece_plans').insert({ piece_id: pieceId, brand_id: brandId, ...fields }).onConflict('piece_id').merge(fields);
  await trx('piece_labels').where({ piece_id: pieceId }).delete();
  const rows = new Map(labels.map((label) => [label.toLocaleLowerCase('en'), { piece_id: pieceId, brand_id: brandId, label_key: label.toLocaleLowerCase('en'), label }]));
  if (rows.size > 0) await trx('piece_labels').insert([...rows.values()]);
  await noteChange(trx, { brandId, kind: 'piece', subjectId: pieceId }, machineNowMs);
}

/** Labels that the brand's pieces have, the most frequent first. */
export async function listLabels(db: Db, brandId: string, limit: number): Promise<readonly string[]> {
  return db('piece_labels').where({ brand_id: brandId }).groupBy('label_key').orderByRaw('count(*) desc').orderBy('label_key').limit(limit).min('label as label').pluck('label');
}

/** Pieces in use of a campaign, by name. */
export async function listCampaignPieces(db: Db, brandId: string, campaignId: string): Promise<readonly { readonly id: string; readonly name: string }[]> {
  return db('piece_plans').join('pieces', 'pieces.id', 'piece_plans.piece_id').where({ 'piece_plans.brand_id': brandId, campaign_id: campaignId, shelf: 'use' }).orderBy('pieces.sort_name').limit(500).select('pieces.id', 'pieces.name');
}
