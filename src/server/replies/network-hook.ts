import { createHmac, timingSafeEqual } from 'node:crypto';
import { readHeard } from '../connectors/read-remote.ts';
import { getChannel } from '../db/brand-repository.ts';
import { getCollection } from '../db/collection-repository.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { keepAllHeard } from './hear.ts';

const MAX_BYTES = 512 * 1024;
/** A call whose moment lies further away is an old one that somebody sends again. */
const MAX_AGE_S = 300;

/** The signature of a call: an HMAC of its moment and its body (RFC 2104), as hexadecimal. */
export function hookSignature(secret: string, timestamp: string, body: string): string {
  return createHmac('sha256', secret).update(`${timestamp}.${body}`).digest('hex');
}

/**
 * Keeps what a network tells of a channel, if it is signed with the channel's secret and recent. The same call twice, or in another order, changes nothing.
 * @throws ProblemError 401 for anything else, 413 for too much
 */
export async function takeFromHook(services: Pick<Services, 'db' | 'clock' | 'sealer'>, channelId: string, request: Request, nowMs: number): Promise<void> {
  const refused = new ProblemError(401, 'bad-signature', 'This call is not signed as it has to be.');
  const channel = await getChannel(services.db, channelId).catch(() => null);
  if (channel?.removedMs !== null) throw refused;
  const { hookSecret } = await getCollection(services.db, channelId);
  const timestamp = request.headers.get('x-hook-timestamp') ?? '';
  const given = (request.headers.get('x-hook-signature') ?? '').replace(/^sha256=/, '');
  if (hookSecret === null || !/^\d{1,12}$/.test(timestamp) || Math.abs(services.clock.machineNowMs() / 1000 - Number(timestamp)) > MAX_AGE_S || !/^[0-9a-f]{64}$/.test(given)) throw refused;
  const body = await readBounded(request);
  const wanted = hookSignature(services.sealer.open(hookSecret), timestamp, body);
  if (!timingSafeEqual(Buffer.from(wanted, 'hex'), Buffer.from(given, 'hex'))) throw refused;
  let items: unknown;
  try {
    ({ items } = JSON.parse(body) as { readonly items?: unknown });
  } catch {
    throw new ProblemError(400, 'not-json', 'The body of this call is no JSON.');
  }
  await keepAllHeard(services, channel, readHeard(items), nowMs);
}

async function readBounded(request: Request): Promise<string> {
  const chunks: Uint8Array[] = [];
  let bytes = 0;
  for await (const chunk of (request.body as AsyncIterable<Uint8Array> | null) ?? []) {
    bytes += chunk.byteLength;
    if (bytes > MAX_BYTES) throw new ProblemError(413, 'too-large', `A call has at most ${MAX_BYTES} bytes.`);
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}
