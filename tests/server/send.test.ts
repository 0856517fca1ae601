import { createHash, randomBytes } from 'node:crypto';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { NetworkSheet } from '../../src/core/network/network-sheet.ts';
import { noteAlive } from '../../src/server/dispatch/downtime.ts';
import { renderAhead } from '../../src/server/dispatch/render-ahead.ts';
import { runJobs } from '../../src/server/jobs/job-runner.ts';
import { lanes } from '../../src/server/jobs/lanes.ts';
import { workHandlers } from '../../src/server/worker/handlers.ts';
import { clearQueue, Client, consentTo, sendDue, signInAll, startStack, type Answer, type Made, type Stack } from './stack.ts';
import { until } from '../fixtures/programs.ts';

let stack: Stack;
let people: ReadonlyMap<string, Client>;
const HOUR_MS = 3_600_000;

beforeAll(async () => {
  stack = await startStack();
  await clearQueue(stack);
  people = await signInAll(stack.origin, ['ottoline', 'wren', 'caspian', 'tove']);
});
afterAll(() => stack.close());
afterEach(async () => {
  Object.assign(stack.clock, { aheadMs: 0, stoppedAtMs: null });
  stack.standin.store.setClockOffsetMs(0);
  await stack.services.db('send_settings').delete();
  await clearQueue(stack);
});

const as = (name: string): Client => people.get(name) ?? stack.wren;

interface Row {
  readonly id: string;
  readonly state: string;
  readonly problem: string | null;
  readonly address: string | null;
  readonly post_id: string;
}

