import { nanoid } from 'nanoid';
import * as contracts from '../../contract/review-contracts.ts';
import { roleMay } from '../../core/access/access.ts';
import type { SendSettings } from '../../core/post/send-settings.ts';
import type { RemarkPlace } from '../../core/post/remark-place.ts';
import { hashSecret, newSecret } from '../auth/secrets.ts';
import { findBrandById, type Brand } from '../db/brand-repository.ts';
import { listDeliveriesOf } from '../db/delivery-repository.ts';
import { findPiece } from '../db/piece-repository.ts';
import { findPost, type Post } from '../db/post-repository.ts';
import { endReviewLink as endLink, findReviewLink, insertRemark, insertReviewLink, listRemarks, listReviewLinks, resolveRemark as resolve, type ReviewLink } from '../db/review-repository.ts';
import { getSendSettings, saveSendSettings } from '../db/send-settings-repository.ts';
import { deliveryPicture } from '../derived/delivery-picture.ts';
import { derivedFile } from '../derived/derived-file.ts';
import { notFound, ProblemError } from '../errors.ts';
import { refreshPost } from '../post/change-post.ts';
import { reviewAnswer, reviewsAnswer } from '../post/review-answer.ts';
import { giveVerdict, type Reviewer } from '../post/review.ts';
import { postOf } from '../post/post-of.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { fileResponse } from './file-response.ts';
import { noteActOf } from './note-act.ts';
import { outgoingFileResponse } from './outgoing-file-response.ts';

const HOUR_MS = 3_600_000;
/** Remarks of one post; more are no remarks. */
const MAX_REMARKS = 500;

const listReviews = defineEndpoint({ contract: contracts.listReviews, may: 'see', handle: ({ services, brand, caller, role }) => reviewsAnswer(services, brand, caller.person.id, roleMay(role, 'approve')) });

const getReview = defineEndpoint({
  contract: contracts.getReview,
  may: 'see',
  async handle({ services, brand, params, caller, role }) {
    const post = await postOf(services.db, brand, params.post);
    const piece = await findPiece(services.db, brand.id, post.pieceId);
    const isMakerAlone = post.createdBy === caller.person.id && post.signOffNeeded < 2;
    const links = await listReviewLinks(services.db, post.id, services.clock.machineNowMs());
    return {
      ...(await reviewAnswer(services, brand, post, { personId: caller.person.id, name: caller.person.name })),
      mayApprove: roleMay(role, 'approve') && !isMakerAlone && post.state === 'in review',
      whyNot: roleMay(role, 'approve') && isMakerAlone ? 'You made this post, so somebody else approves it.' : null,
      pieceChanged: piece !== null && piece.hash !== post.pieceHash,
      links: links.map(({ id, name, endsMs }) => ({ id, name, endsMs })),
    };
  },
});

const answerOfStanding = ({ approvedBy, isApproved, sentBackBy }: Awaited<ReturnType<typeof giveVerdict>>) => ({ approvedBy: [...approvedBy], isApproved, sentBackBy });

const judgePost = defineEndpoint({
  contract: contracts.judgePost,
  may: 'approve',
  only: 'session',
  async handle({ services, brand, params, body, caller, nowMs }) {
    const post = await postOf(services.db, brand, params.post);
    if (post.createdBy === caller.person.id && post.signOffNeeded < 2 && body.verdict === 'approve') throw new ProblemError(403, 'own-post', 'You made this post, so somebody else approves it.');
    return answerOfStanding(await giveVerdict(services, brand, post.id, { personId: caller.person.id, name: caller.person.name }, body, nowMs));
  },
});

const reviewAgain = defineEndpoint({
  contract: contracts.reviewAgain,
  may: 'make',
  async handle(context) {
    const { services, brand, params } = context;
    const post = await postOf(services.db, brand, params.post);
    if (post.state !== 'in review') throw new ProblemError(409, 'not-in-review', 'This post does not wait for approval any more.');
    const piece = await findPiece(services.db, brand.id, post.pieceId);
    if (!piece) throw notFound('piece');
    await refreshPost(services, brand, post, piece);
    await noteActOf(context, 'post', post.id, `Changed “${post.pieceName}” and asked for approval again`);
    return undefined;
  },
});

interface RemarkBody {
  readonly text: string;
  readonly place?: RemarkPlace | null | undefined;
  readonly answerTo?: string | null | undefined;
}

async function keepRemark(services: Services, brand: Pick<Brand, 'id'>, post: Post, reviewer: Reviewer, { text, place, answerTo }: RemarkBody, nowMs: number): Promise<void> {
  const { db, clock } = services;
  if (place && !(await listDeliveriesOf(db, post.id)).some(({ id }) => id === place.deliveryId)) throw new ProblemError(422, 'unknown-cut', 'The remark is about a cut that this post does not have.');
  const known = await listRemarks(db, post.id);
  if (known.length >= MAX_REMARKS) throw new ProblemError(422, 'too-many', `A post takes ${MAX_REMARKS} remarks.`);
  if (answerTo && !known.some(({ id }) => id === answerTo)) throw new ProblemError(422, 'unknown-remark', 'The remark that this answers is not there any more.');
  await insertRemark(db, brand.id, { id: nanoid(12), postId: post.id, answerTo: answerTo ?? null, ...reviewer, text, place: place ?? null, resolvedMs: null, atMs: nowMs }, clock.machineNowMs());
}

const addRemark = defineEndpoint({
  contract: contracts.addRemark,
  may: 'remark',
  async handle({ services, brand, params, body, caller, nowMs }) {
    await keepRemark(services, brand, await postOf(services.db, brand, params.post), { personId: caller.person.id, name: caller.person.name }, body, nowMs);
    return undefined;
  },
});

