import { TOTP, Secret } from 'otpauth';
import { statSync } from 'node:fs';
import { request as plainRequest } from 'node:http';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plainBook } from '../../src/core/brand/plain-book.ts';
import { Client, PASSWORD, startStack, type Answer, type Stack } from './stack.ts';
import { until } from '../fixtures/programs.ts';

let stack: Stack;
beforeAll(async () => {
  stack = await startStack();
});
afterAll(() => stack.close());

const signIn = async (email: string, password = PASSWORD, code?: string): Promise<{ client: Client; answer: Answer }> => {
  const client = new Client(stack.origin);
  const answer = await client.ask('POST', '/api/session', { email, password, ...(code === undefined ? {} : { code }) });
  return { client, answer };
};
const owner = async (): Promise<Client> => (await signIn('ottoline@gullwickkites.example')).client;
const secretOf = (answer: Answer): string => String(answer.body['path']).split('#')[1] ?? '';
const invite = async (client: Client, email: string, role: string, brand = 'gullwick'): Promise<string> => secretOf(await client.ask('POST', `/api/brands/${brand}/invitations`, { email, role }));

/** A request with headers that fetch does not let one set. */
const rawStatus = (path: string, headers: Record<string, string>): Promise<number> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(stack.origin);
    plainRequest({ hostname, port, path, headers }, (response) => {
      response.resume();
      resolve(response.statusCode ?? 0);
    })
      .once('error', reject)
      .end();
  });

describe('an invitation', () => {
  it('joins nobody and names nobody by itself, whoever has the address', async () => {
    const ottoline = await owner();
    const [known, unknown] = [await ottoline.ask('POST', '/api/brands/gullwick/invitations', { email: 'hemi@lanternfall.example', role: 'owner' }), await ottoline.ask('POST', '/api/brands/gullwick/invitations', { email: 'nobody@x.example', role: 'owner' })];
    expect([known.status, unknown.status]).toEqual([201, 201]);
    expect(Object.keys(known.body)).toEqual(Object.keys(unknown.body));
    expect(JSON.stringify(known.body)).not.toMatch(/Hemi|password/);
    const people = await ottoline.ask('GET', '/api/brands/gullwick/people');
    expect(JSON.stringify(people.body)).not.toMatch(/hemi@|nobody@/);
  });

  it('lets nobody into an account made from elsewhere: the address alone opens nothing', async () => {
    // A viewer begins a brand of her own, and makes an account for an address that is not hers.
    const { client: tove } = await signIn('tove@gullwickkites.example');
    const begun = await tove.ask('POST', '/api/brands', { name: 'Her own', zone: 'UTC', handle: '@own', book: plainBook, networks: [] });
    expect(begun.status).toBe(201);
    const slug = String(begun.body['slug']);
    const thief = new Client(stack.origin);
    expect((await thief.ask('POST', '/api/invitations/accept', { secret: await invite(tove, 'new@gullwickkites.example', 'viewer', slug), newcomer: { name: 'Not Her', email: 'new@gullwickkites.example', newPassword: 'a password of mine' } })).status).toBe(201);
    // The owner invites the same address as owner: the account made before is no member.
    const secret = await invite(await owner(), 'new@gullwickkites.example', 'owner');
    expect((await thief.ask('GET', '/api/brands/gullwick')).status).toBe(404);
    // Whoever has the link joins under an account of their own.
    const rightful = new Client(stack.origin);
    const taken = await rightful.ask('POST', '/api/invitations/accept', { secret, newcomer: { name: 'Herself', email: 'new@gullwickkites.example', newPassword: 'my own long words' } });
    expect([taken.status, taken.body['code']]).toEqual([409, 'address-taken']);
    expect((await rightful.ask('POST', '/api/invitations/accept', { secret, newcomer: { name: 'Herself', email: 'herself@gullwickkites.example', newPassword: 'my own long words' } })).status).toBe(201);
    expect((await rightful.ask('GET', '/api/brands/gullwick/invitations')).status).toBe(200);
  });

  it('works once, also when it is accepted three times at once, and ends', async () => {
    const ottoline = await owner();
    const secret = await invite(ottoline, 'twice@x.example', 'writer');
    const read = await new Client(stack.origin).ask('POST', '/api/invitations/read', { secret });
    expect(read.body).toMatchObject({ brandName: 'Gullwick Kite Works', role: 'writer', madeBy: 'Ottoline Brack', email: 'twice@x.example' });
    const answers = await Promise.all(['a', 'b', 'c'].map((name) => new Client(stack.origin).ask('POST', '/api/invitations/accept', { secret, newcomer: { name: `Once ${name}`, email: `${name}-once@x.example`, newPassword: 'a dozen letters' } })));
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 404, 404]);
    const second = await ottoline.ask('POST', '/api/brands/gullwick/invitations', { email: 'ended@x.example', role: 'writer' });
    const { id } = second.body['invitation'] as unknown as { id: string };
    expect((await ottoline.ask('DELETE', `/api/brands/gullwick/invitations/${id}`)).status).toBe(204);
    expect((await new Client(stack.origin).ask('POST', '/api/invitations/read', { secret: secretOf(second) })).status).toBe(404);
    const third = await invite(ottoline, 'late@x.example', 'writer');
    await stack.services.db('one_time_links').where({ email: 'late@x.example' }).update({ expires_ms: stack.services.clock.machineNowMs() - 1 });
    expect((await new Client(stack.origin).ask('POST', '/api/invitations/read', { secret: third })).body['code']).toBe('link-ended');
  });

  it('is kept as a hash', async () => {
    const secret = await invite(await owner(), 'hash@x.example', 'viewer');
    expect(JSON.stringify(await stack.services.db('one_time_links').select('*'))).not.toContain(secret);
  });
});

