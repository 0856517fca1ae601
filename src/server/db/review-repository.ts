import type { Verdict } from '../../core/post/sign-off.ts';
import type { RemarkPlace } from '../../core/post/remark-place.ts';
import type { Words } from '../../core/words/fields.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

/** A verdict with the content that the reviewer saw. */
export interface StoredVerdict extends Verdict {
  readonly id: string;
  readonly postId: string;
  readonly note: string;
  readonly pin: string;
  readonly words: Readonly<Record<string, Words>>;
}

/** Something that somebody remarks on a post, in a place of it. */
export interface Remark {
  readonly id: string;
  readonly postId: string;
  readonly answerTo: string | null;
  readonly personId: string | null;
  readonly name: string;
  readonly text: string;
  readonly place: RemarkPlace | null;
  readonly resolvedMs: number | null;
  readonly atMs: number;
}

/** A way to look at one post for somebody without an account. */
export interface ReviewLink {
  readonly id: string;
  readonly brandId: string;
  readonly postId: string;
  readonly name: string;
  readonly endsMs: number;
  readonly createdBy: string;
}

interface VerdictRow {
  id: string;
  post_id: string;
  person_id: string | null;
  name: string;
  verdict: Verdict['verdict'];
  note: string;
  pin: string;
  words: string;
  is_valid: boolean | number;
  at_ms: number;
}

const toVerdict = (row: VerdictRow): StoredVerdict => ({ id: row.id, postId: row.post_id, personId: row.person_id, name: row.name, verdict: row.verdict, note: row.note, pin: row.pin, words: JSON.parse(row.words) as StoredVerdict['words'], isValid: Boolean(row.is_valid), atMs: Number(row.at_ms) });

export async function insertVerdict(trx: Db, brandId: string, verdict: StoredVerdict, machineNowMs: number): Promise<void> {
  await trx('verdicts').insert({ id: verdict.id, brand_id: brandId, post_id: verdict.postId, person_id: verdict.personId, name: verdict.name, verdict: verdict.verdict, note: verdict.note, pin: verdict.pin, words: JSON.stringify(verdict.words), is_valid: verdict.isValid, at_ms: verdict.atMs });
  await noteReview(trx, brandId, verdict.postId, machineNowMs);
}

/** The verdicts on some posts, the earliest first. */
export async function listVerdicts(db: Db, postIds: readonly string[]): Promise<readonly StoredVerdict[]> {
  const rows: VerdictRow[] = await db('verdicts').whereIn('post_id', [...postIds]).orderBy([{ column: 'at_ms' }, { column: 'id' }]);
  return rows.map(toVerdict);
}

/** Ends the verdicts on a post that has changed; they stay as history. Answers how many counted. */
export async function invalidateVerdicts(trx: Db, brandId: string, postId: string, machineNowMs: number): Promise<number> {
  const ended = await trx('verdicts').where({ post_id: postId, is_valid: true }).update({ is_valid: false });
  if (ended > 0) await noteReview(trx, brandId, postId, machineNowMs);
  return ended;
}

interface RemarkRow {
  id: string;
  post_id: string;
  answer_to: string | null;
  person_id: string | null;
  name: string;
  text: string;
  place: string | null;
  resolved_ms: number | null;
  at_ms: number;
}

export async function insertRemark(db: Db, brandId: string, remark: Remark, machineNowMs: number): Promise<void> {
  await db('remarks').insert({ id: remark.id, brand_id: brandId, post_id: remark.postId, answer_to: remark.answerTo, person_id: remark.personId, name: remark.name, text: remark.text, place: remark.place === null ? null : JSON.stringify(remark.place), at_ms: remark.atMs });
  await noteReview(db, brandId, remark.postId, machineNowMs);
}

/** The remarks on a post, the earliest first. */
export async function listRemarks(db: Db, postId: string): Promise<readonly Remark[]> {
  const rows: RemarkRow[] = await db('remarks').where({ post_id: postId }).orderBy([{ column: 'at_ms' }, { column: 'id' }]).limit(500);
  return rows.map((row) => ({ id: row.id, postId: row.post_id, answerTo: row.answer_to, personId: row.person_id, name: row.name, text: row.text, place: row.place === null ? null : (JSON.parse(row.place) as RemarkPlace), resolvedMs: row.resolved_ms === null ? null : Number(row.resolved_ms), atMs: Number(row.at_ms) }));
}

/** Resolves a remark, or opens it again; false when the post has no such remark. */
export async function resolveRemark(db: Db, brandId: string, postId: string, id: string, resolvedMs: number | null, machineNowMs: number): Promise<boolean> {
  const changed = await db('remarks').where({ brand_id: brandId, post_id: postId, id }).update({ resolved_ms: resolvedMs });
  if (changed > 0) await noteReview(db, brandId, postId, machineNowMs);
  return changed > 0;
}

export async function insertReviewLink(db: Db, link: ReviewLink, secretHash: string, machineNowMs: number): Promise<void> {
  await db('review_links').insert({ id: link.id, brand_id: link.brandId, post_id: link.postId, name: link.name, secret_hash: secretHash, ends_ms: link.endsMs, created_by: link.createdBy });
  await noteReview(db, link.brandId, link.postId, machineNowMs);
}

const toLink = (row: { id: string; brand_id: string; post_id: string; name: string; ends_ms: number; created_by: string }): ReviewLink => ({ id: row.id, brandId: row.brand_id, postId: row.post_id, name: row.name, endsMs: Number(row.ends_ms), createdBy: row.created_by });

/** The link that a secret opens, as long as it lasts. */
export async function findReviewLink(db: Db, secretHash: string, machineNowMs: number): Promise<ReviewLink | null> {
  const row = await db('review_links').where({ secret_hash: secretHash }).where('ends_ms', '>', machineNowMs).first();
  return row ? toLink(row) : null;
}

export async function listReviewLinks(db: Db, postId: string, machineNowMs: number): Promise<readonly ReviewLink[]> {
  return (await db('review_links').where({ post_id: postId }).where('ends_ms', '>', machineNowMs).orderBy('ends_ms')).map(toLink);
}

/** Ends a link at once; false when there is none. */
export async function endReviewLink(db: Db, brandId: string, postId: string, id: string, machineNowMs: number): Promise<boolean> {
  const ended = await db('review_links').where({ brand_id: brandId, post_id: postId, id }).delete();
  if (ended > 0) await noteReview(db, brandId, postId, machineNowMs);
  return ended > 0;
}

/** Deletes links that have ended. */
export async function pruneReviewLinks(db: Db, machineNowMs: number): Promise<void> {
  await db('review_links').where('ends_ms', '<', machineNowMs).delete();
}

async function noteReview(db: Db, brandId: string, postId: string, machineNowMs: number): Promise<void> {
  await noteChange(db, { brandId, kind: 'review', subjectId: postId }, machineNowMs);
}
