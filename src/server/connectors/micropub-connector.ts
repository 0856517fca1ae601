import { readFile } from 'node:fs/promises';
import { parse, type DefaultTreeAdapterTypes } from 'parse5';
import { readHashtags } from '../../core/words/read-hashtags.ts';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import type { Channel } from '../db/brand-repository.ts';
import { readAnswer } from './answer.ts';
import { ConnectorError, type Connector, type OutgoingFile, type OutgoingPost } from './connector.ts';

/** A request that has not answered by then counts as unanswered; an upload gets time for its size on top. */
const ANSWER_WITHIN_MS = 15_000;
/** The slowest line that is waited for, in bytes a second. */
const MIN_BYTES_A_SECOND = 64 * 1024;

/**
 * Publishes on a site of one's own by Micropub (W3C Recommendation, 23 May 2017): the endpoint is found from the site's address, files go to
 * the media endpoint that it names, and a post is created as JSON. A site cannot say whether an entry that it did not acknowledge exists.
 */
export function micropubConnector(channel: Channel, sheet: NetworkSheet): Connector {
  const site = `${channel.origin}/${channel.network}/${channel.handle}`;
  const authorization = { authorization: `Bearer ${channel.token}` };

  const ask = async (address: string, init: RequestInit, signal: AbortSignal, extraMs = 0): Promise<{ readonly response: Response; readonly text: string }> => {
    try {
      const response = await fetch(address, { ...init, signal: AbortSignal.any([signal, AbortSignal.timeout(ANSWER_WITHIN_MS + extraMs)]) });
      return { response, text: await readAnswer(response) };
    } catch (error) {
      throw new ConnectorError('unreachable', `${sheet.name} does not answer.`, null, { cause: error });
    }
  };
  const endpoint = async (signal: AbortSignal): Promise<string> => {
    const { response, text } = await ask(site, {}, signal);
    if (!response.ok) throw refusal(sheet.name, response, text);
    const found = endpointIn(response.headers.get('link'), text, site);
    if (found === null) throw new ConnectorError('refused', `${site} names no Micropub endpoint. Add a link with rel="micropub" to the site.`);
    return found;
  };

  return {
    capabilities: { findsPublications: false },
    knowledge: null,

    async upload(file, signal) {
      const micropub = await endpoint(signal);
      const { response: answered, text } = await ask(`${micropub}${micropub.includes('?') ? '&' : '?'}q=config`, { headers: authorization }, signal);
      if (!answered.ok) throw refusal(sheet.name, answered, text);
      const media = mediaEndpointIn(text, micropub);
      if (media === null) throw new ConnectorError('refused', `${sheet.name} has no media endpoint, so pictures cannot go there.`);
      const bytes = await bytesOf(file);
      const form = new FormData();
      form.append('file', new Blob([bytes], { type: file.mime }), 'file');
      const { response, text: said } = await ask(media, { method: 'POST', headers: authorization, body: form }, signal, Math.ceil((bytes.length / MIN_BYTES_A_SECOND) * 1000));
      return { remoteMediaId: locationOf(sheet.name, response, said, media) };
    },

    prepare: () => Promise.resolve({ remoteDraftId: null }),

    async publish(post, _handle, signal) {
      const micropub = await endpoint(signal);
      const { response, text } = await ask(micropub, { method: 'POST', headers: { ...authorization, 'content-type': 'application/json' }, body: JSON.stringify(entryOf(post)) }, signal);
      return { address: locationOf(sheet.name, response, text, micropub) };
    },

    findPublication: () => Promise.resolve({ kind: 'absent' }),
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

/** The endpoint that a page names: in its Link header, else in a `link` or `a` element, the first of all. */
function endpointIn(header: string | null, html: string, base: string): string | null {
  for (const each of header?.split(/,(?=\s*<)/u) ?? []) {
    const [, target, relations = ''] = /^\s*<([^<>]*)>\s*;[^"]*rel="?([^"]*)"?/u.exec(each) ?? [];
    if (target !== undefined && relations.split(/\s+/u).includes('micropub')) return absolute(target, base);
  }
  const target = linkedAs('micropub', parse(html));
  return target === null ? null : absolute(target, base);
}

function linkedAs(relation: string, root: DefaultTreeAdapterTypes.ParentNode): string | null {
  const waiting: DefaultTreeAdapterTypes.ChildNode[] = [...root.childNodes];
  for (let node = waiting.shift(); node; node = waiting.shift()) {
    if (!('tagName' in node)) continue;
    const attribute = (name: string): string | undefined => node.attrs.find((each) => each.name === name)?.value;
    if ((node.tagName === 'link' || node.tagName === 'a') && attribute('rel')?.split(/\s+/u).includes(relation)) return attribute('href') ?? null;
    waiting.unshift(...node.childNodes);
  }
  return null;
}

function mediaEndpointIn(text: string, base: string): string | null {
  try {
    const config = JSON.parse(text) as { readonly 'media-endpoint'?: unknown };
    return typeof config['media-endpoint'] === 'string' ? absolute(config['media-endpoint'], base) : null;
  } catch {
    return null;
  }
}

function absolute(target: string, base: string): string | null {
  return URL.canParse(target, base) ? new URL(target, base).href : null;
}

/** Where something that was created is: only an address that a person can safely follow. */
function locationOf(network: string, response: Response, text: string, base: string): string {
  if (!response.ok) throw refusal(network, response, text);
  const address = absolute(response.headers.get('location') ?? '', base);
  if (!response.headers.has('location') || address === null || !/^https?:/.test(address)) throw new ConnectorError('broken', `${network} did not say where the post is.`);
  return address;
}

function refusal(network: string, response: Response, text: string): ConnectorError {
  if (response.status === 401 || response.status === 403) return new ConnectorError('ended', `${network} no longer accepts this channel's access. Connect the channel again.`);
  if (response.status === 429) return new ConnectorError('busy', `${network} asks to come back later.`);
  return response.status >= 500 ? new ConnectorError('broken', `${network} has a fault of its own (${response.status}).`) : new ConnectorError('refused', `${network} refused it: ${saidIn(text)}`);
}

function saidIn(text: string): string {
  try {
    const { error_description: said, error } = JSON.parse(text) as { readonly error_description?: unknown; readonly error?: unknown };
    return typeof said === 'string' ? said.slice(0, 300) : typeof error === 'string' ? error.slice(0, 100) : 'it gave no reason.';
  } catch {
    return 'it gave no reason.';
  }
}
