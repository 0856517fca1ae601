import { nanoid } from 'nanoid';
import { placesOf, usualCut } from '../../core/cut/places.ts';
import { resolveCuts } from '../../core/cut/resolve-cuts.ts';
import type { CutRef } from '../../core/piece/piece.ts';
import { findSlot } from '../../core/plan/rota-slots.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import type { Delivery } from '../db/delivery-repository.ts';
import { getPiecePlan } from '../db/piece-plan-repository.ts';
import { insertPlanEntry, listPlanEntries, type NewPlanEntry, type PlanEntry } from '../db/plan-entry-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { findPiece, type StoredPiece } from '../db/piece-repository.ts';
import { listQueue } from '../db/queue-repository.ts';
import { takeSlots } from '../db/slot-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import { resolveMoment, type When } from '../post/moment.ts';
import { schedule, type Origin } from '../post/schedule.ts';
import type { Services } from '../services.ts';

/** Where something is put: into a slot, or at a moment. */
export type Spot = { readonly kind: 'slot'; readonly slotKey: string } | { readonly kind: 'at'; readonly wall: string; readonly repeated?: 'earlier' | 'later' | undefined };

/** What became of a piece that was put somewhere: a post, or a draft with what stops it. */
export type Placed = { readonly kind: 'post'; readonly deliveries: readonly Delivery[] } | { readonly kind: 'draft'; readonly entry: PlanEntry; readonly sentence: string };

/** The cuts that a piece sends to channels when nobody says otherwise: one a channel, its first place. */
export async function usualCutsOf(services: Services, brand: Brand, piece: StoredPiece, channelIds: readonly string[]): Promise<readonly CutRef[]> {
  const snapshot = await makeSnapshot(services, brand, piece.document);
  const cuts = resolveCuts({ ...snapshot, channels: await listChannels(services.db, brand.id) }, piece.document.cuts);
  const places = placesOf(cuts);
  return channelIds.flatMap((channelId) => {
    const place = places.find(({ cuts: [cut] }) => cut.channel.id === channelId);
    return place ? [{ ...usualCut(place.cuts).ref }] : [];
  });
}

/** The moment of a spot. @throws ProblemError 422 for one that is past or not there, 404 for a slot that is gone */
export async function momentOfSpot({ db }: Pick<Services, 'db'>, brand: Brand, spot: Spot, nowMs: number): Promise<{ readonly wall: string; readonly dueMs: number; readonly slotKey: string | undefined; readonly when: When }> {
  if (spot.kind === 'at') {
    const when: When = { kind: 'at', wall: spot.wall, ...(spot.repeated === undefined ? {} : { repeated: spot.repeated }) } as When;
    return { ...resolveMoment(when, brand.zone, nowMs), slotKey: undefined, when };
  }
  const slot = findSlot((await getPlan(db, brand.id)).plan, brand.zone, spot.slotKey);
  if (!slot) throw new ProblemError(404, 'not-found', 'The rota has no such slot any more.');
  if (slot.atMs <= nowMs) throw new ProblemError(422, 'past-moment', `${formatMoment(slot.atMs, brand.zone)} has passed. Choose a later slot.`);
  // A slot's moment is settled for its series; a wall time that exists twice or never is asked about elsewhere.
  return { wall: `${slot.day}T${slot.time}`, dueMs: slot.atMs, slotKey: slot.key, when: { kind: 'at', wall: `${slot.day}T${slot.time}`, ...(slot.change === 'first' ? { repeated: 'earlier' } : {}) } as When };
}

/**
 * Puts a piece at a spot: scheduled where preflight passes it, else as a draft that stands there until it does.
 * @throws ProblemError 409 when the slot is taken or the piece goes out there already; 422 for a moment or a channel that cannot be
 */
export async function placePiece(services: Services, brand: Brand, order: { readonly pieceId: string; readonly channelIds: readonly string[]; readonly spot: Spot; readonly again: boolean; readonly entryId?: string }, personId: string, nowMs: number): Promise<Placed> {
  const piece = await findPiece(services.db, brand.id, order.pieceId);
  if (!piece) throw notFound('piece');
  const cuts = await usualCutsOf(services, brand, piece, order.channelIds);
  if (cuts.length < order.channelIds.length) throw new ProblemError(422, 'no-cut', 'This piece has no cut for that channel. Open it and add the cuts that it offers, or choose another channel.');
  const { when, slotKey, ...moment } = await momentOfSpot(services, brand, order.spot, nowMs);
  // What is put somewhere by hand waits there no longer.
  const queueIds = (await listQueue(services.db, brand.id)).filter(({ pieceId, channelId }) => pieceId === piece.id && order.channelIds.includes(channelId)).map(({ id }) => id);
  const origin: Origin = { kind: slotKey === undefined ? 'person' : 'slot', slotKey, queueIds, ...(order.entryId === undefined ? {} : { entryId: order.entryId }) };
  try {
    const request = { revision: piece.revision, cuts: cuts.map((cut) => ({ ...cut })), when, again: order.again } as Parameters<typeof schedule>[3];
    return { kind: 'post', deliveries: await schedule(services, brand, piece, request, { personId, maySend: true }, nowMs, origin) };
  } catch (error) {
    if (!(error instanceof ProblemError) || error.code !== 'preflight-stops' || order.entryId !== undefined) throw error;
    const { themeId, campaignId } = await getPiecePlan(services.db, brand.id, piece.id);
    const entry = await keepEntry(services, brand, { id: nanoid(12), pieceId: piece.id, text: '', themeId, campaignId, ...moment, zone: brand.zone, slotKey: slotKey ?? null, cuts }, personId);
    return { kind: 'draft', entry, sentence: error.sentence };
  }
}

/** Writes a placeholder or a draft into the plan, in its slot where it has one. @throws ProblemError 409 when the slot is taken */
export async function keepEntry({ db, clock }: Services, brand: Brand, entry: NewPlanEntry, personId: string): Promise<PlanEntry> {
  await db.transaction(async (trx) => {
    await insertPlanEntry(trx, brand.id, entry, personId, clock.machineNowMs());
    const { slotKey } = entry;
    if (slotKey !== null && !(await takeSlots(trx, brand.id, [...new Set(entry.cuts.map(({ channelId }) => channelId))].map((channelId) => ({ slotKey, channelId })), { entryId: entry.id }))) {
      throw new ProblemError(409, 'slot-taken', 'Somebody has just filled this slot. Choose another one.');
    }
  });
  const [kept] = await listPlanEntries(db, brand.id, { ids: [entry.id] });
  if (!kept) throw notFound('draft');
  return kept;
}
