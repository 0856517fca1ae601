import type { Brand } from './brand-repository.ts';
import type { Db } from './connection.ts';
import { toIdea, type Idea, type IdeaRow } from './idea-repository.ts';
import { toPublication, type Publication } from './publication-repository.ts';

/**
 * Rows for export and import that the other repositories do not list: whole tables of a brand, page by page,
 * and rows that are kept under the ids that they had elsewhere.
 */

/** Rows of one page. */
const PAGE = 200;

/** A table of things that a brand has many of, and the moment by which a range chooses them. */
const pagedTables = { pieces: null, media: null, posts: 'due_ms', publications: 'published_ms', plan_entries: 'due_ms', ideas: null } as const;
export type PagedTable = keyof typeof pagedTables;

/** Which rows: those alone that are named, that lie in a range, or that are of some pieces (a few). */
export interface Chosen {
  readonly ids?: readonly string[] | null;
  readonly range?: { readonly fromMs: number; readonly toMs: number } | null;
  readonly pieceIds?: readonly string[] | null;
}

/** Pages of the ids of a brand's rows. */
export async function* pageIds(db: Db, table: PagedTable, brandId: string, { ids, range, pieceIds }: Chosen = {}): AsyncGenerator<readonly string[]> {
  const column = pagedTables[table];
  const page = (after: string, among: readonly string[] | null): Promise<string[]> => {
    const query = db(table).where({ brand_id: brandId }).where('id', '>', after).orderBy('id').limit(PAGE);
    if (table === 'pieces') query.whereNot('shelf', 'deleted');
    if (range && column !== null) query.where(column, '>=', range.fromMs).where(column, '<', range.toMs);
    if (pieceIds) query.whereIn('piece_id', [...pieceIds]);
    if (among) query.whereIn('id', [...among]);
    return query.pluck('id');
  };
  if (ids) {
    for (let start = 0; start < ids.length; start += PAGE) yield await page('', ids.slice(start, start + PAGE));
    return;
  }
  for (let after = ''; ; ) {
    const found = await page(after, null);
    if (found.length > 0) yield found;
    if (found.length < PAGE) return;
    after = found.at(-1) ?? '';
  }
}

export interface PieceRow {
  readonly id: string;
  readonly hash: string;
  readonly body: string;
  readonly shelf: 'use' | 'archived';
  readonly createdMs: number;
  readonly updatedMs: number;
}

export async function listPieceRows(db: Db, ids: readonly string[]): Promise<readonly PieceRow[]> {
  const rows: { id: string; hash: string; body: string; shelf: PieceRow['shelf']; created_ms: number; updated_ms: number }[] = await db('pieces').join('documents', 'documents.hash', 'pieces.hash').whereIn('pieces.id', [...ids]).orderBy('pieces.id').select('pieces.id', 'pieces.hash', 'documents.body', 'pieces.shelf', 'pieces.created_ms', 'pieces.updated_ms');
  return rows.map((row) => ({ id: row.id, hash: row.hash, body: row.body, shelf: row.shelf, createdMs: Number(row.created_ms), updatedMs: Number(row.updated_ms) }));
}

/** Hashes of a piece's states, the latest first, at most so many. */
export async function listStates(db: Db, pieceId: string, limit: number): Promise<readonly string[]> {
  const hashes: string[] = await db('piece_revisions').where({ piece_id: pieceId }).orderBy('revision', 'desc').limit(limit).pluck('hash');
  return [...new Set(hashes)];
}

/** Where a piece of this id stands, whichever brand has it. */
export async function findPieceState(db: Db, id: string): Promise<{ readonly brandId: string; readonly hash: string; readonly revision: number; readonly shelf: string } | null> {
  const row: { brand_id: string; hash: string; revision: number; shelf: string } | undefined = await db('pieces').where({ id }).first('brand_id', 'hash', 'revision', 'shelf');
  return row ? { brandId: row.brand_id, hash: row.hash, revision: row.revision, shelf: row.shelf } : null;
}

/** Gives an imported piece its own dates and its shelf. */
export async function datePiece(db: Db, id: string, { createdMs, isArchived, updatedMs }: { readonly createdMs: number; readonly updatedMs: number; readonly isArchived: boolean }): Promise<void> {
  await db('pieces').where({ id }).update({ created_ms: createdMs, shelf: isArchived ? 'archived' : 'use', shelved_ms: isArchived ? updatedMs : null });
}

/** Marks an imported channel as disconnected. */
export async function endAccess(db: Db, id: string, { isRemoved, isPinned, groupName }: { readonly isRemoved: boolean; readonly isPinned: boolean; readonly groupName: string }, nowMs: number): Promise<void> {
  await db('channels').where({ id }).update({ state: 'ended', is_pinned: isPinned, group_name: groupName, removed_ms: isRemoved ? nowMs : null });
}

export async function listTypefaces(db: Db, brandId: string): Promise<readonly { readonly hash: string; readonly family: string; readonly weight: number }[]> {
  return db('typefaces').where({ brand_id: brandId }).orderBy('hash').select('hash', 'family', 'weight');
}

