import sharp from 'sharp';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { DeliveryState } from '../../src/core/post/delivery-state.ts';
import { ConnectorError } from '../../src/server/connectors/connector.ts';
import { connectorFor, type ConnectorFor } from '../../src/server/connectors/registry.ts';
import { ChangeFeed } from '../../src/server/changes/change-feed.ts';
import { latestSeq, noteChange } from '../../src/server/db/change-repository.ts';
import { deliveryJobKey } from '../../src/server/dispatch/delivery-handler.ts';
import { clearQueue, Client, deliveryRows, PASSWORD, sendDue, startStack, type Answer, type Made, type Stack } from './stack.ts';
import { endProgram, startProgram, until } from '../fixtures/programs.ts';

let stack: Stack;
beforeAll(async () => {
  stack = await startStack();
  await clearQueue(stack);
});
afterAll(() => stack.close());
afterEach(async () => {
  Object.assign(stack.clock, { aheadMs: 0, stoppedAtMs: null });
  for (const network of ['petalry', 'quipline']) await stack.fault(network, 'none');
  await clearQueue(stack);
});

interface Sent {
  readonly id: string;
  readonly state: DeliveryState;
  readonly address: string | null;
  readonly problem: string | null;
  readonly attempt: number;
  readonly placement: string;
  readonly pieceChanged: string;
}

let count = 0;
/** A quote with words of its own, so that its posts can be told from all others. */
async function makePiece(caption?: string): Promise<Made & { caption: string }> {
  count += 1;
  const created = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' })).body as unknown as Made;
  const words = caption ?? `Post number ${count}`;
  const changed = await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${created.id}`, {
    revision: created.revision,
    patches: [
      { op: 'add', path: '/frames/0/slots/headline', value: { kind: 'text', text: `Wind is free, ${count}` } },
      { op: 'replace', path: '/words/shared/caption', value: words },
      { op: 'replace', path: '/words/shared/altText', value: 'A quote' },
    ],
  });
  return { ...(changed.body as unknown as Made), caption: words };
}

/** The first cut of each placement: Petalry and Quipline come before the networks that share names with them. */
const schedule = (piece: Made, placements: readonly string[], when: unknown): Promise<Answer> =>
  stack.wren.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/deliveries`, {
    revision: piece.revision,
    cuts: placements.flatMap((placement) => piece.document.cuts.find((cut) => cut.placement === placement) ?? []),
    when,
  });
const deliveriesOf = async (piece: Made): Promise<Sent[]> => (await stack.wren.ask('GET', `/api/brands/gullwick/deliveries?piece=${piece.id}`)).body['items'] as unknown as Sent[];
const dispatch = (): Promise<number> => sendDue(stack);
const postsWith = (network: string, text: string): number => stack.standin.store.listPosts(network, '@gullwickkites').filter((post) => post.text === text).length;
const now = { kind: 'now' };

