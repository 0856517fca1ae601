import { readFile } from 'node:fs/promises';
import { readHashtags } from '../../core/words/read-hashtags.ts';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import { ProblemError } from '../errors.ts';
import { guardedAsk, type GuardedRequest } from '../outside/guarded-fetch.ts';
import { absolute, endpointIn } from '../outside/link-relations.ts';
import { ConnectorError, type Connector, type ConnectorChannel, type OutgoingFile, type OutgoingPost } from './connector.ts';

/** A request that has not answered by then counts as unanswered; an upload gets time for its size on top. */
const ANSWER_WITHIN_MS = 15_000;
/** The slowest line that is waited for, in bytes a second. */
const MIN_BYTES_A_SECOND = 64 * 1024;
const MAX_ANSWER_BYTES = 1024 * 1024;

interface SiteAnswer {
  readonly status: number;
  readonly headers: Headers;
  readonly text: string;
}

const isFine = ({ status }: SiteAnswer): boolean => status >= 200 && status < 300;

/**
 * Publishes on a site of one's own by Micropub (W3C Recommendation, 23 May 2017): the endpoint is found from the site's address, files go to
 * the media endpoint that it names, and a post is created as JSON. A site cannot say whether an entry that it did not acknowledge exists.
 */
export function micropubConnector(channel: ConnectorChannel, sheet: NetworkSheet): Connector {
  const site = channel.site ?? `${channel.origin}/${channel.network}/${channel.handle}`;
  const authorization = { authorization: `Bearer ${channel.token}` };
  // The stand-ins are not on the public internet; a site that a person names is, or is not reached.
  const trustedHosts = channel.origin === '' ? [] : [new URL(channel.origin).host];

  const ask = async (address: string, request: GuardedRequest, signal: AbortSignal, extraMs = 0): Promise<SiteAnswer> => {
    try {
      const { status, headers, bytes } = await guardedAsk(address, { ...request, signal, withinMs: ANSWER_WITHIN_MS + extraMs }, { accept: 'application/json, text/html', mostBytes: MAX_ANSWER_BYTES, trustedHosts });
      return { status, headers, text: bytes.toString('utf8') };
    } catch (error) {
      if (error instanceof ProblemError && error.code === 'not-public') throw new ConnectorError('refused', error.sentence);
      throw new ConnectorError('unreachable', `${sheet.name} does not answer.`, null, { cause: error });
    }
  };
  const endpoint = async (signal: AbortSignal): Promise<string> => {
    const answer = await ask(site, { method: 'GET' }, signal);
    if (!isFine(answer)) throw refusal(sheet.name, answer);
    const found = endpointIn('micropub', answer.headers.get('link'), answer.text, site);
    if (found === null) throw new ConnectorError('refused', `${site} names no Micropub endpoint. Add a link with rel="micropub" to the site.`);
    return found;
  };
  const post = async (body: unknown, signal: AbortSignal): Promise<{ readonly answer: SiteAnswer; readonly micropub: string }> => {
    const micropub = await endpoint(signal);
    return { micropub, answer: await ask(micropub, { method: 'POST', headers: { ...authorization, 'content-type': 'application/json' }, body: Buffer.from(JSON.stringify(body)) }, signal) };
  };

  return {
    capabilities: { findsPublications: false },
    knowledge: null,
    // A site that follows the recommendation tells nothing of who came.
    results: null,
    talk: null,
    others: null,

    async upload(file, signal) {
      const micropub = await endpoint(signal);
      const config = await ask(`${micropub}${micropub.includes('?') ? '&' : '?'}q=config`, { method: 'GET', headers: authorization }, signal);
      if (!isFine(config)) throw refusal(sheet.name, config);
      const media = mediaEndpointIn(config.text, micropub);
      if (media === null) throw new ConnectorError('refused', `${sheet.name} has no media endpoint, so pictures cannot go there.`);
      const bytes = await bytesOf(file);
      const form = new FormData();
      form.append('file', new Blob([bytes], { type: file.mime }), `file.${file.mime.split('/')[1] ?? 'bin'}`);
      const encoded = new Response(form);
      const answer = await ask(media, { method: 'POST', headers: { ...authorization, 'content-type': encoded.headers.get('content-type') ?? '' }, body: new Uint8Array(await encoded.arrayBuffer()) }, signal, Math.ceil((bytes.length / MIN_BYTES_A_SECOND) * 1000));
      return { remoteMediaId: locationOf(sheet.name, answer, media) };
    },

    prepare: () => Promise.resolve({ remoteDraftId: null }),

    async publish(outgoing, _handle, signal) {
      const { answer, micropub } = await post(entryOf(outgoing), signal);
      return { address: locationOf(sheet.name, answer, micropub) };
    },

    async remove(address, signal) {
      const { answer } = await post({ action: 'delete', url: address }, signal);
      // What is gone already is what was wanted.
      if (!isFine(answer) && answer.status !== 404 && answer.status !== 410) throw refusal(sheet.name, answer);
    },

    async rewrite(address, words, signal) {
      const { answer } = await post({ action: 'update', url: address, replace: { content: [words.caption ?? ''], ...(words.title === undefined ? {} : { name: [words.title] }) } }, signal);
      if (!isFine(answer)) throw refusal(sheet.name, answer);
      const moved = answer.headers.get('location');
      return { address: (moved === null ? null : absolute(moved, address)) ?? address };
    },

    findPublication: () => Promise.resolve({ kind: 'absent' }),

    follow: () => Promise.reject(new ConnectorError('refused', `${sheet.name} takes nothing behind an entry.`)),
  };
}

