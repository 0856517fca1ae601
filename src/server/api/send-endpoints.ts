import * as contracts from '../../contract/send-contracts.ts';
import { roleMay } from '../../core/access/access.ts';
import type { DeliveryAction } from '../../core/post/delivery-action.ts';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import { canDelivery, type DeliveryState } from '../../core/post/delivery-state.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { findChannelNames, listSheetsOf, type Brand, type ChannelName } from '../db/brand-repository.ts';
import { countDeliveries, listDeliveriesOf, pageDeliveries, type Delivery } from '../db/delivery-repository.ts';
import { findPiece } from '../db/piece-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { deliveryPicture } from '../derived/delivery-picture.ts';
import { derivedFile } from '../derived/derived-file.ts';
import { notFound, ProblemError } from '../errors.ts';
import { actOnDelivery, actOnPost, differencesOfPost, getDeliveryOf, refreshPost, reschedulePost } from '../post/change-post.ts';
import { editWordsOfPost, fieldsOfPost } from '../post/edit-words.ts';
import { postOf } from '../post/post-of.ts';
import { schedule, scheduledBefore } from '../post/schedule.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { noteActOf } from './note-act.ts';
import { fileResponse } from './file-response.ts';
import { nextCursor, PAGE_SIZE, readCursor } from './page-cursor.ts';

type Described = Delivery & { readonly pieceChanged: boolean };

/** What a delivery is described with. */
interface Surroundings {
  readonly channels: ReadonlyMap<string, ChannelName>;
  readonly sheets: readonly NetworkSheet[];
}

async function surroundingsOf({ db }: Pick<Services, 'db'>, brand: Brand, deliveries: readonly Described[]): Promise<Surroundings> {
  return { channels: await findChannelNames(db, brand.id, [...new Set(deliveries.map(({ channelId }) => channelId))]), sheets: await listSheetsOf(db, brand.id) };
}

/** What a person can do to it where it is out; one that was placed by hand is only noted as taken down. */
function afterwardsOf({ state, network, handedMs, words }: Delivery, sheets: readonly NetworkSheet[]): ('text' | 'remove')[] {
  if (state !== 'sent') return [];
  if (handedMs !== null) return ['remove'];
  const can = sheets.find(({ key }) => key === network)?.publishing.afterwards ?? [];
  return can.filter((each) => each === 'remove' || !words.thread);
}

function describeDelivery(delivery: Described, { channels, sheets }: Surroundings, machineNowMs: number) {
  const channel = channels.get(delivery.channelId);
  const waits = delivery.state === 'scheduled' && delivery.notBeforeMs > machineNowMs;
  return {
    id: delivery.id,
    postId: delivery.postId,
    pieceId: delivery.pieceId,
    pieceName: delivery.pieceName,
    kind: delivery.kind,
    channelId: delivery.channelId,
    channelName: channel?.name ?? '',
    network: channel?.network ?? '',
    placement: delivery.placement,
    placementName: delivery.placementName,
    state: delivery.state,
    dueMs: delivery.dueMs,
    wall: delivery.wall,
    zone: delivery.zone,
    attempt: delivery.attempt,
    retryInMs: waits ? delivery.notBeforeMs - machineNowMs : null,
    address: delivery.address,
    problem: delivery.problem,
    caption: delivery.words.caption ?? '',
    sentMs: delivery.sentMs,
    pieceChanged: delivery.pieceChanged ? ('yes' as const) : ('no' as const),
    step: delivery.step,
    afterwards: afterwardsOf(delivery, sheets),
  };
}

/** Deliveries by their ids, as lists describe them, in the order asked for. */
async function describeByIds(services: Services, brand: Brand, ids: readonly string[]) {
  const found = await pageDeliveries(services.db, brand.id, { state: null, pieceId: null, ids, before: null, limit: ids.length });
  const around = await surroundingsOf(services, brand, found);
  const machineNowMs = services.clock.machineNowMs();
  return ids.flatMap((id) => found.filter((each) => each.id === id).map((each) => describeDelivery(each, around, machineNowMs)));
}

