import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Piece } from '../../src/core/piece/piece.ts';
import type { DeliveryState } from '../../src/core/post/delivery-state.ts';
import { connectNew, sendDue, signInAll, startStack, type Client, type Made, type Stack } from './stack.ts';

let stack: Stack;
beforeAll(async () => {
  stack = await startStack();
});
afterAll(() => stack.close());

const base = '/api/brands/gullwick';
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const DAYS = 30;
const STEP_MS = 12 * HOUR_MS;
/** Networks that take a graphic, by the placement used here, and those that take videos alone. */
const graphicPlaces = { petalry: 'feed-square', quipline: 'post-wide', hearthside: 'page-square', guildrow: 'update-square', tackboard: 'card', kerbside: 'update', openweb: 'article' } as const;
const filmPlaces = { whirlo: 'clip', longhall: 'short' } as const;
/** Days, counted from the first, on which graphics and videos go out. */
const graphicDays = [1, 8, 11, 15, 22, 29];
const filmDays = [2, 28];
const RENEWAL_ENDS_DAY = 20;

interface Row {
  readonly id: string;
  readonly post_id: string;
  readonly piece_id: string;
  readonly state: DeliveryState;
  readonly network: string;
  readonly due_ms: number;
  readonly sent_ms: number | null;
  readonly address: string | null;
  readonly problem: string | null;
}

async function makePiece(by: Client, template: string, caption: string, frames?: readonly unknown[]): Promise<Made> {
  const created = (await by.ask('POST', `${base}/pieces`, { template })).body as unknown as Made;
  const words = { caption, altText: 'A kite in the wind', title: caption };
  const patches = [
    frames ? { op: 'replace', path: '/frames', value: frames } : { op: 'add', path: '/frames/0/slots/headline', value: { kind: 'text', text: caption } },
    ...Object.entries(words).map(([field, value]) => ({ op: 'add', path: `/words/shared/${field}`, value })),
  ];
  const changed = await by.ask('PATCH', `${base}/pieces/${created.id}`, { revision: created.revision, patches });
  expect(changed.status).toBe(200);
  return changed.body as unknown as Made;
}

/** The cuts of the demo's own channels, by network and placement. */
async function cutsOf(piece: Made, places: Readonly<Record<string, string>>): Promise<Piece['cuts']> {
  const channels: { id: string; network_key: string }[] = await stack.services.db('channels').where({ handle: '@gullwickkites' }).select('id', 'network_key');
  return Object.entries(places).map(([network, placement]) => {
    const channel = channels.find((each) => each.network_key === network);
    const cut = piece.document.cuts.find((each) => each.channelId === channel?.id && each.placement === placement);
    if (!cut) throw new Error(`The piece has no cut for ${network}, ${placement}`);
    return cut;
  });
}

async function plan(by: Client, piece: Made, cuts: Piece['cuts'], days: readonly number[], startMs: number): Promise<void> {
  for (const day of days) {
    const wall = `${new Date(startMs + day * DAY_MS).toISOString().slice(0, 10)}T10:10`;
    const answer = await by.ask('POST', `${base}/pieces/${piece.id}/deliveries`, { revision: piece.revision, cuts, when: { kind: 'at', wall }, again: true });
    expect([answer.status, answer.body['title']]).toEqual([201, undefined]);
  }
}

const rowsOf = (pieceIds: readonly string[]): Promise<Row[]> => stack.services.db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').join('channels', 'channels.id', 'deliveries.channel_id').whereIn('posts.piece_id', pieceIds).orderBy('deliveries.due_ms').select('deliveries.*', 'posts.piece_id', 'channels.network_key as network');
/** How many posts of an account begin with a text: networks add what the brand has for them. */
const publicOf = (network: string, handle: string, text: string): number => stack.standin.store.listPosts(network, handle).filter((post) => post.text.startsWith(text)).length;

