import { openAsBlob } from 'node:fs';
import { stat } from 'node:fs/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import type { ChannelOffers } from '../../core/network/channel-offers.ts';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import { readAudience } from '../../core/words/audience.ts';
import { fieldKeys } from '../../core/words/fields.ts';
import { readKeywords } from '../../core/words/keywords.ts';
import { readPoll } from '../../core/words/poll.ts';
import { tagProblem } from '../../core/words/tag-text.ts';
import { readAnswer } from './answer.ts';
import { standinOthers, standinResults, standinTalk } from './standin-results.ts';
import { ConnectorError, type Connector, type ConnectorChannel, type KnownPerson, type OutgoingFile, type OutgoingPost, type Publication, type PublicationHandle, type TagReach } from './connector.ts';

/** A request that has not answered by then counts as unanswered; an upload gets time for its size on top. */
const ANSWER_WITHIN_MS = 15_000;
/** The slowest line that is waited for, in bytes a second. */
const MIN_BYTES_A_SECOND = 64 * 1024;
const MAX_RETRY_AFTER_S = 3_600;

/** Files above this go in parts. */
const IN_PARTS_FROM_BYTES = 4 * 1024 * 1024;
/** An upload survives this many breaks. */
const MAX_BREAKS = 5;
/** While a network processes a file, the connector asks at this interval, this many times; then it waits. */
const PROCESSING_STEP_MS = 500;
const MAX_ASKED_WHILE_PROCESSING = 12;
const PROCESSING_WAIT_MS = 10_000;

type Manner = NetworkSheet['publishing']['manner'];

/** Speaks with a stand-in network over HTTP, in the manner its sheet names. */
export function standinConnector(channel: ConnectorChannel, sheet: NetworkSheet): Connector {
  const manner: Manner = sheet.publishing.manner;
  const base = `${channel.origin}/${channel.network}/api`;

  const ask: Ask = async (method, path, body, signal) => {
    const { json, file, key } = body;
    const bytes = file ? await bytesOf(file) : 0;
    const payload: RequestInit = file
      ? { body: await bodyOf(file), headers: { 'content-type': file.mime } }
      : json === undefined
        ? {}
        : { body: JSON.stringify(json), headers: { 'content-type': 'application/json' } };
    const withinMs = Math.ceil(ANSWER_WITHIN_MS + (bytes / MIN_BYTES_A_SECOND) * 1000);
    let response: Response;
    let text: string;
    try {
      response = await fetch(`${base}${path}`, {
        ...payload,
        method,
        headers: { ...payload.headers, authorization: `Bearer ${channel.token}`, ...(key === undefined ? {} : { 'idempotency-key': key }) },
        signal: AbortSignal.any([signal, AbortSignal.timeout(withinMs)]),
      });
      text = await readAnswer(response);
    } catch (error) {
      throw new ConnectorError('unreachable', `${sheet.name} does not answer.`, null, { cause: error });
    }
    if (response.status === 404 && (method === 'GET' || method === 'DELETE')) return null;
    if (response.status === 204) return null;
    if (!response.ok) throw refusal(sheet.name, response, text);
    return readJson(text, sheet.name);
  };

  const publicationOf = async (handle: PublicationHandle, signal: AbortSignal): Promise<Publication> => {
    const path = manner === 'idempotency-key' ? `/posts/by-key/${encodeURIComponent(handle.idempotencyKey)}` : `/drafts/${encodeURIComponent(handle.remoteDraftId ?? '')}`;
    const answer = await ask('GET', path, {}, signal);
    if (answer?.['published'] === true) return { kind: 'published', address: addressOf(answer, sheet.name) };
    return { kind: answer?.['processing'] === true ? 'processing' : 'absent' };
  };

  return {
    capabilities: { findsPublications: true },
    results: standinResults(ask),
    others: standinOthers(ask),
    talk: sheet.talk === undefined ? null : standinTalk(ask, sheet.name),
    knowledge: {
      offers: async (signal) => readOffers((await ask('GET', '/account', {}, signal))?.['offers']),
      suggestTags: async (start, signal) => readTags((await ask('GET', `/hashtags?start=${encodeURIComponent(start)}`, {}, signal))?.['tags']),
      reachOf: async (tags, signal) => (tags.length === 0 ? [] : readTags((await ask('GET', `/hashtags?tags=${encodeURIComponent(tags.join(','))}`, {}, signal))?.['tags'])),
      trends: async (place, signal) => {
        const answer = await ask('GET', `/trends${place === null ? '' : `?place=${encodeURIComponent(place)}`}`, {}, signal);
        return { places: readTexts(answer?.['places']), tags: readTags(answer?.['tags']) };
      },
      people: async (start, signal) => readPeople((await ask('GET', `/people?start=${encodeURIComponent(start)}`, {}, signal))?.['people']),
    },

    async upload(file, signal) {
      if ((await bytesOf(file)) > IN_PARTS_FROM_BYTES) return { remoteMediaId: await uploadInParts(file, ask, sheet.name, signal) };
      return { remoteMediaId: textOf(await ask('POST', '/media', { file }, signal), 'id', sheet.name) };
    },

    async prepare(post, signal) {
      if (manner === 'idempotency-key') return { remoteDraftId: null };
      return { remoteDraftId: textOf(await ask('POST', '/drafts', { json: wirePost(post) }, signal), 'id', sheet.name) };
    },

    async publish(post, handle, signal) {
      const answer =
        manner === 'idempotency-key'
          ? await ask('POST', '/posts', { json: wirePost(post), key: handle.idempotencyKey }, signal)
          : await ask('POST', `/drafts/${encodeURIComponent(handle.remoteDraftId ?? '')}/publish`, {}, signal);
      return { address: answer?.['processing'] === true ? await whenPublic(() => publicationOf(handle, signal), sheet.name, signal) : addressOf(answer, sheet.name) };
    },

    findPublication: publicationOf,

    async follow(address, { kind, place, text, media }, signal) {
      const path = `/posts/${encodeURIComponent(idIn(address))}`;
      if (kind === 'comment') await ask('POST', `${path}/comment`, { json: { text } }, signal);
      else await ask('POST', `${path}/parts`, { json: { place, text, media: media.map(({ id, altText }) => ({ mediaId: id, altText })) } }, signal);
    },

    async remove(address, signal) {
      await ask('DELETE', `/posts/${encodeURIComponent(idIn(address))}`, {}, signal);
    },

    async rewrite(address, words, signal) {
      return { address: addressOf(await ask('PATCH', `/posts/${encodeURIComponent(idIn(address))}`, { json: { text: words.caption ?? '', ...(words.title === undefined ? {} : { title: words.title }) } }, signal), sheet.name) };
    },
  };
}

