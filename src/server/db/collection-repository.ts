import type { RemoteAudience, RemoteDay } from '../connectors/results-reader.ts';
import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** How far a channel has been asked. Moments are by the product's clock. */
export interface Collection {
  readonly channelId: string;
  readonly nextMs: number;
  /** When the account itself is asked next. */
  readonly accountNextMs: number;
  readonly postsSinceMs: number;
  /** Where the list of what people wrote goes on. */
  readonly heardAfter: string;
  readonly audience: string | null;
  readonly problem: string | null;
  readonly problemSinceMs: number | null;
  readonly hookSecret: string | null;
}

/** Channels whose turn it is: connected, with a row made for those that have none. */
export async function listDueCollections(db: Db, nowMs: number, limit: number): Promise<readonly { readonly channelId: string; readonly network: string }[]> {
  const missing: { id: string }[] = await db('channels').leftJoin('collections', 'collections.channel_id', 'channels.id').whereNull('collections.channel_id').whereNull('removed_ms').select('channels.id').limit(limit);
  if (missing.length > 0) await db('collections').insert(missing.map(({ id }) => ({ channel_id: id }))).onConflict('channel_id').ignore();
  return db('collections').join('channels', 'channels.id', 'collections.channel_id').where('next_ms', '<=', nowMs).whereNull('removed_ms').whereNot('channels.state', 'ended').orderBy('next_ms').limit(limit).select('channels.id as channelId', 'channels.network_key as network');
}

export async function getCollection(db: Db, channelId: string): Promise<Collection> {
  await db('collections').insert({ channel_id: channelId }).onConflict('channel_id').ignore();
  return fromRow<Collection>(await db('collections').where({ channel_id: channelId }).first());
}

export async function keepCollection(db: Db, channelId: string, fields: Partial<Omit<Collection, 'channelId'>>): Promise<void> {
  const columns = { nextMs: 'next_ms', accountNextMs: 'account_next_ms', postsSinceMs: 'posts_since_ms', heardAfter: 'heard_after', audience: 'audience', problem: 'problem', problemSinceMs: 'problem_since_ms', hookSecret: 'hook_secret' } as const;
  const update = Object.fromEntries(Object.entries(fields).map(([key, value]) => [columns[key as keyof typeof columns], value]));
  await db('collections').where({ channel_id: channelId }).update(update);
}

/** Keeps the figures of an account's days; a day that is known is as its network says now. */
export async function keepDays(db: Db, channelId: string, days: readonly RemoteDay[]): Promise<void> {
  const rows = days.flatMap(({ day, figures }) => Object.entries(figures).map(([metric, value]) => ({ channel_id: channelId, day, metric, value: value ?? 0 })));
  for (let from = 0; from < rows.length; from += 200) await db('account_days').insert(rows.slice(from, from + 200)).onConflict(['channel_id', 'day', 'metric']).merge(['value']);
}

export async function latestDay(db: Db, channelId: string): Promise<string | null> {
  const row = await db('account_days').where({ channel_id: channelId }).max('day as day').first();
  return (row?.['day'] as string | null | undefined) ?? null;
}

export interface AccountDay {
  readonly channelId: string;
  readonly day: string;
  readonly metric: string;
  readonly value: number;
}

/** What accounts came to together on each day: a sum, and how many accounts it is of. */
export async function sumDays(db: Db, channelIds: readonly string[], metric: string, from: string, until: string): Promise<ReadonlyMap<string, { readonly sum: number; readonly accounts: number }>> {
  const rows: { day: string; sum: number | string; accounts: number | string }[] = await db('account_days').whereIn('channel_id', [...channelIds]).where({ metric }).whereBetween('day', [from, until]).groupBy('day').select('day').sum({ sum: 'value' }).count({ accounts: '*' });
  return new Map(rows.map(({ day, sum, accounts }) => [day, { sum: Number(sum), accounts: Number(accounts) }]));
}

/** One figure of each account on some days, first to last. */
export async function listOnDays(db: Db, channelIds: readonly string[], metric: string, days: readonly string[]): Promise<ReadonlyMap<string, readonly number[]>> {
  const rows: { channelId: string; value: number | string }[] = await db('account_days').whereIn('channel_id', [...channelIds]).whereIn('day', [...days]).where({ metric }).orderBy(['channel_id', 'day']).select('channel_id as channelId', 'value');
  const found = new Map<string, number[]>();
  for (const { channelId, value } of rows) found.set(channelId, [...(found.get(channelId) ?? []), Number(value)]);
  return found;
}

/** Figures of accounts by day, first to last. */
export async function listDays(db: Db, channelIds: readonly string[], from: string, until: string): Promise<readonly AccountDay[]> {
  const rows: AccountDay[] = await db('account_days').whereIn('channel_id', [...channelIds]).whereBetween('day', [from, until]).orderBy(['channel_id', 'day']).select('channel_id as channelId', 'day', 'metric', 'value');
  return rows.map((row) => ({ ...row, value: Number(row.value) }));
}

export async function listAudiences(db: Db, brandId: string): Promise<readonly { readonly channelId: string; readonly audience: RemoteAudience | null; readonly problem: string | null; readonly problemSinceMs: number | null }[]> {
  const rows: { channelId: string; audience: string | null; problem: string | null; problemSinceMs: number | null }[] = await db('collections').join('channels', 'channels.id', 'collections.channel_id').where({ brand_id: brandId }).whereNull('removed_ms').select('channels.id as channelId', 'audience', 'problem', 'problem_since_ms as problemSinceMs');
  return rows.map((row) => ({ ...row, audience: row.audience === null ? null : (JSON.parse(row.audience) as RemoteAudience) }));
}
