import { backoffMs, MAX_ATTEMPTS, spreadOf } from '../../core/job/backoff.ts';
import { isByHand } from '../../core/network/account-kind.ts';
import { howFarOut } from '../../core/post/follow-ups.ts';
import { isTooLate } from '../../core/post/send-settings.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { withFreshAccess } from '../connect/open-channel.ts';
import { ConnectorError, type Connector } from '../connectors/connector.ts';
import type { ConnectorFor } from '../connectors/registry.ts';
import { getChannel, type Channel } from '../db/brand-repository.ts';
import { getDelivery, noteOut, noteProgress, type Delivery, type Outcome } from '../db/delivery-repository.ts';
import { getSendSettings } from '../db/send-settings-repository.ts';
import { readPin } from '../documents/pins.ts';
import type { JobContext } from '../jobs/job-handler.ts';
import type { Services } from '../services.ts';
import { downtimeAt } from './downtime.ts';
import { makeFiles, planFiles, type OutgoingPlan } from './outgoing-files.ts';
import { outgoingOf, type Outgoing } from './outgoing-post.ts';

/** Thrown between two steps when another dispatcher has taken the delivery over: stop, and touch nothing more. */
export class LeaseLostError extends Error {
  override readonly name = 'LeaseLostError';
  readonly code = 'lease-lost';
}

/** Thrown while files are made and the worker stops: nothing has left yet, and another worker begins anew. */
export class StoppedError extends Error {
  override readonly name = 'StoppedError';
  readonly code = 'stopped';
}

/** What ends an attempt: another dispatcher took the delivery over, or the worker stops. */
type EndSignals = Pick<JobContext, 'signal' | 'stopping'>;

/**
 * One attempt at one delivery:
 *
 * ```
 * may it go now -> ask (if publishing was tried before) -> render -> upload -> process -> write down the intent -> publish -> follow
 * ```
 *
 * Each step writes its result down, so that a restart continues after the last one. Publishing happens only after the
 * intent is in the database, and with an intent in the database the network is asked first: nothing is published twice.
 * @param isAskedFor a person wants it sent, however late it is
 * @throws LeaseLostError when the delivery is held by another
 * @throws StoppedError when the worker stops while it makes the files
 */
export async function deliver(services: Services, delivery: Delivery, { connectorFor, isAskedFor }: { readonly connectorFor: ConnectorFor; readonly isAskedFor: boolean }, ends: EndSignals): Promise<Outcome> {
  try {
    const snapshot = await readPin(services.db, delivery.pin);
    const kept = await keptBack(services, delivery, snapshot, isAskedFor);
    if (kept) return kept;
    const out = await withFreshAccess(services, delivery.channelId, async (channel) => {
      // A second run with a fresh access goes on after what the first has written down.
      const now = await getDelivery(services.db, delivery.id);
      return attempt({ services, delivery: { ...now, lease: delivery.lease }, channel, snapshot, connectorFor, ends });
    });
    return { kind: 'confirm', ...out };
  } catch (error) {
    if (!(error instanceof ConnectorError)) throw error;
    services.log.info({ err: error, delivery: delivery.id, attempt: delivery.attempt }, 'the network did not take it');
    return outcomeOf(error, delivery, services.clock.machineNowMs());
  }
}

/** Why a delivery does not go out now; null when it does. A delivery that may be public already skips these checks: the network is asked first. */
async function keptBack({ db, clock }: Services, delivery: Delivery, snapshot: Snapshot, isAskedFor: boolean): Promise<Outcome | null> {
  if (delivery.publishIntentMs !== null) return null;
  const channel = await getChannel(db, delivery.channelId);
  if (channel.state === 'paused') return { kind: 'pause', problem: `${channel.name} is paused. Resume it in Send > Channels, then release the post.` };
  const sheet = snapshot.sheets.find(({ key }) => key === channel.network);
  if (sheet && isByHand(sheet, channel.kind)) return { kind: 'hand-over', handedMs: await clock.nowMs() };
  const downtime = isAskedFor || delivery.attempt > 1 ? null : await downtimeAt(db, delivery.dueMs);
  if (downtime && isTooLate(await getSendSettings(db, delivery.brandId), delivery.dueMs, downtime.toMs)) {
    return { kind: 'refuse', problem: `It was due ${formatMoment(delivery.dueMs, delivery.zone)}, while Confetti did not run. Retry sends it now; or choose another moment.` };
  }
  return null;
}

/** Wait before the next question to a network that still processes a post. */
const PROCESSING_WAIT_MS = 10_000;

interface Attempt {
  readonly services: Services;
  readonly delivery: Delivery;
  readonly channel: Channel;
  readonly snapshot: Snapshot;
  readonly connectorFor: ConnectorFor;
  readonly ends: EndSignals;
}

interface Public {
  readonly address: string;
  readonly sentMs: number;
}

