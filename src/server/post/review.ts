import { nanoid } from 'nanoid';
import { isTooLate } from '../../core/post/send-settings.ts';
import { standingOf, type Standing } from '../../core/post/sign-off.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import type { Words } from '../../core/words/fields.ts';
import { noteAct } from '../db/act-repository.ts';
import type { Brand } from '../db/brand-repository.ts';
import type { Db } from '../db/connection.ts';
import { approveDeliveries, holdLate, listDeliveriesOf, reviewDeliveriesAgain, type Delivery } from '../db/delivery-repository.ts';
import { documentHash } from '../db/document-repository.ts';
import { enqueueJob, moveJob, rescheduleJob } from '../db/job-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { findPost, holdPostForWriting, type Post } from '../db/post-repository.ts';
import { insertVerdict, invalidateVerdicts, listVerdicts } from '../db/review-repository.ts';
import { getSendSettings } from '../db/send-settings-repository.ts';
import { deliveryJob, deliveryJobKey } from '../dispatch/delivery-handler.ts';
import { notFound, ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';

/** Who speaks: a member, or somebody from outside by the name of their link. */
export interface Reviewer {
  readonly personId: string | null;
  readonly name: string;
}

/** The content that a verdict applies to. */
export interface Content {
  readonly pin: string;
  readonly words: Readonly<Record<string, Words>>;
}

export function contentOf(post: Pick<Post, 'pin'>, deliveries: readonly Delivery[]): Content {
  return { pin: post.pin, words: Object.fromEntries(deliveries.filter(({ state }) => state !== 'cancelled').map(({ id, words }) => [id, words])) };
}

/** A short hash of the content that a reviewer saw. A different hash means that the content has changed. */
export const contentName = ({ pin, words }: Content): string => documentHash({ pin, words }).slice(0, 24);

/**
 * Keeps somebody's verdict on exactly what they saw. The last approval that is needed lets the post go on its way; one that comes after the
 * post's moment goes by the brand's rule for what is late.
 * @throws ProblemError 409 when the post does not wait for approval, or has changed since the reviewer loaded it
 */
export async function giveVerdict({ db, clock }: Pick<Services, 'db' | 'clock'>, brand: Brand, postId: string, reviewer: Reviewer, said: { readonly verdict: 'approve' | 'changes'; readonly note: string; readonly seen: string }, nowMs: number): Promise<Standing> {
  const machineNowMs = clock.machineNowMs();
  return db.transaction(async (trx) => {
    await holdPostForWriting(trx, postId, machineNowMs);
    const post = await findPost(trx, brand.id, postId);
    if (!post) throw notFound('post');
    const earlier = await listVerdicts(trx, [postId]);
    const last = earlier.findLast((each) => each.isValid && each.personId === reviewer.personId && each.name === reviewer.name);
    // A second press, or a request repeated after a lost answer, adds no second verdict.
    if (last?.verdict === said.verdict && last.note === said.note && contentName(last) === said.seen) return standingOf(earlier, post.signOffNeeded, post.createdBy);
    if (post.state !== 'in review') throw new ProblemError(409, 'not-in-review', 'This post does not wait for approval: somebody has approved it meanwhile, or it was cancelled.');
    const deliveries = await listDeliveriesOf(trx, postId);
    const content = contentOf(post, deliveries);
    if (contentName(content) !== said.seen) throw new ProblemError(409, 'changed-meanwhile', 'The post has changed while you looked at it. Look again, then decide.');
    await noteAct(trx, { brandId: brand.id, atMs: nowMs, ...reviewer, kind: 'post', subjectId: postId, sentence: said.verdict === 'approve' ? 'Approved the post' : `Asked for changes: ${said.note}` });
    await insertVerdict(trx, brand.id, { id: nanoid(12), postId, ...reviewer, verdict: said.verdict, note: said.note, isValid: true, atMs: nowMs, ...content }, machineNowMs);
    const standing = standingOf(await listVerdicts(trx, [postId]), post.signOffNeeded, post.createdBy);
    if (standing.isApproved) await letGo(trx, brand, post, nowMs, machineNowMs);
    return standing;
  });
}

async function letGo(trx: Db, brand: Brand, post: Post, nowMs: number, machineNowMs: number): Promise<void> {
  const approved = await approveDeliveries(trx, post.id, machineNowMs);
  const isHeld = (await getPlan(trx, brand.id)).heldSinceMs !== null;
  const isLate = isTooLate(await getSendSettings(trx, brand.id), post.dueMs, nowMs);
  if (isHeld || isLate) {
    await holdLate(trx, approved, isLate ? `It was approved after its moment, ${formatMoment(post.dueMs, brand.zone)}. Choose another moment, or send it now.` : null, machineNowMs);
    return;
  }
  for (const delivery of await listDeliveriesOf(trx, post.id)) {
    if (!approved.includes(delivery.id)) continue;
    await enqueueJob(trx, deliveryJob(delivery), machineNowMs, { again: true });
    await rescheduleJob(trx, deliveryJobKey(delivery.id), delivery.dueMs);
  }
}

/** Ends the verdicts on a changed post and returns it to review. */
export async function askAgain(trx: Db, brand: Pick<Brand, 'id'>, post: Pick<Post, 'id' | 'signOffNeeded'>, machineNowMs: number): Promise<void> {
  if (post.signOffNeeded === 0) return;
  await invalidateVerdicts(trx, brand.id, post.id, machineNowMs);
  for (const id of await reviewDeliveriesAgain(trx, post.id, machineNowMs)) await moveJob(trx, deliveryJobKey(id), 'cancel', machineNowMs);
}
