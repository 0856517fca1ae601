import { mkdtempSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startStandin, type RunningStandin } from '../start.ts';
import { signatureOf } from './hooks.ts';
import { effects, engagementEffect, type Traits } from './effects.ts';
import { ageAt, figuresAt, finalCounts, growth } from './reaction.ts';

const HOUR_MS = 3_600_000;
const START = Date.parse('2026-03-02T12:00:00Z');
const plain: Traits = { kind: 'picture', slides: 1, hour: 12, weekday: 3, interest: 'other', hasFirstComment: false, answeredEarly: false };
const met = (postId: string, traits: Partial<Traits> = {}) => ({ network: 'petalry', handle: '@kites', postId, publishedMs: START, seed: postId, traits: { ...plain, ...traits } });

describe('growth', () => {
  it('begins at nothing, never shrinks and stays below all', () => {
    const ages = [0, 1, 3, 12, 48, 500].map((hours) => growth(hours, 7));
    expect(ages[0]).toBe(0);
    expect(ages).toEqual(ages.toSorted((a, b) => a - b));
    expect(ages.at(-1)).toBeLessThan(1);
  });

  it('is undone by ageAt', () => {
    expect(growth(ageAt(0.6, 7), 7)).toBeCloseTo(0.6, 6);
  });
});

describe('figuresAt', () => {
  it('gives the same whole numbers for the same moment, and never fewer later', () => {
    const early = figuresAt(met('p1', { kind: 'carousel', slides: 6 }), START + 3 * HOUR_MS, START);
    const late = figuresAt(met('p1', { kind: 'carousel', slides: 6 }), START + 72 * HOUR_MS, START);
    expect(figuresAt(met('p1', { kind: 'carousel', slides: 6 }), START + 3 * HOUR_MS, START)).toEqual(early);
    for (const [name, value] of Object.entries(early)) expect([name, Number.isInteger(value), (late[name] ?? 0) >= value]).toEqual([name, true, true]);
    expect(late['slide.6']).toBeLessThan(late['slide.1'] ?? 0);
  });

  it('has the true effects in it, on average', () => {
    const rate = (id: string, traits: Partial<Traits>): number => {
      const { reactions = 0, reach = 1 } = finalCounts(met(id, traits), START);
      return Math.log(reactions / reach);
    };
    const mean = (prefix: string, traits: Partial<Traits>): number => Array.from({ length: 900 }, (_, index) => rate(`${prefix}${index}`, traits)).reduce((sum, each) => sum + each, 0) / 900;
    const base = mean('base', {});
    expect(mean('carousel', { kind: 'carousel', slides: 3 }) - base).toBeCloseTo(effects.kind.carousel, 1);
    expect(mean('evening', { hour: 18 }) - base).toBeCloseTo(effects.evening.effect, 1);
    expect(engagementEffect({ ...plain, weekday: 7, hour: 18 }) - engagementEffect(plain)).toBeCloseTo(0.48, 6);
  });
});