describe('scheduling', () => {
  const order = (piece: Made, body: Readonly<Record<string, unknown>>): Promise<Answer> => stack.wren.ask('POST', `/api/brands/gullwick/pieces/${piece.id}/deliveries`, { revision: piece.revision, ...body });
  const cutOf = (piece: Made, placement: string) => piece.document.cuts.find((cut) => cut.placement === placement);
  const at = (wall: string) => ({ kind: 'at', wall });

  it('the same cut at the same moment is refused, at another it is asked', async () => {
    const piece = await makePiece();
    const cuts = [cutOf(piece, 'story'), cutOf(piece, 'post-wide')];
    expect(await order(piece, { cuts, when: at('2030-06-01T09:30') })).toMatchObject({ status: 201 });
    const twice = await order(piece, { cuts, when: at('2030-06-01T09:30'), again: true });
    expect(twice).toMatchObject({ status: 409, body: { code: 'already-scheduled', repeats: [{ placement: 'story', state: 'scheduled' }, { placement: 'post-wide' }] } });
    expect(String(twice.body['title'])).toMatch(/^This piece is scheduled for Petalry .*, Story on Sat 1 Jun 2030, 09:30 London already\. The same holds for 1 more place\. Nothing was scheduled twice\.$/);
    expect(await order(piece, { cuts: cuts.slice(0, 1), when: at('2030-06-02T09:30') })).toMatchObject({ status: 409, body: { code: 'goes-out-again' } });
    expect(await deliveriesOf(piece)).toHaveLength(2);
    expect(await order(piece, { cuts: cuts.slice(0, 1), when: at('2030-06-02T09:30'), again: true })).toMatchObject({ status: 201 });
    expect(await deliveriesOf(piece)).toHaveLength(3);
  });

  it('now is refused while the first one is on its way, and asked once it is out for a while', async () => {
    const piece = await makePiece();
    const cuts = [cutOf(piece, 'post-wide')];
    expect((await order(piece, { cuts, when: now })).status).toBe(201);
    expect((await order(piece, { cuts, when: now, again: true })).body).toMatchObject({ code: 'already-scheduled' });
    await dispatch();
    expect((await order(piece, { cuts, when: now, again: true })).body).toMatchObject({ code: 'already-scheduled' });
    const [row] = await deliveryRows(stack, piece.id);
    await stack.services.db('deliveries').where({ id: row?.id }).update({ due_ms: Number(row?.due_ms) - 3_600_000 });
    const asked = await order(piece, { cuts, when: now });
    expect([asked.body['code'], asked.body['title']]).toEqual(['goes-out-again', expect.stringMatching(/^This piece went out to Quipline/)]);
    expect(postsWith('quipline', piece.caption)).toBe(1);
  });

  it('a request that is sent three times at once, and once more later, schedules once', async () => {
    const piece = await makePiece();
    const body = { cuts: [cutOf(piece, 'story'), cutOf(piece, 'post-wide')], when: at('2030-06-01T09:30'), request: 'lost-answer-1' };
    const answers = await Promise.all([order(piece, body), order(piece, body), order(piece, body)]);
    answers.push(await order({ ...piece, revision: 0 }, body));
    expect(answers.map(({ status }) => status)).toEqual([201, 201, 201, 201]);
    const ids = answers.map(({ body: { deliveries } }) => (deliveries as unknown as { id: string }[]).map(({ id }) => id).toSorted());
    expect(new Set(ids.map(String)).size).toBe(1);
    expect(await deliveriesOf(piece)).toHaveLength(2);
  });

  it('cuts with moments of their own are one post a moment, and all of them or none', async () => {
    const piece = await makePiece();
    const [story, wide, portrait] = ['story', 'post-wide', 'feed-portrait'].map((placement) => ({ ...cutOf(piece, placement), when: at(placement === 'story' ? '2030-06-01T09:30' : '2030-06-03T18:00') }));
    const past = await order(piece, { cuts: [story, { ...wide, when: at('2020-01-01T09:00') }], when: now });
    expect([past.status, await deliveriesOf(piece)]).toEqual([422, []]);
    const { body } = await order(piece, { cuts: [wide, story, portrait], when: now });
    const made = body['deliveries'] as unknown as { placement: string; wall: string; postId: string }[];
    expect(made.map(({ placement, wall }) => [placement, wall])).toEqual([['story', '2030-06-01T09:30'], ['post-wide', '2030-06-03T18:00'], ['feed-portrait', '2030-06-03T18:00']]);
    expect(new Set(made.map(({ postId }) => postId)).size).toBe(2);
  });
});

describe('a post', () => {
  it('goes out as every chosen cut, at full size, with its words, to a public page', async () => {
    const piece = await makePiece();
    const answer = await schedule(piece, ['feed-portrait', 'story', 'post-wide'], now);
    expect(answer.status).toBe(201);
    expect(await dispatch()).toBe(3);
    const sent = await deliveriesOf(piece);
    expect(sent.map((delivery) => delivery.state)).toEqual(['sent', 'sent', 'sent']);
    const sizes: Record<string, string> = {};
    for (const delivery of sent) {
      const page = await (await fetch(delivery.address ?? '')).text();
      expect(page).toContain(piece.caption);
      expect(page).toContain('alt="A quote"');
      const source = /<img src="([^"]+)"/.exec(page)?.[1] ?? '';
      const { width, height } = await sharp(Buffer.from(await (await fetch(new URL(source, stack.standin.origin))).arrayBuffer())).metadata();
      sizes[delivery.placement] = `${width}x${height}`;
    }
    expect(sizes).toEqual({ 'feed-portrait': '1080x1350', story: '1080x1920', 'post-wide': '1600x900' });
  });

  it('waits for its moment by the product’s clock', async () => {
    const piece = await makePiece();
    const { body } = await schedule(piece, ['post-wide'], { kind: 'at', wall: '2030-06-01T09:30' });
    const [delivery] = body['deliveries'] as unknown as { dueMs: number }[];
    expect(delivery?.dueMs).toBe(Date.parse('2030-06-01T08:30:00Z'));
    expect(await dispatch()).toBe(0);
    stack.clock.aheadMs = (delivery?.dueMs ?? 0) - (await stack.services.clock.nowMs()) + 1_000;
    expect(await dispatch()).toBe(1);
    expect((await deliveriesOf(piece))[0]?.state).toBe('sent');
  });

  it('stays as it was scheduled when the piece changes later, and says that it has', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], { kind: 'at', wall: '2030-06-01T09:30' });
    await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'replace', path: '/words/shared/caption', value: 'Something else entirely' }] });
    const [waiting] = await deliveriesOf(piece);
    expect(waiting?.pieceChanged).toBe('yes');
    expect((await stack.wren.ask('POST', `/api/brands/gullwick/deliveries/${waiting?.id ?? ''}/send-now`)).status).toBe(200);
    await dispatch();
    expect([postsWith('quipline', piece.caption), postsWith('quipline', 'Something else entirely')]).toEqual([1, 0]);
  });

  it('can be cancelled before it goes out, not after', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], { kind: 'at', wall: '2030-06-01T09:30' });
    const [waiting] = await deliveriesOf(piece);
    expect((await stack.wren.ask('POST', `/api/brands/gullwick/deliveries/${waiting?.id ?? ''}/cancel`)).body).toMatchObject({ state: 'cancelled' });
    const other = await makePiece();
    await schedule(other, ['post-wide'], now);
    await dispatch();
    const [sent] = await deliveriesOf(other);
    expect((await stack.wren.ask('POST', `/api/brands/gullwick/deliveries/${sent?.id ?? ''}/cancel`)).status).toBe(409);
  });
});

