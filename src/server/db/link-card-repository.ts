import type { Db } from './connection.ts';

/** What a page says of itself, as it was when it was fetched. */
export interface LinkCard {
  readonly title: string;
  readonly description: string;
  readonly site: string;
  readonly picture: Uint8Array | null;
  /** Why there is no card; empty where there is one. */
  readonly problem: string;
  readonly fetchedMs: number;
}

export async function findLinkCard(db: Db, brandId: string, address: string): Promise<LinkCard | null> {
  const row = await db('link_cards').where({ brand_id: brandId, address }).first();
  return row ? { title: row.title, description: row.description, site: row.site, picture: row.picture, problem: row.problem, fetchedMs: Number(row.fetched_ms) } : null;
}

export async function saveLinkCard(db: Db, brandId: string, address: string, card: LinkCard): Promise<void> {
  await db('link_cards')
    .insert({ brand_id: brandId, address, title: card.title, description: card.description, site: card.site, picture: card.picture === null ? null : Buffer.from(card.picture), problem: card.problem, fetched_ms: card.fetchedMs })
    .onConflict(['brand_id', 'address'])
    .merge();
}

/** Forgets cards that nobody has asked for anew since a moment. */
export async function sweepLinkCards(db: Db, beforeMs: number): Promise<void> {
  await db('link_cards').where('fetched_ms', '<', beforeMs).delete();
}
