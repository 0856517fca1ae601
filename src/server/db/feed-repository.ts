import type { FeedItem, FeedRule } from '../../core/ideas/feed-rule.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** A feed that a brand reads. Moments are by the machine's clock. */
export interface Feed {
  readonly id: string;
  readonly brandId: string;
  readonly name: string;
  readonly address: string;
  readonly etag: string | null;
  readonly modified: string | null;
  readonly nextPollMs: number;
  readonly polledMs: number | null;
  readonly failures: number;
  readonly problem: string | null;
}

export interface StoredRule {
  readonly id: string;
  readonly brandId: string;
  readonly feedId: string;
  readonly settings: FeedRule;
  readonly isOn: boolean;
  /** Why it stopped by itself and asks. */
  readonly stopped: string | null;
  readonly lastMs: number | null;
  readonly createdBy: string;
}

/** What a rule did with an item. */
export interface RuleAct {
  readonly guid: string;
  readonly title: string;
  readonly outcome: 'made' | 'passed' | 'failed';
  readonly sentence: string;
  readonly pieceId: string | null;
  readonly atMs: number;
}

const toFeed = (row: object): Feed => {
  const feed = fromRow<Feed>(row);
  return { ...feed, nextPollMs: Number(feed.nextPollMs), polledMs: feed.polledMs === null ? null : Number(feed.polledMs) };
};

interface ItemRow {
  feed_id: string;
  guid: string;
  title: string;
  link: string;
  summary: string;
  picture: string;
  language: string | null;
  published_ms: number | string;
}

const toItem = (row: ItemRow): FeedItem => ({ guid: row.guid, title: row.title, link: row.link, summary: row.summary, picture: row.picture, language: row.language, publishedMs: Number(row.published_ms) });

export async function insertFeed(db: Db, feed: Pick<Feed, 'id' | 'brandId' | 'name' | 'address' | 'nextPollMs'> & { readonly createdBy: string }, machineNowMs: number): Promise<boolean> {
  return db.transaction(async (trx) => {
    const rows: unknown[] = await trx('feeds').insert({ id: feed.id, brand_id: feed.brandId, name: feed.name, address: feed.address, next_poll_ms: feed.nextPollMs, created_by: feed.createdBy }).onConflict(['brand_id', 'address']).ignore().returning('id');
    if (rows.length > 0) await noteChange(trx, { brandId: feed.brandId, kind: 'feed', subjectId: feed.id }, machineNowMs);
    return rows.length > 0;
  });
}

export async function listFeeds(db: Db, brandId: string): Promise<readonly Feed[]> {
  return (await db('feeds').where({ brand_id: brandId }).orderBy('name')).map(toFeed);
}

export async function findFeed(db: Db, id: string): Promise<Feed | null> {
  const row: object | undefined = await db('feeds').where({ id }).first();
  return row ? toFeed(row) : null;
}

export async function deleteFeed(db: Db, brandId: string, id: string): Promise<boolean> {
  return (await db('feeds').where({ brand_id: brandId, id }).delete()) > 0;
}

/** Feeds that are due, each claimed until a moment, so that two processes do not read one at once. */
export async function claimDueFeeds(db: Db, machineNowMs: number, untilMs: number, limit: number): Promise<readonly Feed[]> {
  const ids = db('feeds').where('next_poll_ms', '<=', machineNowMs).orderBy('next_poll_ms').limit(limit).select('id');
  return (await db('feeds').whereIn('id', ids).where('next_poll_ms', '<=', machineNowMs).update({ next_poll_ms: untilMs }).returning('*')).map((row: object) => toFeed(row));
}

export interface Polled {
  readonly etag: string | null;
  readonly modified: string | null;
  readonly items: readonly FeedItem[];
  readonly nextPollMs: number;
  readonly polledMs: number;
}

/** Keeps what a feed said; answers the items that are new. */
export async function keepPolled(db: Db, feed: Feed, polled: Polled): Promise<readonly FeedItem[]> {
  return db.transaction(async (trx) => {
    await trx('feeds').where({ id: feed.id }).update({ etag: polled.etag, modified: polled.modified, next_poll_ms: polled.nextPollMs, polled_ms: polled.polledMs, failures: 0, problem: null });
    const fresh: FeedItem[] = [];
    for (const item of polled.items) {
      const rows: unknown[] = await trx('feed_items').insert({ feed_id: feed.id, guid: item.guid, title: item.title, link: item.link, summary: item.summary, picture: item.picture, language: item.language, published_ms: item.publishedMs, seen_ms: polled.polledMs }).onConflict(['feed_id', 'guid']).ignore().returning('guid');
      if (rows.length > 0) fresh.push(item);
    }
    if (fresh.length > 0 || feed.problem !== null) await noteChange(trx, { brandId: feed.brandId, kind: 'feed', subjectId: feed.id }, polled.polledMs);
    return fresh;
  });
}

export async function keepPollFailure(db: Db, feed: Feed, problem: string, nextPollMs: number, machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    await trx('feeds').where({ id: feed.id }).update({ failures: feed.failures + 1, problem, next_poll_ms: nextPollMs, polled_ms: machineNowMs });
    if (feed.problem !== problem) await noteChange(trx, { brandId: feed.brandId, kind: 'feed', subjectId: feed.id }, machineNowMs);
  });
}

/** What somebody has posted by hand on a channel, as items of a feed, the newest first: what Confetti has sent there is not among them. */
export async function listOutsidePosts(db: Db, brandId: string, channelId: string, limit: number): Promise<readonly FeedItem[]> {
  const rows: { remote_id: string; title: string; address: string; published_ms: number | string }[] = await db('publications').where({ brand_id: brandId, channel_id: channelId }).whereNull('delivery_id').whereNull('removed_ms').whereNot('title', '').orderBy('published_ms', 'desc').limit(limit).select('remote_id', 'title', 'address', 'published_ms');
  return rows.map(({ remote_id, title, address, published_ms }) => ({ guid: remote_id, title, link: address, summary: '', picture: '', language: null, publishedMs: Number(published_ms) }));
}

