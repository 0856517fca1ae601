import { nanoid } from 'nanoid';
import type { BodyOf } from '../../contract/contract.ts';
import type { keepProposals } from '../../contract/propose-contracts.ts';
import { pieceName, readPiece, type Piece } from '../../core/piece/piece.ts';
import { readPieceOr422 } from '../pieces/read-piece.ts';
import type { Brand } from '../db/brand-repository.ts';
import { noteIdeaUses } from '../db/idea-repository.ts';
import { insertPiece } from '../db/piece-repository.ts';
import { noPiecePlan, savePiecePlan } from '../db/piece-plan-repository.ts';
import { insertSeries } from '../db/series-repository.ts';
import { getTemplate } from '../db/template-repository.ts';
import { ProblemError } from '../errors.ts';
import { beginPiece } from '../pieces/begin-piece.ts';
import { checkReferences } from '../pieces/check-references.ts';
import { keepEntry, momentOfSpot, usualCutsOf } from '../plan/place-piece.ts';
import type { Services } from '../services.ts';

type Body = BodyOf<typeof keepProposals>;
type Item = Body['items'][number];

/** What became of proposals that were kept. */
export interface Kept {
  readonly pieceIds: readonly string[];
  readonly planned: number;
  /** Why something is not where it was wanted. */
  readonly notes: readonly string[];
}

/**
 * Makes pieces of proposals, all or none. Where a moment is given, a piece stands in the plan as a draft.
 * @throws ProblemError 422 when a proposal is none that could have been made here
 */
export async function keepAll(services: Services, brand: Brand, body: Body, personId: string, nowMs: number): Promise<Kept> {
  const { db, clock } = services;
  const made: { id: string; document: Piece; item: Item }[] = [];
  for (const item of body.items) made.push({ id: nanoid(12), item, document: await documentOf(services, brand, item, body.channelIds) });
  for (const { document } of made) await checkReferences(services, brand, document);
  for (const { id, document } of made) await insertPiece(db, { id, brandId: brand.id, document, createdBy: personId }, nowMs);
  await db.transaction(async (trx) => {
    for (const { id, item } of made) await savePiecePlan(trx, brand.id, id, { ...noPiecePlan, themeId: item.proposal.themeId ?? null }, clock.machineNowMs());
    if (body.series !== null && made.length > 1) await insertSeries(trx, brand.id, { id: nanoid(12), name: body.series, pieceIds: made.map(({ id }) => id) }, nowMs);
    if (body.ideaId !== null) await noteIdeaUses(trx, brand.id, body.ideaId, made.map(({ id, document }) => ({ kind: 'piece' as const, subjectId: id, name: pieceName(document) })), personId, nowMs);
  });
  const planned = await planAll(services, brand, made, body.channelIds, personId, nowMs);
  return { pieceIds: made.map(({ id }) => id), ...planned };
}

/** A proposal as a piece: with the cuts of the wanted channels, and what the brand’s voice sends along. */
async function documentOf(services: Services, brand: Brand, { proposal, name }: Item, channelIds: readonly string[]): Promise<Piece> {
  const template = await getTemplate(services.db, brand.id, proposal.template).catch(() => {
    throw new ProblemError(422, 'unknown-template', `There is no template '${proposal.template}'.`);
  });
  const begun = await beginPiece(services, brand, template, []);
  const cuts = begun.cuts.filter(({ channelId }) => channelIds.length === 0 || channelIds.includes(channelId));
  const { caption, altText, link, hashtags } = proposal.words;
  const shared = { ...begun.words.shared, caption, altText, ...(link === '' ? {} : { link }), ...(hashtags === '' ? {} : { hashtags }) };
  return readPieceOr422(() => readPiece({ ...begun, title: name, frames: proposal.frames, cuts: cuts.length > 0 ? cuts : begun.cuts, words: { shared, own: {} } }));
}

async function planAll(services: Services, brand: Brand, made: readonly { readonly id: string; readonly document: Piece; readonly item: Item }[], channelIds: readonly string[], personId: string, nowMs: number): Promise<Pick<Kept, 'planned' | 'notes'>> {
  const notes: string[] = [];
  let planned = 0;
  for (const { id, document, item } of made) {
    if (item.wall === null && item.slotKey === null) continue;
    const wanted = channelIds.length > 0 ? channelIds : [...new Set(document.cuts.map((cut) => cut.channelId))];
    try {
      const stored = { id, brandId: brand.id, document, hash: '', revision: 1, updatedMs: nowMs };
      const cuts = await usualCutsOf(services, brand, stored, wanted);
      if (cuts.length === 0) throw new ProblemError(422, 'no-cut', 'it has no cut for these channels.');
      const { wall, dueMs, slotKey } = await momentOfSpot(services, brand, item.slotKey === null ? { kind: 'at', wall: item.wall ?? '' } : { kind: 'slot', slotKey: item.slotKey }, nowMs);
      await keepEntry(services, brand, { id: nanoid(12), pieceId: id, text: '', themeId: item.proposal.themeId ?? null, campaignId: null, wall, dueMs, zone: brand.zone, slotKey: slotKey ?? null, cuts }, personId);
      planned += 1;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      notes.push(`“${pieceName(document)}” is made and not planned: ${error.sentence}`);
    }
  }
  return { planned, notes };
}