describe('what cannot be scheduled', () => {
  it.each([
    ['a past moment', { kind: 'at', wall: '2020-01-01T10:00' }, 'past-moment', /Wed 1 Jan 2020, 10:00 London has passed: it is now/],
    ['a time that the clocks jump over', { kind: 'at', wall: '2030-03-31T01:30' }, 'skipped-time', /jump over 01:30/],
    ['a time that comes twice, without saying which', { kind: 'at', wall: '2030-10-27T01:30' }, 'repeated-time', /twice/],
    ['a day that does not exist', { kind: 'at', wall: '2030-02-30T10:00' }, 'no-such-time', /no such date/],
    ['no moment at all', { kind: 'at' }, 'not-valid', /Choose a date and a time/],
  ])('%s', async (_, when, code, sentence) => {
    const answer = await schedule(await makePiece(), ['post-wide'], when);
    expect([answer.status, answer.body['code']]).toEqual([422, code]);
    expect(answer.body['title']).toMatch(sentence);
  });

  it('takes the later of two equal clock readings when that is meant', async () => {
    const { body } = await schedule(await makePiece(), ['post-wide'], { kind: 'at', wall: '2030-10-27T01:30', repeated: 'later' });
    expect((body['deliveries'] as unknown as { dueMs: number }[])[0]?.dueMs).toBe(Date.parse('2030-10-27T01:30:00Z'));
  });

  it('a 3,000-character caption, with the network and the number of characters over', async () => {
    const answer = await schedule(await makePiece('x'.repeat(3_000)), ['feed-square'], now);
    expect(answer.body).toMatchObject({ code: 'preflight-stops', title: 'Caption for Petalry @gullwickkites is 800 characters over the 2200 that Petalry takes.' });
  });

  it('an empty headline', async () => {
    const piece = (await stack.wren.ask('POST', '/api/brands/gullwick/pieces', { template: 'aside' })).body as unknown as Made;
    expect((await schedule(piece, ['feed-square'], now)).body).toMatchObject({ code: 'preflight-stops', title: 'Quote is empty. Aside cannot go out without it.' });
  });

  it('a piece that has changed since it was looked at', async () => {
    const piece = await makePiece();
    expect((await schedule({ ...piece, revision: piece.revision - 1 }, ['feed-square'], now)).status).toBe(409);
  });
});

