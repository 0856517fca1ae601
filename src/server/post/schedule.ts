import { nanoid } from 'nanoid';
import type { BodyOf } from '../../contract/contract.ts';
import type { schedulePiece } from '../../contract/send-contracts.ts';
import { resolveCut } from '../../core/cut/resolve-cuts.ts';
import { mediaOfPiece, pieceName, type CutRef } from '../../core/piece/piece.ts';
import { findRepeats, type Repeat } from '../../core/post/repeats.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { composeWords } from '../../core/wording/compose.ts';
import { listChannels, type Brand, type Channel } from '../db/brand-repository.ts';
import type { Db } from '../db/connection.ts';
import { insertDeliveries, listDeliveriesOfPiece, listDeliveriesOfRequest, type Delivery, type NewDelivery } from '../db/delivery-repository.ts';
import { enqueueJob } from '../db/job-repository.ts';
import type { StoredPiece } from '../db/piece-repository.ts';
import { insertPost } from '../db/post-repository.ts';
import { deliveryJob } from '../dispatch/delivery-handler.ts';
import { pinSnapshot } from '../documents/pins.ts';
import { ProblemError } from '../errors.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import { preflightSnapshot } from '../pieces/preflight-piece.ts';
import type { Services } from '../services.ts';
import { resolveMoment, type Moment } from './moment.ts';

export type ScheduleRequest = BodyOf<typeof schedulePiece>;

/** Cuts that go out at one moment: what becomes one post. */
interface Outing {
  readonly moment: Moment;
  readonly cuts: readonly CutRef[];
}

/**
 * Schedules cuts of a piece, as one post a moment. Everything is checked now, and all that the posts are made of is pinned.
 * @throws ProblemError 422 when a moment is past or does not exist, when preflight stops it, or when a cut is not the piece's;
 *   409 when a cut goes out at this moment already, or at another one and nobody has agreed to a second time
 */
export async function schedule(services: Services, brand: Brand, piece: StoredPiece, request: ScheduleRequest, personId: string, nowMs: number): Promise<readonly Delivery[]> {
  const { db, clock } = services;
  const outings = outingsOf(request, brand.zone, nowMs);
  const snapshot = await makeSnapshot(services, brand, piece.document);
  const unknown = request.cuts.find((cut) => !piece.document.cuts.some((each) => isSameCut(each, cut)));
  if (unknown) throw new ProblemError(422, 'unknown-cut', 'One of the chosen cuts does not belong to this piece.');
  for (const { cuts, moment } of outings) await requirePassed(services, brand, snapshot, cuts, moment.dueMs);
  const channels = await listChannels(db, brand.id);
  const machineNowMs = clock.machineNowMs();
  return db.transaction(async (trx) => {
    const pinned = await pinSnapshot(trx, snapshot, machineNowMs);
    // Read behind a write: what others schedule meanwhile waits for this transaction, or stands in it.
    await refuseRepeats(trx, brand, piece, { outings, snapshot, channels, isAgreed: request.again === true });
    const made: Delivery[] = [];
    for (const [part, { moment, cuts }] of outings.entries()) {
      const post = { id: nanoid(12), brandId: brand.id, pieceId: piece.id, pieceName: pieceName(piece.document), kind: piece.document.kind, pin: pinned.pin, pieceHash: pinned.piece, state: 'scheduled' as const, ...moment, zone: brand.zone, createdBy: personId };
      await insertPost(trx, post, mediaOfPiece(piece.document), machineNowMs, request.request === undefined ? undefined : { request: request.request, part });
      const deliveries = cuts.map((cut): NewDelivery => ({ id: nanoid(12), idempotencyKey: nanoid(24), ...composedCut(snapshot, channels, cut) }));
      await insertDeliveries(trx, post, deliveries, machineNowMs);
      for (const { id } of deliveries) await enqueueJob(trx, deliveryJob(id, post.kind, post.dueMs), machineNowMs);
      const kept = await listDeliveriesOfPiece(trx, piece.id, cuts);
      // In the order in which they were asked for.
      made.push(...deliveries.flatMap(({ id }) => kept.find((each) => each.id === id) ?? []));
    }
    return made;
  });
}

/** What a request has made that was answered before, or that is answered just now; null for a new one. */
export async function scheduledBefore(db: Db, brand: Brand, { request }: Pick<ScheduleRequest, 'request'>): Promise<readonly Delivery[] | null> {
  const made = request === undefined ? [] : await listDeliveriesOfRequest(db, brand.id, request);
  return made.length > 0 ? made : null;
}

const isSameCut = (a: CutRef, b: CutRef): boolean => a.channelId === b.channelId && a.placement === b.placement;

/** Cuts by the moment that each of them goes out, the earliest first. */
function outingsOf({ cuts, when }: ScheduleRequest, zone: string, nowMs: number): readonly Outing[] {
  const outings = new Map<number, { readonly moment: Moment; readonly cuts: CutRef[] }>();
  for (const { channelId, placement, when: own } of cuts) {
    const moment = resolveMoment(own ?? when, zone, nowMs);
    const outing = outings.get(moment.dueMs) ?? { moment, cuts: [] };
    outing.cuts.push({ channelId, placement });
    outings.set(moment.dueMs, outing);
  }
  return [...outings.values()].toSorted((a, b) => a.moment.dueMs - b.moment.dueMs);
}

interface Plan {
  readonly outings: readonly Outing[];
  readonly snapshot: Snapshot;
  readonly channels: readonly Channel[];
  readonly isAgreed: boolean;
}

async function refuseRepeats(trx: Db, brand: Brand, piece: StoredPiece, { outings, snapshot, channels, isAgreed }: Plan): Promise<void> {
  const planned = outings.flatMap(({ moment, cuts }) => cuts.map((cut) => ({ ...cut, dueMs: moment.dueMs })));
  const repeats = findRepeats(await listDeliveriesOfPiece(trx, piece.id, planned), planned);
  const describe = ({ planned: cut, before }: Repeat): string => {
    const resolved = resolveCut({ ...snapshot, channels }, cut);
    const place = resolved ? `${resolved.channel.name}, ${resolved.placement.name}` : cut.placement;
    return before.state === 'sent' ? `went out to ${place} on ${formatMoment(before.dueMs, brand.zone)}` : `is scheduled for ${place} on ${formatMoment(before.dueMs, brand.zone)}`;
  };
  const details = { repeats: repeats.map(({ planned: { channelId, placement }, before: { dueMs, state } }) => ({ channelId, placement, dueMs, state })) };
  const sentenceOf = ([first, ...others]: readonly Repeat[]): string => (first ? `This piece ${describe(first)} already.${others.length > 0 ? ` The same holds for ${others.length} more ${others.length === 1 ? 'place' : 'places'}.` : ''}` : '');
  const same = repeats.filter(({ kind }) => kind === 'same');
  if (same.length > 0) throw new ProblemError(409, 'already-scheduled', `${sentenceOf(same)} Nothing was scheduled twice.`, details);
  if (repeats.length > 0 && !isAgreed) throw new ProblemError(409, 'goes-out-again', `${sentenceOf(repeats)} Schedule it there once more?`, details);
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
  return { channelId: cut.channel.id, placement: ref.placement, placementName: cut.placement.name, words: composeWords({ ...snapshot, channel: cut.channel, sheet: cut.sheet }, ref) };
}
