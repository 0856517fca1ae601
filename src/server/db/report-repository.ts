import type { Report } from '../../core/results/report.ts';
import type { Db } from './connection.ts';

/** A saved report of a brand. Moments are by the product's clock. */
export interface StoredReport {
  readonly id: string;
  readonly brandId: string;
  readonly report: Report;
  readonly nextMs: number | null;
  readonly lastSentMs: number | null;
  readonly problem: string | null;
}

interface Row {
  id: string;
  brand_id: string;
  report: string;
  next_ms: number | string | null;
  last_sent_ms: number | string | null;
  problem: string | null;
}

const numberOrNull = (value: number | string | null): number | null => (value === null ? null : Number(value));
const toReport = (row: Row): StoredReport => ({ id: row.id, brandId: row.brand_id, report: JSON.parse(row.report) as Report, nextMs: numberOrNull(row.next_ms), lastSentMs: numberOrNull(row.last_sent_ms), problem: row.problem });

export async function listReports(db: Db, brandId: string): Promise<readonly StoredReport[]> {
  return (await db('reports').where({ brand_id: brandId }).orderBy('name').limit(200)).map(toReport);
}

export async function findReport(db: Db, brandId: string, id: string): Promise<StoredReport | null> {
  const row: Row | undefined = await db('reports').where({ brand_id: brandId, id }).first();
  return row ? toReport(row) : null;
}

/** Keeps a report; one of the brand's with that id is replaced. */
export async function keepReport(db: Db, brandId: string, id: string, report: Report, nextMs: number | null): Promise<void> {
  const fields = { name: report.name, report: JSON.stringify(report), next_ms: nextMs, problem: null };
  const changed = await db('reports').where({ brand_id: brandId, id }).update(fields);
  if (changed === 0) await db('reports').insert({ id, brand_id: brandId, ...fields }).onConflict('id').ignore();
}

export async function removeReport(db: Db, brandId: string, id: string): Promise<boolean> {
  return (await db('reports').where({ brand_id: brandId, id }).delete()) > 0;
}

/** Takes a report whose moment has come, and moves it on for as long as sending may take: two workers never send the same one. */
export async function claimDueReport(db: Db, nowMs: number, forMs: number): Promise<StoredReport | null> {
  const due: Row | undefined = await db('reports').where('next_ms', '<=', nowMs).orderBy('next_ms').first();
  if (!due) return null;
  const claimed = await db('reports').where({ id: due.id, next_ms: due.next_ms }).update({ next_ms: nowMs + forMs });
  return claimed > 0 ? toReport(due) : claimDueReport(db, nowMs, forMs);
}

export async function keepReportOutcome(db: Db, id: string, outcome: { readonly lastSentMs: number | null; readonly problem: string | null; readonly nextMs: number }): Promise<void> {
  await db('reports').where({ id }).update({ next_ms: outcome.nextMs, problem: outcome.problem, ...(outcome.lastSentMs === null ? {} : { last_sent_ms: outcome.lastSentMs }) });
}