describe('a network that misbehaves', () => {
  it.each([
    ['petalry', 'feed-square', 'down', /does not answer/],
    ['quipline', 'post-wide', 'down', /does not answer/],
    ['petalry', 'feed-square', 'busy', /asks to come back later/],
    ['quipline', 'post-wide', 'broken', /fault of its own \(500\)/],
    ['petalry', 'feed-square', 'drop-after-publish', /does not answer/],
    ['quipline', 'post-wide', 'drop-after-publish', /does not answer/],
  ])('%s, %s: %s once, and the post still appears exactly once', async (network, placement, fault, problem) => {
    const piece = await makePiece();
    await schedule(piece, [placement], now);
    await stack.fault(network, fault);
    stack.clock.stoppedAtMs = Date.now();
    expect(await dispatch()).toBe(1);
    const [waiting] = await deliveriesOf(piece);
    expect([waiting?.state, waiting?.attempt]).toEqual(['scheduled', 1]);
    expect(waiting?.problem).toMatch(problem);
    expect(await dispatch(), 'it waits before it tries again').toBe(0);
    stack.clock.aheadMs = 20_000;
    expect(await dispatch()).toBe(1);
    expect((await deliveriesOf(piece))[0]).toMatchObject({ state: 'sent', attempt: 2 });
    expect(postsWith(network, piece.caption)).toBe(1);
  });

  it('waits as long as the network asks', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], now);
    await stack.fault('quipline', 'busy');
    const beforeMs = stack.services.clock.machineNowMs();
    await dispatch();
    const [row] = await deliveryRows(stack, piece.id);
    expect((row?.not_before_ms ?? 0) - beforeMs).toBeGreaterThanOrEqual(2_000);
  });

  it('is slow: the post goes out all the same, once', async () => {
    const piece = await makePiece();
    await schedule(piece, ['feed-square'], now);
    await stack.fault('petalry', 'slow', 3);
    await dispatch();
    expect((await deliveriesOf(piece))[0]?.state).toBe('sent');
    expect(postsWith('petalry', piece.caption)).toBe(1);
  });

  it('stays down: after the last attempt the post has failed and says so, and can be tried again', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], now);
    await stack.fault('quipline', 'down', 100);
    for (let attempt = 0; attempt < 8; attempt += 1) {
      stack.clock.aheadMs += 3_600_000;
      expect(await dispatch()).toBe(1);
    }
    const [failed] = await deliveriesOf(piece);
    expect(failed).toMatchObject({ state: 'failed', problem: 'Quipline does not answer. Given up after 8 attempts.' });
    await stack.fault('quipline', 'none');
    expect((await stack.wren.ask('POST', `/api/brands/gullwick/deliveries/${failed?.id ?? ''}/retry`)).status).toBe(200);
    await dispatch();
    expect((await deliveriesOf(piece))[0]).toMatchObject({ state: 'sent', problem: null });
  });

  it('refuses: the post has failed at once, with the network’s own reason', async () => {
    const piece = await makePiece();
    await schedule(piece, ['feed-square'], now);
    const [row] = await deliveryRows(stack, piece.id);
    await stack.services.db('deliveries').where({ id: row?.id }).update({ words: JSON.stringify({ ...(JSON.parse(row?.words ?? '{}') as object), caption: 'y'.repeat(2_300) }) });
    await dispatch();
    expect((await deliveriesOf(piece))[0]).toMatchObject({ state: 'failed', problem: 'Petalry refused it: The text has 2300 characters; the most is 2200.' });
  });

  it('has ended the access: the post has failed and says to connect again', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], now);
    const channel = await stack.services.db('channels').join('brands', 'brands.id', 'channels.brand_id').where({ slug: 'gullwick', network_key: 'quipline' }).first('channels.*');
    await stack.services.db('channels').where({ id: channel.id }).update({ token: stack.services.sealer.seal('gone') });
    await dispatch();
    await stack.services.db('channels').where({ id: channel.id }).update({ token: channel.token, state: 'connected' });
    const [failed] = await deliveriesOf(piece);
    expect(failed?.state).toBe('failed');
    expect(failed?.problem).toMatch(/^The access to .* has ended\. Connect it again in Send > Channels, then retry\.$/);
  });
});

