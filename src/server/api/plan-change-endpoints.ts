import { nanoid } from 'nanoid';
import * as contracts from '../../contract/plan-contracts.ts';
import type { BodyOf } from '../../contract/contract.ts';
import { addToQueue as addEntries, orderQueue as writeOrder, removeFromQueue as removeEntries } from '../db/queue-repository.ts';
import { findPiece } from '../db/piece-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { changeChosen as change, type PlanChange } from '../plan/change-plan.ts';
import { forecastFrom, readSources, type ForecastSources } from '../plan/brand-forecast.ts';
import { holdEverything as hold, previewRelease, releaseEverything as release } from '../plan/hold-everything.ts';
import { keepEntry, momentOfSpot, placePiece as place, usualCutsOf, type Spot } from '../plan/place-piece.ts';
import { shuffleQueue } from '../plan/shuffle-queue.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

const DAY_MS = 86_400_000;
const QUEUE_HORIZON_MS = 180 * DAY_MS;

const toSpot = (spot: BodyOf<typeof contracts.placePiece>['spot']): Spot => (spot.kind === 'slot' ? { kind: 'slot', slotKey: spot.slotKey ?? '' } : { kind: 'at', wall: spot.wall ?? '', repeated: spot.repeated });

const placePiece = defineEndpoint({
  contract: contracts.placePiece,
  may: 'send',
  async handle({ services, brand, body, caller, nowMs }) {
    const spot = toSpot(body.spot);
    const { pieceId, channelIds } = body;
    if (pieceId !== null) {
      const placed = await place(services, brand, { pieceId, channelIds, spot, again: body.again === true, ...(body.entryId === undefined ? {} : { entryId: body.entryId }) }, caller.person.id, nowMs);
      if (placed.kind === 'draft') return { kind: 'draft' as const, dueMs: placed.entry.dueMs, postIds: [], entryId: placed.entry.id, sentence: placed.sentence };
      return { kind: 'post' as const, dueMs: placed.deliveries[0]?.dueMs ?? 0, postIds: [...new Set(placed.deliveries.map(({ postId }) => postId))], entryId: null, sentence: null };
    }
    if (!body.text) throw new ProblemError(422, 'not-valid', 'Say in a few words what will go out here.');
    const { wall, dueMs, slotKey } = await momentOfSpot(services, brand, spot, nowMs);
    const entry = await keepEntry(services, brand, { id: nanoid(12), pieceId: null, text: body.text, themeId: body.themeId ?? null, campaignId: null, wall, zone: brand.zone, dueMs, slotKey: slotKey ?? null, cuts: channelIds.map((channelId) => ({ channelId, placement: '' })) }, caller.person.id);
    return { kind: 'placeholder' as const, dueMs, postIds: [], entryId: entry.id, sentence: null };
  },
});

function toChange(given: BodyOf<typeof contracts.changeChosen>['change']): PlanChange {
  switch (given.kind) {
    case 'shift':
      return { kind: 'shift', days: given.days ?? 0 };
    case 'move':
      return { kind: 'move', spot: toSpot(given.spot), revision: given.revision };
    case 'theme':
      return { kind: 'theme', themeId: given.themeId ?? null };
    case 'campaign':
      return { kind: 'campaign', campaignId: given.campaignId ?? null };
    case 'label':
      return { kind: 'label', label: given.label ?? '' };
    case 'refresh':
    case 'hold':
    case 'release':
    case 'cancel':
      return { kind: given.kind };
  }
}

const changeChosen = defineEndpoint({
  contract: contracts.changeChosen,
  may: 'send',
  async handle({ services, brand, body, nowMs }) {
    const { done, problems, before } = await change(services, brand, { postIds: [...new Set(body.postIds)], entryIds: [...new Set(body.entryIds)] }, toChange(body.change), nowMs);
    return { done, problems: [...problems], before: before.map((each) => ({ ...each })) };
  },
});

/** When each entry of the queues would go out. */
function timesOf(sources: ForecastSources, zone: string, nowMs: number): ReadonlyMap<string, number> {
  const { fills } = forecastFrom(sources, zone, nowMs, nowMs + QUEUE_HORIZON_MS);
  return new Map(fills.flatMap(({ slot, filling }) => (filling.kind === 'waiting' ? [[filling.entryId, slot.atMs] as const] : [])));
}

