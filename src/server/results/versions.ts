import { nanoid } from 'nanoid';
import { copyName } from '../../core/piece/copy-name.ts';
import { readPiece } from '../../core/piece/piece.ts';
import type { Brand } from '../db/brand-repository.ts';
import { findPiece, insertPiece } from '../db/piece-repository.ts';
import { getPiecePlan, savePiecePlan } from '../db/piece-plan-repository.ts';
import { keepRotation, listRotations } from '../db/rotation-repository.ts';
import { addVersion, endTrial, listTrials } from '../db/trial-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';

/** Versions of one piece that are tried at once: with more, each is out too seldom to tell anything. */
const MAX_VERSIONS = 4;

/**
 * Begins another version of a piece in rotation: a copy about the same theme, in rotation as the first is, so that both take turns in the same slots.
 * @throws ProblemError 404 when the piece is in no rotation, 422 when it has enough versions
 */
export async function beginVersion(services: Services, brand: Brand, pieceId: string, personId: string, nowMs: number): Promise<{ readonly pieceId: string; readonly name: string }> {
  const { db, clock } = services;
  const [[rotation], piece, trials] = [await listRotations(db, brand.id, pieceId), await findPiece(db, brand.id, pieceId), await listTrials(db, brand.id)];
  if (!rotation || !piece) throw notFound('rotation');
  const versions = trials.find(({ pieceIds }) => pieceIds.includes(pieceId))?.pieceIds.length ?? 1;
  if (versions >= MAX_VERSIONS) throw new ProblemError(422, 'too-many', `At most ${MAX_VERSIONS} versions are tried at once. End this experiment first.`);
  const document = readPiece({ ...piece.document, title: copyName(rotation.pieceName, 'version') });
  const id = nanoid(12);
  await insertPiece(db, { id, brandId: brand.id, document, createdBy: personId }, nowMs);
  const about = await getPiecePlan(db, brand.id, pieceId);
  await db.transaction(async (trx) => {
    await savePiecePlan(trx, brand.id, id, about, clock.machineNowMs());
    await addVersion(trx, brand.id, { id: nanoid(12), pieceId, versionId: id, personId }, nowMs);
  });
  // Variants were copied with the document, so the same wordings and pictures take turns.
  await keepRotation(db, brand.id, id, { settings: rotation.settings, isOn: rotation.isOn }, personId, clock.machineNowMs());
  return { pieceId: id, name: rotation.pieceName };
}

/**
 * Ends a trial: one version stays in rotation, the others rest.
 * @throws ProblemError 404 when there is no such trial, 422 when it does not have this version
 */
export async function keepVersion({ db, clock }: Services, brand: Brand, pieceId: string, kept: string, personId: string): Promise<string> {
  const trial = (await listTrials(db, brand.id)).find(({ pieceIds }) => pieceIds.includes(pieceId));
  if (!trial) throw notFound('experiment');
  if (!trial.pieceIds.includes(kept)) throw new ProblemError(422, 'unknown-version', 'The experiment does not have this version any more.');
  const rotations = await listRotations(db, brand.id);
  await db.transaction((trx) => endTrial(trx, brand.id, trial.id, clock.machineNowMs()));
  for (const rotation of rotations.filter((each) => trial.pieceIds.includes(each.pieceId))) await keepRotation(db, brand.id, rotation.pieceId, { settings: rotation.settings, isOn: rotation.pieceId === kept }, personId, clock.machineNowMs());
  return rotations.find((each) => each.pieceId === kept)?.pieceName ?? '';
}