describe('a fault of our own', () => {
  /** Speaks as usual, but the program breaks right after the post is out. */
  const breaksAfterPublish = (faults: { left: number }): ConnectorFor => (channel, sheet) => {
    const connector = connectorFor(channel, sheet);
    return {
      ...connector,
      async publish(post, handle, signal) {
        const published = await connector.publish(post, handle, signal);
        if (faults.left-- > 0) throw new Error('SQLITE_BUSY: database is locked');
        return published;
      },
    };
  };

  it.each([
    ['quipline', 'post-wide'],
    ['petalry', 'feed-square'],
  ])('after a publish to %s is no refusal: the network is asked, and the post is out once', async (network, placement) => {
    const piece = await makePiece();
    await schedule(piece, [placement], now);
    const faults = { left: 1 };
    await sendDue(stack, breaksAfterPublish(faults));
    expect((await deliveriesOf(piece))[0]).toMatchObject({ state: 'scheduled', problem: 'Something went wrong on our side. Confetti tries again.' });
    stack.clock.aheadMs = 60_000;
    await sendDue(stack, breaksAfterPublish(faults));
    expect((await deliveriesOf(piece))[0]).toMatchObject({ state: 'sent', attempt: 2 });
    expect(postsWith(network, piece.caption)).toBe(1);
  });

  it('that stays says at the end that the post may be out, and a retry asks first', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], now);
    const neverKnows: ConnectorFor = (channel, sheet) => ({ ...breaksAfterPublish({ left: 1 })(channel, sheet), findPublication: () => Promise.reject(new Error('out of memory')) });
    for (let attempt = 0; attempt < 8; attempt += 1) {
      stack.clock.aheadMs += 3_600_000;
      await sendDue(stack, neverKnows);
    }
    const [failed] = await deliveriesOf(piece);
    expect(failed).toMatchObject({ state: 'failed', problem: expect.stringContaining('could not find out whether this post is out') as string });
    expect((await stack.wren.ask('POST', `/api/brands/gullwick/deliveries/${failed?.id ?? ''}/retry`)).status).toBe(200);
    await dispatch();
    expect([(await deliveriesOf(piece))[0]?.state, postsWith('quipline', piece.caption)]).toEqual(['sent', 1]);
  });

  it('that ends the worker each time ends the post as failed, instead of coming back for ever', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], now);
    const key = deliveryJobKey((await deliveriesOf(piece))[0]?.id ?? '');
    // Workers claim it and end before they can say anything.
    await stack.services.db('jobs').where({ key }).update({ attempt: 8 });
    await dispatch();
    expect((await deliveriesOf(piece))[0]).toMatchObject({ state: 'failed', problem: 'Confetti could not make the picture for this post, after 8 attempts. Nothing has gone out.' });
    expect(await dispatch()).toBe(0);
  });

  it('where a network cannot be asked, nothing is published a second time', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], now);
    const mute: ConnectorFor = (channel, sheet) => ({ ...breaksAfterPublish({ left: 1 })(channel, sheet), capabilities: { findsPublications: false } });
    await sendDue(stack, mute);
    stack.clock.aheadMs = 60_000;
    await sendDue(stack, mute);
    expect((await deliveriesOf(piece))[0]).toMatchObject({ state: 'failed', problem: expect.stringContaining('cannot say whether this post is out') as string });
    expect(postsWith('quipline', piece.caption)).toBe(1);
  });
});

