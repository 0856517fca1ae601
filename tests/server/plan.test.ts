import sharp from 'sharp';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { Piece } from '../../src/core/piece/piece.ts';
import type { Plan } from '../../src/core/plan/plan.ts';
import { wallTimeOf } from '../../src/core/time/wall-time.ts';
import { findBrandBySlug, type Brand } from '../../src/server/db/brand-repository.ts';
import { makeReal } from '../../src/server/plan/make-real.ts';
import { remind } from '../../src/server/plan/remind.ts';
import { clearQueue, Client, PASSWORD, sendDue, startStack, type Answer, type Stack } from './stack.ts';

let stack: Stack;
let brand: Brand;
let channels: ReadonlyMap<string, string>;
const ZONE = 'Europe/London';
const DAY_MS = 86_400_000;

beforeAll(async () => {
  stack = await startStack();
  const found = await findBrandBySlug(stack.services.db, 'gullwick');
  if (!found) throw new Error('no brand');
  brand = found;
  channels = new Map((await stack.services.db('channels').where({ brand_id: brand.id }).select('network_key', 'id')).map((row: { network_key: string; id: string }) => [row.network_key, row.id]));
  await reset();
});
afterAll(() => stack.close());
afterEach(async () => {
  Object.assign(stack.clock, { aheadMs: 0, stoppedAtMs: null });
  await reset();
});

/** Nothing waits, nothing is in slots, and the rota is empty. */
async function reset(): Promise<void> {
  const { db } = stack.services;
  await clearQueue(stack);
  for (const table of ['queue_entries', 'slot_fills', 'plan_entries', 'repeats', 'rotation_runs', 'rotations', 'plan_problems']) await db(table).where(table === 'slot_fills' || table === 'queue_entries' ? { brand_id: brand.id } : { brand_id: brand.id }).delete();
  await db('plans').where({ brand_id: brand.id }).update({ held_since_ms: null });
  await db('deliveries').where({ brand_id: brand.id }).whereIn('state', ['scheduled', 'held', 'sending']).update({ state: 'cancelled' });
  await db('posts').where({ brand_id: brand.id }).whereIn('state', ['scheduled', 'held', 'sending']).update({ state: 'cancelled' });
}

const ask = (method: string, path: string, body?: unknown): Promise<Answer> => stack.wren.ask(method, `/api/brands/gullwick${path}`, body);
const nowMs = (): Promise<number> => stack.services.clock.nowMs();
const channel = (network: string): string => channels.get(network) ?? '';
const wallIn = async (days: number, time: string): Promise<string> => `${wallTimeOf((await nowMs()) + days * DAY_MS, ZONE).slice(0, 10)}T${time}`;
const made = (): Promise<number> => makeReal(stack.services, brand);

let count = 0;
/** A quote that passes preflight everywhere. */
async function makePiece(headline?: string): Promise<{ readonly id: string; readonly revision: number; readonly document: Piece }> {
  count += 1;
  const created = (await ask('POST', '/pieces', { template: 'aside' })).body as unknown as { id: string; revision: number };
  const changed = await ask('PATCH', `/pieces/${created.id}`, {
    revision: created.revision,
    patches: [
      { op: 'add', path: '/frames/0/slots/headline', value: { kind: 'text', text: headline ?? `Wind is free, ${count}` } },
      { op: 'replace', path: '/words/shared/caption', value: `Planned number ${count}` },
      { op: 'replace', path: '/words/shared/altText', value: 'A quote' },
    ],
  });
  return changed.body as unknown as { id: string; revision: number; document: Piece };
}

const rule = (id: string, weekday: number, time: string, rest: Readonly<Record<string, unknown>> = {}) => ({ id, week: 0, weekday, time, themeId: null, channelIds: [channel('petalry')], from: null, until: null, ...rest });

/** Gives the brand a rota. */
async function keepRota(rules: readonly unknown[], rest: Readonly<Record<string, unknown>> = {}): Promise<Answer> {
  const { revision, plan } = (await ask('GET', '/plan')).body as unknown as { revision: number; plan: Plan };
  return ask('POST', '/plan', { revision, plan: { ...plan, apart: { themeTwice: false, template: 0, picture: 0 }, ...rest, rota: { ...plan.rota, rules, pauses: [] } } });
}
const daily = (time: string, rest: Readonly<Record<string, unknown>> = {}) => [1, 2, 3, 4, 5, 6, 7].map((weekday) => rule(`d${weekday}`, weekday, time, rest));