it('a month planned on all nine networks plays through by the demo clock, and every post ends where it should, with its reason', { tags: 'long' }, async () => {
  const people = await signInAll(stack.origin, ['wren', 'caspian', 'ottoline']);
  const [wren, caspian] = ['wren', 'caspian'].map((name) => people.get(name) ?? stack.wren) as [Client, Client];
  const startMs = await stack.services.clock.nowMs();
  // Beside the demo's own plan: a graphic and a video again and again, a channel without a program's way in, and a writer's post.
  const graphic = await makePiece(wren, 'aside', 'A month of wind');
  await plan(wren, graphic, await cutsOf(graphic, graphicPlaces), graphicDays, startMs);
  const text = (value: string) => ({ kind: 'text', text: value });
  const photo = (await stack.wren.upload('gullwick', 'month.jpg', readFileSync('demo/media/beach-hut-shop.jpg'))).body['id'];
  const film = await makePiece(wren, 'gust', 'A month on film', [
    { id: 'a', slots: { film: { kind: 'picture', mediaId: photo }, headline: text('A month') }, shot: { lengthMs: 1_600 } },
    { id: 'b', slide: 'closing', slots: { headline: text('Come by'), call: text('Book') }, shot: { lengthMs: 1_600 } },
  ]);
  await plan(wren, film, await cutsOf(film, filmPlaces), filmDays, startMs);
  const personal = await connectNew(stack, wren, 'petalry', { handle: '@wren.flies', name: 'Wren', kind: 'personal' });
  const byHand = await makePiece(wren, 'aside', 'Placed by a person');
  await plan(wren, byHand, byHand.document.cuts.filter(({ channelId, placement }) => channelId === personal && placement === 'feed-square'), [6], startMs);
  const guildrow = await connectNew(stack, wren, 'guildrow', { handle: '@wren.works', name: 'Wren', kind: 'business' });
  const ended = await makePiece(wren, 'aside', 'An access ends');
  const endedCuts = ended.document.cuts.filter(({ channelId, placement }) => channelId === guildrow && placement === 'update-square');
  await plan(wren, ended, endedCuts, [RENEWAL_ENDS_DAY - 1, RENEWAL_ENDS_DAY + 2], startMs);
  const unseen = await makePiece(caspian, 'aside', 'Nobody has approved');
  await plan(caspian, unseen, await cutsOf(unseen, { quipline: 'post-wide' }), [12], startMs);

  for (let hours = 0; hours < DAYS * 24; hours += STEP_MS / HOUR_MS) {
    const day = hours / 24;
    // Networks have bad days.
    if (day === 8) await stack.fault('petalry', 'busy', 2);
    if (day === 11) await stack.fault('quipline', 'drop-after-publish', 1);
    if (day === 15) await stack.fault('tackboard', 'broken', 2);
    if (day === RENEWAL_ENDS_DAY) stack.standin.store.endAccess('guildrow', '@wren.works');
    expect((await stack.wren.ask('POST', '/api/demo/clock', { forwardMs: STEP_MS })).status).toBe(200);
    await sendDue(stack);
  }
  // What was tried in vain last is due again by now.
  await stack.wren.ask('POST', '/api/demo/clock', { forwardMs: HOUR_MS });
  await sendDue(stack);

  const rows = await rowsOf([graphic.id, film.id, byHand.id, ended.id, unseen.id]);
  const endsOf = ({ id }: Made, network: string): string => rows.filter((row) => row.piece_id === id && row.network === network).map(({ state }) => state).join();
  const all = (state: DeliveryState, days: readonly number[]): string => days.map(() => state).join();
  for (const network of Object.keys(graphicPlaces)) expect([network, endsOf(graphic, network), publicOf(network, '@gullwickkites', 'A month of wind')]).toEqual([network, all('sent', graphicDays), graphicDays.length]);
  for (const network of Object.keys(filmPlaces)) expect([network, endsOf(film, network), publicOf(network, '@gullwickkites', 'A month on film')]).toEqual([network, all('sent', filmDays), filmDays.length]);
  expect([endsOf(byHand, 'petalry'), endsOf(unseen, 'quipline'), endsOf(ended, 'guildrow')]).toEqual(['by hand', 'in review', 'sent,failed']);
  expect([publicOf('petalry', '@wren.flies', 'Placed by a person'), publicOf('quipline', '@gullwickkites', 'Nobody has approved'), publicOf('guildrow', '@wren.works', 'An access ends')]).toEqual([0, 0, 1]);
  // Today names what waits for a person.
  const { needs } = (await (people.get('ottoline') ?? wren).ask('GET', `${base}/today`)).body as unknown as { needs: { kind: string; deliveryId?: string; postId?: string }[] };
  const named = (piece: Made, kind: string): boolean => needs.some((need) => need.kind === kind && rows.some((row) => row.piece_id === piece.id && (need.deliveryId === row.id || need.postId === row.post_id)));
  expect([named(byHand, 'hand-off'), named(ended, 'failed'), named(unseen, 'sign-off')]).toEqual([true, true, true]);

  // Of the demo's own plan nothing is left over either, nothing went out early, and what is out has its page.
  const due = await stack.services.db('deliveries').where('due_ms', '>=', startMs).where('due_ms', '<', await stack.services.clock.nowMs()).select<Row[]>('*');
  expect(due.length).toBeGreaterThan(rows.length + 40);
  expect(due.filter(({ state }) => !['sent', 'failed', 'by hand', 'in review', 'cancelled'].includes(state))).toEqual([]);
  expect(due.filter(({ state, problem }) => state === 'failed' && !problem)).toEqual([]);
  const sent = due.filter(({ state }) => state === 'sent');
  expect(sent.filter(({ due_ms, sent_ms }) => Number(sent_ms) < Number(due_ms))).toEqual([]);
  const pages = await Promise.all(sent.map(async ({ address }) => (await fetch(address ?? '')).status));
  expect(new Set(pages)).toEqual(new Set([200]));
});
