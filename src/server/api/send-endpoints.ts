import * as contracts from '../../contract/send-contracts.ts';
import { canDelivery, deliveryStates, type DeliveryState } from '../../core/post/delivery-state.ts';
import { listChannels, type Channel } from '../db/brand-repository.ts';
import { actOnDelivery, countDeliveries, deliveriesVersion, findDelivery, getSnapshot, pageDeliveries, type Delivery } from '../db/delivery-repository.ts';
import { readClockOffsetMs } from '../db/clock-repository.ts';
import { findPiece } from '../db/piece-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { exists } from '../media/derivatives.ts';
import { cutSourceOf } from '../render/cut-source.ts';
import { schedule } from '../post/schedule.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { fileResponse } from './file-response.ts';
import { nextCursor, PAGE_SIZE, readCursor } from './page-cursor.ts';

const PICTURE_PX = 640;
/** How often watchers look for changes: soon enough to feel live, rare enough to cost nothing. */
const WATCH_MS = 700;
const HEARTBEAT_MS = 20_000;

function describeDelivery(delivery: Delivery, currentRevision: number, channels: readonly Channel[], machineNowMs: number) {
  const channel = channels.find((each) => each.id === delivery.channelId);
  const waits = delivery.state === 'scheduled' && delivery.notBeforeMs > machineNowMs;
  return {
    id: delivery.id,
    pieceId: delivery.pieceId,
    pieceName: delivery.pieceName,
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
    caption: delivery.caption,
    sentMs: delivery.sentMs,
    pieceChanged: delivery.pieceRevision === currentRevision ? ('no' as const) : ('yes' as const),
  };
}

const schedulePiece = defineEndpoint({
  contract: contracts.schedulePiece,
  may: 'send',
  async handle({ services, brand, params, body, caller, nowMs }) {
    const piece = await findPiece(services.db, brand.id, params.piece);
    if (!piece) throw notFound('piece');
    if (piece.revision !== body.revision) throw new ProblemError(409, 'stale-revision', 'The piece has changed since you looked at it. Look again, then schedule it.');
    const deliveries = await schedule(services, brand, piece, body, caller.person.id, nowMs);
    const channels = await listChannels(services.db, brand.id);
    return { deliveries: deliveries.map((each) => describeDelivery(each, piece.revision, channels, services.clock.machineNowMs())) };
  },
});

const listDeliveries = defineEndpoint({
  contract: contracts.listDeliveries,
  may: 'see',
  async handle({ services, brand, query }) {
    const limit = query.limit ?? PAGE_SIZE;
    const items = await pageDeliveries(services.db, brand.id, { state: query.state ?? null, pieceId: query.piece ?? null, before: readCursor(query.before), limit });
    const channels = await listChannels(services.db, brand.id);
    const counted = await countDeliveries(services.db, brand.id, query.piece ?? null);
    const machineNowMs = services.clock.machineNowMs();
    return {
      items: items.map((item) => describeDelivery(item, item.currentRevision, channels, machineNowMs)),
      next: nextCursor(items, limit, (item) => ({ ms: item.dueMs, id: item.id })),
      counts: Object.fromEntries(deliveryStates.map((state) => [state, counted[state] ?? 0])) as Record<DeliveryState, number>,
    };
  },
});

const refusals: Readonly<Record<'cancel' | 'retry' | 'send-now', string>> = {
  cancel: 'It is already on its way or has gone out, and cannot be taken back.',
  retry: 'Only a post that failed can be tried again.',
  'send-now': 'Only a post that waits for its time can be sent now.',
};

const act = defineEndpoint({
  contract: contracts.actOnDelivery,
  may: 'send',
  async handle({ services, brand, params, nowMs }) {
    const delivery = await findDelivery(services.db, brand.id, params.delivery);
    if (!delivery) throw notFound('post');
    const machineNowMs = services.clock.machineNowMs();
    const acted = await actOnDelivery(services.db, brand.id, delivery.id, params.action, { nowMs, machineNowMs });
    if (!acted) throw new ProblemError(409, 'not-possible-now', refusals[params.action], { state: delivery.state, canRetry: canDelivery(delivery.state, 'retry') });
    const piece = await findPiece(services.db, brand.id, acted.pieceId);
    return describeDelivery(acted, piece?.revision ?? acted.pieceRevision, await listChannels(services.db, brand.id), machineNowMs);
  },
});

const getDeliveryPicture = defineEndpoint({
  contract: contracts.getDeliveryPicture,
  may: 'see',
  async handle({ services, brand, params }) {
    const delivery = await findDelivery(services.db, brand.id, params.delivery);
    if (!delivery) throw notFound('post');
    const path = services.media.derivedPathOf(delivery.snapshotId, `${delivery.id}.webp`);
    if (!(await exists(path))) {
      const channel = (await listChannels(services.db, brand.id)).find((each) => each.id === delivery.channelId);
      if (!channel) throw notFound('channel');
      const source = cutSourceOf(await getSnapshot(services.db, delivery.snapshotId), channel.network, delivery, services.media);
      const picture = await services.render.picture({ kind: 'small', source, fitPx: PICTURE_PX });
      await services.media.keepDerived(delivery.snapshotId, `${delivery.id}.webp`, picture.bytes);
    }
    return fileResponse(path, 'image/webp', 'for-good');
  },
});

const watchDeliveries = defineEndpoint({
  contract: contracts.watchDeliveries,
  may: 'see',
  handle: ({ services, brand, request }) => eventStream(request.signal, watchedValues(services, brand.id)),
});

/** What watchers are told of, by event name: a value that differs means that something has changed. */
function watchedValues(services: Services, brandId: string): Readonly<Record<string, () => Promise<string>>> {
  return {
    deliveries: () => deliveriesVersion(services.db, brandId),
    clock: async () => String(await readClockOffsetMs(services.db)),
  };
}

/**
 * A stream of events, one whenever a watched value differs from before. What is compared with is read before the stream
 * opens: a client that reads the list once the stream is open misses nothing.
 */
async function eventStream(signal: AbortSignal, watched: Readonly<Record<string, () => Promise<string>>>): Promise<Response> {
  const encoder = new TextEncoder();
  const seen = new Map<string, string>();
  for (const [name, read] of Object.entries(watched)) seen.set(name, await read());
  let timer: NodeJS.Timeout | undefined;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      let spokenMs = 0;
      const say = (text: string): void => {
        controller.enqueue(encoder.encode(text));
        spokenMs = Date.now();
      };
      const look = async (): Promise<void> => {
        for (const [name, read] of Object.entries(watched)) {
          const value = await read();
          if (seen.get(name) !== value) say(`event: ${name}\ndata: {}\n\n`);
          seen.set(name, value);
        }
        if (Date.now() - spokenMs > HEARTBEAT_MS) say(': still here\n\n');
      };
      const again = (): void => {
        // A closed stream throws on the next word; that ends the watch.
        timer = setTimeout(() => void look().then(again, () => clearTimeout(timer)), WATCH_MS);
      };
      say('retry: 2000\n\n');
      again();
      signal.addEventListener('abort', () => clearTimeout(timer));
    },
    cancel: () => clearTimeout(timer),
  });
  return new Response(stream, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' } });
}

export const sendEndpoints: readonly Endpoint[] = [schedulePiece, listDeliveries, act, getDeliveryPicture, watchDeliveries];
