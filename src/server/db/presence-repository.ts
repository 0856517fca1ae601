import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

/** Somebody who has a piece open. */
export interface Present {
  readonly personId: string;
  readonly name: string;
}

/** Says that a view of a piece is open, until a moment of the machine's clock; watchers hear of it when it was not known. */
export async function notePresence(db: Db, view: { readonly brandId: string; readonly pieceId: string; readonly viewId: string; readonly personId: string; readonly untilMs: number }, machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    const prolonged = await trx('presence').where({ piece_id: view.pieceId, view_id: view.viewId }).update({ until_ms: view.untilMs });
    if (prolonged > 0) return;
    await trx('presence').insert({ piece_id: view.pieceId, view_id: view.viewId, person_id: view.personId, until_ms: view.untilMs });
    await noteChange(trx, { brandId: view.brandId, kind: 'presence', subjectId: view.pieceId }, machineNowMs);
  });
}

export async function endPresence(db: Db, view: { readonly brandId: string; readonly pieceId: string; readonly viewId: string }, machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    const ended = await trx('presence').where({ piece_id: view.pieceId, view_id: view.viewId }).delete();
    if (ended > 0) await noteChange(trx, { brandId: view.brandId, kind: 'presence', subjectId: view.pieceId }, machineNowMs);
  });
}

/** The people who have a piece open now, each once, by name. */
export async function listPresent(db: Db, pieceId: string, machineNowMs: number): Promise<readonly Present[]> {
  return db('presence').join('people', 'people.id', 'presence.person_id').where({ piece_id: pieceId }).where('until_ms', '>', machineNowMs).distinct('people.id as personId', 'people.name as name').orderBy('people.name');
}

/** Forgets views whose process has ended without saying so. */
export async function prunePresence(db: Db, machineNowMs: number): Promise<void> {
  await db('presence').where('until_ms', '<=', machineNowMs).delete();
}
