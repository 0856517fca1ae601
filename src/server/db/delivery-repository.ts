import { deliveryStates, statesAllowing, type DeliveryEvent, type DeliveryState } from '../../core/post/delivery-state.ts';
import type { DeliveryStep } from '../../core/post/delivery-step.ts';
import type { Words } from '../../core/words/fields.ts';
import { boundedCount } from './bounded-count.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';
import { refreshPostState, type Post } from './post-repository.ts';
import { notePublished, noteTakenDown } from './publication-repository.ts';
import { fromRow } from './row.ts';

/** One cut of a post with its words on its way to one channel, with what its post says of it. */
export interface Delivery extends Pick<Post, 'pieceId' | 'pieceName' | 'kind' | 'pin' | 'pieceHash' | 'wall' | 'zone'> {
  readonly id: string;
  readonly postId: string;
  readonly brandId: string;
  readonly channelId: string;
  /** The network of its channel. */
  readonly network: string;
  readonly placement: string;
  readonly placementName: string;
  /** Composed for this channel when the post was scheduled. */
  readonly words: Words;
  readonly state: DeliveryState;
  /** By the product's clock. */
  readonly dueMs: number;
  /** By the machine's clock: when the next attempt may begin. */
  readonly notBeforeMs: number;
  /** Names the attempt that holds it. */
  readonly lease: string | null;
  readonly attempt: number;
  readonly idempotencyKey: string;
  /** What has been uploaded so far: ids on the network, in the order of the slides. */
  readonly remoteMedia: readonly string[];
  readonly remoteDraftId: string | null;
  readonly publishIntentMs: number | null;
  /** Public address. With follow-ups it is set before the delivery counts as sent. */
  readonly address: string | null;
  /** How many of the parts and comments that follow the post are out. */
  readonly followed: number;
  readonly problem: string | null;
  readonly sentMs: number | null;
  /** The step that is being done while it is sent. */
  readonly step: DeliveryStep | null;
  /** Since when a person has to place it, and until when they want to hear nothing of it. */
  readonly handedMs: number | null;
  readonly snoozedUntilMs: number | null;
}

const COLUMNS = ['deliveries.*', 'posts.piece_id', 'posts.piece_name', 'posts.kind', 'posts.pin', 'posts.piece_hash', 'posts.wall', 'posts.zone', 'channels.network_key as network'];

const toDelivery = (row: object): Delivery => {
  const delivery = fromRow<Omit<Delivery, 'remoteMedia' | 'words'> & { readonly remoteMedia: string; readonly words: string }>(row);
  return { ...delivery, remoteMedia: JSON.parse(delivery.remoteMedia) as string[], words: JSON.parse(delivery.words) as Words };
};

const selectDeliveries = (db: Db) => db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').join('channels', 'channels.id', 'deliveries.channel_id');

export type NewDelivery = Pick<Delivery, 'id' | 'channelId' | 'placement' | 'placementName' | 'words' | 'idempotencyKey'>;

/** Writes deliveries that went out before Confetti kept them, with where they are: there is nothing to send. */
export async function insertPastDeliveries(trx: Db, post: Pick<Post, 'id' | 'brandId' | 'dueMs'>, made: readonly (NewDelivery & { readonly address?: string })[], sentMs: number): Promise<void> {
  await insertDeliveries(trx, { ...post, state: 'scheduled' }, made, sentMs);
  await trx('deliveries').where({ post_id: post.id }).update({ state: 'sent', sent_ms: sentMs });
  for (const { id, address } of made) {
    if (address === undefined) continue;
    await trx('deliveries').where({ id }).update({ address });
    await notePublished(trx, id);
  }
}

/** Writes the deliveries of a post that is being written in the same transaction. */
export async function insertDeliveries(trx: Db, post: Pick<Post, 'id' | 'brandId' | 'dueMs'> & { readonly state: 'scheduled' | 'held' | 'in review' }, made: readonly NewDelivery[], machineNowMs: number): Promise<void> {
  await trx.batchInsert(
    'deliveries',
    made.map((each) => ({
      id: each.id,
      post_id: post.id,
      brand_id: post.brandId,
      channel_id: each.channelId,
      placement: each.placement,
      placement_name: each.placementName,
      words: JSON.stringify(each.words),
      state: post.state,
      due_ms: post.dueMs,
      idempotency_key: each.idempotencyKey,
      updated_ms: machineNowMs,
    })),
    50,
  );
  for (const { id } of made) await noteChange(trx, { brandId: post.brandId, kind: 'delivery', subjectId: id }, machineNowMs);
}

