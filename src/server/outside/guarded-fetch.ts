import { lookup as dnsLookup, type LookupAddress } from 'node:dns';
import { request as httpRequest, type IncomingMessage } from 'node:http';
import { request as httpsRequest } from 'node:https';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';
import { ProblemError } from '../errors.ts';

export interface GuardedFetchOptions {
  /** An answer with more bytes than this is cut off and refused. */
  readonly mostBytes: number;
  /** Hosts with port (`127.0.0.1:4322`) that may be reached although they are not public; the demo's stand-ins. */
  readonly trustedHosts: readonly string[];
  readonly accept: string;
}

export interface Fetched {
  readonly bytes: Buffer;
  /** Media type without parameters, as the server claims it. */
  readonly mime: string;
  /** Where it came from in the end, after redirects. */
  readonly address: string;
}

const MAX_REDIRECTS = 5;
const WITHIN_MS = 15_000;

/**
 * Fetches an address that a person has given. Only http and https are spoken; only addresses of the public internet are
 * connected to, and what is connected to is the very address that was checked, so that a name cannot mean another one a
 * moment later. Redirects go through the same gate. Size and time are limited.
 * @throws ProblemError 422 saying what is wrong with the address or the answer
 */
export async function guardedFetch(address: string, options: GuardedFetchOptions): Promise<Fetched> {
  const deadline = AbortSignal.timeout(WITHIN_MS);
  let next = readAddress(address, options);
  for (let redirects = 0; redirects <= MAX_REDIRECTS; redirects += 1) {
    const response = await open(next, options, deadline);
    const status = response.statusCode ?? 0;
    const { location } = response.headers;
    if (status >= 300 && status < 400 && location !== undefined) {
      response.destroy();
      next = readAddress(URL.canParse(location, next.href) ? new URL(location, next.href).href : location, options);
      continue;
    }
    if (status !== 200) {
      response.destroy();
      throw new ProblemError(422, 'outside-refused', `${next.hostname} answered ${status}.`);
    }
    const bytes = await readLimited(response, next, options.mostBytes);
    return { bytes, mime: (response.headers['content-type'] ?? '').split(';')[0]?.trim().toLowerCase() ?? '', address: next.href };
  }
  throw new ProblemError(422, 'outside-redirects', `${next.hostname} redirects in circles.`);
}

/** A request as it goes out through the gate. */
export interface GuardedRequest {
  readonly method: 'GET' | 'POST';
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: Uint8Array;
  readonly withinMs?: number;
  readonly signal?: AbortSignal;
}

/** What was answered, whatever its status. */
export interface GuardedAnswer {
  readonly status: number;
  readonly headers: Headers;
  readonly bytes: Buffer;
  /** Where it came from in the end. */
  readonly address: string;
}

/**
 * Asks an address through the same gate and answers any status. Redirects of a GET are followed, without its credentials where they lead to
 * another origin (https://fetch.spec.whatwg.org/#http-redirect-fetch); anything else goes where it was meant to.
 * @throws ProblemError 422 when the address may not be reached, or does not answer
 */
export async function guardedAsk(address: string, request: GuardedRequest, options: GuardedFetchOptions): Promise<GuardedAnswer> {
  const deadline = AbortSignal.any([AbortSignal.timeout(request.withinMs ?? WITHIN_MS), ...(request.signal ? [request.signal] : [])]);
  const first = readAddress(address, options);
  let next = first;
  for (let redirects = 0; redirects <= MAX_REDIRECTS; redirects += 1) {
    const headersHere = next.origin === first.origin ? (request.headers ?? {}) : withoutCredentials(request.headers ?? {});
    const response = await open(next, options, deadline, { method: request.method, headers: headersHere, ...(request.body ? { body: request.body } : {}) });
    const status = response.statusCode ?? 0;
    const { location } = response.headers;
    if (request.method === 'GET' && status >= 300 && status < 400 && location !== undefined) {
      response.destroy();
      next = readAddress(URL.canParse(location, next.href) ? new URL(location, next.href).href : location, options);
      continue;
    }
    const headers = new Headers(Object.entries(response.headers).flatMap(([name, value]): [string, string][] => (value === undefined ? [] : [[name, [value].flat().join(', ')]])));
    return { status, headers, bytes: await readLimited(response, next, options.mostBytes), address: next.href };
  }
  throw new ProblemError(422, 'outside-redirects', `${next.hostname} redirects in circles.`);
}

function withoutCredentials(headers: Readonly<Record<string, string>>): Readonly<Record<string, string>> {
  return Object.fromEntries(Object.entries(headers).filter(([name]) => !['authorization', 'cookie'].includes(name.toLowerCase())));
}

/**
 * Sends JSON to an address that an owner has set, through the same gate. Redirects are not followed: what is sent goes where it was meant to.
 * @throws ProblemError 422 saying what is wrong with the address or the answer
 */
