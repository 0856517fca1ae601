import type { Db } from './connection.ts';

/** Notes that signing in failed. */
export async function noteFailedSignIn(db: Db, subjects: readonly string[], nowMs: number, sinceMs: number): Promise<void> {
  await db('sign_in_attempts').insert(subjects.map((subject) => ({ subject, at_ms: nowMs })));
  await db('sign_in_attempts').where('at_ms', '<', sinceMs).delete();
}

export async function countFailedSignIns(db: Db, subject: string, sinceMs: number): Promise<number> {
  const row = await db('sign_in_attempts').where({ subject }).where('at_ms', '>=', sinceMs).count<{ count: number }[]>({ count: '*' }).first();
  return Number(row?.count ?? 0);
}

export async function forgetFailedSignIns(db: Db, subject: string): Promise<void> {
  await db('sign_in_attempts').where({ subject }).delete();
}

/** Notes an address that a person has signed in from: guesses of others do not keep them out there. */
export async function noteKnownAddress(db: Db, personId: string, address: string, nowMs: number): Promise<void> {
  await db('known_addresses').insert({ person_id: personId, address, last_ms: nowMs }).onConflict(['person_id', 'address']).merge(['last_ms']);
}

export async function isKnownAddress(db: Db, personId: string, address: string, sinceMs: number): Promise<boolean> {
  return (await db('known_addresses').where({ person_id: personId, address }).where('last_ms', '>=', sinceMs).first()) !== undefined;
}

/** Sets or ends the second step of a person; the recovery codes go with it. */
export async function setCodeSecret(db: Db, personId: string, sealedSecret: string | null, recoveryHashes: readonly string[]): Promise<void> {
  await db.transaction(async (trx) => {
    await trx('people').where({ id: personId }).update({ code_secret: sealedSecret, code_step: null });
    await trx('recovery_codes').where({ person_id: personId }).delete();
    if (recoveryHashes.length > 0) await trx('recovery_codes').insert(recoveryHashes.map((code_hash) => ({ person_id: personId, code_hash })));
  });
}

/** Takes a time step for a code; false when this step or a later one has been taken: a code counts once. */
export async function takeCodeStep(db: Db, personId: string, step: number): Promise<boolean> {
  const unused = (query: ReturnType<Db>): void => void query.whereNull('code_step').orWhere('code_step', '<', step);
  return (await db('people').where({ id: personId }).where(unused).update({ code_step: step })) > 0;
}

/** Uses up a recovery code; false when there is no such code. */
export async function takeRecoveryCode(db: Db, personId: string, codeHash: string): Promise<boolean> {
  return (await db('recovery_codes').where({ person_id: personId, code_hash: codeHash }).delete()) > 0;
}

export async function countRecoveryCodes(db: Db, personId: string): Promise<number> {
  const row = await db('recovery_codes').where({ person_id: personId }).count<{ count: number }[]>({ count: '*' }).first();
  return Number(row?.count ?? 0);
}
