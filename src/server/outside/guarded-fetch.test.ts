import { once } from 'node:events';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { networkSheetSchema } from '../../core/network/network-sheet.ts';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import { micropubConnector } from '../connectors/micropub-connector.ts';
import { guardedAsk } from './guarded-fetch.ts';

type Answering = (request: IncomingMessage, response: ServerResponse) => void;

/** A site that answers as told, and remembers what it was asked. */
class Site {
  readonly asked: IncomingMessage[] = [];
  answer: Answering = (_, response) => void response.end('Hello');
  readonly #server: Server = createServer((request, response) => {
    this.asked.push(request);
    this.answer(request, response);
  });

  async start(): Promise<void> {
    this.#server.listen(0, '127.0.0.1');
    await once(this.#server, 'listening');
  }
  get host(): string {
    return `127.0.0.1:${(this.#server.address() as AddressInfo).port}`;
  }
  stop(): void {
    this.#server.closeAllConnections();
    this.#server.close();
  }
}

const [site, other] = [new Site(), new Site()];
beforeAll(() => Promise.all([site.start(), other.start()]));
afterAll(() => [site, other].forEach((each) => each.stop()));
const options = () => ({ accept: '*/*', mostBytes: 1_000, trustedHosts: [site.host, other.host] });
const ask = (path = '/') => guardedAsk(`http://${site.host}${path}`, { method: 'GET', headers: { authorization: 'Bearer secret' } }, options());

describe('a request that is redirected', () => {
  it('keeps its credentials on one site, and takes them to no other', async () => {
    site.answer = (request, response) => void (request.url === '/' ? response.writeHead(302, { location: '/there' }).end() : response.end('Here'));
    await ask();
    expect(site.asked.splice(0).map(({ url, headers }) => [url, headers.authorization])).toEqual([['/', 'Bearer secret'], ['/there', 'Bearer secret']]);
    site.answer = (_, response) => void response.writeHead(302, { location: `http://${other.host}/taken` }).end();
    expect((await ask()).address).toBe(`http://${other.host}/taken`);
    expect(other.asked.splice(0).map(({ url, headers }) => [url, headers.authorization])).toEqual([['/taken', undefined]]);
  });

  it('goes to no address that is not public', async () => {
    site.answer = (_, response) => void response.writeHead(302, { location: 'http://10.0.0.1/' }).end();
    await expect(ask()).rejects.toMatchObject({ code: 'not-public' });
  });
});

describe('a site that entries go to', () => {
  const sheet = networkSheetSchema.validateSync(shippedSheets.find(({ key }) => key === 'openweb'));
  const post = { placement: 'article', words: { title: 'Kites', caption: 'Up' }, media: [{ id: 'https://a.example/1.jpg', altText: '' }] as const };
  const publish = (named: { readonly origin: string; readonly site: string }) => micropubConnector({ network: 'openweb', handle: '@kites', token: 'secret', ...named }, sheet).publish(post, { idempotencyKey: 'k', remoteDraftId: null }, AbortSignal.timeout(20_000));

  it('is refused where its own address, or the endpoint that it names, is not public; nothing is sent', async () => {
    site.asked.length = 0;
    await expect(publish({ origin: '', site: `http://${site.host}/` })).rejects.toMatchObject({ code: 'refused' });
    expect(site.asked).toEqual([]);
    site.answer = (_, response) => void response.end('<link rel="micropub" href="http://192.168.0.1/micropub">');
    await expect(publish({ origin: `http://${site.host}`, site: `http://${site.host}/` })).rejects.toMatchObject({ code: 'refused' });
    expect(site.asked.map(({ method }) => method)).toEqual(['GET']);
  });

  it('counts as silent when its page never ends', async () => {
    let sent = 0;
    site.answer = (request, response) => {
      const more = (): void => {
        while (!request.destroyed && response.write('x'.repeat(65_536))) sent += 65_536;
        if (!response.destroyed) response.once('drain', more);
      };
      more();
    };
    await expect(publish({ origin: `http://${site.host}`, site: `http://${site.host}/` })).rejects.toMatchObject({ code: 'unreachable' });
    expect(sent).toBeLessThan(20 * 1024 * 1024);
  });
});
