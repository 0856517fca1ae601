import { setTimeout as sleep } from 'node:timers/promises';
import { nanoid } from 'nanoid';
import type { PieceKind } from '../../core/piece/piece.ts';
import { claimDueDelivery, finishAttempt, prolongLease, type Delivery } from '../db/delivery-repository.ts';
import { TooHeavyError } from '../render/render-cut.ts';
import type { Services } from '../services.ts';
import { deliver, LeaseLostError, type ConnectorFor } from './deliver.ts';

/** How long a delivery is held without a sign of life, and how often one is given. */
export const LEASE_MS = 15_000;
const SIGN_OF_LIFE_MS = 4_000;
/** How often the dispatcher looks when nothing was due. */
const IDLE_MS = 500;
/** Deliveries sent at once: a slow network must not keep the others waiting. Videos are made before they are sent, which takes minutes: they have a lane of their own. */
const LANES: readonly Lane[] = [
  { kinds: ['graphic', 'carousel'], most: 3 },
  { kinds: ['video'], most: 1 },
];

interface Lane {
  readonly kinds: readonly PieceKind[];
  readonly most: number;
}

/** Claims due deliveries and sends them until told to stop; then lets go of nothing half done. */
export async function runDispatcher(services: Services, connectorFor: ConnectorFor, stop: AbortSignal): Promise<void> {
  await Promise.all(LANES.map((lane) => runLane(lane, services, connectorFor, stop)));
}

async function runLane({ kinds, most }: Lane, services: Services, connectorFor: ConnectorFor, stop: AbortSignal): Promise<void> {
  const running = new Set<Promise<void>>();
  while (!stop.aborted) {
    const delivery = running.size < most ? await claimNext(services, kinds) : null;
    if (delivery) {
      const work: Promise<void> = sendOne(services, delivery, connectorFor).finally(() => running.delete(work));
      running.add(work);
      continue;
    }
    await Promise.race([sleep(IDLE_MS, undefined, { signal: stop }).catch(() => undefined), ...(running.size >= most ? running : [])]);
  }
  await Promise.all(running);
}

/** Claims and sends everything that is due right now, one after the other; answers how many attempts were made. */
export async function dispatchDue(services: Services, connectorFor: ConnectorFor): Promise<number> {
  let attempts = 0;
  for (let delivery = await claimNext(services); delivery; delivery = await claimNext(services)) {
    attempts += 1;
    await sendOne(services, delivery, connectorFor);
  }
  return attempts;
}

async function claimNext(services: Services, kinds?: readonly PieceKind[]): Promise<Delivery | null> {
  return claimDueDelivery(services.db, {
    lease: nanoid(),
    nowMs: await services.clock.nowMs(),
    machineNowMs: services.clock.machineNowMs(),
    leaseMs: LEASE_MS,
    kinds,
  });
}

async function sendOne(services: Services, delivery: Delivery, connectorFor: ConnectorFor): Promise<void> {
  const lease = delivery.lease ?? '';
  const lost = new AbortController();
  const alive = setInterval(() => {
    void prolongLease(services.db, delivery.id, lease, services.clock.machineNowMs() + LEASE_MS).then((held) => {
      if (!held) lost.abort();
    });
  }, SIGN_OF_LIFE_MS);
  const log = services.log.child({ delivery: delivery.id, attempt: delivery.attempt });
  try {
    const outcome = await deliver(services, delivery, connectorFor, lost.signal);
    await finishAttempt(services.db, delivery.id, lease, outcome, services.clock.machineNowMs());
    log.info({ outcome: outcome.kind }, 'attempt ended');
  } catch (error) {
    if (error instanceof LeaseLostError) {
      log.warn('another dispatcher has taken this delivery over');
      return;
    }
    log.error({ error }, 'attempt failed');
    const what = delivery.kind === 'video' ? 'video' : 'picture';
    const problem = error instanceof TooHeavyError ? `No quality of this ${what} is light enough for the network.` : `Confetti could not make the ${what} for this post.`;
    await finishAttempt(services.db, delivery.id, lease, { kind: 'refuse', problem }, services.clock.machineNowMs());
  } finally {
    clearInterval(alive);
  }
}