const listQueue = defineEndpoint({
  contract: contracts.listQueue,
  may: 'see',
  async handle({ services, brand, query, nowMs }) {
    const sources = await readSources(services, brand, nowMs, nowMs + QUEUE_HORIZON_MS);
    const times = timesOf(sources, brand.zone, nowMs);
    const items = sources.waiting.filter(({ channelId }) => query.channel === undefined || channelId === query.channel);
    return { items: items.map(({ id, pieceId, pieceName, kind, channelId, placement, themeId, template }) => ({ id, pieceId, pieceName, kind, channelId, placement, themeId, template, atMs: times.get(id) ?? null })) };
  },
});

const addToQueue = defineEndpoint({
  contract: contracts.addToQueue,
  may: 'send',
  async handle({ services, brand, body, caller }) {
    const piece = await findPiece(services.db, brand.id, body.pieceId);
    if (!piece) throw notFound('piece');
    const chosen = (body.cuts ?? []).filter((cut) => piece.document.cuts.some((each) => each.channelId === cut.channelId && each.placement === cut.placement));
    const usual = await usualCutsOf(services, brand, piece, body.channelIds);
    const cuts = body.channelIds.flatMap((channelId) => chosen.find((cut) => cut.channelId === channelId) ?? usual.find((cut) => cut.channelId === channelId) ?? []);
    const left = body.channelIds.filter((channelId) => !cuts.some((cut) => cut.channelId === channelId)).map((channelId) => ({ channelId, why: 'The piece has no cut for this channel.' }));
    const added = await addEntries(services.db, brand.id, piece.id, cuts.map((cut) => ({ id: nanoid(12), ...cut })), caller.person.id, services.clock.machineNowMs());
    return { added: [...added], left };
  },
});

const removeFromQueue = defineEndpoint({
  contract: contracts.removeFromQueue,
  may: 'send',
  async handle({ services, brand, params }) {
    const removed = await services.db.transaction((trx) => removeEntries(trx, brand.id, [params.entry], services.clock.machineNowMs()));
    if (removed === 0) throw notFound('piece in the queue');
    return undefined;
  },
});

const orderQueue = defineEndpoint({
  contract: contracts.orderQueue,
  may: 'send',
  async handle({ services, brand, body, nowMs }) {
    const sources = await readSources(services, brand, nowMs, nowMs + QUEUE_HORIZON_MS);
    const own = sources.waiting.filter(({ channelId }) => channelId === body.channelId);
    const isSame = own.length === body.order.length && own.every(({ id }) => body.order.includes(id));
    if (!isSame) throw new ProblemError(409, 'queue-changed', 'Other pieces wait on this channel by now. Look again.');
    const byId = new Map(own.map((entry) => [entry.id, entry]));
    const asked = body.order.flatMap((id) => byId.get(id) ?? []);
    const order = body.seed === undefined ? asked.map(({ id }) => id) : await shuffleQueue(services, brand, body.channelId, asked, sources.plan, body.seed, nowMs);
    const [now, then] = [timesOf(sources, brand.zone, nowMs), timesOf({ ...sources, waiting: [...sources.waiting.filter(({ channelId }) => channelId !== body.channelId), ...order.flatMap((id) => byId.get(id) ?? [])] }, brand.zone, nowMs)];
    if (body.keep && !(await writeOrder(services.db, brand.id, body.channelId, order, services.clock.machineNowMs()))) throw new ProblemError(409, 'queue-changed', 'Other pieces wait on this channel by now. Look again.');
    const moves = order.map((entryId) => ({ entryId, fromMs: now.get(entryId) ?? null, toMs: then.get(entryId) ?? null })).filter(({ fromMs, toMs }) => fromMs !== toMs);
    return { order: [...order], moves };
  },
});

const holdEverything = defineEndpoint({ contract: contracts.holdEverything, may: 'send', handle: async ({ services, brand, nowMs }) => ({ held: await hold(services, brand, nowMs) }) });

const releaseEverything = defineEndpoint({
  contract: contracts.releaseEverything,
  may: 'send',
  handle: async ({ services, brand, body, nowMs }) => ({ releases: (await (body.keep ? release : previewRelease)(services, brand, body.rule, nowMs)).map((each) => ({ ...each })) }),
});

export const planChangeEndpoints: readonly Endpoint[] = [placePiece, changeChosen, listQueue, addToQueue, removeFromQueue, orderQueue, holdEverything, releaseEverything];
