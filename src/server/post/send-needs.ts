import type { AnswerOf } from '../../contract/contract.ts';
import type { getToday } from '../../contract/today-contracts.ts';
import { roleMay, type Role } from '../../core/access/access.ts';
import { isAwaited, standingOf } from '../../core/post/sign-off.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { listBoosts } from '../db/boost-repository.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { listByHand, listDeliveriesOf, listHeldWithReason } from '../db/delivery-repository.ts';
import { listPostsInReview } from '../db/post-repository.ts';
import { listVerdicts } from '../db/review-repository.ts';
import type { Services } from '../services.ts';

type Need = AnswerOf<typeof getToday>['needs'][number];

const MAX_EACH = 50;
/** Confetti asks for a new access this long before the old one ends. */
const WARN_BEFORE_MS = 14 * 86_400_000;

const nothing = { pieceId: null, postId: null, deliveryId: null, channelIds: [] as string[], mediaId: null, atMs: null } as const;

/** What of sending waits for a person: approvals, posts to place, channels to connect again, posts that were missed, boosts. */
export async function sendNeeds({ db }: Pick<Services, 'db'>, brand: Brand, person: { readonly id: string; readonly role: Role }, nowMs: number): Promise<readonly Need[]> {
  const [byHand, held, channels, boosts, reviews] = await Promise.all([listByHand(db, brand.id, MAX_EACH), listHeldWithReason(db, brand.id, MAX_EACH), listChannels(db, brand.id), listBoosts(db, brand.id, MAX_EACH), listPostsInReview(db, brand.id, MAX_EACH)]);
  const nameOf = (channelId: string): string => channels.find(({ id }) => id === channelId)?.name ?? '';
  const moment = (ms: number): string => formatMoment(ms, brand.zone);
  const needs: Need[] = [];
  for (const each of channels) {
    if (each.state === 'ended') needs.push({ ...nothing, key: `access ${each.id}`, kind: 'access', group: 'stopped', title: `The access to ${each.name} has ended`, sentence: 'Nothing goes out there until it is connected again.', channelIds: [each.id] });
    else if (each.accessEndsMs !== null && each.accessEndsMs - nowMs < WARN_BEFORE_MS) needs.push({ ...nothing, key: `access ${each.id}`, kind: 'access', group: 'soon', title: `The access to ${each.name} ends`, sentence: `${moment(each.accessEndsMs)}. Connect it again before then.`, channelIds: [each.id], atMs: each.accessEndsMs });
  }
  for (const each of held) needs.push({ ...nothing, key: `held ${each.id}`, kind: 'missed', group: 'stopped', title: `${each.pieceName} · ${nameOf(each.channelId)}`, sentence: each.problem ?? '', pieceId: each.pieceId, postId: each.postId, deliveryId: each.id, channelIds: [each.channelId], atMs: each.dueMs });
  for (const each of byHand.filter(({ snoozedUntilMs }) => snoozedUntilMs === null || snoozedUntilMs <= nowMs)) needs.push({ ...nothing, key: `hand ${each.id}`, kind: 'hand-off', group: 'waiting', title: `${each.pieceName} · place it on ${nameOf(each.channelId)}`, sentence: `Due ${moment(each.dueMs)}. Its pictures and texts are ready to save and copy.`, pieceId: each.pieceId, postId: each.postId, deliveryId: each.id, channelIds: [each.channelId], atMs: each.dueMs });
  const verdicts = await listVerdicts(db, reviews.map(({ id }) => id));
  for (const post of reviews) {
    const own = verdicts.filter(({ postId }) => postId === post.id);
    const { approvedBy, sentBackBy } = standingOf(own, post.signOffNeeded, post.createdBy);
    const isSentBack = sentBackBy !== null && post.createdBy === person.id;
    if (!isSentBack && !(roleMay(person.role, 'approve') && isAwaited(own, post.signOffNeeded, post.createdBy, person.id))) continue;
    const [first] = await listDeliveriesOf(db, post.id);
    const sentence = isSentBack ? `${sentBackBy} asks for changes. It was to go out ${moment(post.dueMs)}.` : `${post.dueMs <= nowMs ? 'Its moment has passed: ' : 'It goes out '}${moment(post.dueMs)}${approvedBy.length > 0 ? `; ${approvedBy.join(', ')} approved` : ''}.`;
    needs.push({ ...nothing, key: `review ${post.id}`, kind: isSentBack ? 'sent-back' : 'sign-off', group: 'waiting', title: isSentBack ? `${post.pieceName} · sent back` : `${post.pieceName} · waits for your approval`, sentence, pieceId: post.pieceId, postId: post.id, deliveryId: first?.id ?? null, atMs: post.dueMs });
  }
  for (const each of boosts.filter(({ state }) => state === 'out' || state === 'partly out')) needs.push({ ...nothing, key: `boost ${each.postId}`, kind: 'boost', group: 'waiting', title: `${each.pieceName} · boost to set up`, sentence: `${each.budget} ${each.currency} over ${each.days} days; the post is out.`, postId: each.postId, atMs: each.dueMs });
  return needs;
}
