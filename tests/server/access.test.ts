import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Client, PASSWORD, startStack, type Stack } from './stack.ts';

let stack: Stack;
beforeAll(async () => {
  stack = await startStack();
});
afterAll(() => stack.close());

const signIn = async (email: string): Promise<Client> => {
  const client = new Client(stack.origin);
  expect((await client.ask('POST', '/api/session', { email, password: PASSWORD })).status).toBe(201);
  return client;
};

describe('signing in', () => {
  it('opens a session with the right password, and ends it', async () => {
    const client = await signIn('wren@gullwickkites.example');
    const me = await client.ask('GET', '/api/me');
    expect(me.body['person']).toMatchObject({ name: 'Wren Adeyemi-Holt' });
    expect(me.body['brands']).toMatchObject([{ slug: 'gullwick', role: 'designer', zone: 'Europe/London' }, { slug: 'lanternfall', zone: 'Pacific/Auckland' }]);
    await client.ask('DELETE', '/api/session');
    expect((await client.ask('GET', '/api/me')).status).toBe(401);
  });

  it('keeps the cookie from scripts and from other sites', async () => {
    const answer = await new Client(stack.origin).ask('POST', '/api/session', { email: 'tove@gullwickkites.example', password: PASSWORD });
    expect(answer.headers.get('set-cookie')).toMatch(/HttpOnly; SameSite=Lax/);
  });

  it('answers a wrong password and an unknown person alike', async () => {
    const client = new Client(stack.origin);
    const wrong = await client.ask('POST', '/api/session', { email: 'ottoline@gullwickkites.example', password: 'guess' });
    const unknown = await client.ask('POST', '/api/session', { email: 'nobody@gullwickkites.example', password: 'guess' });
    expect([wrong.status, unknown.status]).toEqual([401, 401]);
    expect(wrong.body['title']).toBe(unknown.body['title']);
  });

  it('stops guessing after some attempts, even with the right password', async () => {
    const client = new Client(stack.origin);
    const attempt = (password: string) => client.ask('POST', '/api/session', { email: 'caspian@gullwickkites.example', password });
    for (let count = 0; count < 8; count += 1) expect((await attempt(`guess ${count}`)).status).toBe(401);
    const blocked = await attempt(PASSWORD);
    expect(blocked.status).toBe(429);
    expect(blocked.headers.get('retry-after')).toBe('600');
  });

  it('says what is missing in the form', async () => {
    const answer = await new Client(stack.origin).ask('POST', '/api/session', { email: 'no address', password: '' });
    expect(answer.status).toBe(422);
    expect(answer.headers.get('content-type')).toBe('application/problem+json');
    expect(answer.body['fields']).toMatchObject([{ path: 'email' }, { path: 'password' }]);
  });
});

