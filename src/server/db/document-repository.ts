import { createHash } from 'node:crypto';
import canonicalize from 'canonicalize';
import type { Db } from './connection.ts';

/** `pin`: names the documents that a post or an export is made of. `picture`: what layout and sending know of one picture. */
export type DocumentKind = 'piece' | 'template' | 'book' | 'sheet' | 'picture' | 'pin';

/** Documents that nothing points to are kept for this long: somebody may be about to point to them. */
const SWEEP_AFTER_MS = 3_600_000;
/** Rows of one statement: engines limit the values that a query binds. */
const BATCH = 300;

/**
 * The name of a document: SHA-256 of its canonical JSON, so that the order of keys does not matter.
 * @see https://www.rfc-editor.org/rfc/rfc8785
 */
export function documentHash(value: unknown): string {
  const text = canonicalize(value);
  if (text === undefined) throw new TypeError('A document is a JSON value');
  return createHash('sha256').update(text).digest('hex');
}

/** Keeps a document once, whoever keeps it, and answers its hash. */
export async function keepDocument(db: Db, kind: DocumentKind, value: unknown, nowMs: number): Promise<string> {
  const hash = documentHash(value);
  // Written first, so that no transaction reads before it writes; a document that was about to be swept counts as new.
  await db('documents').insert({ hash, kind, body: JSON.stringify(value), created_ms: nowMs }).onConflict('hash').merge({ created_ms: nowMs });
  return hash;
}

/** Notes what a document is made of; those stay for as long as it does. */
export async function linkDocuments(db: Db, fromHash: string, toHashes: readonly string[]): Promise<void> {
  const rows = [...new Set(toHashes)].map((to_hash) => ({ from_hash: fromHash, to_hash }));
  for (let start = 0; start < rows.length; start += BATCH) await db('document_links').insert(rows.slice(start, start + BATCH)).onConflict(['from_hash', 'to_hash']).ignore();
}

/** @throws RangeError when there is no such document */
export async function getDocument(db: Db, hash: string): Promise<unknown> {
  const row: { body: string } | undefined = await db('documents').where({ hash }).first('body');
  if (!row) throw new RangeError(`There is no document '${hash}'`);
  return JSON.parse(row.body);
}

/** Documents by their hashes. @throws RangeError when one is missing */
export async function getDocuments(db: Db, hashes: readonly string[]): Promise<ReadonlyMap<string, unknown>> {
  const wanted = [...new Set(hashes)];
  const found = new Map<string, unknown>();
  for (let start = 0; start < wanted.length; start += BATCH) {
    const rows: { hash: string; body: string }[] = await db('documents').whereIn('hash', wanted.slice(start, start + BATCH)).select('hash', 'body');
    for (const { hash, body } of rows) found.set(hash, JSON.parse(body));
  }
  const missing = wanted.find((hash) => !found.has(hash));
  if (missing !== undefined) throw new RangeError(`There is no document '${missing}'`);
  return found;
}

/** Where documents are pointed to from. */
const references: readonly (readonly [table: string, column: string])[] = [
  ['document_links', 'to_hash'],
  ['verdicts', 'pin'],
  ['pieces', 'hash'],
  ['piece_revisions', 'hash'],
  ['posts', 'pin'],
  ['video_exports', 'pin'],
];

/** Deletes documents that nothing points to any more; answers how many. A pin's parts go in the next round, when it has gone. */
export async function sweepDocuments(db: Db, nowMs: number): Promise<number> {
  const query = db('documents').where('created_ms', '<', nowMs - SWEEP_AFTER_MS);
  for (const [table, column] of references) query.whereNotExists(db(table).select(db.raw('1')).whereRaw('?? = ??', [`${table}.${column}`, 'documents.hash']));
  return query.delete();
}
