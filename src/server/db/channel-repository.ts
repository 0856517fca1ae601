import { noteChange } from './change-repository.ts';
import type { Channel } from './brand-repository.ts';
import type { Db } from './connection.ts';

/** What a fresh access gives a channel; tokens are sealed. */
export type ChannelAccess = Pick<Channel, 'token' | 'refreshToken' | 'tokenEndsMs' | 'accessEndsMs'>;

const accessFields = (access: ChannelAccess) => ({ token: access.token, refresh_token: access.refreshToken, token_ends_ms: access.tokenEndsMs, access_ends_ms: access.accessEndsMs });

/** Gives a channel a fresh access, and connects it again where it had ended or was removed. */
export async function reconnectChannel(trx: Db, channel: Pick<Channel, 'id' | 'brandId'>, made: ChannelAccess & Pick<Channel, 'kind' | 'site' | 'origin'>, machineNowMs: number): Promise<void> {
  await trx('channels').where({ id: channel.id }).update({ ...accessFields(made), kind: made.kind, site: made.site, origin: made.origin, state: 'connected', removed_ms: null });
  await noteChannel(trx, channel, machineNowMs);
}

/** Keeps a renewed access, if it was renewed from the one that the channel still has: two processes may have asked at once. */
export async function keepRenewed(db: Db, id: string, renewedFrom: string, access: ChannelAccess): Promise<boolean> {
  return (await db('channels').where({ id, refresh_token: renewedFrom }).update(accessFields(access))) > 0;
}

export async function setChannelState(db: Db, channel: Pick<Channel, 'id' | 'brandId'>, state: Channel['state'], from: readonly Channel['state'][], machineNowMs: number): Promise<boolean> {
  const changed = await db('channels').where({ id: channel.id }).whereIn('state', [...from]).update({ state });
  if (changed > 0) await noteChannel(db, channel, machineNowMs);
  return changed > 0;
}

export async function describeChannel(db: Db, channel: Pick<Channel, 'id' | 'brandId'>, fields: Partial<Pick<Channel, 'name' | 'isPinned' | 'groupName'>>, machineNowMs: number): Promise<void> {
  const { name, isPinned, groupName } = fields;
  const changed = { ...(name === undefined ? {} : { name }), ...(isPinned === undefined ? {} : { is_pinned: isPinned }), ...(groupName === undefined ? {} : { group_name: groupName }) };
  if (Object.keys(changed).length === 0) return;
  await db('channels').where({ id: channel.id }).update(changed);
  await noteChannel(db, channel, machineNowMs);
}

/** Takes a channel away from its brand. Its row stays: what went out there still names it. The access is forgotten. */
export async function removeChannel(trx: Db, channel: Pick<Channel, 'id' | 'brandId'>, sealedNothing: string, nowMs: number, machineNowMs: number): Promise<void> {
  await trx('channels').where({ id: channel.id }).update({ removed_ms: nowMs, token: sealedNothing, refresh_token: null });
  await trx('queue_entries').where({ channel_id: channel.id }).delete();
  await noteChannel(trx, channel, machineNowMs);
}

/** How many deliveries of each channel wait, and how many failed of late. */
export async function countByChannel(db: Db, brandId: string, sinceMs: number): Promise<readonly { readonly channelId: string; readonly state: string; readonly count: number }[]> {
  const rows: { channel_id: string; state: string; count: number | string }[] = await db('deliveries')
    .where({ brand_id: brandId })
    .where('due_ms', '>', sinceMs)
    .whereIn('state', ['scheduled', 'held', 'failed', 'in review', 'by hand'])
    .groupBy('channel_id', 'state')
    .select('channel_id', 'state')
    .count({ count: '*' });
  return rows.map(({ channel_id, state, count }) => ({ channelId: channel_id, state, count: Number(count) }));
}

async function noteChannel(db: Db, { id, brandId }: Pick<Channel, 'id' | 'brandId'>, machineNowMs: number): Promise<void> {
  await noteChange(db, { brandId, kind: 'channel', subjectId: id }, machineNowMs);
}
