import type { AnswerOf } from '../../contract/contract.ts';
import type { getReview, listReviews, readOutsideReview } from '../../contract/review-contracts.ts';
import { resolveCut } from '../../core/cut/resolve-cuts.ts';
import { cutKey } from '../../core/piece/piece.ts';
import { isAwaited, standingOf } from '../../core/post/sign-off.ts';
import { fieldOf, fields, type FieldKey, type Words } from '../../core/words/fields.ts';
import { listChannelsEver, type Brand } from '../db/brand-repository.ts';
import { listDeliveriesOf, type Delivery } from '../db/delivery-repository.ts';
import { listMembers } from '../db/people-repository.ts';
import { listPostsInReview, type Post } from '../db/post-repository.ts';
import { listRemarks, listVerdicts, type StoredVerdict } from '../db/review-repository.ts';
import { readPin } from '../documents/pins.ts';
import { preflightSnapshot } from '../pieces/preflight-piece.ts';
import type { Services } from '../services.ts';
import { differencesOfPins } from './change-post.ts';
import { contentName, contentOf } from './review.ts';

type Summary = AnswerOf<typeof listReviews>['mine'][number];
type Shared = Omit<AnswerOf<typeof readOutsideReview>, 'brandName' | 'name' | 'endsMs'>;
export type Review = AnswerOf<typeof getReview>;

const MAX_LISTED = 200;
const UNKNOWN = 'Somebody who has left';

/** Posts that wait for approval, apart by whether they wait for one person or for others. */
export async function reviewsAnswer({ db }: Pick<Services, 'db'>, brand: Brand, personId: string, mayApprove: boolean): Promise<AnswerOf<typeof listReviews>> {
  const posts = await listPostsInReview(db, brand.id, MAX_LISTED);
  const verdicts = await listVerdicts(db, posts.map(({ id }) => id));
  const members = new Map((await listMembers(db, brand.id)).map(({ id, name }) => [id, name]));
  const [mine, others]: [Summary[], Summary[]] = [[], []];
  for (const post of posts) {
    const own = verdicts.filter(({ postId }) => postId === post.id);
    const deliveries = (await listDeliveriesOf(db, post.id)).filter(({ state }) => state !== 'cancelled');
    const { approvedBy, sentBackBy } = standingOf(own, post.signOffNeeded, post.createdBy);
    const summary: Summary = { postId: post.id, pieceId: post.pieceId, pieceName: post.pieceName, makerName: members.get(post.createdBy) ?? UNKNOWN, channels: new Set(deliveries.map(({ channelId }) => channelId)).size, dueMs: post.dueMs, needed: post.signOffNeeded, approvedBy: [...approvedBy], sentBackBy, hasChanged: own.some(({ verdict, isValid }) => verdict === 'approve' && !isValid), deliveryId: deliveries[0]?.id ?? '' };
    (mayApprove && isAwaited(own, post.signOffNeeded, post.createdBy, personId) ? mine : others).push(summary);
  }
  return { mine, others };
}

/** A post as those who judge it see it. */
export async function reviewAnswer(services: Services, brand: Brand, post: Post, viewer: { readonly personId: string | null; readonly name: string }): Promise<Shared> {
  const { db } = services;
  const deliveries = (await listDeliveriesOf(db, post.id)).filter(({ state }) => state !== 'cancelled');
  const [snapshot, channels, verdicts, remarks, members] = await Promise.all([readPin(db, post.pin), listChannelsEver(db, brand.id), listVerdicts(db, [post.id]), listRemarks(db, post.id), listMembers(db, brand.id)]);
  const findings = post.state === 'in review' || post.state === 'scheduled' ? await preflightSnapshot(services, brand, snapshot, deliveries, post.dueMs) : [];
  const { approvedBy, sentBackBy } = standingOf(verdicts, post.signOffNeeded, post.createdBy);
  const orderOf = ({ channelId }: Delivery): number => channels.findIndex(({ id }) => id === channelId);
  const cuts = deliveries.toSorted((a, b) => orderOf(a) - orderOf(b)).flatMap((delivery) => {
    const cut = resolveCut({ ...snapshot, channels }, delivery);
    if (!cut) return [];
    const { exportPx } = cut.placement;
    const own = findings.filter((finding) => finding.cut === null || finding.cut === cutKey(delivery));
    return [{ deliveryId: delivery.id, channelName: cut.channel.name, network: delivery.network, badge: cut.sheet.badge, placementName: delivery.placementName, widthPx: exportPx.width, heightPx: exportPx.height, slides: cut.slides.length, fields: fieldsOf(delivery.words, cut.sheet.words.fields), findings: own.map(({ severity, sentence }) => ({ severity, sentence })) }];
  });
  return {
    postId: post.id,
    pieceId: post.pieceId,
    pieceName: post.pieceName,
    kind: post.kind,
    state: post.state,
    makerName: members.find(({ id }) => id === post.createdBy)?.name ?? UNKNOWN,
    dueMs: post.dueMs,
    zone: post.zone,
    needed: post.signOffNeeded,
    approvedBy: [...approvedBy],
    sentBackBy,
    seen: contentName(contentOf(post, deliveries)),
    cuts,
    remarks: remarks.map((remark) => ({ id: remark.id, answerTo: remark.answerTo, name: remark.name, isMine: remark.personId === viewer.personId && remark.name === viewer.name, text: remark.text, place: remark.place, isResolved: remark.resolvedMs !== null, atMs: remark.atMs })),
    history: verdicts.map(({ name, verdict, note, isValid, atMs }) => ({ name, verdict, note, isValid, atMs })),
    changes: await changesSince(services, brand, post, deliveries, verdicts),
  };
}

/** The words of a delivery in the order of the registry, as its network calls them. */
function fieldsOf(words: Words, rules: readonly { readonly key: FieldKey; readonly label: string }[]): { key: string; label: string; text: string }[] {
  return fields.flatMap(({ key }) => {
    const text = words[key];
    return text === undefined || text === '' ? [] : [{ key, label: rules.find((rule) => rule.key === key)?.label ?? fieldOf(key).name, text }];
  });
}

/** What differs from the content that was approved last, where that has changed. */
async function changesSince(services: Services, brand: Brand, post: Post, deliveries: readonly Delivery[], verdicts: readonly StoredVerdict[]): Promise<Shared['changes']> {
  const last = verdicts.findLast(({ verdict }) => verdict === 'approve');
  if (!last || last.isValid) return [];
  const inPicture = last.pin === post.pin ? [] : (await differencesOfPins(services.db, brand, last.pin, post.pin)).map(({ place, pinned, now }) => ({ place, before: pinned, now }));
  const inWords = deliveries.flatMap(({ id, words, placementName }) => {
    const before = last.words[id] ?? {};
    const keys = fields.map(({ key }) => key).filter((key) => (before[key] ?? '') !== (words[key] ?? ''));
    return keys.map((key) => ({ place: `${placementName}, ${fieldOf(key).name.toLowerCase()}`, before: before[key] ?? '', now: words[key] ?? '' }));
  });
  return [...inPicture, ...inWords];
}
