import { nanoid } from 'nanoid';
import type { Role } from '../../core/access/access.ts';
import { endPasswordLinks, insertLink } from '../db/link-repository.ts';
import type { Db } from '../db/connection.ts';
import { hashSecret, newSecret } from './secrets.ts';

const DAY_MS = 86_400_000;
const INVITATION_MS = 7 * DAY_MS;
const PASSWORD_LINK_MS = DAY_MS;

export interface MadeLink {
  readonly id: string;
  /** Path with the secret in its fragment, which browsers send to no server and no log. */
  readonly path: string;
  readonly expiresMs: number;
}

/** A link into a brand. It says nothing of whether the address is known, and joins nobody by itself. */
export async function makeInvitation(db: Db, invitation: { readonly brandId: string; readonly role: Role; readonly email: string; readonly madeBy: string }, nowMs: number): Promise<MadeLink> {
  const [id, secret, expiresMs] = [nanoid(12), newSecret('cfi'), nowMs + INVITATION_MS];
  await insertLink(db, { kind: 'invitation', id, expiresMs, ...invitation }, hashSecret(secret), nowMs);
  return { id, path: `/join#${secret}`, expiresMs };
}

/** A link to a new password; those made before end. */
export async function makePasswordLink(db: Db, personId: string, nowMs: number): Promise<MadeLink> {
  const [id, secret, expiresMs] = [nanoid(12), newSecret('cfp'), nowMs + PASSWORD_LINK_MS];
  await endPasswordLinks(db, personId, nowMs);
  await insertLink(db, { kind: 'password', id, expiresMs, personId }, hashSecret(secret), nowMs);
  return { id, path: `/new-password#${secret}`, expiresMs };
}
