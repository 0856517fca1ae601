import { possibleCuts as possibleIn } from '../../core/cut/possible-cuts.ts';
import { mediaOfPiece, type CutRef, type Piece } from '../../core/piece/piece.ts';
import { listChannels, listChannelsEver, listSheetsOf, type Brand } from '../db/brand-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { findTemplate } from '../db/template-repository.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';

/**
 * Makes sure that what a piece names is there and is the brand's own.
 * @throws ProblemError 422 naming the first thing that is not
 */
export async function checkReferences(services: Pick<Services, 'db'>, brand: Pick<Brand, 'id'>, piece: Piece): Promise<void> {
  if (!(await findTemplate(services.db, brand.id, piece.template.key))) {
    throw new ProblemError(422, 'unknown-template', `There is no template '${piece.template.key}'.`);
  }
  const media = mediaOfPiece(piece);
  const known = await findMediaByIds(services.db, brand.id, media);
  const missing = media.find((id) => !known.some((item) => item.id === id));
  if (missing !== undefined) throw new ProblemError(422, 'unknown-picture', `The brand has no picture '${missing}'.`);
  // Cuts for a channel that the brand has no longer stay with the piece: it may come back.
  const possible = await cutsEver(services, brand, piece.kind);
  const isPossible = (cut: CutRef): boolean => possible.some((each) => each.channelId === cut.channelId && each.placement === cut.placement);
  const wrongCut = piece.cuts.find((cut) => !isPossible(cut));
  if (wrongCut) throw new ProblemError(422, 'unknown-cut', `The brand has no channel '${wrongCut.channelId}' with a placement '${wrongCut.placement}'.`);
  const wrongRow = Object.keys(piece.words.own).find((channelId) => !possible.some((cut) => cut.channelId === channelId));
  if (wrongRow !== undefined) throw new ProblemError(422, 'unknown-channel', `The brand has no channel '${wrongRow}'.`);
}

/** Every placement of every channel of a brand that a kind of piece can be made for, in channel order. */
export async function possibleCuts(services: Services, brand: Brand, kind: Piece['kind']): Promise<readonly CutRef[]> {
  return possibleIn(await listChannels(services.db, brand.id), await listSheetsOf(services.db, brand.id), kind);
}

/** The same with the channels that the brand has no longer. */
export async function cutsEver(services: Pick<Services, 'db'>, brand: Pick<Brand, 'id'>, kind: Piece['kind']): Promise<readonly CutRef[]> {
  return possibleIn(await listChannelsEver(services.db, brand.id), await listSheetsOf(services.db, brand.id), kind);
}
