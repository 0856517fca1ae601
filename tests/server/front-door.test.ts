import { request as plainRequest, type IncomingHttpHeaders } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startStack, PASSWORD, type Stack } from './stack.ts';
import { endProgram, freePort, startProgram, until } from '../fixtures/programs.ts';

let stack: Stack;
let web: ReturnType<typeof startProgram>;
let port: number;

/** Confetti as it stands behind one proxy that ends TLS. */
beforeAll(async () => {
  stack = await startStack();
  port = await freePort();
  web = startProgram('web.mjs', { ...stack.environment, PORT: String(port), CONFETTI_DEMO: '0', CONFETTI_ORIGIN: 'https://confetti.example', CONFETTI_PROXIES: '1' });
  await until('the server', () => ask('GET', '/sign-in').then(({ status }) => status === 200, () => false));
});
afterAll(async () => {
  await endProgram(web);
  await stack.close();
});

function ask(method: string, path: string, headers: Record<string, string> = {}, body?: unknown): Promise<{ status: number; headers: IncomingHttpHeaders; text: string }> {
  return new Promise((resolve, reject) => {
    const request = plainRequest({ hostname: '127.0.0.1', port, method, path, headers: { host: 'confetti.example', origin: 'https://confetti.example', ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers } }, (response) => {
      let text = '';
      response.setEncoding('utf8').on('data', (chunk: string) => (text += chunk));
      response.once('end', () => resolve({ status: response.statusCode ?? 0, headers: response.headers, text }));
    }).once('error', reject);
    request.end(body === undefined ? undefined : JSON.stringify(body));
  });
}

describe('Confetti behind a proxy', () => {
  it('asks browsers to stay with TLS, on pages, files, redirects and errors', async () => {
    for (const path of ['/sign-in', '/mark.svg', '/', '/api/me', '/%zz']) expect((await ask('GET', path)).headers['strict-transport-security'], path).toMatch(/max-age=31536000/);
    const { status, headers } = await ask('POST', '/api/session', {}, { email: 'ottoline@gullwickkites.example', password: PASSWORD });
    expect(status).toBe(201);
    expect(String(headers['set-cookie'])).toMatch(/HttpOnly; SameSite=Lax; Max-Age=\d+; Secure/);
  });

  it('answers to its own name and writes from its own pages alone', async () => {
    expect((await ask('GET', '/sign-in', { host: 'other.example' })).status).toBe(421);
    expect((await ask('POST', '/api/session', { origin: 'https://other.example' }, { email: 'a@x.example', password: 'x' })).status).toBe(403);
  });

  it('counts guesses by the address that its proxy has written down, and by nothing before it', async () => {
    const guess = (forwarded: string): Promise<number> => ask('POST', '/api/session', { 'x-forwarded-for': forwarded }, { email: 'wren@gullwickkites.example', password: 'guess' }).then(({ status }) => status);
    for (let count = 0; count < 8; count += 1) expect(await guess(`6.6.6.${count}, 203.0.113.7`)).toBe(401);
    expect(await guess('6.6.6.99, 203.0.113.7')).toBe(429);
    // Somebody else, from elsewhere, is not kept out.
    expect(await guess('203.0.113.8')).toBe(401);
  });

  it('sends built files as they are, to be kept where their name holds a hash, and takes nothing else for one', async () => {
    const page = await ask('GET', '/sign-in');
    const [script] = /\/_astro\/[^"]+\.js/.exec(page.text) ?? [];
    const file = await ask('GET', script ?? 'no script');
    expect([file.status, file.headers['cache-control'], file.headers['x-content-type-options']]).toEqual([200, 'public, max-age=31536000, immutable', 'nosniff']);
    expect((await ask('GET', script ?? '', { 'if-none-match': String(file.headers.etag) })).status).toBe(304);
    const mark = await ask('HEAD', '/mark.svg?of=today');
    expect([mark.status, mark.headers['content-type'], mark.headers['cache-control'], mark.text]).toEqual([200, 'image/svg+xml', 'public, max-age=0', '']);
    for (const path of ['/_astro/', '/_astro', '/../server/entry.mjs', '/_astro/..%2f..%2fserver%2fentry.mjs', '/%2e%2e/server/entry.mjs', '/_astro/none.js']) expect((await ask('GET', path)).status, path).not.toBe(200);
    expect((await ask('POST', '/mark.svg')).status).not.toBe(200);
  });

  it('sends downloads in a sandbox, and nothing of people to caches', async () => {
    const { headers } = await ask('GET', '/api/me');
    expect(headers['cache-control']).toContain('no-store');
    const css = await stack.wren.raw('GET', '/api/brands/gullwick/book/css');
    expect([css.headers.get('content-disposition'), css.headers.get('cache-control')]).toEqual([expect.stringContaining('attachment'), 'no-store']);
    const piece = String((await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' })).body['id']);
    const archive = await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece}/archive?as=jpeg`);
    expect(archive.headers.get('content-security-policy')).toBe("sandbox; default-src 'none'");
    await archive.body?.cancel();
  });
});
