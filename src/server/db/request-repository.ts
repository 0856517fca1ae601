import type { Db } from './connection.ts';

/** Answers of requests are kept for so long: a browser that lost one asks again within minutes. */
const KEEP_MS = 24 * 3_600_000;

/** What is known of a request: it is new and claimed now, being done by another one, or answered before. */
export type RequestState<Answer> = { readonly kind: 'claimed' } | { readonly kind: 'busy' } | { readonly kind: 'answered'; readonly answer: Answer };

/** Notes that a request is being done, once for its key. */
export async function claimRequest<Answer>(db: Db, brandId: string, key: string, machineNowMs: number): Promise<RequestState<Answer>> {
  await db('kept_requests').where('at_ms', '<', machineNowMs - KEEP_MS).delete();
  const claimed: unknown[] = await db('kept_requests').insert({ brand_id: brandId, request_key: key, answer: null, at_ms: machineNowMs }).onConflict(['brand_id', 'request_key']).ignore().returning('request_key');
  if (claimed.length > 0) return { kind: 'claimed' };
  const row: { answer: string | null } | undefined = await db('kept_requests').where({ brand_id: brandId, request_key: key }).first('answer');
  return row?.answer ? { kind: 'answered', answer: JSON.parse(row.answer) as Answer } : { kind: 'busy' };
}

export async function keepRequestAnswer(db: Db, brandId: string, key: string, answer: object): Promise<void> {
  await db('kept_requests').where({ brand_id: brandId, request_key: key }).update({ answer: JSON.stringify(answer) });
}

/** Forgets a request that failed, so that it may be sent again. */
export async function forgetRequest(db: Db, brandId: string, key: string): Promise<void> {
  await db('kept_requests').where({ brand_id: brandId, request_key: key }).whereNull('answer').delete();
}
