import { randomBytes } from 'node:crypto';
import { connectorFor as usualConnectorFor, type ConnectorFor } from '../connectors/registry.ts';
import { ConnectorError } from '../connectors/connector.ts';
import type { TalkLine } from '../connectors/results-reader.ts';
import { withFreshAccess } from '../connect/open-channel.ts';
import { findBrandById, listSheetsOf, type Channel } from '../db/brand-repository.ts';
import { getCollection, keepCollection } from '../db/collection-repository.ts';
import { collectHeard } from '../replies/hear.ts';
import type { Services } from '../services.ts';
import { collectAccount } from './collect-account.ts';
import { collectFigures, describeUnmeasured } from './collect-figures.ts';

/** How often a channel is asked what people wrote; figures have moments of their own. */
const EVERY_MS = 2 * 60_000;
/** After a fault a channel is left alone for longer and longer, at most this long. */
const MIN_WAIT_MS = 2 * 60_000;
const MAX_WAIT_MS = 6 * 3_600_000;

/** One round with one channel: figures that are due, its days and posts once an hour, and what people wrote. A fault is noted and waits. */
export async function collectChannel(services: Services, channelId: string, signal: AbortSignal, connectorFor: ConnectorFor = usualConnectorFor): Promise<void> {
  const { db, clock, log } = services;
  const nowMs = await clock.nowMs();
  const collection = await getCollection(db, channelId);
  try {
    await withFreshAccess(services, channelId, (channel) => round(services, channel, nowMs, signal, connectorFor));
    await keepCollection(db, channelId, { nextMs: nowMs + EVERY_MS, problem: null, problemSinceMs: null });
  } catch (error) {
    if (!(error instanceof ConnectorError)) throw error;
    const sinceMs = collection.problemSinceMs ?? nowMs;
    const waitMs = error.retryAfterMs ?? Math.min(MAX_WAIT_MS, Math.max(MIN_WAIT_MS, nowMs - sinceMs));
    log.warn({ channel: channelId, code: error.code }, 'a channel was not read');
    await keepCollection(db, channelId, { nextMs: nowMs + waitMs, problem: error.message, problemSinceMs: sinceMs });
  }
}

/** Has the network tell what comes in, beside being asked. The secret is kept first: a call that comes at once can be checked. */
async function subscribe({ db, sealer }: Pick<Services, 'db' | 'sealer'>, channelId: string, origin: string, line: TalkLine, signal: AbortSignal): Promise<void> {
  const secret = randomBytes(24).toString('base64url');
  await keepCollection(db, channelId, { hookSecret: sealer.seal(secret) });
  try {
    await line.tell(`${origin}/api/hooks/${channelId}`, secret, signal);
  } catch (error) {
    await keepCollection(db, channelId, { hookSecret: null });
    throw error;
  }
}

async function round(services: Services, channel: Channel, nowMs: number, signal: AbortSignal, connectorFor: ConnectorFor): Promise<void> {
  const { db } = services;
  const [brand, sheets] = [await findBrandById(db, channel.brandId), await listSheetsOf(db, channel.brandId)];
  const sheet = sheets.find(({ key }) => key === channel.network);
  if (!brand || !sheet) return;
  const connector = connectorFor(channel, sheet);
  const collection = await getCollection(db, channel.id);
  if (connector.results) {
    if (collection.accountNextMs <= nowMs) await collectAccount(services, { id: channel.id, brandId: brand.id, zone: brand.zone }, collection, connector.results, nowMs, signal);
    await collectFigures(services, channel.id, connector.results, nowMs, signal);
  } else await describeUnmeasured(services, channel.id, nowMs);
  if (connector.talk) {
    if (collection.hookSecret === null && services.settings.hookOrigin !== null) await subscribe(services, channel.id, services.settings.hookOrigin, connector.talk, signal);
    await collectHeard(services, channel, collection, connector.talk, nowMs, signal);
  }
}
