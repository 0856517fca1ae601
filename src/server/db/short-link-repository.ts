import type { Db } from './connection.ts';

/** A short address and where it leads, which never changes. */
export interface ShortLink {
  readonly code: string;
  readonly brandId: string;
  readonly target: string;
  /** What asked for it: a channel, or nothing. */
  readonly label: string;
  readonly createdBy: string;
  readonly createdMs: number;
}

interface Row {
  code: string;
  brand_id: string;
  target: string;
  label: string;
  created_by: string;
  created_ms: number;
}

const toLink = (row: Row): ShortLink => ({ code: row.code, brandId: row.brand_id, target: row.target, label: row.label, createdBy: row.created_by, createdMs: Number(row.created_ms) });

/** Keeps a link; where the brand has one of this label and target already, that one is answered. */
export async function keepShortLink(db: Db, link: ShortLink): Promise<ShortLink> {
  await db('short_links')
    .insert({ code: link.code, brand_id: link.brandId, target: link.target, label: link.label, created_by: link.createdBy, created_ms: link.createdMs })
    .onConflict(['brand_id', 'label', 'target'])
    .ignore();
  const row: Row = await db('short_links').where({ brand_id: link.brandId, label: link.label, target: link.target }).first();
  return toLink(row);
}

/** A link with the zone of its brand, in which its days are counted. */
export async function findShortLink(db: Db, code: string): Promise<(ShortLink & { readonly zone: string }) | null> {
  const row: (Row & { zone: string }) | undefined = await db('short_links').join('brands', 'brands.id', 'short_links.brand_id').where({ code }).first('short_links.*', 'brands.zone');
  return row ? { ...toLink(row), zone: row.zone } : null;
}

/** What a click says: no address, no identifier. */
export interface Click {
  readonly day: string;
  readonly country: string;
  readonly source: string;
  readonly isBot: boolean;
}

export async function countClick(db: Db, code: string, { day, country, source, isBot }: Click): Promise<void> {
  await db('link_clicks')
    .insert({ code, day, country, source, is_bot: isBot, clicks: 1 })
    .onConflict(['code', 'day', 'country', 'source', 'is_bot'])
    .merge({ clicks: db.raw('link_clicks.clicks + 1') });
}

/** Clicks of a brand's links in a period, summed by one of what is kept of them. Bots stand apart. */
export async function sumClicks(db: Db, brandId: string, { from, until, code }: { readonly from: string; readonly until: string; readonly code?: string | undefined }, by: 'day' | 'source' | 'country' | 'link_clicks.code'): Promise<readonly { readonly key: string; readonly people: number; readonly bots: number }[]> {
  const query = db('link_clicks').join('short_links', 'short_links.code', 'link_clicks.code').where({ brand_id: brandId }).whereBetween('day', [from, until]);
  if (code !== undefined) query.where('link_clicks.code', code);
  const rows: { key: string; people: number | string | null; bots: number | string | null }[] = await query.groupBy(by).select(db.raw('?? as ??', [by, 'key'])).sum({ people: db.raw('case when is_bot then 0 else clicks end'), bots: db.raw('case when is_bot then clicks else 0 end') });
  return rows.map(({ key, people, bots }) => ({ key, people: Number(people ?? 0), bots: Number(bots ?? 0) }));
}

/** A link with what its last check found. */
export type CheckedLink = ShortLink & { readonly checkedMs: number | null; readonly problem: string | null; readonly problemSinceMs: number | null };

const toChecked = (row: Row & { checked_ms: number | null; problem: string | null; problem_since_ms: number | null }): CheckedLink => ({ ...toLink(row), checkedMs: row.checked_ms === null ? null : Number(row.checked_ms), problem: row.problem, problemSinceMs: row.problem_since_ms === null ? null : Number(row.problem_since_ms) });

export async function listLinks(db: Db, brandId: string, limit: number): Promise<readonly CheckedLink[]> {
  return (await db('short_links').where({ brand_id: brandId }).orderBy('created_ms', 'desc').limit(limit)).map(toChecked);
}

export async function listBrokenLinks(db: Db, brandId: string, limit: number): Promise<readonly CheckedLink[]> {
  return (await db('short_links').where({ brand_id: brandId }).whereNotNull('problem').orderBy('problem_since_ms').limit(limit)).map(toChecked);
}

/** Links whose check is due, the longest due first. */
export async function listDueLinks(db: Db, nowMs: number, limit: number): Promise<readonly ShortLink[]> {
  return (await db('short_links').where('next_check_ms', '<=', nowMs).orderBy('next_check_ms').limit(limit)).map(toLink);
}

export async function keepCheck(db: Db, code: string, check: { readonly checkedMs: number; readonly nextMs: number; readonly problem: string | null }): Promise<void> {
  await db('short_links')
    .where({ code })
    .update({ checked_ms: check.checkedMs, next_check_ms: check.nextMs, problem: check.problem, problem_since_ms: check.problem === null ? null : db.raw('coalesce(problem_since_ms, ?)', [check.checkedMs]) });
}

/** Links of a brand, the newest first, each with the clicks of people. */
export async function pageShortLinks(db: Db, brandId: string, beforeMs: number | null, limit: number): Promise<readonly (ShortLink & { readonly clicks: number })[]> {
  const query = db('short_links').where({ brand_id: brandId }).orderBy('created_ms', 'desc').limit(limit);
  if (beforeMs !== null) query.where('created_ms', '<', beforeMs);
  const links: Row[] = await query;
  const counts: { code: string; clicks: number }[] = await db('link_clicks').whereIn('code', links.map(({ code }) => code)).where({ is_bot: false }).groupBy('code').select('code').sum({ clicks: 'clicks' });
  const byCode = new Map(counts.map(({ code, clicks }) => [code, Number(clicks)]));
  return links.map((row) => ({ ...toLink(row), clicks: byCode.get(row.code) ?? 0 }));
}
