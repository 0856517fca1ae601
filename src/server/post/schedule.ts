import { nanoid } from 'nanoid';
import type { BodyOf } from '../../contract/contract.ts';
import type { schedulePiece } from '../../contract/send-contracts.ts';
import { getPlacement } from '../../core/network/network-sheet.ts';
import { pieceName } from '../../core/piece/piece.ts';
import { formatMoment, resolveWallTime, wallTimeOf } from '../../core/time/wall-time.ts';
import { wordsFor } from '../../core/words/wording.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { insertDeliveries, type Delivery, type NewDelivery } from '../db/delivery-repository.ts';
import type { StoredPiece } from '../db/piece-repository.ts';
import { ProblemError } from '../errors.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import { preflightSnapshot } from '../pieces/preflight-piece.ts';
import type { Services } from '../services.ts';

export type ScheduleRequest = BodyOf<typeof schedulePiece>;

/**
 * Schedules cuts of a piece. Everything is checked now, and each post keeps its own copy of all it is made of.
 * @throws ProblemError 422 when the moment is past or does not exist, when preflight stops it, or when a cut is not the piece's
 */
export async function schedule(services: Services, brand: Brand, piece: StoredPiece, request: ScheduleRequest, personId: string, nowMs: number): Promise<readonly Delivery[]> {
  const moment = resolveMoment(request.when, brand.zone, nowMs);
  const channels = await listChannels(services.db, brand.id);
  const snapshot = await makeSnapshot(services, brand, piece.document);
  const unknown = request.cuts.find((cut) => !piece.document.cuts.some((each) => each.channelId === cut.channelId && each.placement === cut.placement));
  if (unknown) throw new ProblemError(422, 'unknown-cut', 'One of the chosen cuts does not belong to this piece.');
  const stops = (await preflightSnapshot(services, brand, snapshot, request.cuts, moment.dueMs)).filter((finding) => finding.severity === 'stops');
  const [first] = stops;
  if (first) {
    const more = stops.length > 1 ? ` And ${stops.length - 1} more.` : '';
    throw new ProblemError(422, 'preflight-stops', `${first.sentence}${more}`, { findings: stops });
  }
  const deliveries = request.cuts.map((cut): NewDelivery => {
    const channel = channels.find((each) => each.id === cut.channelId);
    const sheet = snapshot.sheets.find((each) => each.key === channel?.network);
    if (!channel || !sheet) throw new ProblemError(422, 'unknown-cut', 'One of the chosen channels is not the brand’s any more.');
    return {
      id: nanoid(12),
      brandId: brand.id,
      pieceId: piece.id,
      pieceRevision: piece.revision,
      pieceName: pieceName(piece.document),
      channelId: channel.id,
      placement: cut.placement,
      placementName: getPlacement(sheet, cut.placement).name,
      kind: piece.document.kind,
      ...wordsFor(piece.document, channel.id, brand.book.facts),
      dueMs: moment.dueMs,
      wall: moment.wall,
      zone: brand.zone,
      idempotencyKey: nanoid(24),
    };
  });
  return insertDeliveries(services.db, { snapshotId: nanoid(12), snapshot, deliveries, createdBy: personId, brandId: brand.id }, services.clock.machineNowMs());
}

function resolveMoment(when: ScheduleRequest['when'], zone: string, nowMs: number): { readonly dueMs: number; readonly wall: string } {
  if (when.kind === 'now' || when.wall === undefined) return { dueMs: nowMs, wall: wallTimeOf(nowMs, zone) };
  const resolution = readWallTime(when.wall, zone);
  let dueMs: number;
  switch (resolution.kind) {
    case 'exact':
      dueMs = resolution.atMs;
      break;
    case 'skipped':
      throw new ProblemError(422, 'skipped-time', `On that day clocks in this zone jump over ${when.wall.slice(11)}. The next moment is ${formatMoment(resolution.resumesAtMs, zone)}.`, { resumesAtMs: resolution.resumesAtMs });
    case 'repeated':
      if (when.repeated === undefined) {
        throw new ProblemError(422, 'repeated-time', `On that day clocks in this zone show ${when.wall.slice(11)} twice. Say which one is meant.`, { earlierMs: resolution.earlierMs, laterMs: resolution.laterMs });
      }
      dueMs = when.repeated === 'earlier' ? resolution.earlierMs : resolution.laterMs;
      break;
  }
  if (dueMs <= nowMs) {
    throw new ProblemError(422, 'past-moment', `${formatMoment(dueMs, zone)} has passed: it is now ${formatMoment(nowMs, zone)}. Choose a later moment.`);
  }
  return { dueMs, wall: when.wall };
}

function readWallTime(wall: string, zone: string) {
  try {
    return resolveWallTime(wall, zone);
  } catch (error) {
    if (error instanceof RangeError) throw new ProblemError(422, 'no-such-time', 'There is no such date and time. Choose one from the calendar.');
    throw error;
  }
}
