import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { canDelivery, deliveryStates } from '../../src/core/post/delivery-state.ts';
import type { Piece } from '../../src/core/piece/piece.ts';
import type { PostState } from '../../src/core/post/post-state.ts';
import type { Snapshot } from '../../src/core/post/snapshot.ts';
import petalry from '../../src/core/network/sheets/petalry.json' with { type: 'json' };
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import { insertBrand, insertChannel, saveNetworkSheet } from '../../src/server/db/brand-repository.ts';
import type { Db } from '../../src/server/db/connection.ts';
import { changesAfter, latestSeq } from '../../src/server/db/change-repository.ts';
import { beginDelivery, countDeliveries, finishDelivery, getDelivery, insertDeliveries, moveDelivery, noteProgress, pageDeliveries, rewordDelivery } from '../../src/server/db/delivery-repository.ts';
import { sweepDocuments } from '../../src/server/db/document-repository.ts';
import { countIdeas, insertIdea, pageIdeas } from '../../src/server/db/idea-repository.ts';
import { insertPerson } from '../../src/server/db/people-repository.ts';
import { findPiece, findPiecesShowing, findRevision, insertPiece, pageRevisions, savePiece, thinRevisions } from '../../src/server/db/piece-repository.ts';
import { countPostsShowing, findPost, insertPost, movePost } from '../../src/server/db/post-repository.ts';
import { countFailedSignIns, noteFailedSignIn, setCodeSecret, takeCodeStep, takeRecoveryCode } from '../../src/server/db/sign-in-repository.ts';
import { freeSlots, takeSlots } from '../../src/server/db/slot-repository.ts';
import { pinSnapshot, readPin } from '../../src/server/documents/pins.ts';
import { plainPiece } from '../fixtures/piece.ts';
import { databaseEngines } from './database-engines.ts';

let db: Db;
const snapshot: Snapshot = { piece: plainPiece, template: getShippedTemplate('headland'), book: gullwickBook, sheets: [petalry as never], pictures: [] };