export async function findDelivery(db: Db, brandId: string, id: string): Promise<Delivery | null> {
  const row: object | undefined = await selectDeliveries(db).where({ 'deliveries.brand_id': brandId, 'deliveries.id': id }).first(COLUMNS);
  return row ? toDelivery(row) : null;
}

/** @throws RangeError when there is no such delivery */
export async function getDelivery(db: Db, id: string): Promise<Delivery> {
  const row: object | undefined = await selectDeliveries(db).where('deliveries.id', id).first(COLUMNS);
  if (!row) throw new RangeError(`There is no delivery '${id}'`);
  return toDelivery(row);
}

export async function listDeliveriesOf(db: Db, postId: string): Promise<readonly Delivery[]> {
  const rows: object[] = await selectDeliveries(db).where('deliveries.post_id', postId).select(COLUMNS).orderBy('deliveries.id');
  return rows.map(toDelivery);
}

/** What a request of a client has made, the earliest first; nothing when it is new. */
export async function listDeliveriesOfRequest(db: Db, brandId: string, request: string): Promise<readonly Delivery[]> {
  const rows: object[] = await selectDeliveries(db).where({ 'posts.brand_id': brandId, 'posts.request': request }).select(COLUMNS).orderBy([{ column: 'posts.request_part' }, { column: 'deliveries.id' }]);
  return rows.map(toDelivery);
}

/** The latest deliveries of a piece that are listed for some of its cuts. */
const MAX_OF_PIECE = 500;

/** The latest deliveries of cuts of a piece. */
export async function listDeliveriesOfPiece(db: Db, pieceId: string, cuts: readonly { readonly channelId: string; readonly placement: string }[]): Promise<readonly Delivery[]> {
  const rows: object[] = await selectDeliveries(db)
    .where('posts.piece_id', pieceId)
    .whereIn('deliveries.channel_id', [...new Set(cuts.map(({ channelId }) => channelId))])
    .whereIn('deliveries.placement', [...new Set(cuts.map(({ placement }) => placement))])
    .select(COLUMNS)
    .orderBy([{ column: 'deliveries.due_ms', order: 'desc' }, { column: 'deliveries.id', order: 'desc' }])
    .limit(MAX_OF_PIECE);
  return rows.map(toDelivery);
}

export interface DeliveryFilter {
  readonly state: DeliveryState | null;
  readonly pieceId: string | null;
  /** Only these, by id. */
  readonly ids: readonly string[] | null;
  readonly before: { readonly ms: number; readonly id: string } | null;
  readonly limit: number;
}

/** A page of deliveries, latest due first, each with whether its piece has changed since it was pinned. */
export async function pageDeliveries(db: Db, brandId: string, filter: DeliveryFilter): Promise<readonly (Delivery & { readonly pieceChanged: boolean })[]> {
  const query = selectDeliveries(db)
    .join('pieces', 'pieces.id', 'posts.piece_id')
    .where('deliveries.brand_id', brandId)
    .select(...COLUMNS, 'pieces.hash as current_hash')
    .orderBy([{ column: 'deliveries.due_ms', order: 'desc' }, { column: 'deliveries.id', order: 'desc' }])
    .limit(filter.limit);
  if (filter.state) query.where('deliveries.state', filter.state);
  if (filter.pieceId) query.where('posts.piece_id', filter.pieceId);
  if (filter.ids) query.whereIn('deliveries.id', [...filter.ids]);
  if (filter.before) query.whereRaw('(deliveries.due_ms, deliveries.id) < (?, ?)', [filter.before.ms, filter.before.id]);
  const rows: (object & { current_hash: string })[] = await query;
  return rows.map(({ current_hash, ...row }) => {
    const delivery = toDelivery(row);
    return { ...delivery, pieceChanged: delivery.pieceHash !== current_hash };
  });
}

/** How many deliveries are in each state, each at most `MAX_COUNTED`. */
export async function countDeliveries(db: Db, brandId: string, pieceId: string | null): Promise<Readonly<Record<DeliveryState, number>>> {
  const counts: Partial<Record<DeliveryState, number>> = {};
  for (const state of deliveryStates) {
    const query = db('deliveries').where({ 'deliveries.brand_id': brandId, 'deliveries.state': state });
    if (pieceId) query.join('posts', 'posts.id', 'deliveries.post_id').where('posts.piece_id', pieceId);
    counts[state] = await boundedCount(db, query);
  }
  return counts as Record<DeliveryState, number>;
}