describe('a password', () => {
  it('is changed with the old one; other sessions, streams and tokens end', async () => {
    const { client } = await signIn('caspian@gullwickkites.example');
    const { client: other } = await signIn('caspian@gullwickkites.example');
    const token = new Client(stack.origin, String((await client.ask('POST', '/api/tokens', { name: 't', scope: 'read', days: 7 })).body['token']));
    const events = await other.raw('GET', '/api/brands/gullwick/events');
    const ended = (async () => {
      for await (const _ of events.body as unknown as AsyncIterable<Uint8Array>);
      return true;
    })();
    expect((await client.ask('POST', '/api/password', { password: 'not it', newPassword: 'another dozen letters' })).status).toBe(422);
    expect((await client.ask('POST', '/api/password', { password: PASSWORD, newPassword: 'short' })).status).toBe(422);
    expect((await client.ask('POST', '/api/password', { password: PASSWORD, newPassword: 'another dozen letters' })).status).toBe(204);
    expect([(await client.ask('GET', '/api/me')).status, (await other.ask('GET', '/api/me')).status, (await token.ask('GET', '/api/me')).status]).toEqual([200, 401, 401]);
    expect(await ended).toBe(true);
    expect((await signIn('caspian@gullwickkites.example')).answer.status).toBe(401);
    expect((await signIn('caspian@gullwickkites.example', 'another dozen letters')).answer.status).toBe(201);
  });

  it('cannot be guessed through a session that somebody left open', async () => {
    const { client } = await signIn('tove@gullwickkites.example');
    const guesses = [];
    for (let count = 0; count < 9; count += 1) guesses.push((await client.ask('POST', '/api/password', { password: `guess ${count}`, newPassword: 'another dozen letters' })).status);
    expect(guesses).toEqual([422, 422, 422, 422, 422, 422, 422, 422, 429]);
  });
});