const schedulePiece = defineEndpoint({
  contract: contracts.schedulePiece,
  may: 'make',
  async handle(context) {
    const { services, brand, params, body, caller, role, nowMs } = context;
    // Whoever may not send asks for approval; a token does neither.
    const maySend = roleMay(role, 'send') && (caller.via === 'session' || caller.scope === 'send');
    if (!maySend && caller.via === 'token') throw new ProblemError(403, 'scope-too-low', 'This token may not send. Make one with a wider scope on your account’s page.');
    const piece = await findPiece(services.db, brand.id, params.piece);
    if (!piece) throw notFound('piece');
    const answer = async (deliveries: readonly Delivery[]) => ({ deliveries: await describeByIds(services, brand, deliveries.map(({ id }) => id)) });
    const before = await scheduledBefore(services.db, brand, body);
    if (before) return answer(before);
    if (piece.revision !== body.revision) throw new ProblemError(409, 'stale-revision', 'The piece has changed since you looked at it. Look again, then schedule it.');
    try {
      const made = await schedule(services, brand, piece, body, { personId: caller.person.id, maySend }, nowMs);
      for (const postId of new Set(made.map((each) => each.postId))) await noteActOf(context, 'post', postId, `${made[0]?.state === 'in review' ? 'Asked for approval of' : 'Scheduled'} “${made[0]?.pieceName ?? ''}” for ${formatMoment(made.find((each) => each.postId === postId)?.dueMs ?? nowMs, brand.zone)}`);
      return await answer(made);
    } catch (error) {
      // The same request has come twice at once: the other one has made its posts.
      const meanwhile = await scheduledBefore(services.db, brand, body);
      if (meanwhile) return answer(meanwhile);
      throw error;
    }
  },
});

const listDeliveries = defineEndpoint({
  contract: contracts.listDeliveries,
  may: 'see',
  async handle({ services, brand, query }) {
    const limit = query.limit ?? PAGE_SIZE;
    const ids = query.ids === undefined ? null : query.ids.split(',').slice(0, PAGE_SIZE);
    const items = await pageDeliveries(services.db, brand.id, { state: query.state ?? null, pieceId: query.piece ?? null, ids, before: readCursor(query.before), limit });
    const around = await surroundingsOf(services, brand, items);
    const counts: Record<DeliveryState, number> = await countDeliveries(services.db, brand.id, query.piece ?? null);
    const machineNowMs = services.clock.machineNowMs();
    return { items: items.map((item) => describeDelivery(item, around, machineNowMs)), next: nextCursor(items, limit, (item) => ({ ms: item.dueMs, id: item.id })), counts };
  },
});

const refusals: Readonly<Record<DeliveryAction, string>> = {
  cancel: 'It is already on its way or has gone out, and cannot be cancelled.',
  retry: 'Only a post that failed can be retried.',
  'send-now': 'Only a post that waits for its time can be sent now.',
  hold: 'Only a post that waits for its time can be held.',
  release: 'Only a held post can be released.',
};

const actWords: Readonly<Record<DeliveryAction, string>> = { cancel: 'Cancelled', retry: 'Retried', 'send-now': 'Sent at once', hold: 'Held', release: 'Released' };

/** @throws ProblemError 409 when everything of the brand is held */
async function requireLetGo({ db }: Pick<Services, 'db'>, brand: Brand, action: DeliveryAction): Promise<void> {
  if (action === 'release' && (await getPlan(db, brand.id)).heldSinceMs !== null) throw new ProblemError(409, 'held', 'Everything of this brand is held. Let go in Plan first.');
}

const act = defineEndpoint({
  contract: contracts.actOnDelivery,
  may: 'send',
  async handle(context) {
    const { services, brand, params, nowMs } = context;
    const delivery = await getDeliveryOf(services.db, brand, params.delivery);
    await requireLetGo(services, brand, params.action);
    const acted = await actOnDelivery(services.db, delivery, params.action, { nowMs, machineNowMs: services.clock.machineNowMs() });
    if (!acted) throw new ProblemError(409, 'not-possible-now', refusals[params.action], { state: delivery.state, canRetry: canDelivery(delivery.state, 'retry') });
    await noteActOf(context, 'post', delivery.postId, `${actWords[params.action]} “${delivery.pieceName}” in ${delivery.placementName}`);
    const [described] = await describeByIds(services, brand, [delivery.id]);
    if (!described) throw notFound('post');
    return described;
  },
});