/** Tells watchers of a delivery, and lets its post follow. */
async function noteDelivery(trx: Db, delivery: Pick<Delivery, 'id' | 'brandId' | 'postId'>, machineNowMs: number): Promise<void> {
  await refreshPostState(trx, delivery.brandId, delivery.postId, machineNowMs);
  await noteChange(trx, { brandId: delivery.brandId, kind: 'delivery', subjectId: delivery.id }, machineNowMs);
}

/** Writes to deliveries in a transaction and answers the changed rows, with their posts told. */
async function changeDeliveries(trx: Db, query: import('knex').Knex.QueryBuilder, fields: Readonly<Record<string, unknown>>, machineNowMs: number): Promise<readonly string[]> {
  const rows: { id: string; brand_id: string; post_id: string }[] = await query.update({ ...fields, updated_ms: machineNowMs }).returning(['id', 'brand_id', 'post_id']);
  for (const row of rows) await noteDelivery(trx, { id: row.id, brandId: row.brand_id, postId: row.post_id }, machineNowMs);
  return rows.map(({ id }) => id);
}

/** Begins an attempt under a lease; null when the delivery is not to be sent any more. */
export async function beginDelivery(db: Db, id: string, { lease, attempt }: { readonly lease: string; readonly attempt: number }, machineNowMs: number): Promise<Delivery | null> {
  return db.transaction(async (trx) => {
    const begun = await changeDeliveries(trx, trx('deliveries').where({ id }).whereIn('state', [...statesAllowing('claim')]), { state: 'sending', lease, attempt }, machineNowMs);
    return begun.length > 0 ? getDelivery(trx, id) : null;
  });
}

/** Notes how far a held delivery has come; false when the lease was lost. */
export async function noteProgress(db: Db, id: string, lease: string, progress: Partial<Pick<Delivery, 'remoteMedia' | 'remoteDraftId' | 'publishIntentMs' | 'step' | 'followed'>>): Promise<boolean> {
  const fields = {
    ...(progress.remoteMedia === undefined ? {} : { remote_media: JSON.stringify(progress.remoteMedia) }),
    ...(progress.remoteDraftId === undefined ? {} : { remote_draft_id: progress.remoteDraftId }),
    ...(progress.publishIntentMs === undefined ? {} : { publish_intent_ms: progress.publishIntentMs }),
    ...(progress.step === undefined ? {} : { step: progress.step }),
    ...(progress.followed === undefined ? {} : { followed: progress.followed }),
  };
  return (await db('deliveries').where({ id, lease, state: 'sending' }).update(fields)) > 0;
}

/** Writes down that the post is out, while something follows it; false when the lease is lost. */
export async function noteOut(db: Db, id: string, lease: string, out: { readonly address: string; readonly sentMs: number }): Promise<boolean> {
  return db.transaction(async (trx) => {
    const noted = await trx('deliveries').where({ id, lease, state: 'sending' }).update({ address: out.address, sent_ms: out.sentMs });
    if (noted > 0) await notePublished(trx, id);
    return noted > 0;
  });
}

export type Outcome =
  | { readonly kind: 'confirm'; readonly address: string; readonly sentMs: number }
  | { readonly kind: 'postpone'; readonly problem: string; readonly notBeforeMs: number }
  | { readonly kind: 'refuse'; readonly problem: string }
  /** A person has to place it. */
  | { readonly kind: 'hand-over'; readonly handedMs: number }
  /** Its channel lets nothing out now. */
  | { readonly kind: 'pause'; readonly problem: string };

function fieldsOf(outcome: Outcome): Readonly<Record<string, unknown>> {
  switch (outcome.kind) {
    case 'confirm':
      return { state: 'sent', address: outcome.address, sent_ms: outcome.sentMs, problem: null };
    case 'postpone':
      return { state: 'scheduled', problem: outcome.problem, not_before_ms: outcome.notBeforeMs };
    case 'refuse':
      return { state: 'failed', problem: outcome.problem };
    case 'hand-over':
      return { state: 'by hand', handed_ms: outcome.handedMs, snoozed_until_ms: null, problem: null };
    case 'pause':
      return { state: 'held', problem: outcome.problem };
  }
}

