import { nanoid } from 'nanoid';
import type { BodyOf } from '../../contract/contract.ts';
import type { schedulePiece } from '../../contract/send-contracts.ts';
import { resolveCut } from '../../core/cut/resolve-cuts.ts';
import { mediaOfPiece, pieceName, type CutRef, type Piece } from '../../core/piece/piece.ts';
import type { Pair } from '../../core/plan/rotation.ts';
import { findRepeats, type Repeat } from '../../core/post/repeats.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { composeWords } from '../../core/wording/compose.ts';
import { listChannels, type Brand, type Channel } from '../db/brand-repository.ts';
import type { Db } from '../db/connection.ts';
import { countOnDay, insertDeliveries, listDeliveriesOfPiece, listDeliveriesOfRequest, type Delivery, type NewDelivery } from '../db/delivery-repository.ts';
import { enqueueJob } from '../db/job-repository.ts';
import { getPiecePlan } from '../db/piece-plan-repository.ts';
import { deletePlanEntry } from '../db/plan-entry-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { signOffNeeded } from '../../core/post/send-settings.ts';
import { getSendSettings } from '../db/send-settings-repository.ts';
import { removeFromQueue } from '../db/queue-repository.ts';
import { insertRuns } from '../db/rotation-repository.ts';
import { freeSlots, takeSlots } from '../db/slot-repository.ts';
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

/** Where in the plan a post comes from. What it stood for there goes in the same transaction, so nothing is made twice. */
export interface Origin {
  readonly kind: 'person' | 'slot' | 'rotation' | 'repeat';
  /** The slot that it fills on each of its channels. */
  readonly slotKey?: string | undefined;
  /** What waited for it. */
  readonly queueIds?: readonly string[];
  readonly entryId?: string;
  readonly repeat?: { readonly id: string; readonly occurrence: string };
  /** The turn of a rotation, and the piece as this turn shows it. */
  readonly turn?: { readonly pair: Pair; readonly document: Piece };
}

const BY_PERSON: Origin = { kind: 'person' };

/** Who schedules. Whoever may not send by themselves asks for approval. */
export interface Scheduler {
  readonly personId: string;
  readonly maySend: boolean;
}

/** Cuts that go out at one moment: what becomes one post. */
interface Outing {
  readonly moment: Moment;
  readonly cuts: readonly CutRef[];
}

/**
 * Schedules cuts of a piece, as one post a moment. Everything is checked now, and all that the posts are made of is pinned.
 * @throws ProblemError 422 when a moment is past or does not exist, when preflight stops it, or when a cut is not the piece's;
 *   409 when a cut goes out at this moment already, or at another one and nobody has agreed to a second time, when a slot is taken, or when
 *   everything is held and it should go out at once
 */
export async function schedule(services: Services, brand: Brand, piece: StoredPiece, request: ScheduleRequest, { personId, maySend }: Scheduler, nowMs: number, origin: Origin = BY_PERSON): Promise<readonly Delivery[]> {
  const { db, clock } = services;
  const outings = outingsOf(request, brand.zone, nowMs);
  const document = origin.turn?.document ?? piece.document;
  const snapshot = await makeSnapshot(services, brand, document);
  const { themeId, campaignId } = await getPiecePlan(db, brand.id, piece.id);
  const unknown = request.cuts.find((cut) => !piece.document.cuts.some((each) => isSameCut(each, cut)));
  if (unknown) throw new ProblemError(422, 'unknown-cut', 'One of the chosen cuts does not belong to this piece.');
  for (const { cuts, moment } of outings) await requirePassed(services, brand, snapshot, cuts, moment.dueMs);
  for (const { cuts, moment } of outings) await requireRoom(db, brand, snapshot, cuts, moment);
  const channels = await listChannels(db, brand.id);
  requireConnected(channels, outings);
  const signOff = signOffNeeded(await getSendSettings(db, brand.id), themeId, maySend);
  const networkOf = (channelId: string): string => channels.find(({ id }) => id === channelId)?.network ?? '';
  const machineNowMs = clock.machineNowMs();
  return db.transaction(async (trx) => {
    const pinned = await pinSnapshot(trx, snapshot, machineNowMs);
    const isHeld = (await getPlan(trx, brand.id)).heldSinceMs !== null;
    if (isHeld && signOff === 0 && request.when.kind === 'now') throw new ProblemError(409, 'held', 'Everything of this brand is held. Let go in Plan first, or choose a later moment.');
    if (origin.entryId !== undefined) await giveUpEntry(trx, brand, origin.entryId, machineNowMs);
    // Read behind a write: what others schedule meanwhile waits for this transaction, or stands in it.
    await refuseRepeats(trx, brand, piece, { outings, snapshot, channels, isAgreed: request.again === true });
    const made: Delivery[] = [];
    for (const [part, { moment, cuts }] of outings.entries()) {
      const post = { id: nanoid(12), brandId: brand.id, pieceId: piece.id, pieceName: pieceName(piece.document), kind: piece.document.kind, pin: pinned.pin, pieceHash: piece.hash, state: signOff > 0 ? ('in review' as const) : isHeld ? ('held' as const) : ('scheduled' as const), ...moment, zone: brand.zone, createdBy: personId, themeId, campaignId, origin: origin.kind, signOffNeeded: signOff };
      await insertPost(trx, post, mediaOfPiece(document), machineNowMs, { ...(request.request === undefined ? {} : { request: request.request, part }), ...(origin.repeat === undefined ? {} : { repeat: origin.repeat }) });
      const deliveries = cuts.map((cut): NewDelivery => ({ id: nanoid(12), idempotencyKey: nanoid(24), ...composedCut(snapshot, channels, cut) }));
      await insertDeliveries(trx, post, deliveries, machineNowMs);
      if (post.state === 'scheduled') for (const { id, channelId } of deliveries) await enqueueJob(trx, deliveryJob({ ...post, id, network: networkOf(channelId) }), machineNowMs);
      await noteOrigin(trx, brand, post, cuts, origin, machineNowMs);
      const kept = await listDeliveriesOfPiece(trx, piece.id, cuts);
      // In the order in which they were asked for.
      made.push(...deliveries.flatMap(({ id }) => kept.find((each) => each.id === id) ?? []));
    }
    return made;
  });
}

