import type { Db } from './connection.ts';
import { findPerson, type Person } from './people-repository.ts';

export interface Session {
  readonly id: string;
  /** What the browser calls itself. */
  readonly client: string;
  readonly createdMs: number;
  readonly lastUsedMs: number;
}

export interface FoundSession extends Session {
  readonly person: Person;
}

interface NewSession extends Session {
  readonly secretHash: string;
  readonly personId: string;
  readonly expiresMs: number;
}

interface SessionRow {
  id: string;
  client: string;
  created_ms: number;
  last_used_ms: number;
  person_id: string;
}

const toSession = (row: SessionRow): Session => ({ id: row.id, client: row.client, createdMs: Number(row.created_ms), lastUsedMs: Number(row.last_used_ms) });

export async function insertSession(db: Db, session: NewSession): Promise<void> {
  await db('sessions').insert({ secret_hash: session.secretHash, id: session.id, person_id: session.personId, client: session.client, created_ms: session.createdMs, last_used_ms: session.lastUsedMs, expires_ms: session.expiresMs });
}

/** A session that has neither come to its end nor lain idle since `idleSinceMs`, with its person. */
export async function findSession(db: Db, secretHash: string, nowMs: number, idleSinceMs: number): Promise<FoundSession | null> {
  const row = await db<SessionRow>('sessions').where('secret_hash', secretHash).where('expires_ms', '>', nowMs).where('last_used_ms', '>', idleSinceMs).first();
  const person = row ? await findPerson(db, row.person_id) : null;
  return row && person ? { ...toSession(row), person } : null;
}

export async function noteSessionUsed(db: Db, secretHash: string, nowMs: number): Promise<void> {
  await db('sessions').where({ secret_hash: secretHash }).update({ last_used_ms: nowMs });
}

export async function deleteSession(db: Db, secretHash: string): Promise<void> {
  await db('sessions').where({ secret_hash: secretHash }).delete();
}

/** A person's sessions that still hold, the latest used first. */
export async function listSessions(db: Db, personId: string, nowMs: number, idleSinceMs: number): Promise<readonly Session[]> {
  const rows = await db<SessionRow>('sessions').where({ person_id: personId }).where('expires_ms', '>', nowMs).where('last_used_ms', '>', idleSinceMs).orderBy('last_used_ms', 'desc');
  return rows.map(toSession);
}

/** Ends one of a person's sessions; false when there is no such session. */
export async function endSession(db: Db, personId: string, id: string): Promise<boolean> {
  return (await db('sessions').where({ person_id: personId, id }).delete()) > 0;
}

/** Ends all sessions of a person but the named one. */
export async function endOtherSessions(db: Db, personId: string, keptId: string | null): Promise<void> {
  await db('sessions').where({ person_id: personId }).whereNot({ id: keptId ?? '' }).delete();
}

/** Throws away sessions that hold no more. */
export async function pruneSessions(db: Db, nowMs: number, idleSinceMs: number): Promise<void> {
  await db('sessions').where('expires_ms', '<=', nowMs).orWhere('last_used_ms', '<=', idleSinceMs).delete();
}