/** Ends an attempt, if the lease is still held; false when it was lost. */
export async function finishDelivery(db: Db, id: string, lease: string, outcome: Outcome, machineNowMs: number): Promise<boolean> {
  return db.transaction(async (trx) => {
    const ended = await changeDeliveries(trx, trx('deliveries').where({ id, lease, state: 'sending' }), { ...fieldsOf(outcome), lease: null, step: null }, machineNowMs);
    if (ended.length > 0 && outcome.kind === 'confirm') await notePublished(trx, id);
    return ended.length > 0;
  });
}

/** A published delivery becomes sent: cancelling skips its remaining follow-ups. */
const cancelled = (trx: Db): Readonly<Record<string, unknown>> => ({ state: trx.raw("case when address is null then 'cancelled' else 'sent' end"), problem: trx.raw('case when address is null then problem end') });

/** A person's act on a delivery; false when its state does not allow it any more. */
export async function moveDelivery(
  trx: Db,
  brandId: string,
  id: string,
  event: Extract<DeliveryEvent, 'cancel' | 'retry'> | 'send-now',
  { nowMs, machineNowMs }: { readonly nowMs: number; readonly machineNowMs: number },
): Promise<boolean> {
  const from: readonly DeliveryState[] = event === 'send-now' ? ['scheduled'] : statesAllowing(event);
  const fields =
    event === 'cancel'
      ? cancelled(trx)
      : event === 'retry'
        ? { state: 'scheduled', attempt: 0, problem: null, not_before_ms: 0 }
        : { due_ms: trx.raw('case when due_ms < ? then due_ms else ? end', [nowMs, nowMs]), not_before_ms: 0 };
  return (await changeDeliveries(trx, trx('deliveries').where({ brand_id: brandId, id }).whereIn('state', [...from]), fields, machineNowMs)).length > 0;
}

/** Moves the waiting deliveries of a post to another moment and answers their ids. */
export async function moveDeliveriesOf(trx: Db, postId: string, dueMs: number, machineNowMs: number): Promise<readonly string[]> {
  // A delivery with an address is partly public already; its further parts follow at once.
  return changeDeliveries(trx, trx('deliveries').where({ post_id: postId }).whereIn('state', ['scheduled', 'in review']).whereNull('address'), { due_ms: dueMs, not_before_ms: 0 }, machineNowMs);
}

/** Gives a waiting delivery other words, and forgets what was uploaded of the old content; false when it does not wait or may be out. */
export async function rewordDelivery(trx: Db, id: string, words: Words, machineNowMs: number): Promise<boolean> {
  const reworded = await changeDeliveries(trx, trx('deliveries').where({ id }).whereIn('state', ['scheduled', 'in review']).whereNull('publish_intent_ms'), { words: JSON.stringify(words), remote_media: '[]', remote_draft_id: null }, machineNowMs);
  return reworded.length > 0;
}

/** Holds everything of a brand that is scheduled and not being sent; answers which deliveries. */
export async function holdDeliveries(trx: Db, brandId: string, machineNowMs: number): Promise<readonly string[]> {
  return changeDeliveries(trx, trx('deliveries').where({ brand_id: brandId }).whereIn('state', [...statesAllowing('hold')]), { state: 'held' }, machineNowMs);
}

/** Lets one delivery go, at its moment or another one; false when it is not held. */
export async function releaseDelivery(trx: Db, brandId: string, id: string, dueMs: number, machineNowMs: number): Promise<boolean> {
  return (await changeDeliveries(trx, trx('deliveries').where({ brand_id: brandId, id, state: 'held' }), { state: 'scheduled', due_ms: dueMs, not_before_ms: 0 }, machineNowMs)).length > 0;
}

/** Schedules the approved deliveries of a post; answers which. */
export async function approveDeliveries(trx: Db, postId: string, machineNowMs: number): Promise<readonly string[]> {
  return changeDeliveries(trx, trx('deliveries').where({ post_id: postId }).whereIn('state', [...statesAllowing('approve')]), { state: 'scheduled' }, machineNowMs);
}

/** Returns deliveries of a post to review; answers which. */
export async function reviewDeliveriesAgain(trx: Db, postId: string, machineNowMs: number): Promise<readonly string[]> {
  return changeDeliveries(trx, trx('deliveries').where({ post_id: postId }).whereIn('state', [...statesAllowing('ask-again')]).whereNull('publish_intent_ms'), { state: 'in review' }, machineNowMs);
}

