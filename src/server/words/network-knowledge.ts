import { LRUCache } from 'lru-cache';
import { connectorFor } from '../connectors/registry.ts';
import type { KnownPerson, NetworkKnowledge, TagReach } from '../connectors/connector.ts';
import { ConnectorError } from '../connectors/connector.ts';
import { listChannels, listSheetsOf, type Brand, type Channel } from '../db/brand-repository.ts';
import type { Services } from '../services.ts';

/** How long what a network says of a hashtag is taken as said. */
const FRESH_MS = 3_600_000;
/** A writer waits for suggestions no longer than this. */
const WITHIN_MS = 2_500;

const reaches = new LRUCache<string, number>({ max: 20_000, ttl: FRESH_MS });
const starts = new LRUCache<string, readonly TagReach[]>({ max: 2_000, ttl: FRESH_MS });
const rising = new LRUCache<string, { readonly places: readonly string[]; readonly tags: readonly TagReach[] }>({ max: 200, ttl: FRESH_MS });
const persons = new LRUCache<string, readonly KnownPerson[]>({ max: 1_000, ttl: FRESH_MS });

/** What a channel's network knows, kept for an hour. Without an answer it knows nothing: writing goes on. */
export interface AskedNetwork {
  readonly network: string;
  suggestTags(start: string): Promise<readonly TagReach[]>;
  reachOf(tags: readonly string[]): Promise<ReadonlyMap<string, number>>;
  trends(place: string | null): Promise<{ readonly places: readonly string[]; readonly tags: readonly TagReach[] }>;
  people(start: string): Promise<readonly KnownPerson[]>;
}

/** The network of a channel; null where there is none, or where it answers no questions. */
export async function networkOf(services: Pick<Services, 'db' | 'sealer' | 'log'>, brand: Brand, channelId: string | null): Promise<AskedNetwork | null> {
  const channels = await listChannels(services.db, brand.id);
  const channel = channels.find(({ id }) => id === channelId);
  const sheet = channel && (await listSheetsOf(services.db, brand.id)).find(({ key }) => key === channel.network);
  if (!channel || !sheet) return null;
  const { knowledge } = connectorFor({ ...channel, token: services.sealer.open(channel.token) }, sheet);
  return knowledge === null ? null : asked(services, channel, knowledge);
}

function asked({ log }: Pick<Services, 'log'>, { network }: Channel, knowledge: NetworkKnowledge): AskedNetwork {
  const orNothing = async <Answer>(question: (signal: AbortSignal) => Promise<Answer>): Promise<Answer | null> => {
    try {
      return await question(AbortSignal.timeout(WITHIN_MS));
    } catch (error) {
      if (!(error instanceof ConnectorError)) throw error;
      log.info({ err: error, network }, 'a network did not answer a question about words');
      return null;
    }
  };
  return {
    network,
    async suggestTags(start) {
      const key = `${network} ${start.toLowerCase()}`;
      const found = starts.get(key) ?? (await orNothing((signal) => knowledge.suggestTags(start, signal)));
      if (found) starts.set(key, found);
      for (const { tag, reach } of found ?? []) reaches.set(`${network} ${tag.toLowerCase()}`, reach);
      return found ?? [];
    },
    async reachOf(tags) {
      const unknown = tags.filter((tag) => !reaches.has(`${network} ${tag.toLowerCase()}`));
      const found = unknown.length === 0 ? [] : await orNothing((signal) => knowledge.reachOf(unknown.slice(0, 200), signal));
      for (const { tag, reach } of found ?? []) reaches.set(`${network} ${tag.toLowerCase()}`, reach);
      return new Map(tags.flatMap((tag) => { const reach = reaches.get(`${network} ${tag.toLowerCase()}`); return reach === undefined ? [] : [[tag.toLowerCase(), reach] as const]; }));
    },
    async trends(place) {
      const key = `${network} ${place ?? ''}`;
      const found = rising.get(key) ?? (await orNothing((signal) => knowledge.trends(place, signal)));
      if (found) rising.set(key, found);
      return found ?? { places: [], tags: [] };
    },
    async people(start) {
      const key = `${network} ${start.toLowerCase()}`;
      const found = persons.get(key) ?? (await orNothing((signal) => knowledge.people(start, signal)));
      if (found) persons.set(key, found);
      return found ?? [];
    },
  };
}