interface Lanes {
  readonly outings: readonly { readonly postId: string; readonly pieceId: string; readonly channelId: string; readonly state: string; readonly wall: string; readonly origin: string; readonly hasChanged: boolean }[];
  readonly entries: readonly { readonly id: string; readonly wall: string; readonly pieceId: string | null; readonly name: string }[];
  readonly fills: readonly { readonly slotKey: string; readonly channelId: string; readonly wall: string; readonly kind: string; readonly pieceId: string | null; readonly why: string | null }[];
  readonly lanes: readonly { readonly channelId: string; readonly dryAtMs: number | null; readonly open: number; readonly slots: number }[];
}
const lanes = async (days = 7, filters = ''): Promise<Lanes> => (await ask('GET', `/plan/lanes?from=${(await wallIn(0, '00:00')).slice(0, 10)}&days=${days}${filters}`)).body as unknown as Lanes;
const outingsOf = async (pieceId: string, days = 21): Promise<Lanes['outings']> => (await lanes(days)).outings.filter((each) => each.pieceId === pieceId);

describe('a rota', () => {
  it('makes slots, is refused with two of them at one minute, and tells who was slower', async () => {
    expect((await keepRota(daily('23:50'))).status).toBe(200);
    expect((await lanes()).fills.filter(({ kind }) => kind === 'open').length).toBeGreaterThanOrEqual(6);
    const clash = await keepRota([rule('a', 1, '09:00'), rule('b', 1, '09:00')]);
    expect([clash.status, clash.body['code']]).toEqual([422, 'slot-clash']);
    expect((await keepRota([rule('a', 1, '09:00', { channelIds: ['nobody'] })])).body['code']).toBe('unknown-channel');
    expect((await keepRota([rule('a', 1, '09:00', { themeId: 'nothing' })])).body['code']).toBe('unknown-theme');
    const { plan } = (await ask('GET', '/plan')).body as unknown as { plan: Plan };
    const stale = await ask('POST', '/plan', { revision: 1, plan });
    expect([stale.status, stale.body['code'], (stale.body['current'] as unknown as { plan: Plan }).plan.rota.rules.length]).toEqual([409, 'stale-revision', 7]);
  });

  it('shows what another one would do, and keeps nothing of it', async () => {
    await keepRota(daily('23:50'));
    const { plan } = (await ask('GET', '/plan')).body as unknown as { plan: Plan };
    const { body } = await ask('POST', '/plan/what-if', { plan: { ...plan, rota: { ...plan.rota, rules: [rule('x', 3, '10:00', { channelIds: [channel('quipline')] })] } }, days: 84 });
    const slots = (which: string): number => (body[which] as unknown as Lanes['lanes']).find(({ channelId }) => channelId === channel('quipline'))?.slots ?? -1;
    expect([slots('now'), slots('then')]).toEqual([0, 12]);
    expect(((await ask('GET', '/plan')).body as unknown as { plan: Plan }).plan.rota.rules).toHaveLength(7);
  });
});