/** Asks a network of one account; null for what is not there, and for an answer without content. */
export type Ask = (method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE', path: string, body: { readonly file?: OutgoingFile; readonly json?: unknown; readonly key?: string }, signal: AbortSignal) => Promise<Record<string, unknown> | null>;

/** Uploads a large file in parts. After a break it resumes at the offset that the network reports. */
async function uploadInParts(file: OutgoingFile, ask: Ask, network: string, signal: AbortSignal): Promise<string> {
  const [size, begun] = [await bytesOf(file), await ask('POST', '/uploads', {}, signal)];
  const [path, partBytes] = [`/uploads/${encodeURIComponent(textOf(begun, 'id', network))}`, Number(begun?.['partBytes'] ?? 0)];
  if (!(partBytes > 0)) throw new ConnectorError('broken', `${network} did not say how large a part may be.`);
  const blob = file.kind === 'bytes' ? new Blob([file.bytes as Uint8Array<ArrayBuffer>]) : await openAsBlob(file.path);
  let [offset, breaks] = [0, 0];
  while (offset < size) {
    const part = new Uint8Array(await blob.slice(offset, offset + partBytes).arrayBuffer());
    try {
      offset = Number((await ask('POST', `${path}?offset=${offset}`, { file: { kind: 'bytes', bytes: part, mime: 'application/octet-stream' } }, signal))?.['received']);
    } catch (error) {
      breaks += 1;
      if (breaks > MAX_BREAKS || !(error instanceof ConnectorError) || (error.code !== 'unreachable' && error.code !== 'broken')) throw error;
      offset = Number((await ask('GET', path, {}, signal))?.['received']);
    }
    if (!(offset >= 0 && offset <= size)) throw new ConnectorError('broken', `${network} lost a part of the upload.`);
  }
  return textOf(await ask('POST', `${path}/finish`, {}, signal), 'id', network);
}

/** Waits until the network has processed the post. @throws ConnectorError `processing` when that takes too long */
async function whenPublic(find: () => Promise<Publication>, network: string, signal: AbortSignal): Promise<string> {
  for (let asked = 0; asked < MAX_ASKED_WHILE_PROCESSING; asked += 1) {
    await sleep(PROCESSING_STEP_MS, undefined, { signal });
    const found = await find();
    if (found.kind === 'published') return found.address;
  }
  throw new ConnectorError('processing', `${network} is still processing it.`, PROCESSING_WAIT_MS);
}

/** A post's id on the network: the last part of its address. */
function idIn(address: string): string {
  return new URL(address).pathname.split('/').at(-1) ?? '';
}

/** A file is read while it is sent: a video of 250 MB is never held whole. */
async function bodyOf(file: OutgoingFile): Promise<Blob | Uint8Array<ArrayBuffer>> {
  return file.kind === 'bytes' ? (file.bytes as Uint8Array<ArrayBuffer>) : openAsBlob(file.path, { type: file.mime });
}

async function bytesOf(file: OutgoingFile): Promise<number> {
  return file.kind === 'bytes' ? file.bytes.length : (await stat(file.path)).size;
}

/** The body of a publish request. `words` holds only fields that the network takes. */
function wirePost({ placement, words, media: [first, ...more], along = {} }: OutgoingPost): Record<string, unknown> {
  const { caption, altText: _, poll, audience, tags, ...others } = words;
  return {
    placement,
    ...(caption === undefined ? {} : { text: caption }),
    ...others,
    ...(poll === undefined ? {} : { poll: readPoll(poll) }),
    ...(audience === undefined ? {} : { audience: readAudience(audience) }),
    ...(tags === undefined ? {} : { tags: readKeywords(tags) }),
    altText: first.altText,
    mediaId: first.id,
    more: more.map(({ id, altText }) => ({ mediaId: id, altText })),
    along,
  };
}

const MAX_LISTED = 200;

/** Lists in answers: what has not the wanted form is left out. */
function listOf(value: unknown): readonly Readonly<Record<string, unknown>>[] {
  return Array.isArray(value) ? value.slice(0, MAX_LISTED).filter((each): each is Record<string, unknown> => typeof each === 'object' && each !== null) : [];
}

function readTexts(value: unknown): readonly string[] {
  return Array.isArray(value) ? value.slice(0, MAX_LISTED).filter((each): each is string => typeof each === 'string' && each !== '' && each.length <= 200) : [];
}

function readTags(value: unknown): readonly TagReach[] {
  return listOf(value).flatMap(({ tag, reach }) => (typeof tag === 'string' && tagProblem(tag) === null && typeof reach === 'number' && reach >= 0 ? [{ tag: tag.startsWith('#') ? tag : `#${tag}`, reach }] : []));
}

function readPeople(value: unknown): readonly KnownPerson[] {
  return listOf(value).flatMap(({ name, handle }) => (typeof name === 'string' && typeof handle === 'string' && /^@[\p{L}\p{N}_][\p{L}\p{N}_.-]{0,60}$/u.test(handle) ? [{ name: name.slice(0, 80), handle }] : []));
}

function readOffers(value: unknown): ChannelOffers {
  const lists = typeof value === 'object' && value !== null ? Object.entries(value) : [];
  return Object.fromEntries(lists.filter(([key]) => fieldKeys.some((each) => each === key)).map(([key, list]) => [key, readTexts(list)]));
}

function refusal(network: string, response: Response, text: string): ConnectorError {
  const said = reasonIn(text);
  switch (response.status) {
    case 401:
    case 403:
      return new ConnectorError('ended', `${network} no longer accepts this channel's access. Connect the channel again.`);
    case 429:
      return new ConnectorError('busy', `${network} asks to come back later.`, retryAfterMs(response));
    default:
      return response.status >= 500
        ? new ConnectorError('broken', `${network} has a fault of its own (${response.status}).`, retryAfterMs(response))
        : new ConnectorError('refused', `${network} refused it: ${said}`);
  }
}

/** Networks say why in their own shapes; what is no JSON with a reason is not shown. */
function reasonIn(text: string): string {
  try {
    const body = JSON.parse(text) as { reason?: unknown };
    return typeof body.reason === 'string' ? body.reason.slice(0, 300) : 'it gave no reason.';
  } catch {
    return 'it gave no reason.';
  }
}

function retryAfterMs(response: Response): number | null {
  const seconds = Number(response.headers.get('retry-after') ?? Number.NaN);
  return Number.isFinite(seconds) && seconds >= 0 ? Math.min(seconds, MAX_RETRY_AFTER_S) * 1000 : null;
}

function readJson(text: string, network: string): Record<string, unknown> {
  try {
    const value: unknown = JSON.parse(text);
    if (typeof value === 'object' && value !== null) return value as Record<string, unknown>;
  } catch (error) {
    throw new ConnectorError('broken', `${network} answered something unreadable.`, null, { cause: error });
  }
  throw new ConnectorError('broken', `${network} answered something unreadable.`);
}

function textOf(answer: Record<string, unknown> | null, key: string, network: string): string {
  const value = answer?.[key];
  if (typeof value !== 'string' || value === '') throw new ConnectorError('broken', `${network} answered without '${key}'.`);
  return value;
}

/** The address of a post, only if it is one that a person can safely follow. */
function addressOf(answer: Record<string, unknown> | null, network: string): string {
  const address = textOf(answer, 'url', network);
  if (!/^https?:\/\//.test(address)) throw new ConnectorError('broken', `${network} answered an address that is none.`);
  return address;
}