let count = 0;
async function makePiece(by: Client = stack.wren): Promise<Made> {
  count += 1;
  const created = (await by.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' })).body as unknown as Made;
  const patches = [
    { op: 'add', path: '/frames/0/slots/headline', value: { kind: 'text', text: `Line and wind, ${count}` } },
    { op: 'replace', path: '/words/shared/caption', value: `Sent, number ${count}` },
    { op: 'replace', path: '/words/shared/altText', value: 'A quote' },
  ];
  return (await by.ask('PATCH', `/api/brands/gullwick/pieces/${created.id}`, { revision: created.revision, patches })).body as unknown as Made;
}

const cutsOf = (piece: Made, placements: readonly string[]) => placements.flatMap((placement) => piece.document.cuts.find((cut) => cut.placement === placement) ?? []);
const schedule = (by: Client, piece: Made, cuts: unknown, when: unknown = { kind: 'now' }): Promise<Answer> => by.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/deliveries`, { revision: piece.revision, cuts, when });
const rows = (piece: Pick<Made, 'id'>): Promise<Row[]> => stack.services.db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').where('posts.piece_id', piece.id).select('deliveries.*').orderBy('deliveries.id');
const base = '/api/brands/gullwick';

const connect = (by: Client, wanted: Parameters<typeof consentTo>[2], form: Readonly<Record<string, string>>): Promise<string> => consentTo(stack, by, wanted, form);

const channelsOf = async (): Promise<{ id: string; name: string; handle: string; state: string; isByHand: boolean }[]> => (await as('wren').ask('GET', `${base}/channels`)).body['channels'] as never;

describe('a channel', () => {
  it('is connected through the network’s consent page, chosen among the accounts, and posts', async () => {
    const connection = await connect(as('wren'), { network: 'quipline' }, { answer: 'allow', 'new-handle': '@gullwick.news', 'new-name': 'Gullwick News', 'new-kind': 'business' });
    const offered = (await as('wren').ask('GET', `${base}/connections/${connection}`)).body as unknown as { problem: null; accounts: { handle: string; can: string[] }[] };
    expect(offered.accounts).toMatchObject([{ handle: '@gullwick.news', kindName: 'Business account', can: ['Confetti posts by itself', expect.any(String)], cannot: [], channelName: null }]);
    expect((await as('tove').ask('GET', `${base}/connections/${connection}`)).status).toBe(403);
    expect((await as('ottoline').ask('GET', `${base}/connections/${connection}`)).status).toBe(404);
    const chosen = await as('wren').ask('POST', `${base}/connections/${connection}`, { handles: ['@gullwick.news'] });
    expect(chosen.body).toMatchObject({ channels: [{ name: 'Quipline @gullwick.news' }], again: 0 });
    expect((await as('wren').ask('POST', `${base}/connections/${connection}`, { handles: ['@gullwick.news'] })).status).toBe(404);
    const piece = await makePiece();
    const channelId = (chosen.body['channels'] as unknown as { id: string }[])[0]?.id ?? '';
    const cut = piece.document.cuts.find((each) => each.channelId === channelId);
    expect((await schedule(stack.wren, piece, [cut])).status).toBe(201);
    await sendDue(stack);
    expect(await rows(piece)).toMatchObject([{ state: 'sent' }]);
    expect(stack.standin.store.listPosts('quipline', '@gullwick.news')).toHaveLength(1);
    const stored = await stack.services.db('channels').where({ id: channelId }).first();
    expect([stored.token, stored.refresh_token].every((sealed: string) => sealed.startsWith('sealed1.'))).toBe(true);
  });

  it('renews its access by itself, and asks to be connected again once the network ends it', async () => {
    const connection = await connect(as('wren'), { network: 'guildrow' }, { answer: 'allow', 'new-handle': '@loft.people', 'new-name': 'Loft', 'new-kind': 'business' });
    const { channels } = (await as('wren').ask('POST', `${base}/connections/${connection}`, { handles: ['@loft.people'] })).body as unknown as { channels: { id: string }[] };
    const channelId = channels[0]?.id ?? '';
    const tokenBefore = (await stack.services.db('channels').where({ id: channelId }).first('token')).token;
    // Two hours later the first access is over.
    stack.standin.store.setClockOffsetMs(2 * HOUR_MS + Number(await stack.services.db('settings').where({ key: 'clock-offset-ms' }).first('value').then((row) => row?.value ?? 0)));
    stack.clock.aheadMs = 2 * HOUR_MS;
    const piece = await makePiece();
    const cuts = piece.document.cuts.filter((each) => each.channelId === channelId && each.placement === 'update-square');
    expect((await schedule(stack.wren, piece, cuts)).status).toBe(201);
    await sendDue(stack);
    expect(await rows(piece)).toMatchObject([{ state: 'sent', problem: null }]);
    expect((await stack.services.db('channels').where({ id: channelId }).first('token')).token).not.toBe(tokenBefore);
    stack.clock.aheadMs = 0;
    stack.standin.store.endAccess('guildrow', '@loft.people');
    const second = await makePiece();
    const secondCuts = second.document.cuts.filter((each) => each.channelId === channelId && each.placement === 'update-square');
    await schedule(stack.wren, second, secondCuts);
    await sendDue(stack);
    const [failed] = await rows(second);
    expect(failed).toMatchObject({ state: 'failed', problem: 'The access to Guildrow @loft.people has ended. Connect it again in Send > Channels, then retry.' });
    expect((await channelsOf()).find(({ id }) => id === channelId)).toMatchObject({ state: 'ended' });
    const refused = await schedule(stack.wren, second, secondCuts, { kind: 'at', wall: '2031-01-02T09:00' });
    expect(refused).toMatchObject({ status: 409, body: { code: 'access-ended' } });
    expect((await as('wren').ask('GET', `${base}/today`)).body['needs']).toEqual(expect.arrayContaining([expect.objectContaining({ kind: 'access', group: 'stopped' })]));
    const again = await connect(as('wren'), { network: 'guildrow' }, { answer: 'allow', handle: '@loft.people' });
    expect((await as('wren').ask('POST', `${base}/connections/${again}`, { handles: ['@loft.people'] })).body).toMatchObject({ again: 1, channels: [{ id: channelId }] });
    await stack.wren.ask('POST', `${base}/deliveries/${failed?.id ?? ''}/retry`);
    await sendDue(stack);
    expect(await rows(second)).toMatchObject([{ state: 'sent' }]);
  });

  it('of a site of one’s own is found and connected by IndieAuth, and entries change and go there', async () => {
    const site = `${stack.standin.origin}/openweb/@gullwickkites`;
    const connection = await connect(as('wren'), { network: 'openweb', site }, { answer: 'allow', handle: '@gullwickkites' });
    const { channels } = (await as('wren').ask('POST', `${base}/connections/${connection}`, { handles: ['@gullwickkites'] })).body as unknown as { channels: { id: string }[] };
    const piece = await makePiece();
    const cut = piece.document.cuts.find((each) => each.channelId === channels[0]?.id);
    await schedule(stack.wren, piece, [cut]);
    await sendDue(stack);
    const [sent] = await rows(piece);
    expect(sent).toMatchObject({ state: 'sent', address: expect.stringContaining('/openweb/p/') });
    expect((await stack.wren.ask('POST', `${base}/deliveries/${sent?.id ?? ''}/rewrite`, { caption: 'Another text on the site' })).status).toBe(200);
    expect(await (await fetch(sent?.address ?? '')).text()).toContain('Another text on the site');
    expect((await stack.wren.ask('POST', `${base}/deliveries/${sent?.id ?? ''}/take-down`, {})).status).toBe(204);
    expect((await fetch(sent?.address ?? '')).status).toBe(404);
    const elsewhere = await as('wren').ask('POST', `${base}/connections`, { network: 'openweb', site: 'http://127.0.0.1:9/me' });
    expect(elsewhere).toMatchObject({ status: 422, body: { code: 'not-public' } });
    expect((await as('wren').ask('POST', `${base}/connections`, { network: 'openweb', site: `${stack.standin.origin}/mailbox` })).body).toMatchObject({ code: 'no-micropub' });
  });

  it('is not connected by a refusal, another person’s return, a used code or a wrong verifier', async () => {
    const refused = await connect(as('wren'), { network: 'petalry' }, { answer: 'refuse' });
    expect((await as('wren').ask('GET', `${base}/connections/${refused}`)).body).toMatchObject({ accounts: [], problem: 'You did not allow Confetti to post to Petalry. Nothing was connected.' });
    const { body } = await as('wren').ask('POST', `${base}/connections`, { network: 'petalry' });
    const state = new URL(String(body['address'])).searchParams.get('state') ?? '';
    const stolen = await as('ottoline').raw('GET', `/connect/return?state=${state}&code=whatever`);
    expect([stolen.status, await stolen.text()]).toEqual([200, expect.stringContaining('begun by somebody else')]);
    const ask = (form: Readonly<Record<string, string>>): Promise<Response> => fetch(`${stack.standin.origin}/petalry/token`, { method: 'POST', body: new URLSearchParams(form) });
    const verifier = randomBytes(32).toString('base64url');
    const consent = { network: 'petalry', handles: ['@gullwickkites'], clientId: 'http://a.example/', redirectUri: 'http://a.example/back', challenge: createHash('sha256').update(verifier).digest('base64url') };
    const form = { grant_type: 'authorization_code', client_id: consent.clientId, redirect_uri: consent.redirectUri };
    const nowMs = Date.now();
    expect((await ask({ ...form, code: stack.standin.store.keepConsent(consent, nowMs), code_verifier: 'wrong' })).status).toBe(400);
    const code = stack.standin.store.keepConsent(consent, nowMs);
    expect((await ask({ ...form, code, code_verifier: verifier })).status).toBe(200);
    expect((await ask({ ...form, code, code_verifier: verifier })).status).toBe(400);
  });

  it('is paused with all that waits, goes on with what is ahead, and says what leaving would do', async () => {
    const piece = await makePiece();
    const [cut] = cutsOf(piece, ['post-wide']);
    await schedule(stack.wren, piece, [cut], { kind: 'at', wall: '2031-03-01T10:00' });
    expect((await stack.wren.ask('POST', `${base}/channels/${cut?.channelId ?? ''}/pause`)).body).toMatchObject({ held: 1 });
    expect(await rows(piece)).toMatchObject([{ state: 'held' }]);
    const late = await makePiece();
    await schedule(stack.wren, late, cutsOf(late, ['post-wide']));
    await sendDue(stack);
    expect(await rows(late)).toMatchObject([{ state: 'held', problem: 'Quipline @gullwickkites is paused. Resume it in Send > Channels, then release the post.' }]);
    expect((await stack.wren.ask('POST', `${base}/channels/${cut?.channelId ?? ''}/resume`)).body).toMatchObject({ released: 1, missed: 1 });
    expect(await rows(piece)).toMatchObject([{ state: 'scheduled' }]);
    const [missed] = await rows(late);
    await stack.wren.ask('POST', `${base}/deliveries/${missed?.id ?? ''}/release`);
    await sendDue(stack);
    expect(await rows(late)).toMatchObject([{ state: 'sent' }]);
    expect((await stack.wren.ask('GET', `${base}/channels/${cut?.channelId ?? ''}/leaving`)).body).toMatchObject({ waiting: 3, next: expect.arrayContaining([expect.objectContaining({ pieceName: expect.stringContaining('Line and wind') })]) });
  });

  it('that leaves cancels what waits; pieces keep its cuts and can still be changed', async () => {
    const connection = await connect(as('wren'), { network: 'whirlo' }, { answer: 'allow', 'new-handle': '@short.lived', 'new-name': 'Short', 'new-kind': 'business' });
    const { channels } = (await as('wren').ask('POST', `${base}/connections/${connection}`, { handles: ['@short.lived'] })).body as unknown as { channels: { id: string }[] };
    const id = channels[0]?.id ?? '';
    const video = (await stack.wren.ask('POST', `${base}/pieces`, { template: 'gust' })).body as unknown as Made;
    expect(video.document.cuts.some(({ channelId }) => channelId === id)).toBe(true);
    expect((await as('tove').ask('DELETE', `${base}/channels/${id}`)).status).toBe(403);
    expect((await stack.wren.ask('DELETE', `${base}/channels/${id}`)).body).toEqual({ cancelled: 0 });
    expect((await channelsOf()).some((each) => each.id === id)).toBe(false);
    const changed = await stack.wren.ask('PATCH', `${base}/pieces/${video.id}`, { revision: video.revision, patches: [{ op: 'replace', path: '/words/shared/caption', value: 'Still here' }] });
    expect(changed.status).toBe(200);
    expect((await schedule(stack.wren, changed.body as unknown as Made, [{ channelId: id, placement: 'clip' }])).status).toBe(422);
  });
});

describe('a personal account', () => {
  it('gets a hand-off at its time: files to save, texts to copy, later, and done with the address', async () => {
    const connection = await connect(as('wren'), { network: 'petalry' }, { answer: 'allow', 'new-handle': '@ottoline.flies', 'new-name': 'Ottoline', 'new-kind': 'personal' });
    const offered = (await as('wren').ask('GET', `${base}/connections/${connection}`)).body as unknown as { accounts: { cannot: string[] }[] };
    expect(offered.accounts[0]?.cannot).toEqual(['Post by itself: the network lets no program in', 'No Vertical video', 'No first comment, location, comments']);
    const { channels } = (await as('wren').ask('POST', `${base}/connections/${connection}`, { handles: ['@ottoline.flies'] })).body as unknown as { channels: { id: string }[] };
    const channelId = channels[0]?.id ?? '';
    const piece = await makePiece();
    expect(piece.document.cuts.filter((each) => each.channelId === channelId).map(({ placement }) => placement)).toEqual(['feed-square', 'feed-portrait', 'story']);
    await schedule(stack.wren, piece, [{ channelId, placement: 'feed-square' }]);
    await sendDue(stack);
    const [row] = await rows(piece);
    expect(row).toMatchObject({ state: 'by hand' });
    expect(stack.standin.store.listPosts('petalry', '@ottoline.flies')).toEqual([]);
    const { items } = (await stack.wren.ask('GET', `${base}/hand-offs`)).body as unknown as { items: { deliveryId: string; files: number; fields: { label: string; text: string }[]; place: string }[] };
    const item = items.find(({ deliveryId }) => deliveryId === row?.id);
    expect(item).toMatchObject({ files: 1, place: `${stack.standin.origin}/petalry/@ottoline.flies`, fields: [{ label: 'Caption', text: expect.stringContaining('Sent, number') }, { label: 'Alt text' }] });
    const file = await stack.wren.raw('GET', `${base}/deliveries/${row?.id ?? ''}/files/0`);
    expect([file.status, file.headers.get('content-disposition'), (await file.arrayBuffer()).byteLength > 10_000]).toEqual([200, expect.stringMatching(/^attachment/), true]);
    expect((await stack.wren.raw('GET', `${base}/deliveries/${row?.id ?? ''}/files/1`)).status).toBe(404);
    expect((await stack.wren.ask('POST', `${base}/deliveries/${row?.id ?? ''}/snooze`, { minutes: 60 })).status).toBe(204);
    const kinds = async (): Promise<string[]> => ((await as('wren').ask('GET', `${base}/today`)).body['needs'] as unknown as { kind: string; deliveryId: string }[]).filter(({ deliveryId }) => deliveryId === row?.id).map(({ kind }) => kind);
    expect(await kinds()).toEqual([]);
    await stack.services.db('deliveries').where({ id: row?.id }).update({ snoozed_until_ms: 1 });
    expect(await kinds()).toEqual(['hand-off']);
    expect((await stack.wren.ask('POST', `${base}/deliveries/${row?.id ?? ''}/placed`, { address: 'javascript:alert(1)' })).status).toBe(422);
    expect((await stack.wren.ask('POST', `${base}/deliveries/${row?.id ?? ''}/placed`, { address: 'https://petalry.example/p/1' })).status).toBe(204);
    expect((await stack.wren.ask('POST', `${base}/deliveries/${row?.id ?? ''}/placed`, { address: '' })).status).toBe(409);
    expect(await rows(piece)).toMatchObject([{ state: 'sent', address: 'https://petalry.example/p/1' }]);
  });
});

describe('sign-off', () => {
  const review = async (by: Client, postId: string) => (await by.ask('GET', `${base}/posts/${postId}/review`)).body as unknown as { seen: string; mayApprove: boolean; whyNot: string | null; state: string; changes: { now: string }[]; approvedBy: string[]; cuts: { deliveryId: string }[]; remarks: { id: string; isResolved: boolean }[] };
  const judge = (by: Client, postId: string, seen: string, verdict = 'approve', note = ''): Promise<Answer> => by.ask('POST', `${base}/posts/${postId}/verdicts`, { verdict, note, seen });
  const postOf = async (piece: Made): Promise<string> => (await rows(piece))[0]?.post_id ?? '';

  it('is asked by a writer, and nothing goes out before somebody else has approved exactly what they saw', async () => {
    const piece = await makePiece(as('caspian'));
    expect((await schedule(as('caspian'), piece, cutsOf(piece, ['post-wide']))).status).toBe(201);
    const postId = await postOf(piece);
    await sendDue(stack);
    expect(await rows(piece)).toMatchObject([{ state: 'in review' }]);
    const seen = await review(as('tove'), postId);
    expect(seen).toMatchObject({ mayApprove: true, state: 'in review', cuts: [{ placementName: 'Wide', findings: [] }] });
    expect(await review(as('caspian'), postId)).toMatchObject({ mayApprove: false });
    expect((await judge(as('caspian'), postId, seen.seen)).status).toBe(403);
    expect((await judge(stack.wren, postId, seen.seen)).body).toMatchObject({ code: 'session-needed' });
    expect(await judge(as('tove'), postId, 'something else')).toMatchObject({ status: 409, body: { code: 'changed-meanwhile' } });
    expect((await judge(as('tove'), postId, seen.seen)).body).toMatchObject({ isApproved: true, approvedBy: ['Tove Lindqvist'] });
    expect((await judge(as('ottoline'), postId, seen.seen)).body).toMatchObject({ code: 'not-in-review' });
    await sendDue(stack);
    expect(await rows(piece)).toMatchObject([{ state: 'sent' }]);
  });

  it('by two is asked by theme, and the maker is never the only one', async () => {
    expect((await stack.wren.ask('POST', `${base}/send-settings`, { signOff: 2, themes: {}, lateHours: 2 })).status).toBe(200);
    const piece = await makePiece();
    await schedule(stack.wren, piece, cutsOf(piece, ['post-wide']), { kind: 'at', wall: '2031-05-01T09:00' });
    const postId = await postOf(piece);
    const { seen } = await review(as('wren'), postId);
    expect((await judge(as('wren'), postId, seen)).body).toMatchObject({ isApproved: false, approvedBy: ['Wren Adeyemi-Holt'] });
    expect((await judge(as('wren'), postId, seen)).body).toMatchObject({ isApproved: false });
    expect((await judge(as('tove'), postId, seen)).body).toMatchObject({ isApproved: true });
    expect(await rows(piece)).toMatchObject([{ state: 'scheduled' }]);
    await stack.wren.ask('POST', `${base}/send-settings`, { signOff: 1, themes: {}, lateHours: 2 });
    const own = await makePiece(as('wren'));
    await schedule(as('wren'), own, cutsOf(own, ['post-wide']), { kind: 'at', wall: '2031-05-02T09:00' });
    const ownPost = await postOf(own);
    expect(await judge(as('wren'), ownPost, (await review(as('wren'), ownPost)).seen)).toMatchObject({ status: 403, body: { code: 'own-post' } });
  });

  it('is asked again when the post changes, and says what changed', async () => {
    const piece = await makePiece(as('caspian'));
    await schedule(as('caspian'), piece, cutsOf(piece, ['post-wide']), { kind: 'at', wall: '2031-06-01T09:00' });
    const postId = await postOf(piece);
    await judge(as('tove'), postId, (await review(as('tove'), postId)).seen);
    const [row] = await rows(piece);
    expect(row?.state).toBe('scheduled');
    expect((await stack.wren.ask('PATCH', `${base}/deliveries/${row?.id ?? ''}/words`, { words: { caption: 'Now with a price: 24 pounds' } })).status).toBe(200);
    expect(await rows(piece)).toMatchObject([{ state: 'in review' }]);
    expect((await review(as('tove'), postId)).changes).toEqual([{ place: 'Wide, caption', before: expect.stringContaining('Sent, number'), now: 'Now with a price: 24 pounds' }]);
    const again = (await review(as('tove'), postId)).seen;
    // A second press adds nothing.
    for (const press of [1, 2]) expect([press, (await judge(as('tove'), postId, again, 'changes', 'Say euros')).status]).toEqual([press, 200]);
    expect(await stack.services.db('verdicts').where({ post_id: postId, verdict: 'changes' })).toHaveLength(1);
    expect(await review(as('caspian'), postId)).toMatchObject({ sentBackBy: 'Tove Lindqvist' });
    const changed = await as('caspian').ask('PATCH', `${base}/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'replace', path: '/words/shared/caption', value: 'Twenty-eight euros' }] });
    expect(changed.status).toBe(200);
    expect((await as('caspian').ask('POST', `${base}/posts/${postId}/review-again`, {})).status).toBe(204);
    const after = await review(as('tove'), postId);
    expect([after.approvedBy, after.mayApprove]).toEqual([[], true]);
    expect((await judge(as('tove'), postId, after.seen)).body).toMatchObject({ isApproved: true });
  });

  it('that comes after the moment holds the post with the reason, and a person sends it', async () => {
    const piece = await makePiece(as('caspian'));
    await schedule(as('caspian'), piece, cutsOf(piece, ['post-wide']));
    const postId = await postOf(piece);
    await stack.services.db('posts').where({ id: postId }).update({ due_ms: 1_000 });
    await stack.services.db('deliveries').where({ post_id: postId }).update({ due_ms: 1_000 });
    await judge(as('tove'), postId, (await review(as('tove'), postId)).seen);
    await sendDue(stack);
    const [row] = await rows(piece);
    expect(row).toMatchObject({ state: 'held', problem: expect.stringContaining('approved after its moment') });
    await stack.wren.ask('POST', `${base}/deliveries/${row?.id ?? ''}/release`);
    await sendDue(stack);
    expect(await rows(piece)).toMatchObject([{ state: 'sent' }]);
  });

  it('is given from outside by a link that shows one post, ends, and says nothing of others', async () => {
    const piece = await makePiece(as('caspian'));
    await schedule(as('caspian'), piece, cutsOf(piece, ['post-wide', 'story']), { kind: 'at', wall: '2031-07-01T09:00' });
    const postId = await postOf(piece);
    const made = await as('wren').ask('POST', `${base}/posts/${postId}/review-links`, { name: 'The dune warden', hours: 24 });
    const secret = String(made.body['path']).split('#')[1] ?? '';
    const outside = new Client(stack.origin);
    const read = await outside.ask('POST', '/api/review/read', { secret });
    expect(read.body).toMatchObject({ brandName: 'Gullwick Kite Works', name: 'The dune warden', pieceName: expect.any(String) });
    expect(JSON.stringify(read.body)).not.toContain('@gullwickkites.example');
    const [cut] = read.body['cuts'] as unknown as { deliveryId: string }[];
    const picture = await outside.raw('POST', '/api/review/picture', { body: JSON.stringify({ secret, deliveryId: cut?.deliveryId, slide: 0 }), headers: { 'content-type': 'application/json' } });
    expect([picture.status, picture.headers.get('content-type')]).toEqual([200, 'image/webp']);
    const [other] = await stack.services.db('deliveries').whereNot({ post_id: postId }).limit(1);
    expect((await outside.ask('POST', '/api/review/picture', { secret, deliveryId: other.id, slide: 0 })).status).toBe(404);
    expect((await outside.ask('POST', '/api/review/remarks', { secret, text: 'Mind the terns', place: { kind: 'spot', deliveryId: cut?.deliveryId, x: 0.5, y: 0.25 } })).status).toBe(204);
    expect((await outside.ask('POST', '/api/review/remarks', { secret, text: 'x', place: { kind: 'spot', deliveryId: other.id, x: 0, y: 0 } })).status).toBe(422);
    const seen = await review(as('wren'), postId);
    expect(seen.remarks).toMatchObject([{ name: 'The dune warden (outside)', text: 'Mind the terns' }]);
    expect((await as('caspian').ask('POST', `${base}/posts/${postId}/remarks/${seen.remarks[0]?.id ?? ''}`, { isResolved: true })).status).toBe(204);
    expect((await outside.ask('POST', '/api/review/verdicts', { secret, verdict: 'approve', note: '', seen: seen.seen })).body).toMatchObject({ isApproved: true });
    expect(await rows(piece)).toMatchObject([{ state: 'scheduled' }, { state: 'scheduled' }]);
    expect((await as('wren').ask('DELETE', `${base}/posts/${postId}/review-links/${String(made.body['id'])}`)).status).toBe(204);
    expect((await outside.ask('POST', '/api/review/read', { secret })).body).toMatchObject({ code: 'link-ended' });
    expect((await outside.ask('POST', '/api/review/read', { secret: `cfr_${'a'.repeat(43)}` })).body).toMatchObject({ code: 'link-ended' });
  });
});

