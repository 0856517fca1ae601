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
  may_begin_brands: boolean | number;
  code_secret: string | null;
}

/** What signing in needs to know of a person. */
export interface PersonToSignIn extends Person {
  readonly passwordHash: string;
  /** The sealed secret of the second step; null where there is none. */
  readonly sealedCodeSecret: string | null;
}

const toPerson = ({ id, email, name }: PersonRow): Person => ({ id, email, name });

export async function insertPerson(db: Db, person: Person & { readonly passwordHash: string; readonly mayBeginBrands?: boolean }, nowMs: number): Promise<void> {
  await db('people').insert({ id: person.id, email: person.email.toLowerCase(), name: person.name, password_hash: person.passwordHash, may_begin_brands: person.mayBeginBrands ?? false, created_ms: nowMs, position: await nextPosition(db, 'people') });
}

export async function findPersonByEmail(db: Db, email: string): Promise<PersonToSignIn | null> {
  const row = await db<PersonRow>('people').where({ email: email.toLowerCase() }).first();
  return row ? toSignIn(row) : null;
}

export async function findPersonToSignIn(db: Db, id: string): Promise<PersonToSignIn | null> {
  const row = await db<PersonRow>('people').where({ id }).first();
  return row ? toSignIn(row) : null;
}

function toSignIn(row: PersonRow): PersonToSignIn {
  return { ...toPerson(row), passwordHash: row.password_hash, sealedCodeSecret: row.code_secret };
}

export async function mayBeginBrands(db: Db, personId: string): Promise<boolean> {
  return Boolean((await db<PersonRow>('people').where({ id: personId }).first())?.may_begin_brands);
}

export async function letBeginBrands(db: Db, personId: string, may: boolean): Promise<void> {
  await db('people').where({ id: personId }).update({ may_begin_brands: may });
}

export async function setPassword(db: Db, personId: string, passwordHash: string): Promise<void> {
  await db('people').where({ id: personId }).update({ password_hash: passwordHash });
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
