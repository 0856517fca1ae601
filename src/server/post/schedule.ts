import { nanoid } from 'nanoid';
import type { BodyOf } from '../../contract/contract.ts';
import type { schedulePiece } from '../../contract/send-contracts.ts';
import { resolveCut } from '../../core/cut/resolve-cuts.ts';
import { mediaOfPiece, pieceName, type CutRef } from '../../core/piece/piece.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { composeWords } from '../../core/wording/wording.ts';
import { listChannels, type Brand, type Channel } from '../db/brand-repository.ts';
import { insertDeliveries, listDeliveriesOf, type Delivery, type NewDelivery } from '../db/delivery-repository.ts';
import { enqueueJob } from '../db/job-repository.ts';
import type { StoredPiece } from '../db/piece-repository.ts';
import { insertPost } from '../db/post-repository.ts';
import { deliveryJob } from '../dispatch/delivery-handler.ts';
import { pinSnapshot } from '../documents/pins.ts';
import { ProblemError } from '../errors.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import { preflightSnapshot } from '../pieces/preflight-piece.ts';
import type { Services } from '../services.ts';
import { resolveMoment } from './moment.ts';

export type ScheduleRequest = BodyOf<typeof schedulePiece>;

/**
 * Schedules cuts of a piece as one post. Everything is checked now, and all that the post is made of is pinned.
 * @throws ProblemError 422 when the moment is past or does not exist, when preflight stops it, or when a cut is not the piece's
 */
export async function schedule(services: Services, brand: Brand, piece: StoredPiece, request: ScheduleRequest, personId: string, nowMs: number): Promise<readonly Delivery[]> {
  const { db, clock } = services;
  const moment = resolveMoment(request.when, brand.zone, nowMs);
  const snapshot = await makeSnapshot(services, brand, piece.document);
  const unknown = request.cuts.find((cut) => !piece.document.cuts.some((each) => each.channelId === cut.channelId && each.placement === cut.placement));
  if (unknown) throw new ProblemError(422, 'unknown-cut', 'One of the chosen cuts does not belong to this piece.');
  await requirePassed(services, brand, snapshot, request.cuts, moment.dueMs);
  const channels = await listChannels(db, brand.id);
  const made = request.cuts.map((cut): NewDelivery => ({ id: nanoid(12), idempotencyKey: nanoid(24), ...composedCut(snapshot, channels, cut) }));
  const postId = nanoid(12);
  const machineNowMs = clock.machineNowMs();
  return db.transaction(async (trx) => {
    const pinned = await pinSnapshot(trx, snapshot, machineNowMs);
    const post = { id: postId, brandId: brand.id, pieceId: piece.id, pieceName: pieceName(piece.document), kind: piece.document.kind, pin: pinned.pin, pieceHash: pinned.piece, state: 'scheduled' as const, ...moment, zone: brand.zone, createdBy: personId };
    await insertPost(trx, post, mediaOfPiece(piece.document), machineNowMs);
    await insertDeliveries(trx, post, made, machineNowMs);
    for (const { id } of made) await enqueueJob(trx, deliveryJob(id, post.kind, post.dueMs), machineNowMs);
    const kept = await listDeliveriesOf(trx, postId);
    // In the order in which they were asked for.
    return made.flatMap(({ id }) => kept.find((each) => each.id === id) ?? []);
  });
}

/** @throws ProblemError 422 with all findings that stop it */
export async function requirePassed(services: Services, brand: Brand, snapshot: Snapshot, cuts: readonly CutRef[], dueMs: number): Promise<void> {
  const stops = (await preflightSnapshot(services, brand, snapshot, cuts, dueMs)).filter((finding) => finding.severity === 'stops');
  const [first] = stops;
  if (!first) return;
  const more = stops.length > 1 ? ` And ${stops.length - 1} more.` : '';
  throw new ProblemError(422, 'preflight-stops', `${first.sentence}${more}`, { findings: stops });
}

/** What a delivery says of its cut: where it appears, and the words that this network takes there. */
export function composedCut(snapshot: Snapshot, channels: readonly Channel[], ref: CutRef): Pick<NewDelivery, 'channelId' | 'placement' | 'placementName' | 'words'> {
  const cut = resolveCut({ ...snapshot, channels }, ref);
  if (!cut) throw new ProblemError(422, 'unknown-cut', 'One of the chosen channels is not the brand’s any more.');
  return { channelId: cut.channel.id, placement: ref.placement, placementName: cut.placement.name, words: composeWords(snapshot.piece, ref, cut.sheet, snapshot.book.facts) };
}