describe('guessing', () => {
  it('is not helped by a header that names another address', async () => {
    const guess = (count: number): Promise<Answer> => new Client(stack.origin).ask('POST', '/api/session', { email: 'hemi@lanternfall.example', password: 'guess' }, { 'x-forwarded-for': `203.0.113.${count}` });
    for (let count = 0; count < 8; count += 1) expect((await guess(count)).status).toBe(401);
    expect((await guess(9)).status).toBe(429);
  });

  it('from elsewhere keeps nobody out where they have signed in before', async () => {
    const { db, clock } = stack.services;
    await signIn('ottoline@gullwickkites.example');
    const nowMs = clock.machineNowMs();
    await db('sign_in_attempts').insert(Array.from({ length: 80 }, (_, index) => ({ subject: index % 2 === 0 ? 'account:ottoline@gullwickkites.example' : `address:198.51.100.${index}`, at_ms: nowMs })));
    await db('sign_in_attempts').insert(Array.from({ length: 60 }, () => ({ subject: 'account:ottoline@gullwickkites.example', at_ms: nowMs })));
    expect((await signIn('ottoline@gullwickkites.example')).answer.status).toBe(201);
    await db('known_addresses').delete();
    expect((await signIn('ottoline@gullwickkites.example')).answer.status).toBe(429);
    await db('sign_in_attempts').delete();
  });
});

describe('the second step', () => {
  it('asks for a code that counts once, or a recovery code', async () => {
    const { client } = await signIn('wren@gullwickkites.example');
    const offer = await client.ask('POST', '/api/second-step/offers', {});
    const secret = String(offer.body['secret']);
    const totp = new TOTP({ secret: Secret.fromBase32(secret) });
    expect((await client.ask('POST', '/api/second-step', { password: PASSWORD, secret, code: '000000' })).status).toBe(422);
    const code = totp.generate();
    const begun = await client.ask('POST', '/api/second-step', { password: PASSWORD, secret, code });
    expect(begun.status).toBe(201);
    const recovery = begun.body['recoveryCodes'] as unknown as string[];
    expect(recovery).toHaveLength(8);
    expect(JSON.stringify(await stack.services.db('people').select('*'))).not.toContain(secret);
    expect((await signIn('wren@gullwickkites.example')).answer.body['code']).toBe('code-needed');
    // The same code has been used by switching it on.
    expect((await signIn('wren@gullwickkites.example', PASSWORD, code)).answer.body['code']).toBe('wrong-code');
    expect((await signIn('wren@gullwickkites.example', PASSWORD, recovery[0])).answer.status).toBe(201);
    expect((await signIn('wren@gullwickkites.example', PASSWORD, recovery[0])).answer.status).toBe(401);
    const next = totp.generate({ timestamp: Date.now() + 30_000 });
    expect((await signIn('wren@gullwickkites.example', PASSWORD, next)).answer.status).toBe(201);
    expect((await client.ask('POST', '/api/second-step/end', { password: PASSWORD, code: recovery[1] })).status).toBe(204);
    expect((await signIn('wren@gullwickkites.example')).answer.status).toBe(201);
  });
});

describe('sessions', () => {
  it('are listed and ended, and end by themselves when idle', async () => {
    const { client } = await signIn('ottoline@gullwickkites.example');
    const { client: other } = await signIn('ottoline@gullwickkites.example');
    const sessions = (await client.ask('GET', '/api/sessions')).body['sessions'] as unknown as { id: string; isThis: boolean }[];
    expect(sessions.filter(({ isThis }) => isThis)).toHaveLength(1);
    expect((await client.ask('DELETE', '/api/sessions')).status).toBe(204);
    expect([(await client.ask('GET', '/api/me')).status, (await other.ask('GET', '/api/me')).status]).toEqual([200, 401]);
    await stack.services.db('sessions').update({ last_used_ms: stack.services.clock.machineNowMs() - 8 * 86_400_000 });
    expect((await client.ask('GET', '/api/me')).status).toBe(401);
  });

  it('streams end with the session, and with the membership', async () => {
    const ottoline = await owner();
    const secret = await invite(ottoline, 'short@x.example', 'viewer');
    const guest = new Client(stack.origin);
    await guest.ask('POST', '/api/invitations/accept', { secret, newcomer: { name: 'Short Stay', email: 'short@x.example', newPassword: 'a dozen letters' } });
    const events = await guest.raw('GET', '/api/brands/gullwick/events');
    let isOpen = true;
    void (async () => {
      for await (const _ of events.body as unknown as AsyncIterable<Uint8Array>);
      isOpen = false;
    })();
    const people = (await ottoline.ask('GET', '/api/brands/gullwick/people')).body['people'] as unknown as { id: string; email: string }[];
    const { id } = people.find(({ email }) => email === 'short@x.example') ?? { id: '' };
    expect((await ottoline.ask('DELETE', `/api/brands/gullwick/people/${id}`)).status).toBe(204);
    await until('the end of the stream', () => !isOpen, 15_000);
  });
});