describe.each(databaseEngines)('on $name', (engine) => {
  beforeAll(() => engine.start());
  afterAll(() => engine.stop());
  beforeEach(async () => {
    db = await engine.open();
    await insertPerson(db, { id: 'wren', email: 'W@x.example', name: 'Wren', passwordHash: 'h' }, 0);
    await insertPerson(db, { id: 'caspian', email: 'c@x.example', name: 'Caspian', passwordHash: 'h' }, 0);
    await insertBrand(db, { id: 'b', slug: 'gullwick', name: 'Gullwick', zone: 'Europe/London', book: gullwickBook });
    await saveNetworkSheet(db, petalry as never);
    await insertChannel(db, { id: 'c', brandId: 'b', network: 'petalry', name: 'Petalry', handle: '@g', origin: 'http://127.0.0.1', token: 't', offers: {} }, 0);
    await insertPiece(db, { id: 'p', brandId: 'b', document: plainPiece, createdBy: 'wren' }, 0);
  });
  afterEach(() => engine.discard(db));

  /** A post with deliveries that are due at moments of their own. */
  async function add(...due: readonly (readonly [string, number])[]): Promise<string> {
    const id = `post-${due[0]?.[0] ?? ''}`;
    await db.transaction(async (trx) => {
      const { pin, piece } = await pinSnapshot(trx, snapshot, 1);
      const post = {
        id,
        brandId: 'b',
        pieceId: 'p',
        pieceName: 'Piece',
        kind: 'graphic' as const,
        pin,
        pieceHash: piece,
        state: 'scheduled' as const,
        themeId: null,
        campaignId: null,
        origin: 'person' as const, signOffNeeded: 0,
        dueMs: due[0]?.[1] ?? 0,
        wall: '2026-01-01T00:00',
        zone: 'Europe/London',
        createdBy: 'wren',
      };
      await insertPost(trx, post, ['m1'], 1);
      for (const [delivery, dueMs] of due) await insertDeliveries(trx, { ...post, dueMs }, [{ id: delivery, channelId: 'c', placement: 'story', placementName: 'Story', words: { caption: 'Hello' }, idempotencyKey: `key-${delivery}` }], 1);
    });
    return id;
  }
  const begin = (id: string, lease: string, attempt = 1) => beginDelivery(db, id, { lease, attempt }, 1_000);
  const postState = async (id: string): Promise<PostState | undefined> => (await findPost(db, 'b', id))?.state;

  describe('an attempt at a delivery', () => {
    it('moves the delivery and its post, and says so to watchers', async () => {
      const post = await add(['d', 10], ['e', 10]);
      const seq = await latestSeq(db);
      expect(await begin('d', 'a')).toMatchObject({ state: 'sending', lease: 'a', attempt: 1, words: { caption: 'Hello' }, pieceName: 'Piece' });
      expect(await postState(post)).toBe('sending');
      await finishDelivery(db, 'd', 'a', { kind: 'confirm', address: 'http://a.example', sentMs: 7 }, 1);
      expect(await postState(post)).toBe('scheduled');
      await begin('e', 'a');
      await finishDelivery(db, 'e', 'a', { kind: 'refuse', problem: 'No board' }, 1);
      expect(await postState(post)).toBe('partly out');
      expect((await changesAfter(db, seq, 99)).map(({ kind, subjectId }) => `${kind} ${subjectId}`)).toEqual(
        Array.from({ length: 2 }, () => ['post post-d', 'delivery d'])
          .flat()
          .concat(Array.from({ length: 2 }, () => ['post post-d', 'delivery e']).flat()),
      );
    });

    it('lets a holder that lost its lease write nothing more', async () => {
      await add(['d', 10]);
      await begin('d', 'a');
      await begin('d', 'b', 2);
      expect(await noteProgress(db, 'd', 'a', { remoteMedia: ['m'] })).toBe(false);
      expect(await finishDelivery(db, 'd', 'a', { kind: 'confirm', address: 'http://a.example', sentMs: 1 }, 1)).toBe(false);
      expect(await noteProgress(db, 'd', 'b', { remoteMedia: ['m'], publishIntentMs: 7 })).toBe(true);
      expect(await finishDelivery(db, 'd', 'b', { kind: 'confirm', address: 'http://a.example', sentMs: 1 }, 1)).toBe(true);
      expect(await db('deliveries').first()).toMatchObject({ state: 'sent', address: 'http://a.example', lease: null, remote_media: '["m"]', publish_intent_ms: 7 });
    });

    it('does not begin once the delivery is out or cancelled', async () => {
      await add(['d', 10]);
      await db('deliveries').update({ state: 'cancelled' });
      expect(await begin('d', 'a')).toBeNull();
    });

    it('never keeps two deliveries under one idempotency key', async () => {
      await add(['d', 10]);
      await expect(db('deliveries').insert({ ...(await db('deliveries').first()), id: 'e' })).rejects.toThrow(/unique constraint/i);
    });
  });

  describe('a person’s acts', () => {
    const times = { nowMs: 5, machineNowMs: 5 };
    const pairs = deliveryStates.flatMap((state) => (['cancel', 'retry', 'send-now'] as const).map((act) => [state, act] as const));
    it.each(pairs)('%s, %s: only what the table of states permits', async (state, act) => {
      await add(['d', 10]);
      await db('deliveries').update({ state });
      const allowed = act === 'send-now' ? state === 'scheduled' : canDelivery(state, act);
      expect(await moveDelivery(db, 'b', 'd', act, times)).toBe(allowed);
    });

    it('send-now never makes a post later than it was', async () => {
      await add(['d', 10]);
      await moveDelivery(db, 'b', 'd', 'send-now', { nowMs: 500, machineNowMs: 1 });
      expect((await getDelivery(db, 'd')).dueMs).toBe(10);
      await moveDelivery(db, 'b', 'd', 'send-now', { nowMs: 4, machineNowMs: 1 });
      expect((await getDelivery(db, 'd')).dueMs).toBe(4);
    });

    it('are kept to the brand', async () => {
      await add(['d', 10]);
      expect(await moveDelivery(db, 'other', 'd', 'cancel', times)).toBe(false);
      expect(await movePost(db, 'other', 'post-d', { dueMs: 9, wall: '', zone: '' }, 1)).toBe(false);
    });

    it('words and content change only while nothing can be out yet', async () => {
      await add(['d', 10]);
      expect(await rewordDelivery(db, 'd', { caption: 'New' }, 1)).toBe(true);
      await db('deliveries').update({ publish_intent_ms: 3 });
      expect(await rewordDelivery(db, 'd', { caption: 'Newer' }, 1)).toBe(false);
    });
  });

  describe('pages and counts', () => {
    it('page through equal moments without gaps or repeats', async () => {
      await add(['a', 10], ['b', 10], ['c', 10], ['d', 20]);
      const seen: string[] = [];
      let before: { ms: number; id: string } | null = null;
      for (;;) {
        const page = await pageDeliveries(db, 'b', { state: null, pieceId: null, ids: null, before, limit: 2 });
        const last = page.at(-1);
        if (!last) break;
        seen.push(...page.map((item) => item.id));
        before = { ms: last.dueMs, id: last.id };
      }
      expect(seen).toEqual(['d', 'c', 'b', 'a']);
      expect((await pageDeliveries(db, 'b', { state: null, pieceId: null, ids: ['c', 'a', 'x'], before: null, limit: 9 })).map(({ id }) => id)).toEqual(['c', 'a']);
    });

    it('say whether the piece has changed since, by its hash alone', async () => {
      await add(['d', 10]);
      const changed = async (): Promise<boolean | undefined> => (await pageDeliveries(db, 'b', { state: null, pieceId: 'p', ids: null, before: null, limit: 1 }))[0]?.pieceChanged;
      const piece = await findPiece(db, 'b', 'p');
      if (!piece) throw new Error('No piece');
      expect(await changed()).toBe(false);
      const other = await savePiece(db, piece, { ...plainPiece, title: 'Other' }, 'wren', 5);
      expect(await changed()).toBe(true);
      // Written back as it was, whatever the order of its keys, it is the same again.
      await savePiece(db, other ?? piece, Object.fromEntries(Object.entries(plainPiece).reverse()) as unknown as Piece, 'wren', 6);
      expect(await changed()).toBe(false);
    });

    it('count each state up to a bound', async () => {
      await add(['d', 10], ['e', 10]);
      await db('deliveries').where({ id: 'd' }).update({ state: 'sent' });
      const none = Object.fromEntries(deliveryStates.map((state) => [state, 0]));
      expect(await countDeliveries(db, 'b', null)).toEqual({ ...none, scheduled: 1, sent: 1 });
      expect(await countPostsShowing(db, 'm1')).toEqual({ scheduled: 1, sent: 0 });
    });
  });

  describe('the shelf of ideas', () => {
    it('leaves out an open slot as long as something stands in it', async () => {
      const post = await add(['d', 10]);
      const idea = { kind: 'gap' as const, text: '', link: '', pictureUrl: '', mediaId: null, day: '2026-01-02', themeId: null, source: 'An open slot of the rota', why: [], details: {}, score: 1, createdBy: null, createdMs: 1 };
      for (const slot of ['s1 2026-01-02', 's2 2026-01-02']) await insertIdea(db, 'b', { ...idea, id: slot.slice(0, 2), key: `gap ${slot}`, title: `Nothing for ${slot}` }, 1);
      const shelf = async (): Promise<readonly string[]> => (await pageIdeas(db, 'b', { state: 'open', kind: null, themeId: null, assignedTo: null, words: [], isUsed: null, after: null, limit: 9 })).map(({ id }) => id);
      const count = async (): Promise<number | undefined> => (await countIdeas(db, 'b')).kinds['gap'];
      expect([await shelf(), await count()]).toEqual([['s2', 's1'], 2]);
      expect(await takeSlots(db, 'b', [{ slotKey: 's1 2026-01-02', channelId: 'c' }], { postId: post })).toBe(true);
      expect([await shelf(), await count()]).toEqual([['s2'], 1]);
      await freeSlots(db, { postId: post });
      expect([await shelf(), await count()]).toEqual([['s2', 's1'], 2]);
    });
  });

  describe('documents', () => {
    it('are kept once each, however many posts are made of them, and swept when nothing points to them', async () => {
      await add(['d', 10]);
      const before = (await db('documents')).length;
      await add(['e', 20]);
      expect((await db('documents')).length).toBe(before);
      const hour = 3_600_000;
      expect(await sweepDocuments(db, 9 * hour)).toBe(0);
      const pin = (await findPost(db, 'b', 'post-d'))?.pin ?? '';
      expect(await readPin(db, pin)).toMatchObject({ piece: plainPiece, template: { key: 'headland' } });
      await db('posts').delete();
      await sweepDocuments(db, 9 * hour);
      await sweepDocuments(db, 9 * hour);
      // The piece still is what it is.
      expect(await db('documents').pluck('kind')).toEqual(['piece']);
    });

    it('pieces keep who saved what, all of the last half hour and every two minutes of before', async () => {
      let piece = await findPiece(db, 'b', 'p');
      for (let count = 1; count <= 6; count += 1) piece = piece && (await savePiece(db, piece, { ...plainPiece, title: `t${count}` }, count < 6 ? 'wren' : 'caspian', count * 30_000));
      expect((await pageRevisions(db, 'p', null, 9)).map(({ revision, personName }) => [revision, personName])).toEqual([
        [7, 'Caspian'],
        [6, 'Wren'],
        [5, 'Wren'],
        [4, 'Wren'],
        [3, 'Wren'],
        [2, 'Wren'],
        [1, 'Wren'],
      ]);
      expect(await thinRevisions(db, 20 * 60_000)).toBe(0);
      expect(await thinRevisions(db, 60 * 60_000)).toBe(5);
      expect((await pageRevisions(db, 'p', null, 9)).map(({ revision }) => revision)).toEqual([7, 6]);
      expect((await findRevision(db, 'p', 6))?.document.title).toBe('t5');
    });

    it('which media pieces show is a table that follows every save', async () => {
      const piece = await findPiece(db, 'b', 'p');
      expect(await findPiecesShowing(db, 'b', 'm1', 12)).toEqual({ latest: [{ id: 'p', name: 'Big Blow' }], count: 1 });
      await insertPiece(db, { id: 'again', brandId: 'b', document: plainPiece, createdBy: 'wren' }, 4);
      expect(await findPiecesShowing(db, 'b', 'm1', 1)).toEqual({ latest: [{ id: 'again', name: 'Big Blow' }], count: 2 });
      await db('pieces').where({ id: 'again' }).delete();
      if (piece) await savePiece(db, piece, { ...plainPiece, frames: [{ id: 'f1', slots: {} }] }, 'wren', 5);
      expect(await findPiecesShowing(db, 'b', 'm1', 12)).toEqual({ latest: [], count: 0 });
    });
  });

  describe('the database', () => {
    it('keeps foreign keys, and finds people whatever the case of their address', async () => {
      await expect(db('channels').insert({ id: 'x', brand_id: 'nobody', network_key: 'petalry', name: '', handle: '', origin: '', token: '', position: 0 })).rejects.toThrow(/foreign key constraint/i);
      expect((await db('people').first()).email).toBe('w@x.example');
    });

    it('forgets failed sign-ins that lie before the window', async () => {
      await noteFailedSignIn(db, ['account:a'], 100, 0);
      await noteFailedSignIn(db, ['account:a'], 200, 0);
      expect(await countFailedSignIns(db, 'account:a', 0)).toBe(2);
      await noteFailedSignIn(db, ['account:a', 'address:b'], 900, 500);
      expect([await countFailedSignIns(db, 'account:a', 500), await countFailedSignIns(db, 'address:b', 500)]).toEqual([1, 1]);
      expect(await db('sign_in_attempts')).toHaveLength(2);
    });

    it('takes a time step and a recovery code once', async () => {
      await setCodeSecret(db, 'wren', 'sealed', ['r1', 'r2']);
      expect([await takeCodeStep(db, 'wren', 50), await takeCodeStep(db, 'wren', 50), await takeCodeStep(db, 'wren', 49), await takeCodeStep(db, 'wren', 51)]).toEqual([true, false, false, true]);
      expect([await takeRecoveryCode(db, 'wren', 'r1'), await takeRecoveryCode(db, 'wren', 'r1'), await takeRecoveryCode(db, 'caspian', 'r2')]).toEqual([true, false, false]);
    });
  });
});
