import type { TokenScope } from '../../core/access/access.ts';
import type { Db } from './connection.ts';
import { findPerson, type Person } from './people-repository.ts';

export interface AccessToken {
  readonly id: string;
  readonly name: string;
  readonly scope: TokenScope;
  readonly createdMs: number;
  readonly expiresMs: number;
  readonly lastUsedMs: number | null;
}

interface TokenRow {
  id: string;
  person_id: string;
  name: string;
  scope: TokenScope;
  created_ms: number;
  expires_ms: number;
  last_used_ms: number | null;
}

const toToken = (row: TokenRow): AccessToken => ({ id: row.id, name: row.name, scope: row.scope, createdMs: Number(row.created_ms), expiresMs: Number(row.expires_ms), lastUsedMs: row.last_used_ms === null ? null : Number(row.last_used_ms) });

export async function insertAccessToken(db: Db, token: AccessToken & { readonly personId: string; readonly secretHash: string }): Promise<void> {
  await db('access_tokens').insert({ id: token.id, person_id: token.personId, name: token.name, scope: token.scope, secret_hash: token.secretHash, created_ms: token.createdMs, expires_ms: token.expiresMs });
}

/** A person's tokens that are not revoked, the newest first; those that have ended are among them. */
export async function listAccessTokens(db: Db, personId: string): Promise<readonly AccessToken[]> {
  const rows = await db<TokenRow>('access_tokens').where({ person_id: personId }).whereNull('revoked_ms').orderBy('created_ms', 'desc');
  return rows.map(toToken);
}

export async function findAccessToken(db: Db, secretHash: string, nowMs: number): Promise<{ readonly token: AccessToken; readonly person: Person } | null> {
  const row = await db<TokenRow>('access_tokens').where('secret_hash', secretHash).whereNull('revoked_ms').where('expires_ms', '>', nowMs).first();
  const person = row ? await findPerson(db, row.person_id) : null;
  return row && person ? { token: toToken(row), person } : null;
}

export async function noteTokenUsed(db: Db, id: string, nowMs: number): Promise<void> {
  await db('access_tokens').where({ id }).update({ last_used_ms: nowMs });
}

/** False when the person has no such token. */
export async function revokeAccessToken(db: Db, personId: string, id: string, nowMs: number): Promise<boolean> {
  return (await db('access_tokens').where({ id, person_id: personId }).whereNull('revoked_ms').update({ revoked_ms: nowMs })) > 0;
}

export async function revokeAllTokens(db: Db, personId: string, nowMs: number): Promise<void> {
  await db('access_tokens').where({ person_id: personId }).whereNull('revoked_ms').update({ revoked_ms: nowMs });
}
