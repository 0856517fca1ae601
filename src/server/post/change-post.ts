import { mediaOfPiece, pieceName, type Piece } from '../../core/piece/piece.ts';
import { placeName, valueInWords } from '../../core/piece/place-name.ts';
import type { DeliveryAction } from '../../core/post/delivery-action.ts';
import { differencesOf } from '../../core/document/differences.ts';
import { listChannels, listSheetsOf, type Brand } from '../db/brand-repository.ts';
import type { Db } from '../db/connection.ts';
import { findDelivery, holdDelivery, listDeliveriesOf, moveDeliveriesOf, moveDelivery, releaseDelivery, rewordDelivery, type Delivery } from '../db/delivery-repository.ts';
import { enqueueJob, moveJob, rescheduleJob } from '../db/job-repository.ts';
import { findPiece, type StoredPiece } from '../db/piece-repository.ts';
import { movePost, repinPost, type Post } from '../db/post-repository.ts';
import { getTemplate } from '../db/template-repository.ts';
import { deliveryJob, deliveryJobKey } from '../dispatch/delivery-handler.ts';
import { pinSnapshot, readPin } from '../documents/pins.ts';
import { notFound, ProblemError } from '../errors.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import type { Services } from '../services.ts';
import { resolveMoment, type When } from './moment.ts';
import { askAgain } from './review.ts';
import { composedCut, requirePassed } from './schedule.ts';


interface Times {
  readonly nowMs: number;
  readonly machineNowMs: number;
}

/** A person's act on one delivery, with the work that sends it; false when its state does not allow it any more. */
export async function actOnDelivery(db: Db, delivery: Pick<Delivery, 'id' | 'brandId' | 'kind' | 'network' | 'dueMs'>, action: DeliveryAction, times: Times): Promise<boolean> {
  return db.transaction(async (trx) => {
    if (!(await changeState(trx, delivery, action, times))) return false;
    await moveWork(trx, delivery, action, times);
    return true;
  });
}

async function changeState(trx: Db, { id, brandId, dueMs }: Pick<Delivery, 'id' | 'brandId' | 'dueMs'>, action: DeliveryAction, times: Times): Promise<boolean> {
  switch (action) {
    case 'hold':
      return holdDelivery(trx, brandId, id, times.machineNowMs);
    case 'release':
      return releaseDelivery(trx, brandId, id, Math.max(dueMs, times.nowMs), times.machineNowMs);
    default:
      return moveDelivery(trx, brandId, id, action, times);
  }
}

async function moveWork(trx: Db, delivery: Pick<Delivery, 'id' | 'kind' | 'network' | 'dueMs'>, action: DeliveryAction, { nowMs, machineNowMs }: Times): Promise<void> {
  const key = deliveryJobKey(delivery.id);
  switch (action) {
    case 'cancel':
    case 'hold':
      await moveJob(trx, key, 'cancel', machineNowMs);
      return;
    case 'retry':
      // The work may have been swept since it failed.
      await enqueueJob(trx, deliveryJob(delivery, { isAskedFor: true }), machineNowMs, { again: true });
      return;
    case 'release':
      await enqueueJob(trx, deliveryJob(delivery, { isAskedFor: true }), machineNowMs, { again: true });
      await rescheduleJob(trx, key, Math.max(delivery.dueMs, nowMs));
      return;
    case 'send-now':
      await rescheduleJob(trx, key, Math.min(delivery.dueMs, nowMs));
  }
}

/** The same for everything of a post that allows it; answers how many deliveries that were. */
export async function actOnPost(db: Db, post: Post, action: DeliveryAction, times: Times): Promise<number> {
  let acted = 0;
  for (const delivery of await listDeliveriesOf(db, post.id)) if (await actOnDelivery(db, delivery, action, times)) acted += 1;
  return acted;
}

/** The post itself is public; further parts or the first comment are not yet. */
const isOutInPart = ({ address }: Delivery): boolean => address !== null;
const isWaiting = (delivery: Delivery): boolean => (delivery.state === 'scheduled' || delivery.state === 'in review') && !isOutInPart(delivery);

const isOnItsWay = (): ProblemError => new ProblemError(409, 'not-possible-now', 'This post is already on its way, has gone out or was cancelled. Only a scheduled post can be changed.');