export async function listSeries(db: Db, brandId: string): Promise<readonly { readonly id: string; readonly name: string; readonly pieceIds: readonly string[] }[]> {
  const series: { id: string; name: string }[] = await db('series').where({ brand_id: brandId }).orderBy('id').select('id', 'name');
  const parts: { series_id: string; piece_id: string }[] = await db('series_pieces').whereIn('series_id', db('series').where({ brand_id: brandId }).select('id')).orderBy('position').select('series_id', 'piece_id');
  return series.map(({ id, name }) => ({ id, name, pieceIds: parts.filter(({ series_id }) => series_id === id).map(({ piece_id }) => piece_id) }));
}

export interface DeliveryRow {
  readonly postId: string;
  readonly channelId: string;
  readonly placement: string;
  readonly state: string;
  readonly words: string;
  readonly address: string | null;
  readonly sentMs: number | null;
}

export async function listDeliveryRows(db: Db, postIds: readonly string[]): Promise<readonly DeliveryRow[]> {
  const rows: { post_id: string; channel_id: string; placement: string; state: string; words: string; address: string | null; sent_ms: number | null }[] = await db('deliveries').whereIn('post_id', [...postIds]).orderBy('id').select('post_id', 'channel_id', 'placement', 'state', 'words', 'address', 'sent_ms');
  return rows.map((row) => ({ postId: row.post_id, channelId: row.channel_id, placement: row.placement, state: row.state, words: row.words, address: row.address, sentMs: row.sent_ms === null ? null : Number(row.sent_ms) }));
}

export async function listPublications(db: Db, ids: readonly string[]): Promise<readonly Publication[]> {
  return ((await db('publications').whereIn('id', [...ids]).orderBy('id')) as object[]).map(toPublication);
}

export async function listIdeas(db: Db, ids: readonly string[]): Promise<readonly Idea[]> {
  return ((await db('ideas').whereIn('id', [...ids]).orderBy('id')) as IdeaRow[]).map(toIdea);
}

/** All measurements of publications, by publication. */
export async function listAllMeasurements(db: Db, ids: readonly string[]): Promise<ReadonlyMap<string, readonly (readonly [metric: string, atMs: number, value: number, counted: number])[]>> {
  const rows: { publication_id: string; metric: string; at_ms: number; value: number; counted: number }[] = await db('measurements').whereIn('publication_id', [...ids]).orderBy(['publication_id', 'metric', 'at_ms']).select('publication_id', 'metric', 'at_ms', 'value', 'counted');
  const found = new Map<string, [string, number, number, number][]>();
  for (const { publication_id, metric, at_ms, value, counted } of rows) found.set(publication_id, [...(found.get(publication_id) ?? []), [metric, Number(at_ms), Number(value), counted]]);
  return found;
}

/** Tables whose rows are imported as they are. */
export type KeptTable = 'channels' | 'campaigns' | 'series' | 'plan_entries' | 'repeats' | 'boilerplates' | 'publications' | 'feeds' | 'feed_rules' | 'saved_answers' | 'short_links' | 'queue_entries' | 'ideas' | 'pieces' | 'media';

const keyOf = (table: KeptTable): string => (table === 'short_links' ? 'code' : 'id');

/** Whose row of this id it is: nobody’s, this brand’s, or another’s. */
export async function whoHas(db: Db, table: KeptTable, brandId: string, id: string): Promise<'nobody' | 'here' | 'others'> {
  const row: { brand_id: string } | undefined = await db(table).where({ [keyOf(table)]: id }).first('brand_id');
  return row === undefined ? 'nobody' : row.brand_id === brandId ? 'here' : 'others';
}

/** Keeps a row; false when something of the brand stands in its place already. */
export async function keepRow(db: Db, table: KeptTable, row: Readonly<Record<string, unknown>>): Promise<boolean> {
  const rows: unknown[] = await db(table).insert(row).onConflict().ignore().returning(keyOf(table));
  return rows.length > 0;
}

/** Values of one statement: engines limit them. */
const BATCH = 150;

export async function keepMeasurements(db: Db, publicationId: string, measurements: readonly (readonly [string, number, number, number])[]): Promise<void> {
  for (let start = 0; start < measurements.length; start += BATCH) {
    await db('measurements').insert(measurements.slice(start, start + BATCH).map(([metric, at_ms, value, counted]) => ({ publication_id: publicationId, metric, at_ms, value, counted }))).onConflict(['publication_id', 'metric', 'at_ms']).ignore();
  }
}

/** Removes a row of an import that was cancelled. */
export async function dropRow(db: Db, table: KeptTable, id: string): Promise<void> {
  await db(table).where({ [keyOf(table)]: id }).delete();
}

/** A brand by its id, with the role that a person has in it; null: nobody has begun it here. */
export async function findRoleIn(db: Db, brandId: string, personId: string): Promise<{ readonly slug: string; readonly name: string; readonly role: string | null; readonly members: number } | null> {
  const row: Pick<Brand, 'slug' | 'name'> | undefined = await db('brands').where({ id: brandId }).first('slug', 'name');
  if (!row) return null;
  const membership: { role: string } | undefined = await db('memberships').where({ brand_id: brandId, person_id: personId }).first('role');
  const count = await db('memberships').where({ brand_id: brandId }).count<{ count: number | string }[]>({ count: '*' }).first();
  return { ...row, role: membership?.role ?? null, members: Number(count?.count ?? 0) };
}

/** Deletes a brand that an import had begun: nobody is in it yet. */
export async function dropBegunBrand(db: Db, brandId: string): Promise<void> {
  await db('brands').where({ id: brandId }).whereNotExists(db('memberships').select(db.raw('1')).where({ brand_id: brandId })).delete();
}
