import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { canDelivery, deliveryStates } from '../../src/core/post/delivery-state.ts';
import type { Snapshot } from '../../src/core/post/snapshot.ts';
import petalry from '../../src/core/network/sheets/petalry.json' with { type: 'json' };
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import { insertBrand, insertChannel, saveNetworkSheet } from '../../src/server/db/brand-repository.ts';
import { openDatabase, type Db } from '../../src/server/db/connection.ts';
import { actOnDelivery, claimDueDelivery, deliveriesVersion, finishAttempt, insertDeliveries, noteProgress, pageDeliveries, prolongLease } from '../../src/server/db/delivery-repository.ts';
import { migrations } from '../../src/server/db/migrations/index.ts';
import { insertPerson, recordSignInAttempt } from '../../src/server/db/people-repository.ts';
import { insertPiece } from '../../src/server/db/piece-repository.ts';
import { plainPiece } from '../fixtures/piece.ts';

let folder: string;
let db: Db;
const snapshot: Snapshot = { version: 1, piece: plainPiece, template: getShippedTemplate('headland'), book: gullwickBook, sheets: [], pictures: [] };

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-db-'));
  db = await openDatabase(folder);
  await insertPerson(db, { id: 'wren', email: 'W@x.example', name: 'Wren', passwordHash: 'h' }, 0);
  await insertBrand(db, { id: 'b', slug: 'gullwick', name: 'Gullwick', zone: 'Europe/London', book: gullwickBook });
  await saveNetworkSheet(db, petalry as never);
  await insertChannel(db, { id: 'c', brandId: 'b', network: 'petalry', name: 'Petalry', handle: '@g', origin: 'http://127.0.0.1', token: 't' }, 0);
  await insertPiece(db, { id: 'p', brandId: 'b', document: plainPiece, createdBy: 'wren' }, 0);
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

async function add(...due: readonly (readonly [string, number])[]): Promise<void> {
  await insertDeliveries(
    db,
    {
      snapshotId: `s-${due[0]?.[0] ?? ''}`,
      snapshot,
      brandId: 'b',
      createdBy: 'wren',
      deliveries: due.map(([id, dueMs]) => ({ id, brandId: 'b', pieceId: 'p', pieceRevision: 1, pieceName: 'Piece', channelId: 'c', placement: 'story', placementName: 'Story', kind: 'graphic' as const, caption: '', altText: '', title: '', link: '', firstComment: '', dueMs, wall: '2026-01-01T00:00', zone: 'Europe/London', idempotencyKey: `key-${id}` })),
    },
    1,
  );
}
const claim = (lease: string, nowMs: number, machineNowMs = 1_000) => claimDueDelivery(db, { lease, nowMs, machineNowMs, leaseMs: 500 });

describe('claiming', () => {
  it('takes what is due, the earliest first, each once', async () => {
    await add(['late', 30], ['early', 10], ['future', 99]);
    expect([(await claim('a', 50))?.id, (await claim('b', 50))?.id, await claim('c', 50)]).toEqual(['early', 'late', null]);
  });

  it('waits for the machine’s clock after a fault, however far the product’s clock is moved', async () => {
    await add(['d', 10]);
    await claim('a', 50);
    await finishAttempt(db, 'd', 'a', { kind: 'postpone', problem: 'Busy', notBeforeMs: 5_000 }, 1_000);
    expect(await claim('b', 9_999_999, 4_999)).toBeNull();
    expect((await claim('b', 50, 5_000))?.attempt).toBe(2);
  });

  it('takes over what another has let run out, and only then', async () => {
    await add(['d', 10]);
    await claim('a', 50, 1_000);
    expect(await claim('b', 50, 1_400)).toBeNull();
    expect(await prolongLease(db, 'd', 'a', 2_000)).toBe(true);
    expect(await claim('b', 50, 1_600)).toBeNull();
    expect((await claim('b', 50, 2_001))?.lease).toBe('b');
  });

  it('lets a holder that lost its lease write nothing more', async () => {
    await add(['d', 10]);
    await claim('a', 50, 1_000);
    await claim('b', 50, 1_501);
    expect(await prolongLease(db, 'd', 'a', 9_000)).toBe(false);
    expect(await noteProgress(db, 'd', 'a', { remoteMedia: ['m'] })).toBe(false);
    expect(await finishAttempt(db, 'd', 'a', { kind: 'confirm', address: 'http://a.example', sentMs: 1 }, 1)).toBe(false);
    expect(await noteProgress(db, 'd', 'b', { remoteMedia: ['m'], publishIntentMs: 7 })).toBe(true);
    expect(await finishAttempt(db, 'd', 'b', { kind: 'confirm', address: 'http://a.example', sentMs: 1 }, 1)).toBe(true);
    expect(await db('deliveries').first()).toMatchObject({ state: 'sent', address: 'http://a.example', lease: null, remote_media: '["m"]', publish_intent_ms: 7 });
  });

  it('never keeps two deliveries under one idempotency key', async () => {
    await add(['d', 10]);
    await expect(db('deliveries').insert({ ...(await db('deliveries').first()), id: 'e' })).rejects.toThrow(/UNIQUE/);
  });
});