const resolveRemark = defineEndpoint({
  contract: contracts.resolveRemark,
  may: 'remark',
  async handle({ services, brand, params, body, nowMs }) {
    const post = await postOf(services.db, brand, params.post);
    if (!(await resolve(services.db, brand.id, post.id, params.remark, body.isResolved ? nowMs : null, services.clock.machineNowMs()))) throw notFound('remark');
    return undefined;
  },
});

const makeReviewLink = defineEndpoint({
  contract: contracts.makeReviewLink,
  may: 'send',
  only: 'session',
  async handle(context) {
    const { services, brand, params, body, caller } = context;
    const post = await postOf(services.db, brand, params.post);
    const [id, secret, machineNowMs] = [nanoid(12), newSecret('cfr'), services.clock.machineNowMs()];
    const endsMs = machineNowMs + body.hours * HOUR_MS;
    await insertReviewLink(services.db, { id, brandId: brand.id, postId: post.id, name: body.name, endsMs, createdBy: caller.person.id }, hashSecret(secret), machineNowMs);
    await noteActOf(context, 'post', post.id, `Made a link to “${post.pieceName}” for ${body.name}`);
    // The secret stands in the fragment, which browsers send to no server and no log.
    return { id, path: `/review#${secret}`, endsMs };
  },
});

const endReviewLink = defineEndpoint({
  contract: contracts.endReviewLink,
  may: 'send',
  async handle(context) {
    const { services, brand, params } = context;
    if (!(await endLink(services.db, brand.id, params.post, params.link, services.clock.machineNowMs()))) throw notFound('link');
    await noteActOf(context, 'post', params.post, 'Ended a link for somebody outside');
    return undefined;
  },
});

const getSettings = defineEndpoint({ contract: contracts.getSettings, may: 'see', handle: async ({ services, brand }) => ({ settings: await getSendSettings(services.db, brand.id) }) });

const keepSettings = defineEndpoint({
  contract: contracts.keepSettings,
  may: 'brand',
  async handle(context) {
    const { services, brand, body } = context;
    const settings = body as SendSettings;
    await saveSendSettings(services.db, brand.id, settings);
    await noteActOf(context, 'settings', brand.id, `Changed how the brand sends: ${settings.signOff === 0 ? 'nobody approves' : `${settings.signOff} approve`}, missed posts go out within ${settings.lateHours} hours`);
    return { settings };
  },
});

/** What a link opens. @throws ProblemError 404 when it has ended; the same for one that never was */
async function opened(services: Services, secret: string): Promise<{ readonly link: ReviewLink; readonly brand: Brand; readonly post: Post }> {
  const link = await findReviewLink(services.db, hashSecret(secret), services.clock.machineNowMs());
  const brand = link && (await findBrandById(services.db, link.brandId));
  const post = link && brand && (await findPost(services.db, brand.id, link.postId));
  if (!link || !brand || !post) throw new ProblemError(404, 'link-ended', 'This link has ended. Ask whoever sent it for another one.');
  return { link, brand, post };
}

/** The name of somebody outside, so that nobody takes them for a member. */
const outsider = ({ name }: ReviewLink): Reviewer => ({ personId: null, name: `${name} (outside)` });

const readOutsideReview = defineEndpoint({
  contract: contracts.readOutsideReview,
  may: 'anyone',
  async handle({ services, body }) {
    const { link, brand, post } = await opened(services, body.secret);
    return { ...(await reviewAnswer(services, brand, post, outsider(link))), brandName: brand.name, name: link.name, endsMs: link.endsMs };
  },
});

const judgeOutside = defineEndpoint({
  contract: contracts.judgeOutside,
  may: 'anyone',
  async handle({ services, body, nowMs }) {
    const { link, brand, post } = await opened(services, body.secret);
    return answerOfStanding(await giveVerdict(services, brand, post.id, outsider(link), body, nowMs));
  },
});

const remarkOutside = defineEndpoint({
  contract: contracts.remarkOutside,
  may: 'anyone',
  async handle({ services, body, nowMs }) {
    const { link, brand, post } = await opened(services, body.secret);
    await keepRemark(services, brand, post, outsider(link), body, nowMs);
    return undefined;
  },
});

const pictureOutside = defineEndpoint({
  contract: contracts.pictureOutside,
  may: 'anyone',
  async handle({ services, body, request }) {
    const { post } = await opened(services, body.secret);
    const delivery = (await listDeliveriesOf(services.db, post.id)).find(({ id }) => id === body.deliveryId);
    if (!delivery) throw notFound('cut');
    return fileResponse(request, await derivedFile(services, deliveryPicture(services, delivery, body.slide), request.signal), 'image/webp', 'ask-again');
  },
});

const videoOutside = defineEndpoint({
  contract: contracts.videoOutside,
  may: 'anyone',
  async handle({ services, body, request }) {
    const { post } = await opened(services, body.secret);
    const delivery = (await listDeliveriesOf(services.db, post.id)).find(({ id, kind }) => id === body.deliveryId && kind === 'video');
    if (!delivery) throw notFound('video');
    return outgoingFileResponse(services, delivery, 0, request.signal);
  },
});

export const reviewEndpoints: readonly Endpoint[] = [listReviews, getReview, judgePost, reviewAgain, addRemark, resolveRemark, makeReviewLink, endReviewLink, getSettings, keepSettings, readOutsideReview, judgeOutside, remarkOutside, pictureOutside, videoOutside];