/** A post as an `h-entry`: properties are lists; a picture has its alt text with it. */
function entryOf({ words, media }: OutgoingPost): Record<string, unknown> {
  const { title, caption, hashtags, slug } = words;
  const [first] = media;
  const isVideo = first.mime?.startsWith('video/') ?? false;
  const shown = media.map(({ id, altText }) => (altText === '' || isVideo ? id : { value: id, alt: altText }));
  return {
    type: ['h-entry'],
    properties: {
      ...(title === undefined ? {} : { name: [title] }),
      content: [caption ?? ''],
      [isVideo ? 'video' : 'photo']: shown,
      ...(hashtags === undefined ? {} : { category: readHashtags(hashtags).map((tag) => tag.slice(1)) }),
      ...(slug === undefined ? {} : { 'mp-slug': [slug] }),
    },
  };
}

async function bytesOf(file: OutgoingFile): Promise<Uint8Array<ArrayBuffer>> {
  return (file.kind === 'bytes' ? file.bytes : await readFile(file.path)) as Uint8Array<ArrayBuffer>;
}

function mediaEndpointIn(text: string, base: string): string | null {
  try {
    const config = JSON.parse(text) as { readonly 'media-endpoint'?: unknown };
    return typeof config['media-endpoint'] === 'string' ? absolute(config['media-endpoint'], base) : null;
  } catch {
    return null;
  }
}

/** Where something that was created is: only an address that a person can safely follow. */
function locationOf(network: string, answer: SiteAnswer, base: string): string {
  if (!isFine(answer)) throw refusal(network, answer);
  const address = absolute(answer.headers.get('location') ?? '', base);
  if (!answer.headers.has('location') || address === null || !/^https?:/.test(address)) throw new ConnectorError('broken', `${network} did not say where the post is.`);
  return address;
}

function refusal(network: string, { status, text }: SiteAnswer): ConnectorError {
  if (status === 401 || status === 403) return new ConnectorError('ended', `${network} no longer accepts this channel's access. Connect the channel again.`);
  if (status === 429) return new ConnectorError('busy', `${network} asks to come back later.`);
  return status >= 500 ? new ConnectorError('broken', `${network} has a fault of its own (${status}).`) : new ConnectorError('refused', `${network} refused it: ${saidIn(text)}`);
}

function saidIn(text: string): string {
  try {
    const { error_description: said, error } = JSON.parse(text) as { readonly error_description?: unknown; readonly error?: unknown };
    return typeof said === 'string' ? said.slice(0, 300) : typeof error === 'string' ? error.slice(0, 100) : 'it gave no reason.';
  } catch {
    return 'it gave no reason.';
  }
}
