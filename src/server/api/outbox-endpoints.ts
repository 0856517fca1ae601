import Papa from 'papaparse';
import * as contracts from '../../contract/outbox-contracts.ts';
import { roleMay } from '../../core/access/access.ts';
import { fieldOf, fields } from '../../core/words/fields.ts';
import { pageActs, type Act } from '../db/act-repository.ts';
import { endBoost as end, keepBoost as keep, listBoosts } from '../db/boost-repository.ts';
import { listChannelsEver, listSheetsOf } from '../db/brand-repository.ts';
import { listByHand, placeDelivery, snoozeDelivery } from '../db/delivery-repository.ts';
import { planFiles } from '../dispatch/outgoing-files.ts';
import { readPin } from '../documents/pins.ts';
import { notFound, ProblemError } from '../errors.ts';
import { rewritePost, takePostDown } from '../post/after-publication.ts';
import { getDeliveryOf } from '../post/change-post.ts';
import { duplicatePost as duplicate } from '../post/duplicate-post.ts';
import { postOf } from '../post/post-of.ts';
import { attachment } from './attachment.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { noteActOf } from './note-act.ts';
import { outgoingFileResponse } from './outgoing-file-response.ts';

const MAX_HAND_OFFS = 200;
const ACTS_A_PAGE = 100;
const MAX_EXPORTED = 50_000;

const takeDown = defineEndpoint({
  contract: contracts.takeDown,
  may: 'send',
  async handle(context) {
    const { services, brand, params, nowMs } = context;
    const delivery = await getDeliveryOf(services.db, brand, params.delivery);
    await takePostDown(services, delivery, nowMs);
    await noteActOf(context, 'post', delivery.postId, `Took “${delivery.pieceName}” down from ${delivery.placementName}`);
    return undefined;
  },
});

const rewrite = defineEndpoint({
  contract: contracts.rewrite,
  may: 'send',
  async handle(context) {
    const { services, brand, params, body } = context;
    const delivery = await getDeliveryOf(services.db, brand, params.delivery);
    const address = await rewritePost(services, delivery, body);
    await noteActOf(context, 'post', delivery.postId, `Changed the text of “${delivery.pieceName}” in ${delivery.placementName}, where it is out`);
    return { address };
  },
});

const handOffs = defineEndpoint({
  contract: contracts.handOffs,
  may: 'see',
  async handle({ services, brand }) {
    const { db } = services;
    const [deliveries, channels, sheets, boosts] = await Promise.all([listByHand(db, brand.id, MAX_HAND_OFFS), listChannelsEver(db, brand.id), listSheetsOf(db, brand.id), listBoosts(db, brand.id, MAX_HAND_OFFS)]);
    const items = [];
    for (const delivery of deliveries) {
      const channel = channels.find(({ id }) => id === delivery.channelId);
      const sheet = sheets.find(({ key }) => key === delivery.network);
      if (!channel) continue;
      const { count } = planFiles(services, await readPin(db, delivery.pin), delivery);
      const words = fields.flatMap(({ key }) => (delivery.words[key] ? [{ label: sheet?.words.fields.find((rule) => rule.key === key)?.label ?? fieldOf(key).name, text: delivery.words[key] ?? '' }] : []));
      items.push({ deliveryId: delivery.id, postId: delivery.postId, pieceName: delivery.pieceName, channelName: channel.name, network: delivery.network, networkName: sheet?.name ?? delivery.network, badge: sheet?.badge ?? null, placementName: delivery.placementName, dueMs: delivery.dueMs, snoozedUntilMs: delivery.snoozedUntilMs, place: channel.site ?? `${channel.origin}/${channel.network}/${channel.handle}`, fields: words, files: count });
    }
    return { items, boosts: boosts.map(({ state, ...boost }) => ({ ...boost, isOut: state === 'out' || state === 'partly out' })) };
  },
});

const handOffFile = defineEndpoint({
  contract: contracts.handOffFile,
  may: 'see',
  async handle({ services, brand, params, request }) {
    const delivery = await getDeliveryOf(services.db, brand, params.delivery);
    return outgoingFileResponse(services, delivery, Number(params.index), request.signal);
  },
});