describe('every page and endpoint', () => {
  it.each(['/', '/account', '/b/gullwick/make/pieces', '/b/gullwick/send/outbox'])('%s sends a stranger to sign in', async (path) => {
    const response = await new Client(stack.origin).raw('GET', path);
    expect(response.status).toBe(302);
    expect(response.headers.get('location')).toBe(`/sign-in?next=${encodeURIComponent(path)}`);
  });

  it.each(['/api/me', '/api/brands/gullwick', '/api/brands/gullwick/media', '/api/openapi.json', '/fonts/figtree/figtree-500.ttf'])('%s answers a stranger 401', async (path) => {
    expect((await new Client(stack.origin).raw('GET', path)).status).toBe(401);
  });

  it('sends headers that keep foreign scripts and frames out', async () => {
    const response = await new Client(stack.origin).raw('GET', '/sign-in');
    expect(response.headers.get('content-security-policy')).toMatch(/script-src 'self' 'wasm-unsafe-eval' 'sha256-/);
    expect(response.headers.get('content-security-policy')).toMatch(/frame-ancestors 'none'/);
    expect(response.headers.get('x-content-type-options')).toBe('nosniff');
  });

  it('refuses a write that comes from another site', async () => {
    const client = await signIn('ottoline@gullwickkites.example');
    const answer = await client.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' }, { origin: 'https://elsewhere.example' });
    expect([answer.status, answer.body['code']]).toEqual([403, 'foreign-origin']);
  });

  it('shows a brand to its own people only, and lets a reviewer look but not change', async () => {
    const hemi = await signIn('hemi@lanternfall.example');
    expect((await hemi.ask('GET', '/api/brands/gullwick')).status).toBe(404);
    expect((await hemi.ask('GET', '/api/brands/lanternfall')).status).toBe(200);
    const tove = await signIn('tove@gullwickkites.example');
    expect((await tove.ask('GET', '/api/brands/gullwick/pieces')).status).toBe(200);
    const write = await tove.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' });
    expect([write.status, write.body['code']]).toEqual([403, 'role-too-low']);
  });

  it('never shows a channel’s token', async () => {
    const response = await stack.wren.raw('GET', '/api/brands/gullwick');
    const text = await response.text();
    expect(text).not.toMatch(/petalry_|quipline_|token|origin/);
  });

  it('answers unknown addresses and methods in its one error shape', async () => {
    expect((await stack.wren.ask('GET', '/api/nowhere')).body).toMatchObject({ status: 404, code: 'not-found' });
    const wrongMethod = await stack.wren.raw('DELETE', '/api/me');
    expect([wrongMethod.status, wrongMethod.headers.get('allow')]).toEqual([405, 'GET']);
    expect((await stack.wren.raw('POST', '/api/brands/gullwick/pieces', { body: '{', headers: { 'content-type': 'application/json' } })).status).toBe(400);
  });
});

describe('access tokens', () => {
  it('are shown once, work without a cookie, and end when revoked', async () => {
    const client = await signIn('wren@gullwickkites.example');
    const made = await client.ask('POST', '/api/tokens', { name: 'import', scope: 'make', days: 30 });
    expect(made.status).toBe(201);
    const secret = String(made.body['token']);
    const script = new Client(stack.origin, secret);
    expect((await script.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' }, { origin: '' })).status).toBe(201);
    const listed = await client.ask('GET', '/api/tokens');
    expect(JSON.stringify(listed.body)).not.toContain(secret);
    const rows = await stack.services.db('access_tokens').select('*');
    expect(JSON.stringify(rows)).not.toContain(secret);
    const { id } = made.body['info'] as unknown as { id: string };
    expect((await client.ask('DELETE', `/api/tokens/${id}`)).status).toBe(204);
    expect((await script.ask('GET', '/api/me')).status).toBe(401);
  });
});

describe('the OpenAPI document', () => {
  it('describes every endpoint with the schemas that check it', async () => {
    const { body } = await stack.wren.ask('GET', '/api/openapi.json');
    expect(body['openapi']).toBe('3.1.0');
    const paths = body['paths'] as unknown as Record<string, Record<string, { requestBody?: { content: Record<string, { schema: Record<string, unknown> }> }; parameters?: { name: string; in: string }[] }>>;
    const count = Object.values(paths).reduce((sum, methods) => sum + Object.keys(methods).length, 0);
    expect(count).toBeGreaterThan(25);
    const schedule = paths['/api/brands/{brand}/pieces/{piece}/deliveries']?.['post'];
    expect(schedule?.parameters?.map((parameter) => parameter.name)).toEqual(['brand', 'piece']);
    expect(schedule?.requestBody?.content['application/json']?.schema).toMatchObject({
      type: 'object',
      additionalProperties: false,
      required: ['revision', 'cuts', 'when'],
      properties: { cuts: { type: 'array', minItems: 1 }, when: { properties: { kind: { enum: ['now', 'at'] } } } },
    });
    for (const [path, methods] of Object.entries(paths)) {
      for (const operation of Object.values(methods)) {
        for (const name of [...path.matchAll(/\{(\w+)\}/g)].map((match) => match[1])) expect(operation.parameters?.some((parameter) => parameter.name === name && parameter.in === 'path')).toBe(true);
      }
    }
  });
});
