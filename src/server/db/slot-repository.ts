import type { Db } from './connection.ts';

/** Whose a slot of a channel is. */
export type SlotHolder = { readonly postId: string } | { readonly entryId: string };

/** A slot of one channel. */
export interface SlotOfChannel {
  readonly slotKey: string;
  readonly channelId: string;
}

/** Takes slots for a holder; false when one of them is somebody else's: the caller's transaction has to be given up then. */
export async function takeSlots(trx: Db, brandId: string, slots: readonly SlotOfChannel[], holder: SlotHolder): Promise<boolean> {
  const by = 'postId' in holder ? { post_id: holder.postId, entry_id: null } : { post_id: null, entry_id: holder.entryId };
  for (const { slotKey, channelId } of slots) {
    const rows: unknown[] = await trx('slot_fills').insert({ brand_id: brandId, slot_key: slotKey, channel_id: channelId, ...by }).onConflict(['brand_id', 'slot_key', 'channel_id']).ignore().returning('slot_key');
    if (rows.length === 0) return false;
  }
  return true;
}

/** Gives back the slots of a holder. */
export async function freeSlots(trx: Db, holder: SlotHolder): Promise<void> {
  await trx('slot_fills').where('postId' in holder ? { post_id: holder.postId } : { entry_id: holder.entryId }).delete();
}

/** Slots that are somebody's, of some days: keys hold their day. */
export async function listTakenSlots(db: Db, brandId: string): Promise<ReadonlyMap<string, SlotHolder>> {
  const rows: { slot_key: string; channel_id: string; post_id: string | null; entry_id: string | null }[] = await db('slot_fills').where({ brand_id: brandId }).select('slot_key', 'channel_id', 'post_id', 'entry_id');
  return new Map(rows.map((row) => [`${row.slot_key} ${row.channel_id}`, row.post_id === null ? { entryId: row.entry_id ?? '' } : { postId: row.post_id }]));
}
