import type { PieceKind } from '../../core/piece/piece.ts';
import { movableStates, postStateOf, type PostState } from '../../core/post/post-state.ts';
import type { DeliveryState } from '../../core/post/delivery-state.ts';
import { boundedCount } from './bounded-count.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** One planned outing of a piece. What it is made of is pinned; its deliveries are its cuts on their channels. */
export interface Post {
  readonly id: string;
  readonly brandId: string;
  readonly pieceId: string;
  readonly pieceName: string;
  readonly kind: PieceKind;
  /** The document that names everything it is made of. */
  readonly pin: string;
  /** The pinned piece: another hash than the piece has now means that the piece has changed since. */
  readonly pieceHash: string;
  readonly state: PostState;
  readonly dueMs: number;
  readonly wall: string;
  readonly zone: string;
  readonly revision: number;
  readonly createdBy: string;
  readonly themeId: string | null;
  readonly campaignId: string | null;
  readonly origin: 'person' | 'slot' | 'rotation' | 'repeat';
  /** How many people approve it before it goes out. */
  readonly signOffNeeded: number;
}

export type NewPost = Omit<Post, 'revision'>;

/** What made a post: the database keeps each part of a request, and each occurrence of a repeat, once. */
export interface MadeBy {
  readonly request?: string;
  readonly part?: number;
  readonly repeat?: { readonly id: string; readonly occurrence: string };
}

const toPost = (row: object): Post => fromRow<Post>(row);
const COLUMNS = ['id', 'brand_id', 'piece_id', 'piece_name', 'kind', 'pin', 'piece_hash', 'state', 'due_ms', 'wall', 'zone', 'revision', 'created_by', 'theme_id', 'campaign_id', 'origin', 'sign_off_needed'];

/**
 * Writes a post and which media it shows; its deliveries are written beside it in the same transaction.
 * @param by what makes it
 */
export async function insertPost(trx: Db, post: NewPost, mediaIds: readonly string[], machineNowMs: number, by: MadeBy = {}): Promise<void> {
  await trx('posts').insert({
    id: post.id,
    brand_id: post.brandId,
    piece_id: post.pieceId,
    piece_name: post.pieceName,
    kind: post.kind,
    pin: post.pin,
    piece_hash: post.pieceHash,
    state: post.state,
    due_ms: post.dueMs,
    wall: post.wall,
    zone: post.zone,
    created_by: post.createdBy,
    theme_id: post.themeId,
    campaign_id: post.campaignId,
    origin: post.origin,
    sign_off_needed: post.signOffNeeded,
    repeat_id: by.repeat?.id ?? null,
    occurrence: by.repeat?.occurrence ?? null,
    request: by.request ?? null,
    request_part: by.part ?? null,
    created_ms: machineNowMs,
    updated_ms: machineNowMs,
  });
  await writePostMedia(trx, post, mediaIds);
  await noteChange(trx, { brandId: post.brandId, kind: 'post', subjectId: post.id }, machineNowMs);
}

async function writePostMedia(trx: Db, post: Pick<Post, 'id' | 'state'>, mediaIds: readonly string[]): Promise<void> {
  if (mediaIds.length > 0) await trx('post_media').insert(mediaIds.map((media_id) => ({ post_id: post.id, media_id, state: post.state })));
}

/** Posts by their ids. */
export async function listPosts(db: Db, brandId: string, ids: readonly string[]): Promise<readonly Post[]> {
  return (await db('posts').where({ brand_id: brandId }).whereIn('id', [...ids]).orderBy('id').select(COLUMNS)).map(toPost);
}

/** All posts of a piece. */
export async function findPostsOfPiece(db: Db, pieceId: string): Promise<readonly Post[]> {
  return (await db('posts').where({ piece_id: pieceId }).select(COLUMNS)).map(toPost);
}

export async function findPost(db: Db, brandId: string, id: string): Promise<Post | null> {
  const row: object | undefined = await db('posts').where({ brand_id: brandId, id }).first(COLUMNS);
  return row ? toPost(row) : null;
}

/** Makes the state of a post follow from those of its deliveries, after one of them has changed. */
export async function refreshPostState(trx: Db, brandId: string, postId: string, machineNowMs: number): Promise<void> {
  const states: DeliveryState[] = await trx('deliveries').where({ post_id: postId }).pluck('state');
  const state = postStateOf(states);
  await trx('posts').where({ id: postId }).update({ state, updated_ms: machineNowMs });
  await trx('post_media').where({ post_id: postId }).whereNot({ state }).update({ state });
  await noteChange(trx, { brandId, kind: 'post', subjectId: postId }, machineNowMs);
}