describe('what a stand-in network answers', () => {
  let standin: RunningStandin;
  let token = '';
  let address = '';
  const post = (path: string, body: unknown) => fetch(`${standin.origin}${path}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
  const ask = async (path: string, init: RequestInit = {}) => {
    const response = await fetch(`${standin.origin}/petalry/api${path}`, { ...init, headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json', ...init.headers } });
    return { status: response.status, json: response.status === 204 ? null : ((await response.json()) as Record<string, never>) };
  };

  beforeAll(async () => {
    standin = await startStandin({ dataFolder: mkdtempSync(join(tmpdir(), 'standin-audience-')), port: 0, slowMs: 10 });
    ({ token } = (await (await post('/switchboard/accounts', { network: 'petalry', handle: '@kites', name: 'Kites' })).json()) as { token: string });
    const since = Date.now() - 40 * 24 * HOUR_MS;
    await post('/switchboard/life', { network: 'petalry', handle: '@kites', zone: 'Europe/London', sinceMs: since, ownPosts: true });
    const made = await post('/switchboard/posts', [{ network: 'petalry', handle: '@kites', key: 'one', publishedMs: Date.now() - 5 * 24 * HOUR_MS, placement: 'feed-square', text: 'A kite', title: '', firstComment: '', kind: 'picture', slides: 1 }]);
    address = ((await made.json()) as { addresses: string[] }).addresses[0] ?? '';
  });
  afterAll(() => standin.close());

  const heard = async (after = ''): Promise<{ items: { id: string; kind: string; atMs: number; postId: string | null; text: string }[]; next: string | null }> => (await ask(`/heard?after=${after}`)).json as never;

  it('tells figures of several posts at once, and none of posts that are not there', async () => {
    const id = address.split('/').at(-1) ?? '';
    const { posts } = (await ask(`/posts/figures?ids=${id},pnone`)).json as unknown as { posts: { id: string; figures: Record<string, number> }[] };
    expect(posts.map((each) => each.id)).toEqual([id]);
    expect(posts[0]?.figures['reach']).toBeGreaterThan(100);
    expect((await ask(`/posts/figures?ids=${Array.from({ length: 51 }, () => 'p').join(',')}`)).status).toBe(422);
  });

  it('lists posts that no program made', async () => {
    const { posts } = (await ask('/posts?since=0')).json as unknown as { posts: { text: string }[] };
    expect(posts.length).toBeGreaterThan(1);
  });

  it('stops to tell a figure, and counts one anew, from a moment on', async () => {
    const id = address.split('/').at(-1) ?? '';
    const read = async () => ((await ask(`/posts/figures?ids=${id}`)).json as unknown as { posts: { figures: Record<string, number>; counted: Record<string, number> }[] }).posts[0];
    const before = await read();
    await post('/switchboard/metrics', { network: 'petalry', metric: 'saves', kind: 'stops', atMs: 0 });
    await post('/switchboard/metrics', { network: 'petalry', metric: 'impressions', kind: 'anew', atMs: 0 });
    const after = await read();
    expect([before?.figures['saves'] === undefined, after?.figures['saves']]).toEqual([false, undefined]);
    expect(after?.figures['impressions']).toBeLessThan(before?.figures['impressions'] ?? 0);
    expect(after?.counted).toEqual({ impressions: 2 });
  });

  it('hands out what people wrote in order, page by page, and the same again for the same place', async () => {
    const first = await heard();
    expect(first.items.length).toBeGreaterThan(3);
    expect(first.items.map(({ atMs }) => atMs)).toEqual(first.items.map(({ atMs }) => atMs).toSorted((a, b) => a - b));
    expect((await heard(`${first.items[1]?.atMs}.${first.items[1]?.id}`)).items[0]).toEqual(first.items[2]);
    expect((await heard(first.next ?? '')).items).toEqual([]);
  });

  it('takes an answer once for a key, and hides and removes', async () => {
    const [item] = (await heard()).items;
    const answer = (key: string) => ask(`/heard/${item?.id}/answers`, { method: 'POST', body: JSON.stringify({ text: 'Gladly.' }), headers: { 'idempotency-key': key } });
    const ids = [await answer('k1'), await answer('k1'), await answer('k2')].map(({ json }) => (json as { id?: string } | null)?.id);
    expect([ids[0] === ids[1], ids[0] === ids[2]]).toEqual([true, false]);
    expect((await ask(`/answers/by-key/k1`)).json).toEqual({ id: ids[0] });
    expect((await ask(`/heard/${item?.id}`, { method: 'DELETE' })).status).toBe(204);
    expect((await heard()).items.some(({ id }) => id === item?.id)).toBe(false);
  });

  it('calls an address that asked for it, signed', async () => {
    const calls: { body: string; headers: Record<string, unknown> }[] = [];
    const receiver = createServer((request, response) => {
      let body = '';
      request.on('data', (part) => (body += String(part)));
      request.on('end', () => {
        calls.push({ body, headers: request.headers });
        response.writeHead(204).end();
      });
    });
    await new Promise<void>((resolve) => receiver.listen(0, '127.0.0.1', resolve));
    const secret = 'a-secret-of-some-length';
    await ask('/hook', { method: 'PUT', body: JSON.stringify({ url: `http://127.0.0.1:${(receiver.address() as AddressInfo).port}/in`, secret }) });
    await post('/switchboard/clock', { offsetMs: 12 * 24 * HOUR_MS });
    await post('/switchboard/call-hooks', {});
    await post('/switchboard/call-hooks', {});
    receiver.close();
    expect(calls).toHaveLength(1);
    const [{ body, headers } = { body: '', headers: {} as Record<string, unknown> }] = calls;
    expect(headers['x-hook-signature']).toBe(`sha256=${signatureOf(secret, String(headers['x-hook-timestamp']), body)}`);
    expect((JSON.parse(body) as { items: unknown[] }).items.length).toBeGreaterThan(0);
  });

  it('shows public posts of others and finds them by words', async () => {
    const found = (await ask('/public/search?words=harbour')).json as unknown as { posts: { text: string; handle: string }[] };
    expect(found.posts.length).toBeGreaterThan(0);
    const account = (await ask(`/public/${found.posts[0]?.handle}`)).json as unknown as { followers: number; posts: unknown[] };
    expect([account.followers > 0, account.posts.length > 5]).toEqual([true, true]);
    expect((await ask('/public/@nobody')).status).toBe(404);
  });
});