it('a video is made by a worker for those who judge it, outside too, and saved as it goes out', { tags: 'long' }, async () => {
  const [clip] = await stack.services.db('media').join('brands', 'brands.id', 'media.brand_id').where({ slug: 'gullwick' }).where('media.name', 'like', '%.mp4').limit(1).select('media.id');
  const created = (await as('caspian').ask('POST', `${base}/pieces`, { template: 'gust' })).body as unknown as Made;
  const text = (value: string) => ({ kind: 'text', text: value });
  const frames = [
    { id: 'a', slots: { film: { kind: 'picture', mediaId: clip.id }, headline: text('Kites') }, shot: { lengthMs: 2_000 } },
    { id: 'b', slide: 'closing', slots: { headline: text('Come by'), call: text('Book') }, shot: { lengthMs: 2_000, into: { kind: 'fade', ms: 400 } } },
  ];
  const piece = (await as('caspian').ask('PATCH', `${base}/pieces/${created.id}`, { revision: created.revision, patches: [{ op: 'replace', path: '/frames', value: frames }, { op: 'replace', path: '/words/shared/caption', value: 'A video' }] })).body as unknown as Made;
  expect((await schedule(as('caspian'), piece, cutsOf(piece, ['feed-square']), { kind: 'at', wall: '2031-12-01T09:00' })).status).toBe(201);
  const [row] = await rows(piece);
  const fetchIt = async (ask: () => Promise<Response>): Promise<Response> => {
    let response = await ask();
    await until('the video', async () => response.status === 200 || ((response = await ask()), response.status === 200));
    return response;
  };
  const file = await fetchIt(() => as('tove').raw('GET', `${base}/deliveries/${row?.id ?? ''}/files/0`));
  expect([file.headers.get('content-type'), Buffer.from(await file.arrayBuffer()).subarray(4, 8).toString()]).toEqual(['video/mp4', 'ftyp']);
  const made = await as('wren').ask('POST', `${base}/posts/${row?.post_id ?? ''}/review-links`, { name: 'Outside', hours: 1 });
  const secret = String(made.body['path']).split('#')[1] ?? '';
  const outside = new Client(stack.origin);
  const post = (deliveryId: string): Promise<Response> => outside.raw('POST', '/api/review/video', { body: JSON.stringify({ secret, deliveryId }), headers: { 'content-type': 'application/json' } });
  expect((await fetchIt(() => post(row?.id ?? ''))).headers.get('content-type')).toBe('video/mp4');
  expect((await post('another')).status).toBe(404);
  expect((await as('tove').ask('POST', `${base}/posts/${row?.post_id ?? ''}/remarks`, { text: 'Here', place: { kind: 'moment', deliveryId: row?.id, atMs: 900 } })).status).toBe(204);
});