describe('a person’s acts', () => {
  const pairs = deliveryStates.flatMap((state) => (['cancel', 'retry', 'send-now'] as const).map((act) => [state, act] as const));
  it.each(pairs)('%s, %s: only what the table of states permits', async (state, act) => {
    await add(['d', 10]);
    await db('deliveries').update({ state });
    const allowed = act === 'send-now' ? state === 'scheduled' : canDelivery(state, act);
    expect((await actOnDelivery(db, 'b', 'd', act, { nowMs: 5, machineNowMs: 5 })) !== null).toBe(allowed);
  });

  it('send-now never makes a post later than it was', async () => {
    await add(['d', 10]);
    expect((await actOnDelivery(db, 'b', 'd', 'send-now', { nowMs: 500, machineNowMs: 1 }))?.dueMs).toBe(10);
  });

  it('are kept to the brand', async () => {
    await add(['d', 10]);
    expect(await actOnDelivery(db, 'other', 'd', 'cancel', { nowMs: 1, machineNowMs: 1 })).toBeNull();
  });
});

describe('pages and versions', () => {
  it('page through equal moments without gaps or repeats', async () => {
    await add(['a', 10], ['b', 10], ['c', 10], ['d', 20]);
    const seen: string[] = [];
    let before: { ms: number; id: string } | null = null;
    for (;;) {
      const page = await pageDeliveries(db, 'b', { state: null, pieceId: null, before, limit: 2 });
      const last = page.at(-1);
      if (!last) break;
      seen.push(...page.map((item) => item.id));
      before = { ms: last.dueMs, id: last.id };
    }
    expect(seen).toEqual(['d', 'c', 'b', 'a']);
  });

  it('change their version with every change', async () => {
    const versions = [await deliveriesVersion(db, 'b')];
    await add(['d', 10]);
    versions.push(await deliveriesVersion(db, 'b'));
    await claim('a', 50);
    versions.push(await deliveriesVersion(db, 'b'));
    await finishAttempt(db, 'd', 'a', { kind: 'refuse', problem: 'No' }, 2_000);
    versions.push(await deliveriesVersion(db, 'b'));
    expect(new Set(versions).size).toBe(4);
  });
});

describe('the database', () => {
  it('keeps foreign keys, and finds people whatever the case of their address', async () => {
    await expect(db('channels').insert({ id: 'x', brand_id: 'nobody', network_key: 'petalry', name: '', handle: '', origin: '', token: '', position: 0 })).rejects.toThrow(/FOREIGN KEY/);
    expect((await db('people').first()).email).toBe('w@x.example');
  });

  it('forgets sign-in attempts that lie before the window', async () => {
    expect(await recordSignInAttempt(db, 'account:a', 100, 0)).toBe(1);
    expect(await recordSignInAttempt(db, 'account:a', 200, 0)).toBe(2);
    expect(await recordSignInAttempt(db, 'account:a', 900, 500)).toBe(1);
    expect(await db('sign_in_attempts')).toHaveLength(1);
  });

  it('can be migrated all the way down and up again', async () => {
    await db.migrate.rollback({ migrationSource: migrations }, true);
    const tables = await db("sqlite_master").where({ type: 'table' }).whereNot('name', 'like', '%knex%').whereNot('name', 'like', 'sqlite%').pluck('name');
    expect(tables).toEqual([]);
    await db.migrate.latest({ migrationSource: migrations });
    expect(await db('deliveries')).toEqual([]);
  });
});