describe('the queue', () => {
  it('is filled into slots once, however often and by however many that is done, and the piece waits no longer', async () => {
    await keepRota(daily('23:50', { channelIds: [channel('petalry'), channel('quipline')] }));
    const piece = await makePiece();
    const added = await ask('POST', '/plan/queue', { pieceId: piece.id, channelIds: [channel('petalry'), channel('quipline')], cuts: [] });
    expect([added.status, (added.body['added'] as unknown as string[]).length]).toEqual([201, 2]);
    expect(((await ask('POST', '/plan/queue', { pieceId: piece.id, channelIds: [channel('petalry')], cuts: [] })).body['added'] as unknown as string[]).length).toBe(0);
    const foreseen = (await lanes(2)).fills.filter(({ pieceId }) => pieceId === piece.id);
    expect(foreseen).toHaveLength(2);
    const rounds = await Promise.all([made(), made(), made()]);
    expect(rounds.reduce((sum, each) => sum + each, 0)).toBe(1);
    expect(await made()).toBe(0);
    const outings = await outingsOf(piece.id);
    expect(outings.map(({ channelId, origin, wall }) => [channelId, origin, wall]).toSorted()).toEqual([[channel('petalry'), 'slot', foreseen[0]?.wall], [channel('quipline'), 'slot', foreseen[0]?.wall]].toSorted());
    expect(((await ask('GET', '/plan/queue')).body['items'] as unknown as unknown[]).length).toBe(0);
  });

  it('keeps in the plan what preflight stops, with the reason in Today, until it is mended', async () => {
    await keepRota(daily('23:50'));
    const created = (await ask('POST', '/pieces', { template: 'aside' })).body as unknown as { id: string; revision: number };
    await ask('POST', '/plan/queue', { pieceId: created.id, channelIds: [channel('petalry')], cuts: [] });
    expect(await made()).toBe(0);
    const need = async (): Promise<unknown> => ((await ask('GET', '/today')).body['needs'] as unknown as { kind: string; pieceId: string; sentence: string }[]).find(({ kind, pieceId }) => kind === 'preflight' && pieceId === created.id);
    expect(await need()).toMatchObject({ sentence: expect.stringContaining('Quote is empty') });
    await ask('PATCH', `/pieces/${created.id}`, { revision: created.revision, patches: [{ op: 'add', path: '/frames/0/slots/headline', value: { kind: 'text', text: 'Mended' } }] });
    expect(await made()).toBe(1);
    expect(await need()).toBeUndefined();
  });

  it('shows what another order changes before it is kept, shuffles by a seed, and refuses an order of other pieces', async () => {
    await keepRota(daily('23:50'));
    const pieces = [await makePiece(), await makePiece(), await makePiece()];
    for (const { id } of pieces) await ask('POST', '/plan/queue', { pieceId: id, channelIds: [channel('petalry')], cuts: [] });
    const order = async (): Promise<readonly string[]> => ((await ask('GET', `/plan/queue?channel=${channel('petalry')}`)).body['items'] as unknown as { id: string }[]).map(({ id }) => id);
    const [a = '', b = '', c = ''] = await order();
    const preview = await ask('POST', '/plan/queue-order', { channelId: channel('petalry'), order: [c, a, b], keep: false });
    expect((preview.body['moves'] as unknown as unknown[]).length).toBe(3);
    expect(await order()).toEqual([a, b, c]);
    expect((await ask('POST', '/plan/queue-order', { channelId: channel('petalry'), order: [c, a, b], keep: true })).status).toBe(200);
    expect(await order()).toEqual([c, a, b]);
    const shuffled = (await ask('POST', '/plan/queue-order', { channelId: channel('petalry'), order: [c, a, b], seed: 3, keep: false })).body['order'] as unknown as string[];
    expect(shuffled.toSorted()).toEqual([a, b, c].toSorted());
    expect((await ask('POST', '/plan/queue-order', { channelId: channel('petalry'), order: [a, b], keep: true })).body['code']).toBe('queue-changed');
    expect((await ask('DELETE', `/plan/queue/${a}`)).status).toBe(204);
    expect(await order()).toEqual([c, b]);
  });

  it('shows on a wall what its network says stands there, each as the cut of its place', async () => {
    const piece = await makePiece();
    const [feed, story] = [{ channelId: channel('petalry'), placement: 'feed-portrait' }, { channelId: channel('petalry'), placement: 'story' }];
    const { revision } = (await ask('PATCH', `/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'replace', path: '/cuts', value: [feed, story] }] })).body as unknown as { revision: number };
    expect((await ask('POST', `/pieces/${piece.id}/deliveries`, { revision, cuts: [feed, story], when: { kind: 'at', wall: await wallIn(2, '10:00') } })).status).toBe(201);
    const tiles = (await ask('GET', `/plan/profile?channel=${channel('petalry')}`)).body['tiles'] as unknown as { pieceId: string; placement: string; kind: string }[];
    expect(tiles.filter(({ pieceId }) => pieceId === piece.id)).toMatchObject([{ placement: 'feed-portrait', kind: 'planned' }]);
    const sizeOf = async (query: string): Promise<number> => {
      const picture = await sharp(await (await stack.wren.raw('GET', `/api/brands/gullwick/pieces/${piece.id}/thumbnail?${query}`)).arrayBuffer()).metadata();
      return picture.height / picture.width;
    };
    expect(await Promise.all([`channel=${feed.channelId}&placement=story`, `channel=${feed.channelId}&placement=feed-portrait`].map(sizeOf))).toEqual([expect.closeTo(16 / 9, 1), expect.closeTo(5 / 4, 1)]);
  });
});

describe('a slot', () => {
  it('is one person’s, also when two take it at once, and free again when its post is cancelled or moved', async () => {
    await keepRota(daily('23:50'));
    const [slot] = (await lanes(3)).fills;
    const spot = { kind: 'slot', slotKey: slot?.slotKey };
    const [one, two] = [await makePiece(), await makePiece()];
    const both = await Promise.all([one, two].map(({ id }) => ask('POST', '/plan/places', { pieceId: id, channelIds: [channel('petalry')], spot })));
    expect(both.map(({ status }) => status).toSorted()).toEqual([201, 409]);
    expect(both.find(({ status }) => status === 409)?.body['code']).toBe('slot-taken');
    const postId = (both.find(({ status }) => status === 201)?.body['postIds'] as unknown as string[])[0] ?? '';
    expect((await lanes(3)).fills.some(({ slotKey }) => slotKey === slot?.slotKey)).toBe(false);
    await ask('POST', '/plan/changes', { postIds: [postId], entryIds: [], change: { kind: 'move', spot: { kind: 'at', wall: await wallIn(3, '10:00') } } });
    expect((await lanes(3)).fills.some(({ slotKey }) => slotKey === slot?.slotKey)).toBe(true);
    await ask('POST', '/plan/changes', { postIds: [postId], entryIds: [], change: { kind: 'move', spot } });
    await ask('POST', '/plan/changes', { postIds: [postId], entryIds: [], change: { kind: 'cancel' } });
    expect((await lanes(3)).fills.some(({ slotKey }) => slotKey === slot?.slotKey)).toBe(true);
  });

  it('is held and released with others; what has passed is released by itself alone, and what waits for nothing is told', async () => {
    const spots = [await wallIn(2, '10:10'), await wallIn(2, '11:10')].map((wall) => ({ kind: 'at', wall }));
    const postIds: string[] = [];
    for (const spot of spots) postIds.push(...((await ask('POST', '/plan/places', { pieceId: (await makePiece()).id, channelIds: [channel('petalry')], spot })).body['postIds'] as unknown as string[]));
    const act = (kind: string) => ask('POST', '/plan/changes', { postIds, entryIds: [], change: { kind } });
    const states = async (): Promise<readonly string[]> => (await stack.services.db('deliveries').whereIn('post_id', postIds).pluck('state')) as string[];
    expect((await act('hold')).body).toMatchObject({ done: 2, problems: [] });
    expect(await states()).toEqual(['held', 'held']);
    expect((await act('hold')).body).toMatchObject({ done: 0, problems: ['Only what is scheduled can be held.'] });
    await stack.services.db('posts').where({ id: postIds[0] }).update({ due_ms: 1 });
    expect((await act('release')).body).toMatchObject({ done: 1, problems: ['The moment of a held post has passed. Move it first, or send it from the outbox.'] });
    expect((await states()).toSorted()).toEqual(['held', 'scheduled']);
    expect((await act('cancel')).body).toMatchObject({ done: 2, problems: [] });
  });

  it('keeps a draft where preflight stops the piece, and a placeholder without one; both are moved, and the draft is scheduled once it passes', async () => {
    await keepRota(daily('23:50'));
    const [slot] = (await lanes(3)).fills;
    const empty = (await ask('POST', '/pieces', { template: 'aside' })).body as unknown as { id: string; revision: number };
    const draft = await ask('POST', '/plan/places', { pieceId: empty.id, channelIds: [channel('petalry')], spot: { kind: 'slot', slotKey: slot?.slotKey } });
    expect(draft.body).toMatchObject({ kind: 'draft', sentence: expect.stringContaining('Quote is empty') });
    const holder = await ask('POST', '/plan/places', { pieceId: null, text: 'Something about Big Blow here', channelIds: [channel('petalry')], spot: { kind: 'at', wall: await wallIn(2, '08:00') } });
    expect(holder.body['kind']).toBe('placeholder');
    expect((await lanes(3)).entries.map(({ name }) => name).toSorted()).toEqual(['Something about Big Blow here', 'Untitled piece']);
    const shifted = await ask('POST', '/plan/changes', { postIds: [], entryIds: [holder.body['entryId']], change: { kind: 'shift', days: 1 } });
    expect(shifted.body).toMatchObject({ done: 1, before: [{ wall: await wallIn(2, '08:00') }] });
    await ask('PATCH', `/pieces/${empty.id}`, { revision: empty.revision, patches: [{ op: 'add', path: '/frames/0/slots/headline', value: { kind: 'text', text: 'Full' } }] });
    const scheduled = await ask('POST', '/plan/places', { pieceId: empty.id, channelIds: [channel('petalry')], spot: { kind: 'slot', slotKey: slot?.slotKey }, entryId: draft.body['entryId'] });
    expect([scheduled.status, scheduled.body['kind']]).toEqual([201, 'post']);
    expect((await lanes(3)).entries.map(({ name }) => name)).toEqual([]);
    expect((await ask('POST', '/plan/places', { pieceId: empty.id, channelIds: [channel('petalry')], spot: { kind: 'slot', slotKey: 'gone@2031-01-01' } })).status).toBe(404);
  });
});

describe('two people', () => {
  it('dragging one post: the second is told, and nothing is moved twice', async () => {
    const piece = await makePiece();
    const placed = await ask('POST', '/plan/places', { pieceId: piece.id, channelIds: [channel('petalry')], spot: { kind: 'at', wall: await wallIn(2, '10:00') } });
    const postId = (placed.body['postIds'] as unknown as string[])[0] ?? '';
    const { revision } = (await ask('GET', `/posts/${postId}`)).body as unknown as { revision: number };
    const move = async (time: string): Promise<Answer> => ask('POST', '/plan/changes', { postIds: [postId], entryIds: [], change: { kind: 'move', revision, spot: { kind: 'at', wall: await wallIn(2, time) } } });
    expect((await move('11:00')).body['done']).toBe(1);
    const late = await move('12:00');
    expect([late.body['done'], (late.body['problems'] as unknown as string[])[0]]).toEqual([0, 'Somebody else has just moved or changed this post. Look again.']);
    expect((await outingsOf(piece.id)).map(({ wall }) => wall.slice(11))).toEqual(['11:00']);
  });

  it('moving a post that is being sent changes nothing and says so', async () => {
    const piece = await makePiece();
    const placed = await ask('POST', '/plan/places', { pieceId: piece.id, channelIds: [channel('petalry')], spot: { kind: 'at', wall: await wallIn(1, '10:00') } });
    const postId = (placed.body['postIds'] as unknown as string[])[0] ?? '';
    await stack.services.db('deliveries').where({ post_id: postId }).update({ state: 'sending' });
    await stack.services.db('posts').where({ id: postId }).update({ state: 'sending' });
    const moved = await ask('POST', '/plan/changes', { postIds: [postId], entryIds: [], change: { kind: 'shift', days: 1 } });
    expect(moved.body).toMatchObject({ done: 0, problems: [expect.stringContaining('already on its way')] });
  });
});

describe('holding everything', () => {
  it('lets nothing out, tells what was missed, and times it anew by the chosen rule', async () => {
    const piece = await makePiece();
    const later = await makePiece();
    for (const [each, days] of [[piece, 1], [later, 5]] as const) await ask('POST', '/plan/places', { pieceId: each.id, channelIds: [channel('petalry')], spot: { kind: 'at', wall: await wallIn(days, '10:00') } });
    expect((await ask('POST', '/plan/hold', {})).body['held']).toBe(2);
    expect((await ask('POST', '/plan/hold', {})).status).toBe(409);
    stack.clock.aheadMs = 2 * DAY_MS;
    await sendDue(stack);
    expect((await outingsOf(piece.id)).map(({ state }) => state)).toEqual([]);
    const states = async (): Promise<readonly string[]> => (await stack.services.db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').whereIn('posts.piece_id', [piece.id, later.id]).orderBy('deliveries.due_ms').pluck('deliveries.state')) as string[];
    expect(await states()).toEqual(['held', 'held']);
    stack.clock.aheadMs = 0;
    const { db } = stack.services;
    await db('deliveries').whereIn('post_id', db('posts').where({ piece_id: piece.id }).select('id')).update({ due_ms: (await nowMs()) - DAY_MS });
    const preview = (await ask('POST', '/plan/release', { rule: 'drop', keep: false })).body['releases'] as unknown as { isMissed: boolean; atMs: number | null }[];
    expect(preview.map(({ isMissed, atMs }) => [isMissed, atMs === null])).toEqual([[true, true], [false, false]]);
    expect(await states()).toEqual(['held', 'held']);
    await ask('POST', '/plan/release', { rule: 'keep-order', keep: true });
    expect(await states()).toEqual(['scheduled', 'scheduled']);
    await sendDue(stack);
    expect(await states()).toEqual(['sent', 'scheduled']);
    expect((await ask('POST', '/plan/release', { rule: 'now', keep: true })).status).toBe(409);
  });
});

describe('a repeat', () => {
  const start = async (pieceId: string, document: Piece, rule: string, rest: Readonly<Record<string, unknown>> = {}): Promise<Answer> => ask('POST', `/pieces/${pieceId}/repeats`, { rule, start: await wallIn(1, '10:00'), cuts: document.cuts.filter((cut) => cut.channelId === channel('petalry')).slice(0, 1), ...rest });

  it('stands two weeks ahead, once each, and changes by one, by those that follow, or whole', async () => {
    const piece = await makePiece();
    const started = await start(piece.id, piece.document, 'FREQ=DAILY;COUNT=10');
    expect([started.status, (started.body['next'] as unknown as number[]).length]).toEqual([201, 6]);
    expect(await outingsOf(piece.id)).toHaveLength(10);
    expect(await made()).toBe(0);
    const id = String(started.body['id']);
    const change = async (days: number, reach: string, to: string | null): Promise<Answer> => ask('POST', `/repeats/${id}`, { occurrence: await wallIn(days, '10:00'), reach, to });
    expect((await change(2, 'this', await wallIn(2, '15:30'))).status).toBe(200);
    expect((await change(3, 'this', null)).status).toBe(200);
    await made();
    expect((await outingsOf(piece.id)).filter(({ state }) => state !== 'cancelled').map(({ wall }) => wall.slice(11))).toEqual(['10:00', '15:30', ...Array.from({ length: 7 }, () => '10:00')]);
    expect((await change(8, 'following', null)).status).toBe(200);
    expect(await outingsOf(piece.id)).toHaveLength(6);
    expect((await change(40, 'this', null)).status).toBe(404);
    expect((await change(1, 'all', null)).status).toBe(200);
    expect(await outingsOf(piece.id)).toHaveLength(0);
  });

  it('is refused when it is none, never comes, or repeats by the second; one of 10,000 times costs nothing', async () => {
    const piece = await makePiece();
    expect((await start(piece.id, piece.document, 'FREQ=SECONDLY')).body['code']).toBe('not-a-repeat');
    expect((await start(piece.id, piece.document, 'FREQ=DAILY;UNTIL=20200101')).body['code']).toBe('never-comes');
    const begun = performance.now();
    expect((await start(piece.id, piece.document, 'FREQ=WEEKLY;COUNT=10000')).status).toBe(201);
    expect(performance.now() - begun).toBeLessThan(20_000);
    expect(await outingsOf(piece.id)).toHaveLength(2);
  });

  it('asks once where clocks leave its time out', async () => {
    const piece = await makePiece();
    const night = { start: await wallIn(1, '01:30') };
    const refused = await start(piece.id, piece.document, 'FREQ=WEEKLY', night);
    expect([refused.status, refused.body['code']]).toEqual([409, 'clock-change']);
    expect((await start(piece.id, piece.document, 'FREQ=WEEKLY', { ...night, isClockAgreed: true })).status).toBe(201);
  });
});

describe('a rotation', () => {
  it('sends each wording in turn, as the piece says it, once a slot', async () => {
    await keepRota(daily('23:50'));
    const piece = await makePiece();
    const changed = await ask('PATCH', `/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'add', path: '/variants', value: [{ id: 'second', text: 'The same wind, said differently' }] }] });
    const { document } = changed.body as unknown as { document: Piece };
    const cut = document.cuts.find(({ channelId }) => channelId === channel('petalry'));
    const settings = { cuts: [cut], wordings: ['own', 'second'], pictures: [''], pairDays: 30, restDays: 1, lastDay: null, maxRuns: null, season: null };
    expect((await ask('POST', `/pieces/${piece.id}/rotation`, { settings, isOn: true })).body['distinct']).toBe(2);
    expect((await ask('POST', `/pieces/${piece.id}/rotation`, { settings: { ...settings, wordings: ['third'] }, isOn: true })).body['code']).toBe('unknown-wording');
    for (const day of [0, 1]) {
      stack.clock.aheadMs = day * DAY_MS;
      expect(await made()).toBe(1);
    }
    const captions = (await stack.services.db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').where({ 'posts.piece_id': piece.id }).orderBy('deliveries.due_ms').pluck('deliveries.words')) as string[];
    expect(captions.map((words) => (JSON.parse(words) as { caption: string }).caption)).toEqual([document.words.shared.caption, 'The same wind, said differently']);
    // The same piece as it is: a turn is no change of it.
    stack.clock.aheadMs = 0;
    expect((await outingsOf(piece.id)).map(({ hasChanged, origin }) => [hasChanged, origin])).toEqual([[false, 'rotation'], [false, 'rotation']]);
    stack.clock.aheadMs = 2 * DAY_MS;
    expect(await made()).toBe(0);
    const { items } = (await ask('GET', '/plan/rotations')).body as unknown as { items: { pieceId: string; ran: number; distinct: number }[] };
    expect(items.find(({ pieceId }) => pieceId === piece.id)).toMatchObject({ ran: 2, distinct: 2 });
  });
});

