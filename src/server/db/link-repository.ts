import type { Role } from '../../core/access/access.ts';
import type { Db } from './connection.ts';

/** A link that works once: into a brand, or to a new password. Only the hash of its secret is kept. */
export type OneTimeLink = { readonly id: string; readonly expiresMs: number } & (
  | { readonly kind: 'invitation'; readonly brandId: string; readonly role: Role; readonly email: string; readonly madeBy: string }
  | { readonly kind: 'password'; readonly personId: string }
);

interface LinkRow {
  id: string;
  kind: OneTimeLink['kind'];
  person_id: string | null;
  brand_id: string | null;
  role: Role | null;
  email: string;
  made_by: string | null;
  expires_ms: number;
}

function toLink(row: LinkRow): OneTimeLink | null {
  const shared = { id: row.id, expiresMs: Number(row.expires_ms) };
  if (row.kind === 'password') return row.person_id === null ? null : { ...shared, kind: 'password', personId: row.person_id };
  if (row.brand_id === null || row.role === null || row.made_by === null) return null;
  return { ...shared, kind: 'invitation', brandId: row.brand_id, role: row.role, email: row.email, madeBy: row.made_by };
}

export async function insertLink(db: Db, link: OneTimeLink, secretHash: string, nowMs: number): Promise<void> {
  const own = link.kind === 'password' ? { person_id: link.personId } : { brand_id: link.brandId, role: link.role, email: link.email, made_by: link.madeBy };
  await db('one_time_links').insert({ id: link.id, kind: link.kind, secret_hash: secretHash, created_ms: nowMs, expires_ms: link.expiresMs, ...own });
}

/** A link that still works. */
export async function findLink(db: Db, secretHash: string, nowMs: number): Promise<OneTimeLink | null> {
  const row = await db<LinkRow>('one_time_links').where('secret_hash', secretHash).whereNull('ended_ms').where('expires_ms', '>', nowMs).first();
  return row ? toLink(row) : null;
}

/** Uses a link up; false when somebody has used or ended it a moment before. */
export async function endLink(db: Db, id: string, nowMs: number): Promise<boolean> {
  return (await db('one_time_links').where({ id }).whereNull('ended_ms').update({ ended_ms: nowMs })) > 0;
}

/** Ends an invitation of a brand; false when there is none such. */
export async function endInvitation(db: Db, brandId: string, id: string, nowMs: number): Promise<boolean> {
  return (await db('one_time_links').where({ id, brand_id: brandId }).whereNull('ended_ms').update({ ended_ms: nowMs })) > 0;
}

/** Ends what would still give a person a new password. */
export async function endPasswordLinks(db: Db, personId: string, nowMs: number): Promise<void> {
  await db('one_time_links').where({ person_id: personId, kind: 'password' }).whereNull('ended_ms').update({ ended_ms: nowMs });
}

/** Invitations of a brand that nobody has accepted yet, the newest first. */
export async function listInvitations(db: Db, brandId: string, nowMs: number): Promise<readonly Extract<OneTimeLink, { kind: 'invitation' }>[]> {
  const rows = await db<LinkRow>('one_time_links').where({ brand_id: brandId, kind: 'invitation' }).whereNull('ended_ms').where('expires_ms', '>', nowMs).orderBy('created_ms', 'desc');
  return rows.map(toLink).filter((link) => link?.kind === 'invitation');
}

export async function pruneLinks(db: Db, beforeMs: number): Promise<void> {
  await db('one_time_links').where('expires_ms', '<', beforeMs).delete();
}