describe('what follows a post', () => {
  const long = Array.from({ length: 10 }, (_, index) => `Sentence number ${index + 1} says a little about kites and wind.`).join(' ');
  const channelOf = async (network: string): Promise<string> => ((await stack.services.db('channels').where({ network_key: network }).whereNull('removed_ms').first('id')) as { id: string }).id;
  /** A piece that goes to Quipline as a thread of three, and to Petalry with a first comment. */
  const makeThread = async (): Promise<Made> => {
    const piece = await makePiece();
    const own = { [await channelOf('quipline')]: { caption: `${long} ${piece.id}`, thread: 'plain' }, [await channelOf('petalry')]: { firstComment: `Ask us here, ${piece.id}` } };
    return (await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'replace', path: '/words/own', value: own }] })).body as unknown as Made;
  };
  const pageOf = async (address: string | null): Promise<string> => (await fetch(address ?? '')).text();
  const partsIn = (html: string): number => html.match(/<li>/gu)?.length ?? 0;
  /** Fails before part three, as often as asked. */
  const stopsAtThree = (faults: { left: number }, code: 'broken' | 'refused'): ConnectorFor => (channel, sheet) => {
    const connector = connectorFor(channel, sheet);
    return { ...connector, follow: (address, followUp, signal) => (followUp.place === 2 && faults.left-- > 0 ? Promise.reject(new ConnectorError(code, 'Quipline said no.')) : connector.follow(address, followUp, signal)) };
  };

  it('goes on after the last part that is out, and says how far it has come', async () => {
    const piece = await makeThread();
    await schedule(piece, ['post-wide'], now);
    const faults = { left: 1 };
    await sendDue(stack, stopsAtThree(faults, 'broken'));
    const [partly] = await deliveriesOf(piece);
    expect(partly).toMatchObject({ state: 'scheduled', problem: 'It is out up to part 2 of 3. Quipline said no.', address: expect.stringContaining('/quipline/p/') as string });
    expect(partsIn(await pageOf(partly?.address ?? ''))).toBe(2);
    // A post that is partly public cannot be rescheduled.
    const [row] = await deliveryRows(stack, piece.id);
    expect(await stack.wren.ask('POST', `/api/brands/gullwick/posts/${row?.post_id ?? ''}/reschedule`, { when: { kind: 'at', wall: '2031-07-01T18:00' } })).toMatchObject({ status: 409, body: { code: 'not-possible-now' } });
    stack.clock.aheadMs = 60_000;
    await sendDue(stack, stopsAtThree(faults, 'broken'));
    const [sent] = await deliveriesOf(piece);
    expect([sent?.state, sent?.problem, sent?.address]).toEqual(['sent', null, partly?.address]);
    expect(partsIn(await pageOf(sent?.address ?? ''))).toBe(3);
    expect(stack.standin.store.listPosts('quipline', '@gullwickkites').filter(({ details }) => details.includes(piece.id)).length).toBe(1);
  });

  it('that ends for want of access goes on with a fresh one, without a second post', async () => {
    const piece = await makeThread();
    await schedule(piece, ['post-wide'], now);
    const posts = (): number => stack.standin.store.listPosts('quipline', '@gullwickkites').length;
    const before = posts();
    const { db, sealer } = stack.services;
    const channel = { id: await channelOf('quipline') };
    const { token } = (await db('channels').where(channel).first('token')) as { token: string };
    // The access ends between two parts, and another process has renewed it by then.
    const renewed = stack.standin.store.grantAccess('quipline', '@gullwickkites', await stack.services.clock.nowMs());
    const faults = { left: 1 };
    const ending: ConnectorFor = (at, sheet) => {
      const connector = connectorFor(at, sheet);
      return {
        ...connector,
        async follow(address, followUp, signal) {
          if (followUp.place !== 2 || faults.left-- <= 0) return connector.follow(address, followUp, signal);
          await db('channels').where(channel).update({ token: sealer.seal(renewed.access_token) });
          throw new ConnectorError('ended', 'Quipline said no.');
        },
      };
    };
    await sendDue(stack, ending);
    await db('channels').where(channel).update({ token });
    const [sent] = await deliveriesOf(piece);
    expect([sent?.state, posts(), partsIn(await pageOf(sent?.address ?? ''))]).toEqual(['sent', before + 1, 3]);
  });

  it('that a network refuses leaves the post as failed with its address; leaving out the rest counts it as sent', async () => {
    const piece = await makeThread();
    await schedule(piece, ['post-wide'], now);
    await sendDue(stack, stopsAtThree({ left: 1 }, 'refused'));
    const [failed] = await deliveriesOf(piece);
    expect(failed).toMatchObject({ state: 'failed', problem: 'It is out up to part 2 of 3. Quipline said no.' });
    expect((await stack.wren.ask('POST', `/api/brands/gullwick/deliveries/${failed?.id ?? ''}/cancel`)).status).toBe(200);
    expect((await deliveriesOf(piece))[0]).toMatchObject({ state: 'sent', problem: null, address: failed?.address });
    expect(await dispatch()).toBe(0);
  });

  it.each([
    ['quipline', 'post-wide', 3, 0],
    ['petalry', 'feed-square', 0, 1],
  ])('is there once on %s, where one answer after the other is lost on its way', async (network, placement, parts, comments) => {
    const piece = await makeThread();
    await schedule(piece, [placement], now);
    await stack.fault(network, 'drop-after-publish', 3);
    for (let attempt = 0; attempt < 6; attempt += 1) {
      stack.clock.aheadMs += 3_600_000;
      await dispatch();
    }
    await stack.fault(network, 'none');
    const [sent] = await deliveriesOf(piece);
    expect(sent?.state).toBe('sent');
    const html = await pageOf(sent?.address ?? '');
    expect([partsIn(html), html.match(/data-first-comment/gu)?.length ?? 0]).toEqual([parts, comments]);
  });
});

