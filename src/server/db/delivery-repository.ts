import { upgradeBrandBook } from '../../core/brand/read-brand-book.ts';
import type { Words } from '../../core/network/network-sheet.ts';
import type { PieceKind } from '../../core/piece/piece.ts';
import { statesAllowing, type DeliveryEvent, type DeliveryState } from '../../core/post/delivery-state.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** One cut with its words on its way to one channel. `due` is by the product's clock, waits and leases by the machine's. */
export interface Delivery extends Words {
  readonly id: string;
  readonly brandId: string;
  readonly pieceId: string;
  readonly pieceRevision: number;
  readonly pieceName: string;
  readonly snapshotId: string;
  readonly channelId: string;
  readonly placement: string;
  readonly placementName: string;
  /** What kind of piece it sends. */
  readonly kind: PieceKind;
  readonly state: DeliveryState;
  readonly dueMs: number;
  readonly wall: string;
  readonly zone: string;
  readonly notBeforeMs: number;
  readonly lease: string | null;
  readonly attempt: number;
  readonly idempotencyKey: string;
  /** What has been uploaded so far: ids on the network, in the order of the slides. */
  readonly remoteMedia: readonly string[];
  readonly remoteDraftId: string | null;
  readonly publishIntentMs: number | null;
  readonly address: string | null;
  readonly problem: string | null;
  readonly sentMs: number | null;
  readonly updatedMs: number;
}

const toDelivery = (row: object): Delivery => {
  const delivery = fromRow<Delivery & { readonly remoteMedia: string }>(row);
  return { ...delivery, remoteMedia: JSON.parse(delivery.remoteMedia) as string[] };
};

export type NewDelivery = Pick<
  Delivery,
  'id' | 'brandId' | 'pieceId' | 'pieceRevision' | 'pieceName' | 'channelId' | 'placement' | 'placementName' | 'kind' | 'dueMs' | 'wall' | 'zone' | 'idempotencyKey'
> &
  Words;

/** Keeps a snapshot and the deliveries made of it, all or none. */
export async function insertDeliveries(
  db: Db,
  input: { readonly snapshotId: string; readonly snapshot: Snapshot; readonly deliveries: readonly NewDelivery[]; readonly createdBy: string; readonly brandId: string },
  nowMs: number,
): Promise<readonly Delivery[]> {
  return db.transaction(async (trx) => {
    await trx('snapshots').insert({ id: input.snapshotId, brand_id: input.brandId, content: JSON.stringify(input.snapshot), created_ms: nowMs });
    const rows = await trx('deliveries')
      .insert(
        input.deliveries.map((each) => ({
          id: each.id,
          brand_id: each.brandId,
          piece_id: each.pieceId,
          piece_revision: each.pieceRevision,
          piece_name: each.pieceName,
          snapshot_id: input.snapshotId,
          channel_id: each.channelId,
          placement: each.placement,
          placement_name: each.placementName,
          kind: each.kind,
          caption: each.caption,
          alt_text: each.altText,
          title: each.title,
          link: each.link,
          first_comment: each.firstComment,
          state: 'scheduled',
          due_ms: each.dueMs,
          wall: each.wall,
          zone: each.zone,
          idempotency_key: each.idempotencyKey,
          created_by: input.createdBy,
          created_ms: nowMs,
          updated_ms: nowMs,
        })),
      )
      .returning('*');
    return rows.map(toDelivery);
  });
}

export async function getSnapshot(db: Db, id: string): Promise<Snapshot> {
  const row = await db('snapshots').where({ id }).first();
  if (!row) throw new RangeError(`There is no snapshot '${id}'`);
  const kept = JSON.parse(row.content) as Snapshot;
  return { ...kept, book: upgradeBrandBook(kept.book) };
}

export async function findDelivery(db: Db, brandId: string, id: string): Promise<Delivery | null> {
  const row = await db('deliveries').where({ brand_id: brandId, id }).first();
  return row ? toDelivery(row) : null;
}

export interface DeliveryFilter {
  readonly state: DeliveryState | null;
  readonly pieceId: string | null;
  readonly before: { readonly ms: number; readonly id: string } | null;
  readonly limit: number;
}

/** A page of deliveries with the present revision of their pieces, latest due first. */
export async function pageDeliveries(db: Db, brandId: string, filter: DeliveryFilter): Promise<readonly (Delivery & { readonly currentRevision: number })[]> {
  const query = db('deliveries')
    .join('pieces', 'pieces.id', 'deliveries.piece_id')
    .where('deliveries.brand_id', brandId)
    .select('deliveries.*', 'pieces.revision as current_revision')
    .orderBy([{ column: 'deliveries.due_ms', order: 'desc' }, { column: 'deliveries.id', order: 'desc' }])
    .limit(filter.limit);
  if (filter.state) query.where('deliveries.state', filter.state);
  if (filter.pieceId) query.where('deliveries.piece_id', filter.pieceId);
  if (filter.before) query.whereRaw('(deliveries.due_ms, deliveries.id) < (?, ?)', [filter.before.ms, filter.before.id]);
  return (await query).map((row) => ({ ...toDelivery(row), currentRevision: row.current_revision }));
}

export async function countDeliveries(db: Db, brandId: string, pieceId: string | null): Promise<Readonly<Partial<Record<DeliveryState, number>>>> {
  const query = db<{ state: DeliveryState }>('deliveries').where('brand_id', brandId).groupBy('state').select('state', db.raw('count(*) as count'));
  if (pieceId) query.where('piece_id', pieceId);
  return Object.fromEntries((await query).map((row: { state: string; count?: unknown }) => [row.state, Number(row.count)]));
}