/** Moves a scheduled post to another moment; false when nothing of it waits any more. */
export async function movePost(trx: Db, brandId: string, id: string, moment: Pick<Post, 'dueMs' | 'wall' | 'zone'>, machineNowMs: number): Promise<boolean> {
  const moved = await trx('posts').where({ brand_id: brandId, id }).whereIn('state', [...movableStates]).update({ due_ms: moment.dueMs, wall: moment.wall, zone: moment.zone, updated_ms: machineNowMs, revision: trx.raw('revision + 1') });
  if (moved > 0) await noteChange(trx, { brandId, kind: 'post', subjectId: id }, machineNowMs);
  return moved > 0;
}

/** Makes transactions about one post take turns: whoever reads after this sees what the one before has written. */
export async function holdPostForWriting(trx: Db, id: string, machineNowMs: number): Promise<void> {
  await trx('posts').where({ id }).update({ updated_ms: machineNowMs });
}

/** Posts that wait for approval, the earliest first, at most so many. */
export async function listPostsInReview(db: Db, brandId: string, limit: number): Promise<readonly Post[]> {
  const rows: object[] = await db('posts').where({ brand_id: brandId, state: 'in review' }).orderBy([{ column: 'due_ms' }, { column: 'id' }]).limit(limit).select(COLUMNS);
  return rows.map(toPost);
}

/** Posts of which something still waits or is held. */
export async function listWaitingPosts(db: Db, brandId: string): Promise<readonly Pick<Post, 'id' | 'wall' | 'dueMs'>[]> {
  const rows: object[] = await db('posts').where({ brand_id: brandId }).whereIn('state', ['in review', 'scheduled', 'held']).select('id', 'wall', 'due_ms');
  return rows.map((row) => fromRow<Pick<Post, 'id' | 'wall' | 'dueMs'>>(row));
}

/** Writes another moment of a post, whatever its state. */
export async function setPostMoment(trx: Db, brandId: string, id: string, moment: Pick<Post, 'dueMs' | 'wall' | 'zone'>, machineNowMs: number): Promise<void> {
  await trx('posts').where({ brand_id: brandId, id }).update({ due_ms: moment.dueMs, wall: moment.wall, zone: moment.zone, updated_ms: machineNowMs, revision: trx.raw('revision + 1') });
  await noteChange(trx, { brandId, kind: 'post', subjectId: id }, machineNowMs);
}

/** Pins a scheduled post anew; false when nothing of it waits any more. */
export async function repinPost(trx: Db, brandId: string, id: string, made: Pick<Post, 'pin' | 'pieceHash' | 'pieceName'>, mediaIds: readonly string[], machineNowMs: number): Promise<boolean> {
  const [pinned]: { state: PostState }[] = await trx('posts').where({ brand_id: brandId, id }).whereIn('state', [...movableStates]).update({ pin: made.pin, piece_hash: made.pieceHash, piece_name: made.pieceName, updated_ms: machineNowMs, revision: trx.raw('revision + 1') }).returning('state');
  if (!pinned) return false;
  await trx('post_media').where({ post_id: id }).delete();
  await writePostMedia(trx, { id, state: pinned.state }, mediaIds);
  await noteChange(trx, { brandId, kind: 'post', subjectId: id }, machineNowMs);
  return true;
}

/** Gives posts another theme or campaign; what is missing stays. Answers how many posts that were. */
export async function tagPosts(trx: Db, brandId: string, ids: readonly string[], tags: { readonly themeId?: string | null; readonly campaignId?: string | null }, machineNowMs: number): Promise<number> {
  const fields = { ...(tags.themeId === undefined ? {} : { theme_id: tags.themeId }), ...(tags.campaignId === undefined ? {} : { campaign_id: tags.campaignId }) };
  if (Object.keys(fields).length === 0) return 0;
  const changed = await trx('posts').where({ brand_id: brandId }).whereIn('id', [...ids]).update(fields);
  for (const id of ids) await noteChange(trx, { brandId, kind: 'post', subjectId: id }, machineNowMs);
  return changed;
}

const waiting: readonly PostState[] = ['in review', 'scheduled', 'held', 'sending', 'by hand', 'failed'];
const gone: readonly PostState[] = ['out', 'partly out'];

/** How many posts keep a picture, clip or sound of the brand: those on their way, and those that are out; each at most `MAX_COUNTED`. */
export async function countPostsShowing(db: Db, mediaId: string): Promise<{ readonly scheduled: number; readonly sent: number }> {
  const showing = (states: readonly PostState[]): Promise<number> => boundedCount(db, db('post_media').where({ media_id: mediaId }).whereIn('state', [...states]));
  const [scheduled, sent] = await Promise.all([showing(waiting), showing(gone)]);
  return { scheduled, sent };
}
