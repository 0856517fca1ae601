import type { Tone } from '../../core/plan/plan.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** Posts and pieces that belong together for a while. */
export interface Campaign {
  readonly id: string;
  readonly name: string;
  readonly fromDay: string;
  readonly untilDay: string;
  readonly aim: string;
  readonly note: string;
  readonly tone: Tone;
  readonly letter: string;
}

const MAX_LISTED = 500;
const COLUMNS = ['id', 'name', 'from_day', 'until_day', 'aim', 'note', 'tone', 'letter'];

export async function listCampaigns(db: Db, brandId: string): Promise<readonly Campaign[]> {
  const rows: object[] = await db('campaigns').where({ brand_id: brandId }).orderBy([{ column: 'from_day', order: 'desc' }, 'id']).limit(MAX_LISTED).select(COLUMNS);
  return rows.map((row) => fromRow<Campaign>(row));
}

/** Writes a campaign, new or changed. */
export async function keepCampaign(db: Db, brandId: string, { id, name, fromDay, untilDay, aim, note, tone, letter }: Campaign, machineNowMs: number): Promise<void> {
  const fields = { name, from_day: fromDay, until_day: untilDay, aim, note, tone, letter };
  await db.transaction(async (trx) => {
    const changed = await trx('campaigns').where({ brand_id: brandId, id }).update(fields);
    if (changed === 0) await trx('campaigns').insert({ id, brand_id: brandId, ...fields });
    await noteChange(trx, { brandId, kind: 'plan', subjectId: id }, machineNowMs);
  });
}

/** Deletes a campaign; its pieces and posts stay, without it. */
export async function deleteCampaign(db: Db, brandId: string, id: string, machineNowMs: number): Promise<boolean> {
  return db.transaction(async (trx) => {
    if ((await trx('campaigns').where({ brand_id: brandId, id }).delete()) === 0) return false;
    for (const table of ['piece_plans', 'posts', 'plan_entries']) await trx(table).where({ brand_id: brandId, campaign_id: id }).update({ campaign_id: null });
    await noteChange(trx, { brandId, kind: 'plan', subjectId: id }, machineNowMs);
    return true;
  });
}