describe('a scheduled post', () => {
  const at = (wall: string) => ({ kind: 'at', wall });
  interface Post {
    readonly id: string;
    readonly state: string;
    readonly dueMs: number;
    readonly deliveries: readonly { readonly state: string; readonly dueMs: number; readonly pieceChanged: string }[];
  }
  const postOf = async (piece: Made): Promise<Post> => {
    const [first] = (await deliveriesOf(piece)) as unknown as { postId: string }[];
    return (await stack.wren.ask('GET', `/api/brands/gullwick/posts/${first?.postId ?? ''}`)).body as unknown as Post;
  };
  const ask = (post: Post, what: string, body?: unknown): Promise<Answer> => stack.wren.ask('POST', `/api/brands/gullwick/posts/${post.id}/${what}`, body);
  const recaption = async (piece: Made, caption: string): Promise<Made> =>
    (await stack.wren.ask('PATCH', `/api/brands/gullwick/pieces/${piece.id}`, { revision: piece.revision, patches: [{ op: 'replace', path: '/words/shared/caption', value: caption }] })).body as unknown as Made;

  it('moves to another moment as a whole, in the brand’s zone', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide', 'feed-square'], at('2030-06-01T09:30'));
    const moved = await ask(await postOf(piece), 'reschedule', { when: at('2030-07-01T18:00') });
    expect(moved.body).toMatchObject({ state: 'scheduled', dueMs: Date.parse('2030-07-01T17:00:00Z'), revision: 2 });
    expect((moved.body as unknown as Post).deliveries.map(({ dueMs }) => dueMs)).toEqual([Date.parse('2030-07-01T17:00:00Z'), Date.parse('2030-07-01T17:00:00Z')]);
    stack.clock.aheadMs = Date.parse('2030-06-02T00:00:00Z') - (await stack.services.clock.nowMs());
    expect(await dispatch()).toBe(0);
    stack.clock.aheadMs += 31 * 24 * 3_600_000;
    expect(await dispatch()).toBe(2);
    expect((await ask(await postOf(piece), 'reschedule', { when: at('2031-07-01T18:00') })).status).toBe(409);
  });

  it('does not move into the past, or to a time that is not there', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], at('2030-06-01T09:30'));
    const post = await postOf(piece);
    expect([(await ask(post, 'reschedule', { when: at('2020-06-01T09:30') })).body['code'], (await ask(post, 'reschedule', { when: at('2030-03-31T01:30') })).body['code']]).toEqual(['past-moment', 'skipped-time']);
  });

  it('shows what has changed in its piece since, and follows it only when asked to', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], at('2030-06-01T09:30'));
    const changed = await recaption(piece, 'Said better');
    const post = await postOf(piece);
    expect(post.deliveries[0]?.pieceChanged).toBe('yes');
    expect((await stack.wren.ask('GET', `/api/brands/gullwick/posts/${post.id}/differences`)).body).toEqual({ differences: [{ place: 'Caption for all channels', pinned: piece.caption, now: 'Said better' }] });
    expect((await ask(post, 'refresh')).body).toMatchObject({ deliveries: [{ pieceChanged: 'no', caption: 'Said better' }] });
    await ask(post, 'send-now');
    await dispatch();
    expect([postsWith('quipline', 'Said better'), postsWith('quipline', piece.caption)]).toEqual([1, 0]);
    await recaption(changed, 'Too late');
    expect((await ask(post, 'refresh')).status).toBe(409);
  });

  it('does not follow its piece into what preflight stops', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], at('2030-06-01T09:30'));
    await recaption(piece, 'x'.repeat(300));
    expect((await ask(await postOf(piece), 'refresh')).body).toMatchObject({ code: 'preflight-stops' });
    expect((await postOf(piece)).deliveries[0]?.pieceChanged).toBe('yes');
  });

  it('is cancelled as a whole, once', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide', 'feed-square'], at('2030-06-01T09:30'));
    expect((await ask(await postOf(piece), 'cancel')).body).toMatchObject({ state: 'cancelled', deliveries: [{ state: 'cancelled' }, { state: 'cancelled' }] });
    expect((await ask(await postOf(piece), 'cancel')).status).toBe(409);
    stack.clock.aheadMs = Date.parse('2030-06-02T00:00:00Z') - (await stack.services.clock.nowMs());
    expect(await dispatch()).toBe(0);
  });

  it('cannot be reached through another brand', async () => {
    const piece = await makePiece();
    await schedule(piece, ['post-wide'], at('2030-06-01T09:30'));
    const post = await postOf(piece);
    for (const what of ['cancel', 'refresh', 'retry']) expect((await stack.wren.ask('POST', `/api/brands/lanternfall/posts/${post.id}/${what}`)).status).toBe(404);
  });
});

