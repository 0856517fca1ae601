import { nanoid } from 'nanoid';
import type { BodyOf } from '../../contract/contract.ts';
import type { quickPost } from '../../contract/begin-contracts.ts';
import { contentOfRow } from '../../core/ideas/table/row-content.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { insertPiece } from '../db/piece-repository.ts';
import { ProblemError } from '../errors.ts';
import { placePiece, usualCutsOf } from '../plan/place-piece.ts';
import { schedule } from '../post/schedule.ts';
import type { Services } from '../services.ts';
import { openSlotsFor } from './open-slots.ts';
import { pieceFromContent } from './piece-from-content.ts';
import { templatesOf } from './proposals.ts';

type Body = BodyOf<typeof quickPost>;
const SLOT_DAYS = 60;

export interface QuickPosted {
  readonly pieceId: string;
  readonly kind: 'post' | 'draft' | 'piece';
  readonly dueMs: number | null;
  readonly sentence: string | null;
}

/**
 * A post from a few words: how they begin stands on the picture, all of them go along. What preflight stops is kept, with the reason.
 * @throws ProblemError 422 for a channel or a picture that is not there
 */
export async function postQuickly(services: Services, brand: Brand, { words, mediaId, channelIds, when }: Body, personId: string, nowMs: number): Promise<QuickPosted> {
  const { db } = services;
  const known = new Set((await listChannels(db, brand.id)).filter(({ state }) => state !== 'ended').map(({ id }) => id));
  if (channelIds.some((id) => !known.has(id))) throw new ProblemError(422, 'unknown-channel', 'One of the channels is not connected.');
  const pictures = mediaId === null ? [] : (await findMediaByIds(db, brand.id, [mediaId])).map(({ id, altText }) => ({ id, altText }));
  if (mediaId !== null && pictures.length === 0) throw new ProblemError(422, 'unknown-picture', 'This picture is not the brand’s any more.');
  const document = await pieceFromContent(services, brand, await templatesOf(services, brand), { content: contentOfRow({ cells: { caption: words }, points: [] }), pictures, template: null, kinds: ['graphic'], words: { caption: words }, channelIds });
  const piece = await insertPiece(db, { id: nanoid(12), brandId: brand.id, document, createdBy: personId }, nowMs);
  if (when === 'draft') return { pieceId: piece.id, kind: 'piece', dueMs: null, sentence: null };
  if (when === 'now') {
    try {
      const cuts = await usualCutsOf(services, brand, piece, channelIds);
      if (cuts.length < channelIds.length) throw new ProblemError(422, 'no-cut', 'It has no cut for one of these channels.');
      const [first] = await schedule(services, brand, piece, { revision: piece.revision, cuts: cuts.map((cut) => ({ ...cut, when: undefined })), when: { kind: 'now' } as never, again: false }, { personId, maySend: true }, nowMs);
      return { pieceId: piece.id, kind: 'post', dueMs: first?.dueMs ?? nowMs, sentence: null };
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      return { pieceId: piece.id, kind: 'piece', dueMs: null, sentence: error.sentence };
    }
  }
  const slot = (await openSlotsFor(services, brand, { channelIds, themeId: null, days: SLOT_DAYS }, nowMs)).find((each) => channelIds.every((id) => each.channelIds.includes(id)));
  if (!slot) return { pieceId: piece.id, kind: 'piece', dueMs: null, sentence: `The rota has no open slot for all of these channels in the next ${SLOT_DAYS} days. The piece is kept.` };
  try {
    const placed = await placePiece(services, brand, { pieceId: piece.id, channelIds, spot: { kind: 'slot', slotKey: slot.key }, again: false }, personId, nowMs);
    return placed.kind === 'post' ? { pieceId: piece.id, kind: 'post', dueMs: slot.atMs, sentence: null } : { pieceId: piece.id, kind: 'draft', dueMs: slot.atMs, sentence: placed.sentence };
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    return { pieceId: piece.id, kind: 'piece', dueMs: null, sentence: error.sentence };
  }
}