/** Holds deliveries that may not go out now, with the reason. */
export async function holdLate(trx: Db, ids: readonly string[], problem: string | null, machineNowMs: number): Promise<void> {
  await changeDeliveries(trx, trx('deliveries').whereIn('id', [...ids]).whereIn('state', [...statesAllowing('hold')]), { state: 'held', problem }, machineNowMs);
}

/** Holds one delivery; false when it does not wait any more. */
export async function holdDelivery(trx: Db, brandId: string, id: string, machineNowMs: number): Promise<boolean> {
  return (await changeDeliveries(trx, trx('deliveries').where({ brand_id: brandId, id }).whereIn('state', [...statesAllowing('hold')]), { state: 'held', problem: null }, machineNowMs)).length > 0;
}

/** Holds what waits on a channel; answers which. */
export async function holdChannel(trx: Db, channelId: string, machineNowMs: number): Promise<readonly string[]> {
  return changeDeliveries(trx, trx('deliveries').where({ channel_id: channelId }).whereIn('state', [...statesAllowing('hold')]), { state: 'held' }, machineNowMs);
}

/** What is scheduled for a span of time, the soonest first. */
export async function listDueSoon(db: Db, brandId: string, fromMs: number, toMs: number, limit: number): Promise<readonly Pick<Delivery, 'id' | 'kind'>[]> {
  return db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').where({ 'deliveries.brand_id': brandId, 'deliveries.state': 'scheduled' }).whereBetween('deliveries.due_ms', [fromMs, toMs]).orderBy([{ column: 'deliveries.due_ms' }, { column: 'deliveries.id' }]).limit(limit).select('deliveries.id', 'posts.kind');
}

/** What is held on a channel. */
export async function listHeldOfChannel(db: Db, channelId: string): Promise<readonly Delivery[]> {
  const rows: object[] = await selectDeliveries(db).where({ 'deliveries.channel_id': channelId, 'deliveries.state': 'held' }).select(COLUMNS).orderBy([{ column: 'deliveries.due_ms' }, { column: 'deliveries.id' }]);
  return rows.map(toDelivery);
}

/** The next that waits on a channel, at most so many. */
export async function listWaitingOfChannel(db: Db, channelId: string, limit: number): Promise<readonly Delivery[]> {
  const rows: object[] = await selectDeliveries(db).where({ 'deliveries.channel_id': channelId }).whereIn('deliveries.state', ['in review', 'scheduled', 'held', 'by hand']).select(COLUMNS).orderBy([{ column: 'deliveries.due_ms' }, { column: 'deliveries.id' }]).limit(limit);
  return rows.map(toDelivery);
}

/** What waits on any channel of a network, the soonest first, at most so many. */
export async function listWaitingOnNetwork(db: Db, brandId: string, network: string, limit: number): Promise<readonly Delivery[]> {
  const rows: object[] = await selectDeliveries(db).where({ 'deliveries.brand_id': brandId, 'channels.network_key': network }).whereIn('deliveries.state', ['in review', 'scheduled', 'held']).select(COLUMNS).orderBy([{ column: 'deliveries.due_ms' }, { column: 'deliveries.id' }]).limit(limit);
  return rows.map(toDelivery);
}

/** Cancels what waits on a channel; answers which. */
export async function cancelChannel(trx: Db, channelId: string, machineNowMs: number): Promise<readonly string[]> {
  return changeDeliveries(trx, trx('deliveries').where({ channel_id: channelId }).whereIn('state', ['in review', 'scheduled', 'held', 'by hand']), cancelled(trx), machineNowMs);
}

/** Notes that a person has placed it, with its address; false when it does not wait for that. */
export async function placeDelivery(trx: Db, brandId: string, id: string, placed: { readonly address: string | null; readonly sentMs: number }, machineNowMs: number): Promise<boolean> {
  const changed = await changeDeliveries(trx, trx('deliveries').where({ brand_id: brandId, id }).whereIn('state', [...statesAllowing('place')]), { state: 'sent', address: placed.address, sent_ms: placed.sentMs, snoozed_until_ms: null }, machineNowMs);
  if (changed.length > 0) await notePublished(trx, id);
  return changed.length > 0;
}

