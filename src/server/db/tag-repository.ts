import type { Db } from './connection.ts';

/** A hashtag of the brand with how many of its pieces have it. */
export interface UsedTag {
  readonly key: string;
  readonly tag: string;
  readonly pieces: number;
}

const MAX_TAGS = 400;
const MAX_PAIRS = 2_000;

/** Hashtags of the brand's pieces, those that most pieces have first. */
export async function listUsedTags(db: Db, brandId: string, start = '', limit = MAX_TAGS): Promise<readonly UsedTag[]> {
  // Counted in the index alone; how a tag is written is looked up for those that are answered.
  const counted = db('piece_tags').where({ brand_id: brandId }).groupBy('tag_key').select('tag_key').count({ pieces: 'piece_id' }).orderBy([{ column: 'pieces', order: 'desc' }, { column: 'tag_key' }]).limit(limit);
  if (start !== '') counted.where('tag_key', '>=', start).where('tag_key', '<', `${start}\u{10ffff}`);
  const written = db('piece_tags as each').where('each.brand_id', brandId).whereRaw('each.tag_key = counted.tag_key').select('each.tag').limit(1).as('tag');
  const rows = (await db.from(counted.as('counted')).select('counted.tag_key', 'counted.pieces', written).orderBy([{ column: 'pieces', order: 'desc' }, { column: 'tag_key' }])) as unknown as readonly { tag_key: string; tag: string; pieces: number }[];
  return rows.map((row) => ({ key: row.tag_key, tag: row.tag, pieces: Number(row.pieces) }));
}

/** Somebody whom the brand's pieces mention, with how many of them do. */
export interface UsedMention {
  readonly mention: string;
  readonly pieces: number;
}

/** Whom the brand's pieces mention, those that most pieces have first. */
export async function listUsedMentions(db: Db, brandId: string, start: string, limit: number): Promise<readonly UsedMention[]> {
  const rows = (await db('piece_mentions')
    .where({ brand_id: brandId })
    .where('name_key', '>=', start)
    .where('name_key', '<', `${start}\u{10ffff}`)
    .groupBy('name_key')
    .max({ mention: 'mention' })
    .count({ pieces: 'piece_id' })
    .orderBy([{ column: 'pieces', order: 'desc' }, { column: 'name_key' }])
    .limit(limit)) as unknown as readonly { mention: string; pieces: number }[];
  return rows.map((row) => ({ mention: row.mention, pieces: Number(row.pieces) }));
}

/** Hashtags that stand in one piece with given ones, each pair with how many pieces have both. */
export async function listTogether(db: Db, brandId: string, keys: readonly string[]): Promise<readonly { readonly present: string; readonly key: string; readonly tag: string; readonly pieces: number }[]> {
  if (keys.length === 0) return [];
  const rows = (await db('piece_tags as given')
    .join('piece_tags as beside', 'beside.piece_id', 'given.piece_id')
    .where('given.brand_id', brandId)
    .whereIn('given.tag_key', [...keys])
    .whereNotIn('beside.tag_key', [...keys])
    .groupBy('given.tag_key', 'beside.tag_key')
    .select({ present: 'given.tag_key', key: 'beside.tag_key' })
    .max({ tag: 'beside.tag' })
    .count({ pieces: 'beside.piece_id' })
    .orderBy('pieces', 'desc')
    .limit(MAX_PAIRS)) as unknown as readonly { present: string; key: string; tag: string; pieces: number }[];
  return rows.map((row) => ({ ...row, pieces: Number(row.pieces) }));
}

/** How many pieces the brand has: what shares are taken of. */
export async function countPieces(db: Db, brandId: string): Promise<number> {
  const row = (await db('pieces').where({ brand_id: brandId }).count({ pieces: '*' }).first()) as { pieces: number } | undefined;
  return Number(row?.pieces ?? 0);
}