async function attempt({ services, delivery, channel, snapshot, connectorFor, ends }: Attempt): Promise<Public> {
  const { signal } = ends;
  const plan = planFiles(services, snapshot, delivery);
  const connector = connectorFor(channel, plan.sheet);
  const [id, lease] = [delivery.id, delivery.lease ?? ''];
  const note = async (progress: Parameters<typeof noteProgress>[3]): Promise<void> => {
    if (!(await noteProgress(services.db, id, lease, progress))) throw new LeaseLostError();
  };
  if (delivery.address !== null) {
    await addWhatFollows({ connector, outgoing: outgoingOf(delivery, delivery.remoteMedia, plan), address: delivery.address, done: delivery.followed, note, signal });
    return { address: delivery.address, sentMs: delivery.sentMs ?? (await services.clock.nowMs()) };
  }
  const { address, remoteMedia } = await makePublic({ services, delivery, plan, connector, note, ends });
  const out = { address, sentMs: await services.clock.nowMs() };
  const outgoing = outgoingOf(delivery, remoteMedia, plan);
  if (outgoing.follows.length > 0) {
    if (!(await noteOut(services.db, id, lease, out))) throw new LeaseLostError();
    await addWhatFollows({ connector, outgoing, address, done: 0, note, signal });
  }
  return out;
}

interface Following {
  readonly connector: Connector;
  readonly outgoing: Outgoing;
  readonly address: string;
  readonly done: number;
  readonly note: (progress: Parameters<typeof noteProgress>[3]) => Promise<void>;
  readonly signal: AbortSignal;
}

/** Adds the further parts and the first comment, one after the other. @throws ConnectorError that says how far the post has come */
async function addWhatFollows({ connector, outgoing: { followUps, follows }, address, done, note, signal }: Following): Promise<void> {
  for (const [index, followUp] of follows.entries()) {
    if (index < done) continue;
    await note({ step: 'follow' });
    try {
      await connector.follow(address, followUp, signal);
    } catch (error) {
      if (!(error instanceof ConnectorError)) throw error;
      throw new ConnectorError(error.code, `${howFarOut(followUps, index)} ${error.message}`, error.retryAfterMs, { cause: error });
    }
    await note({ followed: index + 1 });
  }
}

interface Publishing {
  readonly services: Services;
  readonly delivery: Delivery;
  readonly plan: OutgoingPlan;
  readonly connector: Connector;
  readonly note: Following['note'];
  readonly ends: EndSignals;
}

/** Makes the post itself public, if it is not yet; answers where it is, and the files that the network holds. */
async function makePublic({ services, delivery, plan, connector, note, ends: { signal, stopping } }: Publishing): Promise<{ readonly address: string; readonly remoteMedia: readonly string[] }> {
  let { remoteMedia, remoteDraftId } = delivery;
  const { idempotencyKey } = delivery;
  if (delivery.publishIntentMs !== null) {
    if (!connector.capabilities.findsPublications) throw new ConnectorError('refused', `${plan.sheet.name} cannot say whether this post is out. Look at the channel before you retry it.`);
    const known = await connector.findPublication({ idempotencyKey, remoteDraftId }, signal);
    if (known.kind === 'published') return { address: known.address, remoteMedia };
    if (known.kind === 'processing') throw new ConnectorError('processing', `${plan.sheet.name} is still processing it.`, PROCESSING_WAIT_MS);
  }
  if (remoteMedia.length < plan.count) {
    await note({ step: 'render' });
    const files = await makeFiles(services, plan, delivery, AbortSignal.any([signal, stopping])).catch((error: unknown) => {
      throw stopping.aborted ? new StoppedError() : error;
    });
    await note({ step: 'upload' });
    // What was uploaded before a restart is there already.
    for (const file of files.slice(remoteMedia.length)) {
      const { remoteMediaId } = await connector.upload(file, signal);
      remoteMedia = [...remoteMedia, remoteMediaId];
      await note({ remoteMedia });
    }
  }
  const { post } = outgoingOf(delivery, remoteMedia, plan);
  if (remoteDraftId === null) {
    await note({ step: 'process' });
    ({ remoteDraftId } = await connector.prepare(post, signal));
    if (remoteDraftId !== null) await note({ remoteDraftId });
  }
  await note({ step: 'publish', publishIntentMs: services.clock.machineNowMs() });
  try {
    return { address: (await connector.publish(post, { idempotencyKey, remoteDraftId }, signal)).address, remoteMedia };
  } catch (error) {
    // A network that asks to come back later, or takes the access no longer, has done nothing: there is nothing to ask for then.
    if (error instanceof ConnectorError && (error.code === 'busy' || error.code === 'ended')) await note({ publishIntentMs: null });
    // An attempt before, late on its way, may have come through a moment ago: then the network refuses this one as a repeat.
    if (!(error instanceof ConnectorError) || error.code !== 'refused' || delivery.publishIntentMs === null || !connector.capabilities.findsPublications) throw error;
    const known = await connector.findPublication({ idempotencyKey, remoteDraftId }, signal);
    if (known.kind === 'published') return { address: known.address, remoteMedia };
    throw error;
  }
}

/** What a fault means for the delivery: refused for good, or another attempt later, as often as is reasonable. */
function outcomeOf(error: ConnectorError, delivery: Delivery, machineNowMs: number): Outcome {
  if (error.code === 'refused' || error.code === 'ended') return { kind: 'refuse', problem: error.message };
  if (delivery.attempt >= MAX_ATTEMPTS) {
    return { kind: 'refuse', problem: `${error.message} Given up after ${delivery.attempt} attempts.` };
  }
  const waitMs = backoffMs(delivery.attempt, spreadOf(delivery.id, delivery.attempt), error.retryAfterMs);
  return { kind: 'postpone', problem: error.message, notBeforeMs: machineNowMs + waitMs };
}
