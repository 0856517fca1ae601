import { ConnectorError } from './connector.ts';
import { readHeard, readPublicAccount, readPublicPosts, readRemoteAudience, readRemoteDays, readRemoteFigures, readRemotePosts } from './read-remote.ts';
import type { PublicView, ResultsReader, TalkLine } from './results-reader.ts';
import type { Ask } from './standin-connector.ts';

/** Asks a stand-in network what came back. */
export function standinResults(ask: Ask): ResultsReader {
  return {
    figures: async (ids, signal) => readRemoteFigures((await ask('GET', `/posts/figures?ids=${encodeURIComponent(ids.join(','))}`, {}, signal))?.['posts']),
    posts: async (sinceMs, signal) => readRemotePosts((await ask('GET', `/posts?since=${sinceMs}`, {}, signal))?.['posts']),
    days: async (from, until, signal) => readRemoteDays((await ask('GET', `/account/figures?from=${from}&until=${until}`, {}, signal))?.['days']),
    audience: async (signal) => readRemoteAudience(await ask('GET', '/account/audience', {}, signal)),
  };
}

/** Looks at what is public at a stand-in network. */
export function standinOthers(ask: Ask): PublicView {
  return {
    account: async (handle, signal) => readPublicAccount(await ask('GET', `/public/${encodeURIComponent(handle)}`, {}, signal)),
    search: async (words, signal) => readPublicPosts((await ask('GET', `/public/search?words=${encodeURIComponent(words)}`, {}, signal))?.['posts']),
  };
}

/** Reads what people write at a stand-in network, and answers them. */
export function standinTalk(ask: Ask, network: string): TalkLine {
  const idIn = (answer: Record<string, unknown> | null): string | null => (typeof answer?.['id'] === 'string' && answer['id'] !== '' ? answer['id'] : null);
  return {
    async heard(after, signal) {
      const answer = await ask('GET', `/heard?after=${encodeURIComponent(after)}`, {}, signal);
      return { items: readHeard(answer?.['items']), next: typeof answer?.['next'] === 'string' ? answer['next'] : after, more: answer?.['more'] === true };
    },
    async answer(remoteId, text, key, signal) {
      const answer = await ask('POST', `/heard/${encodeURIComponent(remoteId)}/answers`, { json: { text }, key }, signal);
      const id = idIn(answer);
      if (id === null) throw new ConnectorError('broken', `${network} answered without saying where the answer is.`);
      return { remoteId: id };
    },
    async findAnswer(key, signal) {
      const id = idIn(await ask('GET', `/answers/by-key/${encodeURIComponent(key)}`, {}, signal));
      return id === null ? null : { remoteId: id };
    },
    hide: async (remoteId, hidden, signal) => void (await ask('PATCH', `/heard/${encodeURIComponent(remoteId)}`, { json: { hidden } }, signal)),
    remove: async (remoteId, signal) => void (await ask('DELETE', `/heard/${encodeURIComponent(remoteId)}`, {}, signal)),
    tell: async (url, secret, signal) => void (await ask('PUT', '/hook', { json: { url, secret } }, signal)),
  };
}