describe('a post that is out', () => {
  it('changes its text where its network allows it, and is taken down', async () => {
    const piece = await makePiece();
    await schedule(stack.wren, piece, cutsOf(piece, ['page-wide', 'post-wide']));
    await sendDue(stack);
    const found = await rows(piece);
    const rewrite = async (row: Row | undefined): Promise<Answer> => stack.wren.ask('POST', `${base}/deliveries/${row?.id ?? ''}/rewrite`, { caption: 'A better text' });
    const answers = await Promise.all(found.map(rewrite));
    // Quipline keeps what is out as it is.
    expect(answers.map(({ status }) => status).toSorted()).toEqual([200, 409]);
    expect(answers.find(({ status }) => status === 409)?.body['title']).toMatch(/^Quipline keeps this post as it is/);
    const changed = found[answers.findIndex(({ status }) => status === 200)];
    expect(await (await fetch(changed?.address ?? '')).text()).toContain('A better text');
    for (const row of found) expect((await stack.wren.ask('POST', `${base}/deliveries/${row.id}/take-down`, {})).status).toBe(204);
    expect((await fetch(changed?.address ?? '')).status).toBe(404);
    expect(await rows(piece)).toMatchObject([{ state: 'removed' }, { state: 'removed' }]);
    expect((await stack.wren.ask('POST', `${base}/deliveries/${found[0]?.id ?? ''}/take-down`, {})).body).toMatchObject({ code: 'not-out' });
  });

  it('is scheduled once more as it was, whatever its piece says now', async () => {
    const piece = await makePiece();
    await schedule(stack.wren, piece, cutsOf(piece, ['post-wide']));
    await sendDue(stack);
    const [sent] = await rows(piece);
    await stack.wren.ask('PATCH', `${base}/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'replace', path: '/words/shared/caption', value: 'Changed since' }] });
    const copy = await stack.wren.ask('POST', `${base}/posts/${sent?.post_id ?? ''}/duplicate`, { wall: '2031-08-01T10:00' });
    expect(copy.status).toBe(201);
    const words = await stack.services.db('deliveries').where({ post_id: String(copy.body['postId']) }).pluck('words');
    expect(words).toEqual([expect.stringContaining('Sent, number')]);
    expect((await stack.wren.ask('POST', `${base}/posts/${sent?.post_id ?? ''}/duplicate`, { wall: '2020-08-01T10:00' })).status).toBe(422);
  });

  it('has its boost on the list of what to set up, once it is out', async () => {
    const piece = await makePiece();
    await schedule(stack.wren, piece, cutsOf(piece, ['post-wide']));
    const post = `${base}/posts/${(await rows(piece))[0]?.post_id ?? ''}`;
    expect((await stack.wren.ask('POST', `${post}/boost`, { budget: 0, currency: 'EUR', days: 3, audience: '', aim: '' })).status).toBe(422);
    expect((await stack.wren.ask('POST', `${post}/boost`, { budget: 120, currency: 'EUR', days: 3, audience: 'Near the harbour', aim: 'Workshops' })).status).toBe(204);
    const boosts = async () => (await stack.wren.ask('GET', `${base}/hand-offs`)).body['boosts'];
    expect(await boosts()).toMatchObject([{ budget: 120, isOut: false }]);
    await sendDue(stack);
    expect(await boosts()).toMatchObject([{ budget: 120, isOut: true }]);
    expect((await stack.wren.ask('POST', `${post}/boost/done`, {})).status).toBe(204);
    expect(await boosts()).toEqual([]);
  });
});

describe('the dispatcher', () => {
  it('asks about what was due while nothing ran, later than the brand allows, and sends what is not too late', async () => {
    const [late, soon] = [await makePiece(), await makePiece()];
    await schedule(stack.wren, late, cutsOf(late, ['post-wide']));
    await schedule(stack.wren, soon, cutsOf(soon, ['post-wide']));
    const nowMs = await stack.services.clock.nowMs();
    const { db, clock } = stack.services;
    // The last sign of life was five hours ago.
    await db('settings').insert({ key: 'worker-life', value: JSON.stringify({ machineMs: clock.machineNowMs() - 5 * HOUR_MS, productMs: nowMs - 5 * HOUR_MS, downtimes: [] }) }).onConflict('key').merge();
    const set = async (piece: Made, dueMs: number): Promise<void> => void (await db('deliveries').whereIn('id', (await rows(piece)).map(({ id }) => id)).update({ due_ms: dueMs }));
    await set(late, nowMs - 4 * HOUR_MS);
    await set(soon, nowMs - HOUR_MS);
    await noteAlive(db, clock);
    await sendDue(stack);
    const [missed] = await rows(late);
    expect(missed).toMatchObject({ state: 'failed', problem: expect.stringMatching(/^It was due .* while Confetti did not run\./) });
    expect(await rows(soon)).toMatchObject([{ state: 'sent' }]);
    await stack.wren.ask('POST', `${base}/deliveries/${missed?.id ?? ''}/retry`);
    await sendDue(stack);
    expect(await rows(late)).toMatchObject([{ state: 'sent' }]);
    await db('settings').where({ key: 'worker-life' }).delete();
  });
});

describe('network sheets', () => {
  const sheetOf = async (key: string): Promise<NetworkSheet> => ((await stack.wren.ask('GET', `${base}/network-sheets`)).body['sheets'] as unknown as { sheet: NetworkSheet }[]).find(({ sheet }) => sheet.key === key)?.sheet as NetworkSheet;

  it('are changed for one brand, and what is scheduled is held against them first', async () => {
    const piece = await makePiece();
    await schedule(stack.wren, piece, cutsOf(piece, ['post-wide']), { kind: 'at', wall: '2031-09-01T10:00' });
    const sheet = await sheetOf('quipline');
    const short: NetworkSheet = { ...sheet, words: { ...sheet.words, fields: sheet.words.fields.map((field) => (field.key === 'caption' ? { ...field, max: 5 } : field)) } };
    const check = await stack.wren.ask('POST', `${base}/network-sheets`, { sheet: short, keep: false });
    expect(check.body).toMatchObject({ isKept: false, failing: expect.arrayContaining([expect.objectContaining({ pieceId: piece.id, sentence: expect.stringMatching(/over the 5 that Quipline takes/) })]) });
    expect((await sheetOf('quipline')).words.fields[0]?.max).toBe(280);
    expect((await stack.wren.ask('POST', `${base}/network-sheets`, { sheet: short, keep: true })).body).toMatchObject({ isKept: true });
    const long = await makePiece();
    expect((await schedule(stack.wren, long, cutsOf(long, ['post-wide']), { kind: 'at', wall: '2031-09-02T10:00' })).status).toBe(422);
    const other = ((await stack.wren.ask('GET', '/api/brands/lanternfall/network-sheets')).body['sheets'] as unknown as { sheet: NetworkSheet; isChanged: boolean }[]).find((each) => each.sheet.key === 'quipline');
    expect(other).toMatchObject({ isChanged: false });
    expect((await stack.wren.ask('DELETE', `${base}/network-sheets/quipline`)).status).toBe(204);
    expect((await sheetOf('quipline')).words.fields[0]?.max).toBe(280);
  });

  it('of one’s own are added and removed, and broken ones are refused with their place', async () => {
    const sheet = await sheetOf('quipline');
    const own = { ...sheet, key: 'pond', name: 'Pond' };
    expect((await stack.wren.ask('POST', `${base}/network-sheets`, { sheet: own, keep: true })).status).toBe(200);
    expect(await sheetOf('pond')).toMatchObject({ name: 'Pond' });
    const twice = { ...own, placements: [sheet.placements[0], sheet.placements[0]] };
    expect((await stack.wren.ask('POST', `${base}/network-sheets`, { sheet: twice, keep: true })).body['title']).toContain('stands there twice');
    expect((await stack.wren.ask('POST', `${base}/network-sheets`, { sheet: { ...own, pace: { dailyMax: -1, leastGapMin: 0 } }, keep: true })).body['title']).toContain('pace.dailyMax');
    expect((await as('caspian').ask('POST', `${base}/network-sheets`, { sheet: own, keep: true })).status).toBe(403);
    expect((await stack.wren.ask('DELETE', `${base}/network-sheets/pond`)).status).toBe(204);
    expect(await sheetOf('pond')).toBeUndefined();
  });
});

describe('the history', () => {
  it('says who did what, by kind and person, and leaves as CSV that no spreadsheet runs', async () => {
    const piece = await makePiece(as('wren'));
    const renamed = await as('wren').ask('PATCH', `${base}/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'add', path: '/title', value: '=HYPERLINK("http://evil.example")' }] });
    const made = renamed.body as unknown as Made;
    await schedule(as('wren'), made, cutsOf(made, ['post-wide']), { kind: 'at', wall: '2031-10-01T10:00' });
    const [row] = await rows(piece);
    await as('wren').ask('POST', `${base}/deliveries/${row?.id ?? ''}/cancel`);
    const { items } = (await as('ottoline').ask('GET', `${base}/acts?kind=post`)).body as unknown as { items: { name: string; sentence: string }[] };
    expect(items.slice(0, 2)).toMatchObject([{ name: 'Wren Adeyemi-Holt', sentence: expect.stringMatching(/^Cancelled /) }, { sentence: expect.stringMatching(/^Scheduled /) }]);
    expect((await as('tove').ask('GET', `${base}/acts`)).status).toBe(403);
    await stack.services.db('acts').insert({ brand_id: (await stack.services.db('brands').where({ slug: 'gullwick' }).first('id')).id, at_ms: 1, name: '=1+1', kind: 'people', subject_id: 'x', sentence: '@SUM(A1)' });
    const csv = await (await as('ottoline').raw('GET', `${base}/acts-csv?kind=people`)).text();
    expect(csv).toContain("'=1+1");
    expect(csv).toContain("'@SUM(A1)");
  });
});