/**
 * Moves what of a post still waits to another moment.
 * @param beside what else is written in the same transaction
 * @throws ProblemError 409 when nothing waits; 422 for a moment that cannot be
 */
export async function reschedulePost(services: Services, brand: Brand, post: Post, when: When, nowMs: number, beside: (trx: Db) => Promise<void> = () => Promise.resolve()): Promise<void> {
  const { db, clock } = services;
  const moment = resolveMoment(when, brand.zone, nowMs);
  const deliveries = await listDeliveriesOf(db, post.id);
  const waiting = deliveries.filter(isWaiting);
  if (waiting.length === 0 && deliveries.some(isOutInPart)) throw isOnItsWay();
  // Licences may end before the new moment.
  await requirePassed(services, brand, await readPin(db, post.pin), waiting, moment.dueMs);
  const machineNowMs = clock.machineNowMs();
  await db.transaction(async (trx) => {
    if (!(await movePost(trx, brand.id, post.id, { ...moment, zone: brand.zone }, machineNowMs))) throw isOnItsWay();
    for (const id of await moveDeliveriesOf(trx, post.id, moment.dueMs, machineNowMs)) await rescheduleJob(trx, deliveryJobKey(id), moment.dueMs);
    await beside(trx);
  });
}

/**
 * Pins a scheduled post anew, from its piece as it is now.
 * @throws ProblemError 409 when something of it may be out, 422 when preflight stops it now
 */
export async function refreshPost(services: Services, brand: Brand, post: Post, piece: StoredPiece): Promise<void> {
  const { db, clock } = services;
  const snapshot = await makeSnapshot(services, brand, piece.document);
  const deliveries = await listDeliveriesOf(db, post.id);
  const waiting = deliveries.filter(isWaiting);
  if (deliveries.some(({ state, publishIntentMs }) => state === 'sent' || state === 'sending' || publishIntentMs !== null)) throw isOnItsWay();
  await requirePassed(services, brand, snapshot, waiting, post.dueMs);
  const channels = await listChannels(db, brand.id);
  const machineNowMs = clock.machineNowMs();
  await db.transaction(async (trx) => {
    const pinned = await pinSnapshot(trx, snapshot, machineNowMs);
    if (!(await repinPost(trx, brand.id, post.id, { pin: pinned.pin, pieceHash: pinned.piece, pieceName: pieceName(piece.document) }, mediaOfPiece(piece.document), machineNowMs))) throw isOnItsWay();
    for (const delivery of waiting) {
      if (!(await rewordDelivery(trx, delivery.id, composedCut(snapshot, channels, delivery).words, machineNowMs))) throw isOnItsWay();
    }
    await askAgain(trx, brand, post, machineNowMs);
  });
}

export interface NamedDifference {
  readonly place: string;
  readonly pinned: string;
  readonly now: string;
}

/** Where a post's piece has changed since it was pinned, in the words of the piece's views. */
export async function differencesOfPost({ db }: Pick<Services, 'db'>, brand: Brand, post: Post): Promise<readonly NamedDifference[]> {
  const pinned = (await readPin(db, post.pin)).piece;
  const piece = await findPiece(db, brand.id, post.pieceId);
  if (!piece) throw notFound('piece');
  return nameDifferences(db, brand, pinned, piece.document);
}

/** Where one pinned piece differs from another. */
export async function differencesOfPins(db: Db, brand: Brand, beforePin: string, nowPin: string): Promise<readonly NamedDifference[]> {
  return nameDifferences(db, brand, (await readPin(db, beforePin)).piece, (await readPin(db, nowPin)).piece);
}

async function nameDifferences(db: Db, brand: Brand, before: Piece, after: Piece): Promise<readonly NamedDifference[]> {
  const context = { piece: after, template: await getTemplate(db, brand.id, after.template.key), channels: await listChannels(db, brand.id), sheets: await listSheetsOf(db, brand.id) };
  return differencesOf(before, after).map((each) => ({ place: placeName(each.path, context), pinned: valueInWords(each.before), now: valueInWords(each.after) }));
}

/** @throws ProblemError 404 when the brand has no such delivery */
export async function getDeliveryOf(db: Db, brand: Brand, id: string): Promise<Delivery> {
  const delivery = await findDelivery(db, brand.id, id);
  if (!delivery) throw notFound('post');
  return delivery;
}
