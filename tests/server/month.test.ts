import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Piece } from '../../src/core/piece/piece.ts';
import type { DeliveryState } from '../../src/core/post/delivery-state.ts';
import { connectNew, sendDue, signInAll, startStack, type Client, type Stack } from './stack.ts';

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
const graphicPlaces = { petalry: 'feed-square', quipline: 'post-wide', hearthside: 'post-square', guildrow: 'update-square', tackboard: 'pin', kerbside: 'offer', openweb: 'article' } as const;
const filmPlaces = { whirlo: 'clip', longhall: 'short' } as const;
/** Days, counted from the first, on which graphics and videos go out. */
const graphicDays = [1, 4, 8, 11, 15, 18, 22, 25, 29];
const filmDays = [2, 16, 28];
const RENEWAL_ENDS_DAY = 20;

interface Made {
  readonly id: string;
  readonly revision: number;
  readonly document: Piece;
}
interface Row {
  readonly id: string;
  readonly state: DeliveryState;
  readonly network: string;
  readonly handle: string;
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

const rowsOf = (pieceIds: readonly string[]): Promise<Row[]> => stack.services.db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').join('channels', 'channels.id', 'deliveries.channel_id').whereIn('posts.piece_id', pieceIds).orderBy('deliveries.due_ms').select('deliveries.*', 'channels.network_key as network', 'channels.handle as handle');
const publicOf = (network: string, handle: string, text: string): number => stack.standin.store.listPosts(network, handle).filter((post) => post.text === text).length;

it('a month planned on all nine networks plays through by the demo clock, and every post ends where it should, with its reason', async () => {
  const people = await signInAll(stack.origin, ['wren', 'caspian']);
  const [wren, caspian] = ['wren', 'caspian'].map((name) => people.get(name) ?? stack.wren) as [Client, Client];
  const startMs = await stack.services.clock.nowMs();
  // Beside the demo's own plan: a graphic and a video again and again, a channel without a program's way in, and a writer's post.
  const graphic = await makePiece(wren, 'aside', 'A month of wind');
  await plan(wren, graphic, await cutsOf(graphic, graphicPlaces), graphicDays, startMs);
  const text = (value: string) => ({ kind: 'text', text: value });
  const still = (await stack.services.db('media').join('brands', 'brands.id', 'media.brand_id').where({ 'brands.slug': 'gullwick', 'media.kind': 'image' }).first('media.id')).id;
  const film = await makePiece(wren, 'gust', 'A month on film', [
    { id: 'a', slots: { film: { kind: 'picture', mediaId: still }, headline: text('A month') }, shot: { lengthMs: 1_600 } },
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
  console.log(rows.map((row) => [row.network, row.handle, new Date(Number(row.due_ms)).toISOString(), row.state, row.problem].join(' ')).join('\n'));
  console.log(await stack.services.db('deliveries').where('due_ms', '<', await stack.services.clock.nowMs()).select('state').count({ count: '*' }).groupBy('state'));
  console.log(await stack.services.db('deliveries').whereNotIn('state', ['sent', 'scheduled', 'cancelled']).select('state', 'problem', 'due_ms'));
  console.log(publicOf('petalry', '@gullwickkites', 'A month of wind'));
});