const markPlaced = defineEndpoint({
  contract: contracts.markPlaced,
  may: 'send',
  async handle(context) {
    const { services, brand, params, body, nowMs } = context;
    const delivery = await getDeliveryOf(services.db, brand, params.delivery);
    const address = (body.address ?? '') === '' ? null : (body.address ?? null);
    const done = await services.db.transaction((trx) => placeDelivery(trx, brand.id, delivery.id, { address, sentMs: nowMs }, services.clock.machineNowMs()));
    if (!done) throw new ProblemError(409, 'not-by-hand', 'This post does not wait to be placed: somebody has placed or cancelled it meanwhile.');
    await noteActOf(context, 'post', delivery.postId, `Placed “${delivery.pieceName}” by hand in ${delivery.placementName}`);
    return undefined;
  },
});

const snooze = defineEndpoint({
  contract: contracts.snooze,
  may: 'send',
  async handle({ services, brand, params, body, nowMs }) {
    const delivery = await getDeliveryOf(services.db, brand, params.delivery);
    const done = await services.db.transaction((trx) => snoozeDelivery(trx, brand.id, delivery.id, nowMs + body.minutes * 60_000, services.clock.machineNowMs()));
    if (!done) throw new ProblemError(409, 'not-by-hand', 'This post does not wait to be placed any more.');
    return undefined;
  },
});

const duplicatePost = defineEndpoint({
  contract: contracts.duplicatePost,
  may: 'send',
  async handle(context) {
    const { services, brand, params, body, caller, role, nowMs } = context;
    const post = await postOf(services.db, brand, params.post);
    const when = { kind: 'at' as const, wall: body.wall, repeated: body.repeated };
    const made = await duplicate(services, brand, post, when, { personId: caller.person.id, maySend: roleMay(role, 'send') }, nowMs);
    await noteActOf(context, 'post', made.id, `Scheduled “${post.pieceName}” once more`);
    return { postId: made.id, dueMs: made.dueMs };
  },
});

const keepBoost = defineEndpoint({
  contract: contracts.keepBoost,
  may: 'send',
  async handle(context) {
    const { services, brand, params, body } = context;
    const post = await postOf(services.db, brand, params.post);
    await keep(services.db, brand.id, post.id, body, services.clock.machineNowMs());
    await noteActOf(context, 'post', post.id, `Planned a boost of ${body.budget} ${body.currency} for “${post.pieceName}”`);
    return undefined;
  },
});

const endBoost = defineEndpoint({
  contract: contracts.endBoost,
  may: 'send',
  async handle(context) {
    const { services, brand, params, nowMs } = context;
    const post = await postOf(services.db, brand, params.post);
    if (!(await end(services.db, brand.id, post.id, params.action, nowMs, services.clock.machineNowMs()))) throw notFound('boost');
    await noteActOf(context, 'post', post.id, params.action === 'done' ? `Set up the boost of “${post.pieceName}”` : `Removed the boost of “${post.pieceName}”`);
    return undefined;
  },
});

const listActs = defineEndpoint({
  contract: contracts.listActs,
  may: 'brand',
  async handle({ services, brand, query }) {
    const items = await pageActs(services.db, brand.id, { kind: query.kind, personId: query.person, beforeSeq: query.before, limit: ACTS_A_PAGE });
    return { items: items.map(({ seq, atMs, name, kind, subjectId, sentence }) => ({ seq, atMs, name, kind, subjectId, sentence })), next: items.length === ACTS_A_PAGE ? (items.at(-1)?.seq ?? null) : null };
  },
});

const rowOf = ({ atMs, name, kind, subjectId, sentence }: Act): readonly string[] => [new Date(atMs).toISOString(), name, kind, subjectId, sentence];

const exportActs = defineEndpoint({
  contract: contracts.exportActs,
  may: 'brand',
  async handle({ services, brand, query }) {
    const acts = await pageActs(services.db, brand.id, { kind: query.kind, personId: query.person, limit: MAX_EXPORTED });
    // A spreadsheet must not run what somebody wrote as a formula.
    const csv = Papa.unparse({ fields: ['moment', 'who', 'about', 'id', 'act'], data: acts.map((act) => [...rowOf(act)]) }, { escapeFormulae: true });
    return new Response(`${csv}\r\n`, { headers: { 'content-type': 'text/csv; charset=utf-8', 'content-disposition': attachment(`${brand.slug}-history.csv`), 'cache-control': 'no-store', 'x-content-type-options': 'nosniff' } });
  },
});

export const outboxEndpoints: readonly Endpoint[] = [takeDown, rewrite, handOffs, handOffFile, markPlaced, snooze, duplicatePost, keepBoost, endBoost, listActs, exportActs];
