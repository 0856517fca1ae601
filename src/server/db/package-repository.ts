import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** An uploaded package, until it is imported or removed. */
export interface IncomingPackage {
  readonly id: string;
  readonly personId: string;
  readonly name: string;
  readonly bytes: number;
  readonly startedMs: number;
  /** Brands that its import has begun and not yet ended. */
  readonly begun: readonly string[];
}

const toPackage = (row: object): IncomingPackage => {
  const { begun, ...rest } = fromRow<Omit<IncomingPackage, 'begun'> & { readonly begun: string }>(row);
  return { ...rest, bytes: Number(rest.bytes), startedMs: Number(rest.startedMs), begun: JSON.parse(begun) as string[] };
};

export async function insertPackage(db: Db, { id, personId, name, bytes, startedMs }: Omit<IncomingPackage, 'begun'>): Promise<void> {
  await db('packages').insert({ id, person_id: personId, name, bytes, started_ms: startedMs });
}

/** A package of this person; what others bring is not theirs to see. */
export async function findPackage(db: Db, personId: string, id: string): Promise<IncomingPackage | null> {
  const row: object | undefined = await db('packages').where({ id, person_id: personId }).first();
  return row ? toPackage(row) : null;
}

/** A package by its id alone, for the work that reads it; null when it was dropped. */
export async function findPackageById(db: Db, id: string): Promise<IncomingPackage | null> {
  const row: object | undefined = await db('packages').where({ id }).first();
  return row ? toPackage(row) : null;
}

/** The packages of a person and the bytes of them all. */
export async function listPackages(db: Db, personId: string): Promise<readonly IncomingPackage[]> {
  return (await db('packages').where({ person_id: personId }).orderBy('started_ms')).map(toPackage);
}

export async function noteBegun(db: Db, id: string, begun: readonly string[]): Promise<void> {
  await db('packages').where({ id }).update({ begun: JSON.stringify(begun) });
}

export async function deletePackage(db: Db, id: string): Promise<void> {
  await db('packages').where({ id }).delete();
}

/** Packages that came before a moment. */
export async function listStalePackages(db: Db, beforeMs: number): Promise<readonly IncomingPackage[]> {
  return (await db('packages').where('started_ms', '<', beforeMs)).map(toPackage);
}