const getDeliveryWords = defineEndpoint({
  contract: contracts.getDeliveryWords,
  may: 'see',
  handle: async ({ services, brand, params }) => ({ fields: (await fieldsOfPost(services, await getDeliveryOf(services.db, brand, params.delivery))).map((each) => ({ ...each })) }),
});

const changeDeliveryWords = defineEndpoint({
  contract: contracts.changeDeliveryWords,
  may: 'send',
  async handle(context) {
    const { services, brand, params, body } = context;
    const delivery = await getDeliveryOf(services.db, brand, params.delivery);
    await editWordsOfPost(services, brand, delivery, Object.fromEntries(Object.entries(body.words).filter(([, value]) => value !== undefined)));
    await noteActOf(context, 'post', delivery.postId, `Changed the words of “${delivery.pieceName}” in ${delivery.placementName}`);
    const [described] = await describeByIds(services, brand, [delivery.id]);
    if (!described) throw notFound('post');
    return described;
  },
});

const getDeliveryPicture = defineEndpoint({
  contract: contracts.getDeliveryPicture,
  may: 'see',
  async handle({ services, brand, params, query, request }) {
    const delivery = await getDeliveryOf(services.db, brand, params.delivery);
    return fileResponse(request, await derivedFile(services, deliveryPicture(services, delivery, query.slide), request.signal), 'image/webp', 'ask-again');
  },
});

async function describePost(services: Services, brand: Brand, id: string) {
  const post = await postOf(services.db, brand, id);
  const ids = (await listDeliveriesOf(services.db, id)).map((each) => each.id);
  return { id: post.id, pieceId: post.pieceId, pieceName: post.pieceName, state: post.state, dueMs: post.dueMs, wall: post.wall, zone: post.zone, revision: post.revision, deliveries: await describeByIds(services, brand, ids) };
}

const getPost = defineEndpoint({ contract: contracts.getPost, may: 'see', handle: ({ services, brand, params }) => describePost(services, brand, params.post) });

const actOnWholePost = defineEndpoint({
  contract: contracts.actOnPost,
  may: 'send',
  async handle(context) {
    const { services, brand, params, nowMs } = context;
    const post = await postOf(services.db, brand, params.post);
    await requireLetGo(services, brand, params.action);
    const acted = await actOnPost(services.db, post, params.action, { nowMs, machineNowMs: services.clock.machineNowMs() });
    if (acted === 0) throw new ProblemError(409, 'not-possible-now', refusals[params.action], { state: post.state });
    await noteActOf(context, 'post', post.id, `${actWords[params.action]} “${post.pieceName}”`);
    return describePost(services, brand, post.id);
  },
});

const reschedule = defineEndpoint({
  contract: contracts.reschedulePost,
  may: 'send',
  async handle(context) {
    const { services, brand, params, body, nowMs } = context;
    const post = await postOf(services.db, brand, params.post);
    await reschedulePost(services, brand, post, body.when, nowMs);
    await noteActOf(context, 'post', post.id, `Rescheduled “${post.pieceName}”`);
    return describePost(services, brand, post.id);
  },
});

const refresh = defineEndpoint({
  contract: contracts.refreshPost,
  may: 'send',
  async handle(context) {
    const { services, brand, params } = context;
    const post = await postOf(services.db, brand, params.post);
    const piece = await findPiece(services.db, brand.id, post.pieceId);
    if (!piece) throw notFound('piece');
    await refreshPost(services, brand, post, piece);
    await noteActOf(context, 'post', post.id, `Updated “${post.pieceName}” to its piece`);
    return describePost(services, brand, post.id);
  },
});

const getDifferences = defineEndpoint({
  contract: contracts.getPostDifferences,
  may: 'see',
  handle: async ({ services, brand, params }) => ({ differences: [...(await differencesOfPost(services, brand, await postOf(services.db, brand, params.post)))] }),
});

// What has a name of its own comes before the actions, whose path would match it as well.
export const sendEndpoints: readonly Endpoint[] = [schedulePiece, listDeliveries, getDeliveryWords, changeDeliveryWords, act, getDeliveryPicture, getPost, getDifferences, reschedule, refresh, actOnWholePost];