describe('what a piece is about', () => {
  it('changes no post, and filters the plan', async () => {
    const piece = await makePiece();
    await ask('POST', '/plan/places', { pieceId: piece.id, channelIds: [channel('petalry')], spot: { kind: 'at', wall: await wallIn(2, '10:00') } });
    expect((await ask('PATCH', `/pieces/${piece.id}/plan`, { themeId: 'loft', labels: ['Shop', 'shop', 'Kits'], subject: 'For the window', notes: 'Ask Tove' })).status).toBe(204);
    expect((await ask('GET', `/pieces/${piece.id}/plan`)).body).toMatchObject({ themeId: 'loft', labels: ['Kits', 'shop'], subject: 'For the window', notes: 'Ask Tove' });
    const [outing] = await outingsOf(piece.id);
    expect(outing?.hasChanged).toBe(false);
    expect((await lanes(7, '&label=kits')).outings.map(({ pieceId }) => pieceId)).toEqual([piece.id]);
    expect((await lanes(7, '&label=nothing')).outings).toEqual([]);
    await ask('POST', '/plan/changes', { postIds: [outing?.postId], entryIds: [], change: { kind: 'campaign', campaignId: 'big-blow' } });
    expect((await lanes(7, '&campaign=big-blow')).outings.map(({ pieceId }) => pieceId)).toEqual([piece.id]);
    const { body } = await ask('GET', '/plan/campaigns/big-blow');
    expect((body['outings'] as unknown as Lanes['outings']).some(({ pieceId }) => pieceId === piece.id)).toBe(true);
  });
});

