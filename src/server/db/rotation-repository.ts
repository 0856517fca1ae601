import type { RotationSettings, Run } from '../../core/plan/rotation.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

export interface StoredRotation {
  readonly pieceId: string;
  readonly pieceName: string;
  readonly kind: 'graphic' | 'carousel' | 'video';
  readonly themeId: string | null;
  readonly template: string;
  readonly settings: RotationSettings;
  readonly isOn: boolean;
  readonly createdBy: string;
}

interface RotationRow {
  piece_id: string;
  name: string;
  kind: StoredRotation['kind'];
  theme_id: string | null;
  template_key: string;
  settings: string;
  is_on: boolean | number;
  created_by: string;
}

export async function listRotations(db: Db, brandId: string, pieceId: string | null = null): Promise<readonly StoredRotation[]> {
  const query = db('rotations')
    .join('pieces', 'pieces.id', 'rotations.piece_id')
    .leftJoin('piece_plans', 'piece_plans.piece_id', 'rotations.piece_id')
    .where({ 'rotations.brand_id': brandId })
    .whereNot('pieces.shelf', 'deleted')
    .orderBy([{ column: 'pieces.sort_name' }, { column: 'pieces.id' }])
    .select('rotations.piece_id', 'pieces.name', 'pieces.kind', 'pieces.template_key', 'piece_plans.theme_id', 'rotations.settings', 'rotations.is_on', 'rotations.created_by');
  if (pieceId !== null) query.where({ 'rotations.piece_id': pieceId });
  return ((await query) as RotationRow[]).map((row) => ({ pieceId: row.piece_id, pieceName: row.name, kind: row.kind, themeId: row.theme_id, template: row.template_key, settings: JSON.parse(row.settings) as RotationSettings, isOn: Boolean(row.is_on), createdBy: row.created_by }));
}

export async function keepRotation(db: Db, brandId: string, pieceId: string, { settings, isOn }: Pick<StoredRotation, 'settings' | 'isOn'>, personId: string, machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    await trx('rotations').insert({ piece_id: pieceId, brand_id: brandId, settings: JSON.stringify(settings), is_on: isOn, created_by: personId }).onConflict('piece_id').merge({ settings: JSON.stringify(settings), is_on: isOn });
    await noteChange(trx, { brandId, kind: 'plan', subjectId: pieceId }, machineNowMs);
  });
}

export async function deleteRotation(db: Db, brandId: string, pieceId: string, machineNowMs: number): Promise<boolean> {
  return db.transaction(async (trx) => {
    const deleted = await trx('rotations').where({ brand_id: brandId, piece_id: pieceId }).delete();
    if (deleted > 0) await noteChange(trx, { brandId, kind: 'plan', subjectId: pieceId }, machineNowMs);
    return deleted > 0;
  });
}

/** What has run since a day; posts that were cancelled have not. */
export async function listRuns(db: Db, brandId: string, sinceDay: string): Promise<readonly (Run & { readonly postId: string })[]> {
  const rows: { post_id: string; piece_id: string; channel_id: string; wording: string; picture: string; day: string }[] = await db('rotation_runs')
    .join('posts', 'posts.id', 'rotation_runs.post_id')
    .where({ 'rotation_runs.brand_id': brandId })
    .where('rotation_runs.day', '>=', sinceDay)
    .whereNot('posts.state', 'cancelled')
    .orderBy('rotation_runs.day')
    .select('rotation_runs.post_id', 'rotation_runs.piece_id', 'rotation_runs.channel_id', 'wording', 'picture', 'day');
  return rows.map((row) => ({ postId: row.post_id, pieceId: row.piece_id, channelId: row.channel_id, wording: row.wording, picture: row.picture, day: row.day }));
}

export async function insertRuns(trx: Db, brandId: string, postId: string, runs: readonly Run[]): Promise<void> {
  await trx('rotation_runs').insert(runs.map(({ pieceId, channelId, wording, picture, day }) => ({ post_id: postId, brand_id: brandId, piece_id: pieceId, channel_id: channelId, wording, picture, day })));
}