export async function guardedPost(address: string, body: string, headers: Readonly<Record<string, string>>, options: GuardedFetchOptions): Promise<Fetched> {
  const url = readAddress(address, options);
  const response = await open(url, options, AbortSignal.timeout(WITHIN_MS), { method: 'POST', body: Buffer.from(body), headers: { 'content-type': 'application/json', ...headers } });
  const status = response.statusCode ?? 0;
  if (status < 200 || status > 299) {
    response.destroy();
    throw new ProblemError(422, 'outside-refused', `${url.hostname} answered ${status}.`);
  }
  return { bytes: await readLimited(response, url, options.mostBytes), mime: (response.headers['content-type'] ?? '').split(';')[0]?.trim().toLowerCase() ?? '', address: url.href };
}

function readAddress(address: string, { trustedHosts }: GuardedFetchOptions): URL {
  const withScheme = /^[a-z][a-z0-9+.-]*:/i.test(address.trim()) ? address.trim() : `https://${address.trim()}`;
  if (!URL.canParse(withScheme)) throw new ProblemError(422, 'no-address', 'That is no web address.');
  const url = new URL(withScheme);
  if (url.protocol !== 'https:' && url.protocol !== 'http:') throw new ProblemError(422, 'no-address', `Only addresses with https or http can be fetched, not ${url.protocol.slice(0, -1)}.`);
  if (url.username !== '' || url.password !== '') throw new ProblemError(422, 'no-address', 'An address with a name and password in it is not fetched.');
  const host = url.hostname.replace(/^\[|\]$/g, '');
  if (ipaddr.isValid(host) && !isPublic(host) && !trustedHosts.includes(url.host)) throw notPublic(url.hostname);
  return url;
}

function isPublic(address: string): boolean {
  // Addresses of the old protocol in the clothes of the new one are judged by what they mean.
  const read = ipaddr.process(address);
  if (read.kind() === 'ipv6' && (read as ipaddr.IPv6).parts.slice(0, 6).every((part) => part === 0)) return false;
  return read.range() === 'unicast';
}

function notPublic(host: string): ProblemError {
  return new ProblemError(422, 'not-public', `${host} is not on the public internet, so it is not fetched.`);
}

/** Resolves names itself and hands on only public addresses: what connects is what was checked. */
const publicLookup: LookupFunction = (hostname, options, callback) => {
  dnsLookup(hostname, { ...options, all: true }, (error, found) => {
    const addresses = found as LookupAddress[];
    if (error) return callback(error, '', 0);
    const [first] = addresses;
    if (!first || addresses.some(({ address }) => !isPublic(address))) return callback(Object.assign(new Error('not public'), { code: 'NOT_PUBLIC' }), '', 0);
    if (options.all) return (callback as unknown as (error: null, addresses: LookupAddress[]) => void)(null, addresses);
    callback(null, first.address, first.family);
  });
};

function open(url: URL, options: GuardedFetchOptions, signal: AbortSignal, sent: Pick<GuardedRequest, 'method' | 'headers' | 'body'> = { method: 'GET' }): Promise<IncomingMessage> {
  const request = url.protocol === 'https:' ? httpsRequest : httpRequest;
  const isTrusted = options.trustedHosts.includes(url.host);
  return new Promise((resolve, reject) => {
    const headers = { accept: options.accept, 'user-agent': 'Confetti', ...sent.headers, ...(sent.body ? { 'content-length': String(sent.body.byteLength) } : {}) };
    request(url, { signal, method: sent.method, headers, ...(isTrusted ? {} : { lookup: publicLookup }) }, resolve)
      .on('error', (error: NodeJS.ErrnoException) => reject(outsideProblem(error, url)))
      .end(sent.body);
  });
}

function outsideProblem(error: NodeJS.ErrnoException, url: URL): ProblemError {
  if (error.code === 'NOT_PUBLIC') return notPublic(url.hostname);
  if (error.name === 'AbortError' || error.name === 'TimeoutError') return new ProblemError(422, 'outside-slow', `${url.hostname} took longer than ${WITHIN_MS / 1000} seconds.`);
  if (error.code === 'ENOTFOUND' || error.code === 'EAI_AGAIN') return new ProblemError(422, 'outside-unknown', `There is no ${url.hostname}. Check the spelling.`);
  return new ProblemError(422, 'outside-silent', `${url.hostname} does not answer.`);
}

async function readLimited(response: IncomingMessage, url: URL, mostBytes: number): Promise<Buffer> {
  const tooLarge = (): ProblemError => new ProblemError(422, 'too-large', `What lies at ${url.hostname} is larger than ${Math.round(mostBytes / 1024 / 1024)} MB.`);
  if (Number(response.headers['content-length'] ?? 0) > mostBytes) {
    response.destroy();
    throw tooLarge();
  }
  const chunks: Buffer[] = [];
  let bytes = 0;
  try {
    for await (const chunk of response as AsyncIterable<Buffer>) {
      bytes += chunk.length;
      if (bytes > mostBytes) throw tooLarge();
      chunks.push(chunk);
    }
  } catch (error) {
    response.destroy();
    if (error instanceof ProblemError) throw error;
    throw outsideProblem(error as NodeJS.ErrnoException, url);
  }
  // A connection that broke off leaves half an answer.
  const announced = Number(response.headers['content-length'] ?? Number.NaN);
  if (!response.complete || (Number.isFinite(announced) && announced !== bytes)) throw new ProblemError(422, 'outside-broken', `The connection to ${url.hostname} broke off before everything was there. Try again.`);
  return Buffer.concat(chunks);
}