describe('calendars', () => {
  const bring = (text: string): Promise<Response> => stack.wren.raw('POST', '/api/brands/gullwick/plan/days', { body: text, headers: { 'content-type': 'application/octet-stream' } });
  const calendar = (events: string): string => `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\n${events}END:VCALENDAR\r\n`;

  it('are read for their days, whole or by the hour, and refused when they are none or too large', async () => {
    const whole = 'BEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:20261224\r\nDTEND;VALUE=DATE:20261227\r\nSUMMARY:Loft closed\r\nEND:VEVENT\r\n';
    const hour = 'BEGIN:VEVENT\r\nUID:2\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:20261205T160000Z\r\nDTEND:20261205T190000Z\r\nSUMMARY:Lantern walk\r\nEND:VEVENT\r\n';
    expect(await (await bring(calendar(whole + hour))).json()).toEqual({ days: [{ name: 'Loft closed', from: '2026-12-24', until: '2026-12-26' }, { name: 'Lantern walk', from: '2026-12-05', until: '2026-12-05' }] });
    expect([(await bring('no calendar')).status, (await bring(calendar(''))).status]).toEqual([422, 422]);
    expect((await bring(calendar(whole.repeat(40_000)))).status).toBe(413);
  });

  it('are offered under a secret address that ends when another one is made', async () => {
    const piece = await makePiece('For the calendar');
    await ask('POST', '/plan/places', { pieceId: piece.id, channelIds: [channel('petalry')], spot: { kind: 'at', wall: await wallIn(2, '10:00') } });
    const path = String((await ask('POST', '/plan/feed', {})).body['path']);
    const stranger = new Client(stack.origin);
    const feed = await stranger.raw('GET', path);
    expect([feed.status, feed.headers.get('content-type')]).toEqual([200, 'text/calendar; charset=utf-8']);
    expect(await feed.text()).toContain('SUMMARY:For the calendar');
    await ask('POST', '/plan/feed', {});
    expect((await stranger.raw('GET', path)).status).toBe(404);
    const second = String((await ask('POST', '/plan/feed', {})).body['path']);
    await ask('DELETE', '/plan/feed');
    expect((await stranger.raw('GET', second)).status).toBe(404);
  });
});