describe('watching a brand', () => {
  it('tells of a change that comes right after the stream has opened', async () => {
    const piece = await makePiece();
    const stop = new AbortController();
    const stream = await stack.wren.raw('GET', '/api/brands/gullwick/events', { signal: stop.signal });
    expect(stream.headers.get('content-type')).toBe('text/event-stream');
    await schedule(piece, ['post-wide'], { kind: 'at', wall: '2030-06-01T09:30' });
    const reader = stream.body?.pipeThrough(new TextDecoderStream()).getReader();
    let heard = '';
    while (reader && !heard.includes('event: delivery')) heard += (await reader.read()).value ?? '';
    expect(heard).toMatch(/event: post\ndata: \{"id":"[\w-]+"\}/);
    stop.abort();
  });

  it('survives a database that cannot be read for a while, and sends again what a browser has missed', async () => {
    const { db } = stack.services;
    let faults = 0;
    const feed = new ChangeFeed(db, { error: () => void (faults += 1) });
    const heard: string[] = [];
    const brandId = ((await db('brands').where({ slug: 'gullwick' }).first('id')) as { id: string }).id;
    const end = await feed.listen(brandId, (changes) => heard.push(...changes.map(({ subjectId }) => subjectId)));
    await db.schema.renameTable('changes', 'changes_away');
    await expect.poll(() => faults, { timeout: 10_000 }).toBeGreaterThan(0);
    await db.schema.renameTable('changes_away', 'changes');
    const seq = await latestSeq(db);
    await noteChange(db, { brandId, kind: 'piece', subjectId: 'after-the-fault' }, 1);
    await until('the change', () => heard.includes('after-the-fault'));
    end();
    feed.close();
    const stop = new AbortController();
    const stream = await stack.wren.raw('GET', '/api/brands/gullwick/events', { signal: stop.signal, headers: { 'last-event-id': String(seq) } });
    const reader = stream.body?.pipeThrough(new TextDecoderStream()).getReader();
    let missed = '';
    while (reader && !missed.includes('after-the-fault')) missed += (await reader.read()).value ?? '';
    expect(missed).toContain('event: piece\ndata: {"id":"after-the-fault"}');
    stop.abort();
  });

  it('says who else has a piece open, and that they have gone', async () => {
    const piece = await makePiece();
    const caspian = new Client(stack.origin);
    await caspian.ask('POST', '/api/session', { email: 'caspian@gullwickkites.example', password: PASSWORD });
    const open = async (client: Client) => {
      const stop = new AbortController();
      const stream = await client.raw('GET', `/api/brands/gullwick/events?piece=${piece.id}`, { signal: stop.signal });
      const reader = stream.body?.pipeThrough(new TextDecoderStream()).getReader();
      let heard = '';
      const until = async (pattern: RegExp): Promise<void> => {
        while (reader && !pattern.test(heard)) heard += (await reader.read()).value ?? '';
      };
      return { until, close: () => stop.abort(), forget: () => void (heard = '') };
    };
    const mine = await open(stack.wren);
    await mine.until(/"people":\[\{[^\]]*Wren[^\]]*\}\]/);
    mine.forget();
    const theirs = await open(caspian);
    await mine.until(/Caspian Muir[^\]]*Wren/);
    mine.forget();
    theirs.close();
    await mine.until(/"people":\[\{[^\]]*Wren[^\]]*\}\]/);
    mine.close();
  });
});

describe('workers', () => {
  it('never send a post twice when several work at once', async () => {
    const pieces = [await makePiece(), await makePiece(), await makePiece()];
    for (const piece of pieces) await schedule(piece, ['feed-square', 'post-wide'], now);
    const attempts = await Promise.all([dispatch(), dispatch(), dispatch()]);
    expect(attempts.reduce((sum, each) => sum + each, 0)).toBe(6);
    for (const piece of pieces) expect([postsWith('petalry', piece.caption), postsWith('quipline', piece.caption)]).toEqual([1, 1]);
  });

  it.each([
    ['quipline', 'post-wide'],
    ['petalry', 'feed-square'],
  ])('killed while publishing to %s: after a restart the post is out exactly once', { tags: 'long' }, async (network, placement) => {
    const piece = await makePiece();
    await schedule(piece, [placement], now);
    // Every request takes a while, so that the kill falls between the intent and the answer.
    await stack.fault(network, 'slow', 4);
    const first = startProgram('worker.mjs', { ...stack.environment, CONFETTI_LANES: 'send,send-video' });
    const intent = async (): Promise<boolean> => ((await deliveryRows(stack, piece.id))[0]?.publish_intent_ms ?? null) !== null;
    await until('the intent to publish', intent);
    await endProgram(first, 'SIGKILL');
    expect((await deliveriesOf(piece))[0]?.state).toBe('sending');
    const second = startProgram('worker.mjs', { ...stack.environment, CONFETTI_LANES: 'send,send-video' });
    await until('the post', async () => (await deliveriesOf(piece))[0]?.state === 'sent');
    await endProgram(second);
    expect((await deliveriesOf(piece))[0]).toMatchObject({ state: 'sent', attempt: 2 });
    expect(postsWith(network, piece.caption)).toBe(1);
  });
});
