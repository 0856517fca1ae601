import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { object, string } from 'yup';
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { contract } from '../../contract/contract.ts';
import { ApiProblem, call } from './call.ts';

const answer = object({ number: string().required() });
const add = contract({ method: 'POST', path: '/api/things', summary: 'Add', body: object({ name: string().required() }), answer });
const list = contract({ method: 'GET', path: '/api/things', summary: 'List', answer });

let server: Server;
let asked: string[] = [];
let status = 200;

beforeAll(async () => {
  server = createServer((request, response) => {
    asked.push(request.method ?? '');
    const number = String(asked.length);
    setTimeout(() => response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify({ number, title: 'It is full.', code: 'full' })), 30);
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const real = globalThis.fetch;
  // A page's addresses begin at its own origin.
  vi.stubGlobal('fetch', (address: string, init: RequestInit) => real(`${origin}${address}`, init));
});
afterAll(async () => {
  vi.unstubAllGlobals();
  server.close();
  await once(server, 'close');
});
beforeEach(() => {
  asked = [];
  status = 200;
});

describe('a change', () => {
  it('that is asked for twice while it is on its way is sent once, and both get its answer', async () => {
    expect(await Promise.all([call(add, { body: { name: 'a' } }), call(add, { body: { name: 'a' } })])).toMatchObject([{ number: '1' }, { number: '1' }]);
    expect(asked).toEqual(['POST']);
  });

  it('is sent again once the first has been answered, and when it asks for something else', async () => {
    await call(add, { body: { name: 'a' } });
    await Promise.all([call(add, { body: { name: 'a' } }), call(add, { body: { name: 'b' } })]);
    expect(asked.length).toBe(3);
  });

  it('that fails tells both, and can be tried again', async () => {
    status = 422;
    const [one, two] = await Promise.allSettled([call(add, { body: { name: 'a' } }), call(add, { body: { name: 'a' } })]);
    expect([one, two]).toMatchObject([{ status: 'rejected', reason: expect.any(ApiProblem) }, { status: 'rejected', reason: expect.objectContaining({ code: 'full', message: 'It is full.' }) }]);
    status = 200;
    expect(await call(add, { body: { name: 'a' } })).toMatchObject({ number: '2' });
  });

  it('that outlives its page is sent by itself', async () => {
    await Promise.all([call(add, { body: { name: 'a' } }), call(add, { body: { name: 'a' }, keepalive: true })]);
    expect(asked.length).toBe(2);
  });
});

describe('a question', () => {
  it('is asked as often as somebody asks', async () => {
    await Promise.all([call(list), call(list)]);
    expect(asked).toEqual(['GET', 'GET']);
  });
});