it('one slow network keeps no other waiting', async () => {
  const piece = await makePiece();
  await stack.fault('petalry', 'slow', 50);
  const slow = await Promise.all(Array.from({ length: 4 }, () => makePiece()));
  for (const each of slow) await schedule(stack.wren, each, cutsOf(each, ['feed-square']));
  await schedule(stack.wren, piece, cutsOf(piece, ['post-wide']));
  const stop = new AbortController();
  const work = runJobs(stack.services, workHandlers(stack.services), lanes.filter(({ name }) => name === 'send'), stop.signal);
  await until('the quick network to have its post', async () => (await rows(piece))[0]?.state === 'sent');
  const states = (await Promise.all(slow.map(rows))).flat().map(({ state }) => state);
  expect(states.filter((state) => state === 'scheduled').length).toBeGreaterThanOrEqual(2);
  stop.abort();
  await stack.fault('petalry', 'none');
  await work;
});

it('files of what is due within the hour are made ahead, and sending finds them', async () => {
  const piece = await makePiece();
  await schedule(stack.wren, piece, cutsOf(piece, ['post-wide']), { kind: 'at', wall: '2031-11-01T10:00' });
  const [row] = await rows(piece);
  const { db, clock } = stack.services;
  const soonMs = (await clock.nowMs()) + 1_800_000;
  await db('deliveries').where({ id: row?.id }).update({ due_ms: soonMs });
  const brandId = (await db('brands').where({ slug: 'gullwick' }).first('id')).id as string;
  await renderAhead(stack.services, brandId, await clock.nowMs());
  await until('the files to be made', async () => (await db('jobs').where({ key: `ahead:${row?.id ?? ''}` }).first('state'))?.state === 'done');
  await db('jobs').where({ key: `delivery:${row?.id ?? ''}` }).update({ due_ms: 0 });
  await db('deliveries').where({ id: row?.id }).update({ due_ms: 0 });
  const { render } = stack.services;
  const noPainter = { ...stack.services, render: { ...render, pictures: () => Promise.reject(new Error('painted again')) } } as unknown as Stack['services'];
  expect(await sendDue({ services: noPainter })).toBe(1);
  expect(await rows(piece)).toMatchObject([{ state: 'sent' }]);
});
