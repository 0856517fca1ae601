import { nanoid } from 'nanoid';
import { pieceFrom } from '../../core/ideas/boilerplate.ts';
import { addDays, weekdayOf } from '../../core/time/day.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import type { StoredBoilerplate } from '../db/boilerplate-repository.ts';
import { insertPiece } from '../db/piece-repository.ts';
import { noPiecePlan, savePiecePlan } from '../db/piece-plan-repository.ts';
import { checkReferences } from '../pieces/check-references.ts';
import { readPieceOr422 } from '../pieces/read-piece.ts';
import { keepEntry, momentOfSpot, usualCutsOf } from '../plan/place-piece.ts';
import type { Services } from '../services.ts';

/** Begins a piece from a boilerplate; where it is wanted, it stands at its next usual time as a draft. */
export async function beginFrom(services: Services, brand: Brand, boilerplate: StoredBoilerplate, values: Readonly<Record<string, string>>, isPlanned: boolean, personId: string, nowMs: number): Promise<{ readonly pieceId: string; readonly dueMs: number | null }> {
  const { db, clock } = services;
  // Channels that were disconnected since have no cut any more.
  const channels = new Set((await listChannels(db, brand.id)).map(({ id }) => id));
  const whole = readPieceOr422(() => pieceFrom(boilerplate, values));
  const document = { ...whole, cuts: whole.cuts.filter(({ channelId }) => channels.has(channelId)) };
  await checkReferences(services, brand, document);
  const piece = await insertPiece(db, { id: nanoid(12), brandId: brand.id, document, createdBy: personId }, nowMs);
  await db.transaction((trx) => savePiecePlan(trx, brand.id, piece.id, { ...noPiecePlan, themeId: boilerplate.themeId }, clock.machineNowMs()));
  if (!isPlanned || boilerplate.usual === null) return { pieceId: piece.id, dueMs: null };
  const cuts = await usualCutsOf(services, brand, piece, [...new Set(document.cuts.map(({ channelId }) => channelId))]);
  if (cuts.length === 0) return { pieceId: piece.id, dueMs: null };
  const { wall, dueMs } = await momentOfSpot(services, brand, { kind: 'at', wall: nextUsual(boilerplate.usual, wallTimeOf(nowMs, brand.zone)) }, nowMs);
  await keepEntry(services, brand, { id: nanoid(12), pieceId: piece.id, text: '', themeId: boilerplate.themeId, campaignId: null, wall, dueMs, zone: brand.zone, slotKey: null, cuts }, personId);
  return { pieceId: piece.id, dueMs };
}

/** The next time of a weekday after a moment on the wall. */
function nextUsual({ weekday, time }: NonNullable<StoredBoilerplate['usual']>, nowWall: string): string {
  const today = nowWall.slice(0, 10);
  const ahead = (weekday - weekdayOf(today) + 7) % 7;
  const day = addDays(today, ahead);
  return `${day}T${time}` > nowWall ? `${day}T${time}` : `${addDays(day, 7)}T${time}`;
}