export async function snoozeDelivery(trx: Db, brandId: string, id: string, untilMs: number, machineNowMs: number): Promise<boolean> {
  return (await changeDeliveries(trx, trx('deliveries').where({ brand_id: brandId, id, state: 'by hand' }), { snoozed_until_ms: untilMs }, machineNowMs)).length > 0;
}

/** Records that a person took a published delivery down. */
export async function markRemoved(trx: Db, brandId: string, id: string, removedMs: number, machineNowMs: number): Promise<boolean> {
  const changed = await changeDeliveries(trx, trx('deliveries').where({ brand_id: brandId, id }).whereIn('state', [...statesAllowing('remove')]), { state: 'removed', removed_ms: removedMs }, machineNowMs);
  if (changed.length > 0) await noteTakenDown(trx, id, removedMs);
  return changed.length > 0;
}

/** Notes the words and the address that a post has now that it was rewritten on its network. */
export async function markRewritten(trx: Db, brandId: string, id: string, { words, address }: Pick<Delivery, 'words'> & { readonly address: string }, machineNowMs: number): Promise<boolean> {
  return (await changeDeliveries(trx, trx('deliveries').where({ brand_id: brandId, id, state: 'sent' }), { words: JSON.stringify(words), address }, machineNowMs)).length > 0;
}

/** What is held for a reason of its own, the longest due first: a person decides about it. */
export async function listHeldWithReason(db: Db, brandId: string, limit: number): Promise<readonly Delivery[]> {
  const rows: object[] = await selectDeliveries(db).where({ 'deliveries.brand_id': brandId, 'deliveries.state': 'held' }).whereNotNull('deliveries.problem').select(COLUMNS).orderBy([{ column: 'deliveries.due_ms' }, { column: 'deliveries.id' }]).limit(limit);
  return rows.map(toDelivery);
}

/** What a person has to place, the longest due first. */
export async function listByHand(db: Db, brandId: string, limit: number): Promise<readonly Delivery[]> {
  const rows: object[] = await selectDeliveries(db).where({ 'deliveries.brand_id': brandId, 'deliveries.state': 'by hand' }).select(COLUMNS).orderBy([{ column: 'deliveries.due_ms' }, { column: 'deliveries.id' }]).limit(limit);
  return rows.map(toDelivery);
}

/** What is held, the earliest first, at most so many. */
export async function listHeld(db: Db, brandId: string, limit: number): Promise<readonly Delivery[]> {
  const rows: object[] = await selectDeliveries(db).where({ 'deliveries.brand_id': brandId, 'deliveries.state': 'held' }).select(COLUMNS).orderBy([{ column: 'deliveries.due_ms' }, { column: 'deliveries.id' }]).limit(limit);
  return rows.map(toDelivery);
}

/** No day is longer than this, whatever its clocks do. */
const LONGEST_DAY_MS = 26 * 3_600_000;

/** How many posts of a channel are planned or out on the day of a moment, as the clocks in the brand's zone say it. */
export async function countOnDay(db: Db, { brandId, channelId, dueMs, day }: { readonly brandId: string; readonly channelId: string; readonly dueMs: number; readonly day: string }): Promise<number> {
  const row = await selectDeliveries(db).where({ 'deliveries.brand_id': brandId, 'deliveries.channel_id': channelId }).where('deliveries.due_ms', '>', dueMs - LONGEST_DAY_MS).where('deliveries.due_ms', '<', dueMs + LONGEST_DAY_MS).whereNotIn('deliveries.state', ['cancelled', 'failed', 'removed']).where('posts.wall', '>=', day).where('posts.wall', '<', `${day}U`).countDistinct({ posts: 'deliveries.post_id' }).first();
  return Number(row?.['posts'] ?? 0);
}

/** Captions of the brand's last posts, each text once, the latest first. */
export async function listRecentCaptions(db: Db, brandId: string, limit: number): Promise<readonly string[]> {
  // A post has several deliveries, most of them with the same words.
  const rows: { words: string }[] = await db('deliveries').where({ brand_id: brandId }).orderBy([{ column: 'due_ms', order: 'desc' }, { column: 'id', order: 'desc' }]).limit(limit * 8).select('words');
  const captions = rows.map(({ words }) => (JSON.parse(words) as Words).caption ?? '').filter((caption) => caption !== '');
  return [...new Set(captions)].slice(0, limit);
}