describe('Today', () => {
  it('tells the truth: failed, changed and held stand in it, and go when they are done with', async () => {
    const piece = await makePiece();
    await ask('POST', '/plan/places', { pieceId: piece.id, channelIds: [channel('petalry')], spot: { kind: 'at', wall: await wallIn(2, '10:00') } });
    const kinds = async (): Promise<readonly string[]> => ((await ask('GET', '/today')).body['needs'] as unknown as { kind: string; pieceId: string | null }[]).filter(({ pieceId, kind }) => pieceId === piece.id || kind === 'held').map(({ kind }) => kind);
    expect(await kinds()).toEqual([]);
    const current = (await ask('GET', `/pieces/${piece.id}`)).body as unknown as { revision: number };
    await ask('PATCH', `/pieces/${piece.id}`, { revision: current.revision, patches: [{ op: 'replace', path: '/words/shared/caption', value: 'Another caption' }] });
    expect(await kinds()).toEqual(['changed']);
    const [outing] = await outingsOf(piece.id);
    await ask('POST', `/posts/${outing?.postId ?? ''}/refresh`);
    expect(await kinds()).toEqual([]);
    await ask('POST', '/plan/hold', {});
    expect(await kinds()).toEqual(['held']);
    await ask('POST', '/plan/release', { rule: 'now', keep: true });
    await stack.services.db('deliveries').where({ post_id: outing?.postId }).update({ state: 'failed', problem: 'Refused: no.' });
    expect(await kinds()).toEqual(['failed']);
  });
});

