import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setImmediate as turn } from 'node:timers/promises';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openDatabase, type Db } from './connection.ts';

let folder: string;
let db: Db;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-patient-'));
  db = await openDatabase(folder);
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

const setting = (key: string): Promise<string | undefined> => db('settings').where({ key }).first('value').then((row: { value: string } | undefined) => row?.value);

describe('a database that others use as well', () => {
  it('is read while another process holds the lock to write, and is written once that ends; nothing else stands still', async () => {
    const other = new Database(join(folder, 'confetti.db'));
    other.exec('BEGIN IMMEDIATE');
    const written = db('settings').insert({ key: 'a', value: 'late' });
    let ticks = 0;
    const ticking = setInterval(() => (ticks += 1), 5);
    // Timers go on between reads, which a wait for the lock would hold up.
    await expect.poll(async () => [await setting('a'), ticks > 10]).toEqual([undefined, true]);
    other.exec('COMMIT');
    await written;
    clearInterval(ticking);
    other.close();
    expect(await setting('a')).toBe('late');
  });

  it('lets writers of one process take turns: each sees what the one before has written', async () => {
    await db('settings').insert({ key: 'count', value: '0' });
    await Promise.all(
      Array.from({ length: 20 }, () =>
        db.transaction(async (trx) => {
          const row = await trx('settings').where({ key: 'count' }).first('value');
          // The others have their turn before this one writes.
          await turn();
          await trx('settings').where({ key: 'count' }).update({ value: String(Number(row?.value) + 1) });
        }),
      ),
    );
    expect(await setting('count')).toBe('20');
  });

  it('is read beside an open transaction, which it does not see before its end', async () => {
    await db.transaction(async (trx) => {
      await trx('settings').insert({ key: 'b', value: 'open' });
      expect(await setting('b')).toBeUndefined();
    });
    expect(await setting('b')).toBe('open');
  });

  it('goes on after a transaction that failed', async () => {
    await expect(db.transaction(async (trx) => {
      await trx('settings').insert({ key: 'c', value: '1' });
      await trx('settings').insert({ key: 'c', value: '2' });
    })).rejects.toThrow(/UNIQUE/);
    await db('settings').insert({ key: 'c', value: '3' });
    expect(await setting('c')).toBe('3');
  });

  it('opens after a migration that broke off and left its mark', async () => {
    await db('knex_migrations_lock').update({ is_locked: 1 });
    const again = await openDatabase(folder);
    expect(await again('knex_migrations').count({ count: '*' })).toHaveLength(1);
    await again.destroy();
  });
});
