import type { Role } from '../../core/access/access.ts';
import type { Db } from './connection.ts';
import { nextPosition } from './position.ts';

export interface Person {
  readonly id: string;
  readonly email: string;
  readonly name: string;
}

export interface BrandMembership {
  readonly slug: string;
  readonly name: string;
  readonly zone: string;
  readonly role: Role;
}

interface PersonRow {
  id: string;
  email: string;
  name: string;
  password_hash: string;
}

const toPerson = ({ id, email, name }: PersonRow): Person => ({ id, email, name });

export async function insertPerson(db: Db, person: Person & { readonly passwordHash: string }, nowMs: number): Promise<void> {
  await db('people').insert({ id: person.id, email: person.email.toLowerCase(), name: person.name, password_hash: person.passwordHash, created_ms: nowMs, position: await nextPosition(db, 'people') });
}

export async function findPersonByEmail(db: Db, email: string): Promise<(Person & { readonly passwordHash: string }) | null> {
  const row = await db<PersonRow>('people').where({ email: email.toLowerCase() }).first();
  return row ? { ...toPerson(row), passwordHash: row.password_hash } : null;
}

export async function findPerson(db: Db, id: string): Promise<Person | null> {
  const row = await db<PersonRow>('people').where({ id }).first();
  return row ? toPerson(row) : null;
}

/** Everybody, in the order they were added; only the demo asks for this. */
export async function listPeople(db: Db): Promise<readonly (Person & { readonly role: Role; readonly brand: string })[]> {
  return db('people')
    .join('memberships', 'memberships.person_id', 'people.id')
    .join('brands', 'brands.id', 'memberships.brand_id')
    .select('people.id', 'people.email', 'people.name', 'memberships.role', 'brands.name as brand')
    .orderBy([{ column: 'brands.position' }, { column: 'people.position' }]);
}

export async function listMemberships(db: Db, personId: string): Promise<readonly BrandMembership[]> {
  return db('memberships')
    .join('brands', 'brands.id', 'memberships.brand_id')
    .where({ person_id: personId })
    .select('brands.slug', 'brands.name', 'brands.zone', 'memberships.role')
    .orderBy('brands.position');
}

export async function insertMembership(db: Db, personId: string, brandId: string, role: Role): Promise<void> {
  await db('memberships').insert({ person_id: personId, brand_id: brandId, role, position: await nextPosition(db, 'memberships') });
}

export async function insertSession(db: Db, session: { readonly secretHash: string; readonly personId: string; readonly expiresMs: number }): Promise<void> {
  await db('sessions').insert({ secret_hash: session.secretHash, person_id: session.personId, expires_ms: session.expiresMs });
}

export async function findSessionPerson(db: Db, secretHash: string, nowMs: number): Promise<Person | null> {
  const row = await db<PersonRow>('people')
    .join('sessions', 'sessions.person_id', 'people.id')
    .where('sessions.secret_hash', secretHash)
    .where('sessions.expires_ms', '>', nowMs)
    .first('people.*');
  return row ? toPerson(row as PersonRow) : null;
}

export async function deleteSession(db: Db, secretHash: string): Promise<void> {
  await db('sessions').where({ secret_hash: secretHash }).delete();
}

/** Attempts of a subject since a moment, this one included. */
export async function recordSignInAttempt(db: Db, subject: string, nowMs: number, sinceMs: number): Promise<number> {
  await db('sign_in_attempts').insert({ subject, at_ms: nowMs });
  await db('sign_in_attempts').where('at_ms', '<', sinceMs).delete();
  const row = await db('sign_in_attempts').where({ subject }).where('at_ms', '>=', sinceMs).count<{ count: number }[]>({ count: '*' }).first();
  return Number(row?.count ?? 0);
}

export async function forgetSignInAttempts(db: Db, subject: string): Promise<void> {
  await db('sign_in_attempts').where({ subject }).delete();
}

export interface AccessToken {
  readonly id: string;
  readonly name: string;
  readonly createdMs: number;
  readonly lastUsedMs: number | null;
}

export async function insertAccessToken(db: Db, token: AccessToken & { readonly personId: string; readonly secretHash: string }): Promise<void> {
  await db('access_tokens').insert({ id: token.id, person_id: token.personId, name: token.name, secret_hash: token.secretHash, created_ms: token.createdMs });
}

export async function listAccessTokens(db: Db, personId: string): Promise<readonly AccessToken[]> {
  const rows = await db('access_tokens').where({ person_id: personId }).whereNull('revoked_ms').orderBy('created_ms', 'desc');
  return rows.map((row) => ({ id: row.id, name: row.name, createdMs: row.created_ms, lastUsedMs: row.last_used_ms }));
}

/** The person of a valid token; notes that it was used. */
export async function useAccessToken(db: Db, secretHash: string, nowMs: number): Promise<Person | null> {
  const [row] = await db('access_tokens').where({ secret_hash: secretHash }).whereNull('revoked_ms').update({ last_used_ms: nowMs }).returning('person_id');
  return row ? findPerson(db, row.person_id) : null;
}

/** False when the person has no such token. */
export async function revokeAccessToken(db: Db, personId: string, id: string, nowMs: number): Promise<boolean> {
  return (await db('access_tokens').where({ id, person_id: personId }).whereNull('revoked_ms').update({ revoked_ms: nowMs })) > 0;
}

export interface Member extends Person {
  readonly role: Role;
}

/** The people of a brand, in the order they came. */
export async function listMembers(db: Db, brandId: string): Promise<readonly Member[]> {
  return db('memberships').join('people', 'people.id', 'memberships.person_id').where({ brand_id: brandId }).select('people.id', 'people.email', 'people.name', 'memberships.role').orderBy('memberships.position');
}

/** Gives a member another role; false when the person is none, or the brand would be left without an owner. */
export async function changeRole(db: Db, brandId: string, personId: string, role: Role): Promise<boolean> {
  const query = db('memberships').where({ brand_id: brandId, person_id: personId });
  if (role !== 'owner') query.where(keepsAnOwner(db, brandId, personId));
  return (await query.update({ role })) > 0;
}

/** Takes a member out; false when the person is none, or is the last owner. */
export async function removeMember(db: Db, brandId: string, personId: string): Promise<boolean> {
  return (await db('memberships').where({ brand_id: brandId, person_id: personId }).where(keepsAnOwner(db, brandId, personId)).delete()) > 0;
}

/** Asked in the very statement that changes, so that two changes at once cannot leave a brand without an owner. */
function keepsAnOwner(db: Db, brandId: string, personId: string) {
  return db.raw("exists (select 1 from memberships as others where others.brand_id = ? and others.role = 'owner' and others.person_id <> ?)", [brandId, personId]);
}