describe('tokens', () => {
  it('reach as far as their scope, end, and make no tokens', async () => {
    const { client } = await signIn('ottoline@gullwickkites.example');
    const make = async (scope: string): Promise<Client> => new Client(stack.origin, String((await client.ask('POST', '/api/tokens', { name: scope, scope, days: 7 })).body['token']));
    const [read, makes, sends] = [await make('read'), await make('make'), await make('send')];
    const create = (each: Client): Promise<Answer> => each.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' });
    expect([(await create(read)).body['code'], (await create(makes)).status]).toEqual(['scope-too-low', 201]);
    const post = '/api/brands/gullwick/posts/none/cancel';
    expect([(await makes.ask('POST', post, {})).status, (await sends.ask('POST', post, {})).status]).toEqual([403, 404]);
    for (const [method, path, body] of [['POST', '/api/tokens', { name: 'x' }], ['GET', '/api/tokens'], ['POST', '/api/password', { password: PASSWORD, newPassword: 'another dozen letters' }], ['GET', '/api/sessions'], ['POST', '/api/brands/gullwick/invitations', { email: 'a@x.example', role: 'owner' }]] as const) {
      expect((await sends.ask(method, path, body)).body['code'], path).toBe('session-needed');
    }
    await stack.services.db('access_tokens').where({ name: 'read' }).update({ expires_ms: stack.services.clock.machineNowMs() - 1 });
    expect((await read.ask('GET', '/api/me')).status).toBe(401);
    expect((await client.ask('POST', '/api/tokens', { name: 'for ever', scope: 'read', days: 100_000 })).status).toBe(422);
  });
});

describe('what stands before everything', () => {
  it('answers files and redirects with nosniff, names nobody else, and reads no broken address', async () => {
    for (const path of ['/mark.svg', '/', '/sign-in', '/api/me']) expect((await new Client(stack.origin).raw('GET', path)).headers.get('x-content-type-options'), path).toBe('nosniff');
    expect(await rawStatus('/sign-in', { host: 'evil.example' })).toBe(421);
    expect([await rawStatus('/api/brands/%zz', {}), await rawStatus('/b/%zz', {}), await rawStatus('/%c0%af', {})]).toEqual([400, 400, 400]);
  });

  it('sends nobody elsewhere after signing in', async () => {
    const { client } = await signIn('ottoline@gullwickkites.example');
    for (const next of ['%2F%09%2Fevil.example', '%2F%0A%2Fevil.example', '%2F%0D%2Fevil.example', '%2F%5Cevil.example', 'https:%2F%2Fevil.example']) {
      const page = await (await client.raw('GET', `/sign-in?next=${next}`)).text();
      expect(page).not.toMatch(/evil\.example/);
    }
  });

  it('keeps its files to its own user', () => {
    expect(['', 'confetti.db', 'demo.json', 'confetti.key'].map((name) => statSync(join(stack.dataFolder, name)).mode & 0o077)).toEqual([0, 0, 0, 0]);
  });

  it('says the true reason when a role may not do something', async () => {
    const { client } = await signIn('tove@gullwickkites.example');
    const answer = await client.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' });
    expect(answer.body['title']).toBe('As reviewer of Gullwick Kite Works you may not make or change pieces and media. Ask one of its owners, designers or writers.');
  });
});