/** Items of all feeds of the web that a brand reads, since a moment, the newest first. */
export async function listFreshItems(db: Db, brandId: string, sinceMs: number, limit: number): Promise<readonly (FeedItem & { readonly feedId: string; readonly feedName: string })[]> {
  const rows: (ItemRow & { name: string })[] = await db('feed_items').join('feeds', 'feeds.id', 'feed_items.feed_id').where({ brand_id: brandId }).whereNot('feeds.address', 'like', 'channel:%').where('published_ms', '>=', sinceMs).orderBy('published_ms', 'desc').limit(limit).select('feed_items.*', 'feeds.name');
  return rows.map((row) => ({ ...toItem(row), feedId: row.feed_id, feedName: row.name }));
}

/** The latest items of a feed. */
export async function listItemsOf(db: Db, feedId: string, limit: number): Promise<readonly FeedItem[]> {
  return ((await db('feed_items').where({ feed_id: feedId }).orderBy('published_ms', 'desc').limit(limit)) as ItemRow[]).map(toItem);
}

/** Items that a rule has decided nothing on yet, the newest first. */
export async function listUndecided(db: Db, rule: Pick<StoredRule, 'id' | 'feedId'>, limit: number): Promise<readonly FeedItem[]> {
  const decided = db('feed_rule_log').where({ rule_id: rule.id }).select('guid');
  return ((await db('feed_items').where({ feed_id: rule.feedId }).whereNotIn('guid', decided).orderBy('published_ms', 'desc').limit(limit)) as ItemRow[]).map(toItem);
}

interface RuleRow {
  id: string;
  brand_id: string;
  feed_id: string;
  settings: string;
  is_on: boolean | number;
  stopped: string | null;
  last_ms: number | string | null;
  created_by: string;
}

const toRule = (row: RuleRow): StoredRule => ({ id: row.id, brandId: row.brand_id, feedId: row.feed_id, settings: JSON.parse(row.settings) as FeedRule, isOn: Boolean(row.is_on), stopped: row.stopped, lastMs: row.last_ms === null ? null : Number(row.last_ms), createdBy: row.created_by });

export async function listRules(db: Db, where: { readonly brandId: string } | { readonly feedId: string }): Promise<readonly StoredRule[]> {
  return ((await db('feed_rules').where('brandId' in where ? { brand_id: where.brandId } : { feed_id: where.feedId }).orderBy('id')) as RuleRow[]).map(toRule);
}

/** Writes a rule, new or changed; one that had stopped goes on. */
export async function keepRule(trx: Db, rule: Pick<StoredRule, 'id' | 'brandId' | 'feedId' | 'settings' | 'isOn' | 'createdBy'>, machineNowMs: number): Promise<void> {
  const fields = { settings: JSON.stringify(rule.settings), is_on: rule.isOn, stopped: null };
  await trx('feed_rules').insert({ id: rule.id, brand_id: rule.brandId, feed_id: rule.feedId, created_by: rule.createdBy, ...fields }).onConflict('id').merge(fields);
  await noteChange(trx, { brandId: rule.brandId, kind: 'feed', subjectId: rule.feedId }, machineNowMs);
}

export async function deleteRule(db: Db, brandId: string, id: string): Promise<boolean> {
  return (await db('feed_rules').where({ brand_id: brandId, id }).delete()) > 0;
}

export async function stopRule(trx: Db, rule: StoredRule, sentence: string, machineNowMs: number): Promise<void> {
  await trx('feed_rules').where({ id: rule.id }).update({ stopped: sentence });
  await noteChange(trx, { brandId: rule.brandId, kind: 'feed', subjectId: rule.feedId }, machineNowMs);
}

/** Notes what a rule did, once for each item; false when another process was faster. */
export async function noteRuleActs(trx: Db, rule: StoredRule, acts: readonly RuleAct[]): Promise<boolean> {
  let isFirst = true;
  for (const { guid, title, outcome, sentence, pieceId, atMs } of acts) {
    const rows: unknown[] = await trx('feed_rule_log').insert({ rule_id: rule.id, guid, title, outcome, sentence, piece_id: pieceId, at_ms: atMs }).onConflict(['rule_id', 'guid']).ignore().returning('guid');
    if (rows.length === 0) isFirst = false;
  }
  return isFirst;
}

/** Says what became of an item that a rule had claimed. */
export async function endRuleAct(trx: Db, rule: StoredRule, { guid, outcome, sentence, pieceId, atMs }: RuleAct, machineNowMs: number): Promise<void> {
  await trx('feed_rule_log').where({ rule_id: rule.id, guid }).update({ outcome, sentence, piece_id: pieceId });
  if (outcome === 'made') await trx('feed_rules').where({ id: rule.id }).update({ last_ms: atMs });
  await noteChange(trx, { brandId: rule.brandId, kind: 'feed', subjectId: rule.feedId }, machineNowMs);
}

export async function listRuleActs(db: Db, ruleIds: readonly string[], limit: number): Promise<ReadonlyMap<string, readonly RuleAct[]>> {
  const acts = new Map<string, readonly RuleAct[]>();
  for (const id of ruleIds) {
    const rows: object[] = await db('feed_rule_log').where({ rule_id: id }).orderBy('at_ms', 'desc').limit(limit);
    acts.set(id, rows.map((row) => { const act = fromRow<RuleAct>(row); return { ...act, atMs: Number(act.atMs) }; }));
  }
  return acts;
}