/** A number that grows whenever a delivery of the brand changes; what watchers compare. */
export async function deliveriesVersion(db: Db, brandId: string): Promise<string> {
  const row = await db('deliveries').where({ brand_id: brandId }).select(db.raw('max(updated_ms) as latest, count(*) as count, sum(attempt) as attempts')).first();
  return `${row?.['latest'] ?? 0}/${row?.['count'] ?? 0}/${row?.['attempts'] ?? 0}`;
}

/**
 * Takes the next delivery that is due, or whose holder has let its lease run out, in one statement, so that no two
 * dispatchers get the same.
 */
export async function claimDueDelivery(
  db: Db,
  claim: { readonly lease: string; readonly nowMs: number; readonly machineNowMs: number; readonly leaseMs: number; /** Which kinds of pieces; missing: all. */ readonly kinds?: readonly PieceKind[] | undefined },
): Promise<Delivery | null> {
  const due = db('deliveries')
    .select('id')
    .where((either) =>
      either
        .where((scheduled) => scheduled.where({ state: 'scheduled' }).where('due_ms', '<=', claim.nowMs).where('not_before_ms', '<=', claim.machineNowMs))
        .orWhere((abandoned) => abandoned.where({ state: 'sending' }).where('lease_until_ms', '<', claim.machineNowMs)),
    )
    .modify((query) => void (claim.kinds && query.whereIn('kind', [...claim.kinds])))
    .orderBy([{ column: 'due_ms' }, { column: 'id' }])
    .limit(1);
  const [row] = await db('deliveries')
    .where('id', '=', due)
    .update({ state: 'sending', lease: claim.lease, lease_until_ms: claim.machineNowMs + claim.leaseMs, attempt: db.raw('attempt + 1'), updated_ms: claim.machineNowMs })
    .returning('*');
  return row ? toDelivery(row) : null;
}

/** Prolongs a lease; false when it was lost. */
export async function prolongLease(db: Db, id: string, lease: string, untilMs: number): Promise<boolean> {
  return (await db('deliveries').where({ id, lease, state: 'sending' }).update({ lease_until_ms: untilMs })) > 0;
}

/** Notes how far a held delivery has come; false when the lease was lost. */
export async function noteProgress(
  db: Db,
  id: string,
  lease: string,
  progress: Partial<Pick<Delivery, 'remoteMedia' | 'remoteDraftId' | 'publishIntentMs'>>,
): Promise<boolean> {
  const fields = {
    ...(progress.remoteMedia === undefined ? {} : { remote_media: JSON.stringify(progress.remoteMedia) }),
    ...(progress.remoteDraftId === undefined ? {} : { remote_draft_id: progress.remoteDraftId }),
    ...(progress.publishIntentMs === undefined ? {} : { publish_intent_ms: progress.publishIntentMs }),
  };
  return (await db('deliveries').where({ id, lease, state: 'sending' }).update(fields)) > 0;
}

export type Outcome =
  | { readonly kind: 'confirm'; readonly address: string; readonly sentMs: number }
  | { readonly kind: 'postpone'; readonly problem: string; readonly notBeforeMs: number }
  | { readonly kind: 'refuse'; readonly problem: string };

/** Ends an attempt, if the lease is still held; false when it was lost. */
export async function finishAttempt(db: Db, id: string, lease: string, outcome: Outcome, machineNowMs: number): Promise<boolean> {
  const common = { lease: null, lease_until_ms: 0, updated_ms: machineNowMs };
  const fields =
    outcome.kind === 'confirm'
      ? { state: 'sent', address: outcome.address, sent_ms: outcome.sentMs, problem: null }
      : outcome.kind === 'postpone'
        ? { state: 'scheduled', problem: outcome.problem, not_before_ms: outcome.notBeforeMs }
        : { state: 'failed', problem: outcome.problem };
  return (await db('deliveries').where({ id, lease, state: 'sending' }).update({ ...common, ...fields })) > 0;
}

/** A person's act on a delivery; null when its state does not allow it any more. */
export async function actOnDelivery(
  db: Db,
  brandId: string,
  id: string,
  event: Extract<DeliveryEvent, 'cancel' | 'retry'> | 'send-now',
  times: { readonly nowMs: number; readonly machineNowMs: number },
): Promise<Delivery | null> {
  const from = event === 'send-now' ? (['scheduled'] as const) : statesAllowing(event);
  const fields =
    event === 'cancel'
      ? { state: 'cancelled' }
      : event === 'retry'
        ? { state: 'scheduled', attempt: 0, problem: null, not_before_ms: 0 }
        : { due_ms: db.raw('min(due_ms, ?)', [times.nowMs]), not_before_ms: 0 };
  const [row] = await db('deliveries')
    .where({ brand_id: brandId, id })
    .whereIn('state', [...from])
    .update({ ...fields, updated_ms: times.machineNowMs })
    .returning('*');
  return row ? toDelivery(row) : null;
}

/** How many posts keep a picture in their copy of the piece: those on their way, and those that are out. */
export async function countPostsShowing(db: Db, brandId: string, mediaId: string): Promise<{ readonly scheduled: number; readonly sent: number }> {
  const rows = await db('deliveries')
    .join('snapshots', 'snapshots.id', 'deliveries.snapshot_id')
    .where('deliveries.brand_id', brandId)
    .whereRaw("exists (select 1 from json_each(snapshots.content, '$.pictures') where json_extract(json_each.value, '$.id') = ?)", [mediaId])
    .groupBy('state')
    .select('state', db.raw('count(*) as count'));
  const countOf = (states: readonly DeliveryState[]): number => rows.filter((row) => states.includes(row.state)).reduce((sum, row) => sum + Number(row.count), 0);
  return { scheduled: countOf(['scheduled', 'sending', 'failed']), sent: countOf(['sent']) };
}
