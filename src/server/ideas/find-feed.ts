import { ProblemError } from '../errors.ts';
import { guardedFetch } from '../outside/guarded-fetch.ts';
import type { ReadFeed } from '../readers/read-feed.ts';
import { MAX_FEED_BYTES } from '../readers/reading-limits.ts';
import type { Services } from '../services.ts';

const ACCEPT = 'application/rss+xml, application/atom+xml, application/feed+json, application/xml;q=0.9, text/html;q=0.8, */*;q=0.5';
/** Where sites keep their feed when their pages do not name it. */
const USUAL_PATHS = ['feed', 'rss.xml', 'feed.xml', 'atom.xml', 'index.xml', 'feed.json'] as const;

export interface FoundFeed {
  readonly address: string;
  readonly feed: ReadFeed;
}

/**
 * The feed at an address: the address itself, one that its page names, or where sites usually keep one.
 * @throws ProblemError 422 when there is none
 */
export async function findFeedAt(services: Services, address: string, nowMs: number): Promise<FoundFeed> {
  const options = { mostBytes: MAX_FEED_BYTES, trustedHosts: services.settings.trustedHosts, accept: ACCEPT };
  const first = await guardedFetch(address, options);
  const read = async (given: string, bytes: Buffer): Promise<FoundFeed> => ({ address: given, feed: await services.readers.read({ kind: 'feed', text: bytes.toString('utf8'), address: given, nowMs }) });
  if (!first.mime.includes('html')) return read(first.address, first.bytes);
  const named = await services.readers.read({ kind: 'feeds-of-page', html: first.bytes.toString('utf8'), address: first.address });
  for (const candidate of [...named, ...USUAL_PATHS.map((path) => new URL(path, first.address.endsWith('/') ? first.address : `${first.address}/`).href), ...USUAL_PATHS.map((path) => new URL(`/${path}`, first.address).href)].slice(0, 10)) {
    try {
      const fetched = await guardedFetch(candidate, options);
      if (!fetched.mime.includes('html')) return await read(fetched.address, fetched.bytes);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
    }
  }
  throw new ProblemError(422, 'no-feed', 'This page names no feed. Give the address of the feed itself: it often ends with /feed or .xml.');
}