describe('suggestions', () => {
  it('name open slots of the piece’s theme and good moments with reasons', async () => {
    await keepRota(daily('23:50'), { themes: ((await ask('GET', '/plan')).body as unknown as { plan: Plan }).plan.themes });
    const { body } = await ask('POST', '/plan/suggestions', { channelIds: [channel('petalry')], themeId: 'loft' });
    const { slots, suggestions } = body as unknown as { slots: { slotKey: string }[]; suggestions: { wall: string; reasons: string[] }[] };
    expect([slots.length, suggestions.length, suggestions.every(({ reasons }) => reasons.length >= 2)]).toEqual([6, 4, true]);
  });
});

describe('a scheduled post', () => {
  it('takes words of its own on one channel, within what its network takes, and its piece stays; several are refreshed at once', async () => {
    const piece = await makePiece();
    await ask('POST', '/plan/places', { pieceId: piece.id, channelIds: [channel('petalry'), channel('quipline')], spot: { kind: 'at', wall: await wallIn(3, '10:00') } });
    const deliveries = async () => (await ask('GET', `/deliveries?piece=${piece.id}`)).body['items'] as unknown as { id: string; postId: string; network: string; caption: string }[];
    const quip = (await deliveries()).find(({ network }) => network === 'quipline');
    const path = `/deliveries/${quip?.id ?? ''}/words`;
    expect(((await ask('GET', path)).body['fields'] as unknown as { key: string }[]).map(({ key }) => key)).toContain('caption');
    const tooLong = await ask('PATCH', path, { words: { caption: 'x'.repeat(281) } });
    expect([tooLong.status, tooLong.body['title']]).toEqual([422, expect.stringContaining('1 over')]);
    expect((await ask('PATCH', path, { words: { title: 'None here' } })).body['code']).toBe('unknown-field');
    expect((await ask('PATCH', path, { words: { caption: 'Only here' } })).body['caption']).toBe('Only here');
    const captions = async (): Promise<Readonly<Record<string, string>>> => Object.fromEntries((await deliveries()).map(({ network, caption }) => [network, caption]));
    const own = piece.document.words.shared.caption;
    expect(await captions()).toEqual({ quipline: 'Only here', petalry: own });
    await ask('PATCH', `/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'replace', path: '/words/shared/caption', value: 'As the piece says now' }] });
    expect((await ask('POST', '/plan/changes', { postIds: [quip?.postId], entryIds: [], change: { kind: 'refresh' } })).body['done']).toBe(1);
    expect(await captions()).toEqual({ quipline: 'As the piece says now', petalry: 'As the piece says now' });
    await stack.services.db('deliveries').where({ id: quip?.id }).update({ state: 'sending' });
    expect((await ask('PATCH', path, { words: { caption: 'Too late' } })).status).toBe(409);
  });
});

describe('reminders', () => {
  it('tell each person what they asked for, once, here and by mail', async () => {
    const piece = await makePiece('Remind me');
    await ask('POST', '/reminders', { beforeMin: 1_440, whenOut: false, whenFailed: true, byMail: true });
    await ask('POST', '/plan/places', { pieceId: piece.id, channelIds: [channel('petalry')], spot: { kind: 'at', wall: await wallIn(0, '22:00') } });
    const about = async (): Promise<readonly string[]> => ((await ask('GET', '/notices')).body['items'] as unknown as { sentence: string }[]).map(({ sentence }) => sentence).filter((sentence) => sentence.includes('Remind me'));
    await remind(stack.services, brand);
    await remind(stack.services, brand);
    expect(await about()).toEqual([expect.stringContaining('“Remind me” goes out')]);
    const letters = stack.standin.mailbox.mails.filter(({ subject }) => subject.includes('Remind me'));
    expect(letters.map(({ to, text }) => [to, text.includes(`/make/pieces/${piece.id}`)])).toEqual([['wren@gullwickkites.example', true]]);
    await ask('POST', '/notices/read', {});
    expect(((await ask('GET', '/notices')).body['items'] as unknown as { isRead: boolean }[]).every(({ isRead }) => isRead)).toBe(true);
    const ottoline = new Client(stack.origin);
    await ottoline.ask('POST', '/api/session', { email: 'ottoline@gullwickkites.example', password: PASSWORD });
    expect(((await ottoline.ask('GET', '/api/brands/gullwick/notices')).body['items'] as unknown as { sentence: string }[]).some(({ sentence }) => sentence.includes('Remind me'))).toBe(false);
  });
});

describe('another zone', () => {
  it('keeps what the clock shows, or the moment, as a person says', async () => {
    const piece = await makePiece();
    const wall = await wallIn(3, '10:00');
    await ask('POST', '/plan/places', { pieceId: piece.id, channelIds: [channel('petalry')], spot: { kind: 'at', wall } });
    const due = async (): Promise<number> => Number((await stack.services.db('posts').where({ piece_id: piece.id, state: 'scheduled' }).first('due_ms'))?.due_ms);
    const before = await due();
    const to = async (zone: string, keep: string): Promise<void> => void (await stack.wren.ask('PATCH', '/api/brands/gullwick', { name: brand.name, zone, keep }));
    await to('Europe/Berlin', 'wall');
    expect(before - (await due())).toBe(3_600_000);
    await to('America/New_York', 'moment');
    expect(before - (await due())).toBe(3_600_000);
    expect((await outingsOf(piece.id)).map((each) => each.wall.slice(11))).toEqual(['04:00']);
    await to(ZONE, 'moment');
    expect((await outingsOf(piece.id)).map((each) => each.wall.slice(11))).toEqual(['09:00']);
  });
});

describe('saved views', () => {
  it('are a person’s own', async () => {
    await ask('POST', '/plan/views', { id: 'mine', name: 'Petalry only', address: '/b/gullwick/plan/lanes?channels=x' });
    expect((await ask('POST', '/plan/views', { id: 'bad', name: 'Elsewhere', address: 'https://x.example/' })).status).toBe(422);
    const ottoline = new Client(stack.origin);
    await ottoline.ask('POST', '/api/session', { email: 'ottoline@gullwickkites.example', password: PASSWORD });
    expect([((await ask('GET', '/plan/views')).body['items'] as unknown as unknown[]).length, ((await ottoline.ask('GET', '/api/brands/gullwick/plan/views')).body['items'] as unknown as unknown[]).length]).toEqual([1, 0]);
    expect((await ottoline.ask('DELETE', '/api/brands/gullwick/plan/views/mine')).status).toBe(404);
  });
});
