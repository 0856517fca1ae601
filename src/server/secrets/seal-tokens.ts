import { listTokens, replaceToken } from '../db/brand-repository.ts';
import type { Db } from '../db/connection.ts';
import { isSealed, type Sealer } from './sealer.ts';

/** Seals the tokens of channels that were kept before tokens were sealed. */
export async function sealTokens(db: Db, sealer: Sealer): Promise<void> {
  for (const { id, token } of await listTokens(db)) if (!isSealed(token)) await replaceToken(db, id, sealer.seal(token));
}