/** @throws ProblemError 409 when the network takes the access of a chosen channel no longer */
function requireConnected(channels: readonly Channel[], outings: readonly Outing[]): void {
  const ended = channels.find(({ id, state }) => state === 'ended' && outings.some(({ cuts }) => cuts.some(({ channelId }) => channelId === id)));
  if (ended) throw new ProblemError(409, 'access-ended', `The access to ${ended.name} has ended. Connect it again in Send > Channels, or leave it out.`);
}

/** Takes the slot, and ends what waited for it. */
async function noteOrigin(trx: Db, brand: Brand, post: { readonly id: string; readonly pieceId: string; readonly wall: string }, cuts: readonly CutRef[], { slotKey, queueIds, turn }: Origin, machineNowMs: number): Promise<void> {
  const channelIds = [...new Set(cuts.map(({ channelId }) => channelId))];
  if (slotKey !== undefined && !(await takeSlots(trx, brand.id, channelIds.map((channelId) => ({ slotKey, channelId })), { postId: post.id }))) {
    throw new ProblemError(409, 'slot-taken', 'Somebody has just filled this slot. Choose another one.');
  }
  if (queueIds && queueIds.length > 0) await removeFromQueue(trx, brand.id, queueIds, machineNowMs);
  if (turn) await insertRuns(trx, brand.id, post.id, channelIds.map((channelId) => ({ pieceId: post.pieceId, channelId, ...turn.pair, day: post.wall.slice(0, 10) })));
}

/** A draft that becomes a post stands in the plan no longer. */
async function giveUpEntry(trx: Db, brand: Brand, entryId: string, machineNowMs: number): Promise<void> {
  await freeSlots(trx, { entryId });
  if (!(await deletePlanEntry(trx, brand.id, entryId, machineNowMs))) throw new ProblemError(409, 'gone-meanwhile', 'Somebody has just scheduled or removed this draft.');
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

/** @throws ProblemError 422 when the network takes no more posts of a channel on that day */
async function requireRoom(db: Db, brand: Brand, { sheets }: Snapshot, cuts: readonly CutRef[], moment: Moment): Promise<void> {
  const day = moment.wall.slice(0, 10);
  for (const channel of await listChannels(db, brand.id)) {
    const sheet = sheets.find(({ key }) => key === channel.network);
    if (!sheet || !cuts.some(({ channelId }) => channelId === channel.id)) continue;
    const planned = await countOnDay(db, { brandId: brand.id, channelId: channel.id, dueMs: moment.dueMs, day });
    if (planned >= sheet.pace.dailyMax) throw new ProblemError(422, 'day-full', `${channel.name} takes ${sheet.pace.dailyMax} posts a day, and ${planned} are planned on ${day}. Choose another day.`);
  }
}

/** What a delivery says of its cut: where it appears, and the words that this network takes there. */
export function composedCut(snapshot: Snapshot, channels: readonly Channel[], ref: CutRef): Pick<NewDelivery, 'channelId' | 'placement' | 'placementName' | 'words'> {
  const cut = resolveCut({ ...snapshot, channels }, ref);
  if (!cut) throw new ProblemError(422, 'unknown-cut', 'One of the chosen channels is not the brand’s any more.');
  return { channelId: cut.channel.id, placement: ref.placement, placementName: cut.placement.name, words: composeWords({ ...snapshot, channel: cut.channel, sheet: cut.sheet }, ref) };
}
