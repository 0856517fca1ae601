import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { once } from 'node:events';
import { mkdtempSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import petalry from '../../src/core/network/sheets/petalry.json' with { type: 'json' };
import quipline from '../../src/core/network/sheets/quipline.json' with { type: 'json' };
import type { NetworkSheet } from '../../src/core/network/network-sheet.ts';
import type { Connector } from '../../src/server/connectors/connector.ts';
import { micropubConnector } from '../../src/server/connectors/micropub-connector.ts';
import { standinConnector } from '../../src/server/connectors/standin-connector.ts';
import openweb from '../../src/core/network/sheets/openweb.json' with { type: 'json' };

/** A network that answers whatever a test wants, and remembers what it was asked. */
let answer: (request: IncomingMessage, response: ServerResponse) => void;
const asked: { method: string | undefined; url: string | undefined; headers: IncomingMessage['headers'] }[] = [];
let server: Server;
let origin: string;
const bodies: string[] = [];

beforeEach(async () => {
  asked.length = 0;
  server = createServer((request, response) => {
    asked.push({ method: request.method, url: request.url, headers: request.headers });
    let body = '';
    request.setEncoding('latin1').on('data', (chunk: string) => (body += chunk));
    request.on('end', () => {
      bodies.push(body);
      answer(request, response);
    });
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterEach(async () => {
  server.closeAllConnections();
  server.close();
  await once(server, 'close');
});

const connect = (sheet: unknown): Connector =>
  standinConnector({ network: (sheet as NetworkSheet).key, handle: '@kites', origin, site: null, token: 'secret' }, sheet as NetworkSheet);
const reply = (status: number, body: unknown, headers: Record<string, string> = {}) => (_: IncomingMessage, response: ServerResponse): void => void response.writeHead(status, headers).end(typeof body === 'string' ? body : JSON.stringify(body));
const never = new AbortController().signal;
const picture = { kind: 'bytes' as const, bytes: new Uint8Array([1, 2, 3]), mime: 'image/png' };
const post = { placement: 'post-wide', words: { caption: 'Hello', altText: 'Alt' }, media: [{ id: 'm1', altText: 'Alt' }] as const };
const handle = { idempotencyKey: 'key-1', remoteDraftId: null };

describe('the stand-in connector', () => {
  it('publishes under its idempotency key where a network takes one, and prepares nothing', async () => {
    const connector = connect(quipline);
    expect(await connector.prepare(post, never)).toEqual({ remoteDraftId: null });
    expect(asked).toHaveLength(0);
    answer = reply(201, { published: true, url: 'http://a.example/p/1' });
    expect(await connector.publish(post, handle, never)).toEqual({ address: 'http://a.example/p/1' });
    expect(asked[0]).toMatchObject({ method: 'POST', url: '/quipline/api/posts', headers: { 'idempotency-key': 'key-1', authorization: 'Bearer secret' } });
  });

  it('drafts first where a network wants that, and publishes the draft', async () => {
    const connector = connect(petalry);
    answer = reply(201, { id: 'd 1' });
    expect(await connector.prepare(post, never)).toEqual({ remoteDraftId: 'd 1' });
    answer = reply(201, { url: 'https://a.example/p/2' });
    await connector.publish(post, { ...handle, remoteDraftId: 'd 1' }, never);
    expect(asked.at(-1)).toMatchObject({ url: '/petalry/api/drafts/d%201/publish' });
  });

  it.each([
    ['published', { published: true, url: 'http://a.example/p/1' }, { kind: 'published', address: 'http://a.example/p/1' }],
    ['not published', { published: false }, { kind: 'absent' }],
  ])('finds out that a post is %s', async (_, body, expected) => {
    answer = reply(200, body);
    expect(await connect(quipline).findPublication(handle, never)).toEqual(expected);
    answer = reply(404, {});
    expect(await connect(quipline).findPublication(handle, never)).toEqual({ kind: 'absent' });
  });

  it.each([
    ['400 with a reason', reply(400, { reason: 'No board.' }), 'refused', /refused it: No board\./, null],
    ['422 without JSON', reply(422, '<html>'), 'refused', /gave no reason/, null],
    ['413', reply(413, { reason: 'Too heavy.' }), 'refused', /Too heavy/, null],
    ['401', reply(401, {}), 'ended', /Connect the channel again/, null],
    ['403', reply(403, {}), 'ended', /Connect the channel again/, null],
    ['429 with Retry-After', reply(429, {}, { 'retry-after': '7' }), 'busy', /later/, 7_000],
    ['429 with an absurd Retry-After', reply(429, {}, { 'retry-after': '9999999' }), 'busy', /later/, 3_600_000],
    ['429 without Retry-After', reply(429, {}), 'busy', /later/, null],
    ['500', reply(500, 'oops'), 'broken', /\(500\)/, null],
    ['503 with Retry-After', reply(503, '', { 'retry-after': '3' }), 'broken', /\(503\)/, 3_000],
    ['a page instead of JSON', reply(200, '<html>hello</html>'), 'broken', /unreadable/, null],
    ['JSON without an id', reply(201, {}), 'broken', /without 'id'/, null],
    ['a connection that breaks', (request: IncomingMessage) => void request.socket.destroy(), 'unreachable', /does not answer/, null],
  ] as const)('%s becomes a named error', async (_, how, code, message, retryAfterMs) => {
    answer = how;
    await expect(connect(quipline).upload(picture, never)).rejects.toMatchObject({ name: 'ConnectorError', code, message: expect.stringMatching(message) as string, retryAfterMs });
  });

  it('sends only the fields that the network takes', async () => {
    answer = reply(201, { published: true, url: 'http://a.example/p/1' });
    await connect(quipline).publish(post, handle, never);
    expect(JSON.parse(bodies.at(-1) ?? '')).toEqual({ placement: 'post-wide', text: 'Hello', altText: 'Alt', mediaId: 'm1', more: [], along: {} });
  });

  it('reads a file while it sends it', async () => {
    const path = join(mkdtempSync(join(tmpdir(), 'confetti-send-')), 'video.mp4');
    writeFileSync(path, Buffer.alloc(3_000_000, 7));
    answer = reply(201, { id: 'm9' });
    expect(await connect(quipline).upload({ kind: 'file', path, mime: 'video/mp4' }, never)).toEqual({ remoteMediaId: 'm9' });
    expect([asked.at(-1)?.headers['content-length'], asked.at(-1)?.headers['content-type'], bodies.at(-1)?.length]).toEqual(['3000000', 'video/mp4', 3_000_000]);
  });

  it('does not hand on an address that a browser would run', async () => {
    answer = reply(201, { published: true, url: 'javascript:alert(1)' });
    await expect(connect(quipline).publish(post, handle, never)).rejects.toMatchObject({ code: 'broken' });
  });

  it('stops when its signal aborts', async () => {
    answer = () => undefined;
    const stop = new AbortController();
    const waiting = connect(quipline).upload(picture, stop.signal);
    stop.abort();
    await expect(waiting).rejects.toMatchObject({ code: 'unreachable' });
  });
});

describe('the Micropub connector', () => {
  const site = (): Connector => micropubConnector({ network: 'openweb', handle: '@kites', origin, site: null, token: 'secret' }, openweb as unknown as NetworkSheet);
  const entry = { placement: 'article', words: { title: 'T', caption: 'Hello', hashtags: '#Kite #Wind', slug: 'kite' }, media: [{ id: 'https://a.example/media/1', altText: 'Alt' }] as const };
  /** A site that names its endpoint in its own way, and takes what is sent. */
  const siteWith = (page: string, headers: Record<string, string> = {}) => (request: IncomingMessage, response: ServerResponse): void => {
    if (request.url === '/openweb/@kites') return void response.writeHead(200, headers).end(page);
    if (request.url?.endsWith('q=config')) return void response.writeHead(200).end(JSON.stringify({ 'media-endpoint': `${origin}/files` }));
    response.writeHead(201, { location: request.url === '/files' ? '/media/7' : `${origin}/2026/kite` }).end();
  };

  it.each([
    ['a Link header', '', { link: '<https://other.example>; rel="other", </hub>; rel="hub micropub"' }],
    ['a link element', '<html><head><link rel="micropub" href="/hub"></head></html>', {}],
    ['an a element', '<body><p><a rel="micropub me" href="hub">here</a></p></body>', { }],
  ] as const)('finds the endpoint by %s, and creates an entry with everything in it', async (_, page, headers) => {
    answer = siteWith(page.replace('href="hub"', 'href="/hub"'), headers);
    bodies.length = 0;
    expect(await site().publish(entry, handle, never)).toEqual({ address: `${origin}/2026/kite` });
    expect(asked.at(-1)).toMatchObject({ method: 'POST', url: '/hub', headers: { authorization: 'Bearer secret', 'content-type': 'application/json' } });
    expect(JSON.parse(bodies.at(-1) ?? '')).toEqual({ type: ['h-entry'], properties: { name: ['T'], content: ['Hello'], photo: [{ value: 'https://a.example/media/1', alt: 'Alt' }], category: ['Kite', 'Wind'], 'mp-slug': ['kite'] } });
  });

  it('sends files to the media endpoint that the configuration names', async () => {
    answer = siteWith('', { link: '</hub>; rel=micropub' });
    expect(await site().upload(picture, never)).toEqual({ remoteMediaId: `${origin}/media/7` });
    expect(asked.at(-1)).toMatchObject({ method: 'POST', url: '/files' });
    expect(asked.at(-1)?.headers['content-type']).toMatch(/^multipart\/form-data/);
  });

  it.each([
    ['names no endpoint', (_: IncomingMessage, response: ServerResponse): void => void response.writeHead(200).end('<html></html>'), 'refused', /names no Micropub endpoint/],
    ['ends the access', (request: IncomingMessage, response: ServerResponse): void => (request.url === '/hub' ? void response.writeHead(401).end('{}') : siteWith('', { link: '</hub>; rel=micropub' })(request, response)), 'ended', /Connect the channel again/],
    ['refuses with a reason', (request: IncomingMessage, response: ServerResponse): void => (request.url === '/hub' ? void response.writeHead(400).end('{"error":"invalid_request","error_description":"No."}') : siteWith('', { link: '</hub>; rel=micropub' })(request, response)), 'refused', /refused it: No\./],
    ['says not where the post is', (request: IncomingMessage, response: ServerResponse): void => (request.url === '/hub' ? void response.writeHead(201).end() : siteWith('', { link: '</hub>; rel=micropub' })(request, response)), 'broken', /did not say where/],
  ])('says it when a site %s', async (_, said, code, message) => {
    answer = said;
    await expect(site().publish(entry, handle, never)).rejects.toMatchObject({ code, message: expect.stringMatching(message) });
  });

  describe('keeps to the recommendation', () => {
    const hub = '</hub>; rel=micropub';
    /** A site whose endpoint answers an entry in its own way. */
    const answering = (status: number, headers: Record<string, string> = {}, text = '') => (request: IncomingMessage, response: ServerResponse): void => (request.url === '/hub' ? void response.writeHead(status, headers).end(text) : siteWith('', { link: hub })(request, response));
    const sent = (): unknown => JSON.parse(bodies.at(-1) ?? '{}');

    it('3.1 and RFC 6750: the token goes in the Authorization header, and in no body or address', async () => {
      answer = siteWith('', { link: hub });
      await site().publish(entry, handle, never);
      expect(asked.at(-1)?.headers['authorization']).toBe('Bearer secret');
      expect([asked.map(({ url }) => url).join(' '), bodies.join(' ')].join(' ')).not.toContain('secret');
    });

    it('3.3: an entry is created as JSON with its type and properties as lists', async () => {
      answer = siteWith('', { link: hub });
      await site().publish(entry, handle, never);
      const { type, properties } = sent() as { type: unknown; properties: Record<string, unknown> };
      expect(type).toEqual(['h-entry']);
      expect(Object.values(properties).every(Array.isArray)).toBe(true);
    });

    it.each([201, 202])('3.3.2: %i with Location says where the entry is', async (status) => {
      answer = answering(status, { location: '/2026/here' });
      expect(await site().publish(entry, handle, never)).toEqual({ address: `${origin}/2026/here` });
    });

    it('3.3.3: commands to the endpoint begin with mp-', async () => {
      answer = siteWith('', { link: hub });
      await site().publish(entry, handle, never);
      expect(sent()).toMatchObject({ properties: { 'mp-slug': ['kite'] } });
    });

    it('3.4.1: a text is replaced by its address, as lists, and nothing else is named', async () => {
      answer = answering(204);
      expect(await site().rewrite(`${origin}/2026/kite`, { caption: 'Better', title: 'T2' }, never)).toEqual({ address: `${origin}/2026/kite` });
      expect(sent()).toEqual({ action: 'update', url: `${origin}/2026/kite`, replace: { content: ['Better'], name: ['T2'] } });
    });

    it('3.4: an update may move the entry: 201 with another Location', async () => {
      answer = answering(201, { location: '/2026/moved' });
      expect(await site().rewrite(`${origin}/2026/kite`, { caption: 'Better' }, never)).toEqual({ address: `${origin}/2026/moved` });
    });

    it('3.5: an entry is deleted by its address; one that is gone already counts as deleted', async () => {
      answer = answering(204);
      await site().remove(`${origin}/2026/kite`, never);
      expect(sent()).toEqual({ action: 'delete', url: `${origin}/2026/kite` });
      answer = answering(410);
      await expect(site().remove(`${origin}/2026/kite`, never)).resolves.toBeUndefined();
    });

    it('3.6: a file goes to the media endpoint as multipart, in a part named file', async () => {
      answer = siteWith('', { link: hub });
      bodies.length = 0;
      await site().upload(picture, never);
      expect(bodies.at(-1)).toContain('name="file"');
      expect(asked.at(-1)?.headers['authorization']).toBe('Bearer secret');
    });

    it.each([
      [401, 'unauthorized', 'ended'],
      [403, 'forbidden', 'ended'],
      [403, 'insufficient_scope', 'ended'],
      [400, 'invalid_request', 'refused'],
      [500, '', 'broken'],
    ])('3.8: %i %s means %s', async (status, error, code) => {
      answer = answering(status, {}, JSON.stringify({ error }));
      await expect(site().publish(entry, handle, never)).rejects.toMatchObject({ code });
    });

    it('5.1: the endpoint that the page names first is taken, and a relative one is seen from the page', async () => {
      answer = siteWith('<link rel="micropub" href="/second">', { link: '</hub>; rel="micropub", </other>; rel="micropub"' });
      await site().publish(entry, handle, never);
      expect(asked.at(-1)?.url).toBe('/hub');
    });
  });

  it('cannot say whether a post is out', () => {
    expect(site().capabilities.findsPublications).toBe(false);
  });
});
