import { holdsBack } from '../../core/replies/held-words.ts';
import type { Heard, TalkLine } from '../connectors/results-reader.ts';
import { keepCollection, type Collection } from '../db/collection-repository.ts';
import { keepHeard } from '../db/conversation-repository.ts';
import { readLearnSettings } from '../db/learn-settings-repository.ts';
import { findPublicationByRemote } from '../db/publication-repository.ts';
import type { Services } from '../services.ts';

/** Pages that one round reads of one channel: the rest comes with the next. */
const MAX_PAGES = 30;

type Needed = Pick<Services, 'db' | 'clock'>;

/** Keeps what people wrote, each once, whether it was asked for or told; answers how many were new. */
export async function keepAllHeard({ db, clock }: Needed, channel: { readonly id: string; readonly brandId: string }, items: readonly Heard[], nowMs: number): Promise<number> {
  if (items.length === 0) return 0;
  const { heldWords } = await readLearnSettings(db, channel.brandId);
  let fresh = 0;
  // A network whose clock is ahead would put messages into the future: they come at the end of what is past, in their order.
  for (const [index, heard] of items.toSorted((a, b) => a.atMs - b.atMs).entries()) {
    const publication = heard.remotePostId === null ? null : await findPublicationByRemote(db, channel.id, heard.remotePostId);
    const isNew = await keepHeard(db, { brandId: channel.brandId, channelId: channel.id, publicationId: publication?.id ?? null, heard, isHeldBack: holdsBack(heard.text, heldWords), atMs: Math.min(heard.atMs, nowMs - (items.length - 1 - index)) }, clock.machineNowMs());
    if (isNew) fresh += 1;
  }
  return fresh;
}

/** Asks a network what people wrote since the last time. Throws what the line throws; what was read until then is kept. */
export async function collectHeard(services: Needed, channel: { readonly id: string; readonly brandId: string }, collection: Collection, line: TalkLine, nowMs: number, signal: AbortSignal): Promise<number> {
  let [after, fresh] = [collection.heardAfter, 0];
  for (let page = 0; page < MAX_PAGES; page += 1) {
    const { items, next, more } = await line.heard(after, signal);
    fresh += await keepAllHeard(services, channel, items, nowMs);
    if (next === after) break;
    after = next;
    await keepCollection(services.db, channel.id, { heardAfter: after });
    if (!more) break;
  }
  return fresh;
}
