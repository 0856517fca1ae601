import { countField } from '../../core/wording/compose.ts';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import { openChannel } from '../connect/open-channel.ts';
import { connectorFor } from '../connectors/registry.ts';
import { ConnectorError, type Connector } from '../connectors/connector.ts';
import { getChannel } from '../db/brand-repository.ts';
import { markRemoved, markRewritten, type Delivery } from '../db/delivery-repository.ts';
import { readPin } from '../documents/pins.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';

const WITHIN_MS = 20_000;

/** What can be done to a delivery that is out, by its network's sheet. */
async function rulesOf({ db }: Pick<Services, 'db'>, delivery: Delivery): Promise<NetworkSheet> {
  const sheet = (await readPin(db, delivery.pin)).sheets.find(({ key }) => key === delivery.network);
  if (!sheet) throw new RangeError(`The pin has no sheet of '${delivery.network}'`);
  return sheet;
}

/**
 * Takes a post down from its network. One that a person has placed by hand is only noted: they take it down themselves.
 * @throws ProblemError 409 when it is not out, or its network lets no program do so
 */
export async function takePostDown(services: Services, delivery: Delivery, nowMs: number): Promise<void> {
  const { db, clock } = services;
  const { name, publishing } = await rulesOf(services, delivery);
  if (delivery.state !== 'sent') throw new ProblemError(409, 'not-out', 'This post is not out, so there is nothing to take down.');
  if (delivery.handedMs === null) {
    if (!publishing.afterwards?.includes('remove')) throw new ProblemError(409, 'stays-out', `${name} lets no program remove posts. Remove it there yourself.`);
    if (delivery.address !== null) await asked(services, delivery, (connector, address, signal) => connector.remove(address, signal));
  }
  await db.transaction((trx) => markRemoved(trx, delivery.brandId, delivery.id, nowMs, clock.machineNowMs()));
}

/**
 * Gives a post that is out another text; answers where it is then.
 * @throws ProblemError 409 when it is not out, or its network keeps what is out; 422 when the text is too long
 */
export async function rewritePost(services: Services, delivery: Delivery, words: { readonly caption: string; readonly title?: string | undefined }): Promise<string> {
  const { db, clock } = services;
  const sheet = await rulesOf(services, delivery);
  const { state, address } = delivery;
  if (state !== 'sent' || address === null) throw new ProblemError(409, 'not-out', 'This post is not out, or Confetti does not know where.');
  if (!sheet.publishing.afterwards?.includes('text') || delivery.handedMs !== null || delivery.words.thread) throw new ProblemError(409, 'stays-as-it-is', `${sheet.name} keeps this post as it is. Take it down and post it anew, or change it there.`);
  const next = { ...delivery.words, caption: words.caption, ...(words.title === undefined ? {} : { title: words.title }) };
  for (const key of ['caption', 'title'] as const) {
    const rule = sheet.words.fields.find((field) => field.key === key);
    const text = next[key];
    if (!rule || text === undefined) continue;
    const { over, max } = countField(text, rule, sheet);
    if (over > 0) throw new ProblemError(422, 'too-long', `${rule.label} is ${over} over: ${sheet.name} takes ${max ?? 0}.`);
  }
  const moved = await asked(services, delivery, (connector, at, signal) => connector.rewrite(at, next, signal));
  await db.transaction((trx) => markRewritten(trx, delivery.brandId, delivery.id, { words: next, address: moved.address }, clock.machineNowMs()));
  return moved.address;
}

async function asked<Answer>(services: Services, delivery: Delivery, ask: (connector: Connector, address: string, signal: AbortSignal) => Promise<Answer>): Promise<Answer> {
  try {
    const channel = await openChannel(services, delivery.channelId);
    return await ask(connectorFor(channel, await rulesOf(services, delivery)), delivery.address ?? '', AbortSignal.timeout(WITHIN_MS));
  } catch (error) {
    if (!(error instanceof ConnectorError)) throw error;
    const { name } = await getChannel(services.db, delivery.channelId);
    throw new ProblemError(error.code === 'refused' || error.code === 'ended' ? 409 : 503, 'network-refused', `${error.message} Nothing of ${name} was changed.`);
  }
}
