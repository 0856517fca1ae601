import { upgradeBrandBook } from '../../src/core/brand/read-brand-book.ts';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import Database from 'better-sqlite3';
import { takesPictures } from '../../src/core/piece/draft-slides.ts';
import { mentionsOfPiece } from '../../src/core/piece/mentions-of-piece.ts';
import type { Template } from '../../src/core/template/template.ts';
import { allPieces } from '../fixtures/piece.ts';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readPiece, type Piece } from '../../src/core/piece/piece.ts';
import { findBrandFor, listTokens } from '../../src/server/db/brand-repository.ts';
import { openDatabase, type Db } from '../../src/server/db/connection.ts';
import { deliveryStates } from '../../src/core/post/delivery-state.ts';
import { countDeliveries, pageDeliveries } from '../../src/server/db/delivery-repository.ts';
import { findJobs, getJob } from '../../src/server/db/job-repository.ts';
import { listTags, pageMedia } from '../../src/server/db/media-repository.ts';
import { findPiece, findPiecesShowing, pagePieces, pageRevisions } from '../../src/server/db/piece-repository.ts';
import { findPost } from '../../src/server/db/post-repository.ts';
import { getVideoExport } from '../../src/server/db/video-export-repository.ts';
import { listTemplates } from '../../src/server/db/template-repository.ts';
import { listMembers } from '../../src/server/db/people-repository.ts';
import { readPin } from '../../src/server/documents/pins.ts';
import { deliveryJobKey } from '../../src/server/dispatch/delivery-handler.ts';
import { isSealed, sealerOf } from '../../src/server/secrets/sealer.ts';
import { sealTokens } from '../../src/server/secrets/seal-tokens.ts';
import { exportJobKey } from '../../src/server/video/export-handler.ts';

/** A database as the schema before posts and documents left it, with rows in every table that a team fills. */
const KEPT = join('tests', 'fixtures', 'schema-0010.db.gz');

let folder: string;
let db: Db;
let old: Database.Database;
let brandId: string;
const count = (table: string, where = '1 = 1'): number => (old.prepare(`select count(*) as count from ${table} where ${where}`).get() as { count: number }).count;

/** The team of that day mentioned nobody: its first piece gets somebody into its words. */
function mentionSomebody(file: string): void {
  const kept = new Database(file);
  kept.prepare("update pieces set document = json_set(document, '$.words.shared.caption', 'Up with @marlow.flies, and @Tern.Loft.') where id = (select min(id) from pieces)").run();
  kept.close();
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-migrate-'));
  mkdirSync(join(folder, 'old'));
  for (const each of [join(folder, 'confetti.db'), join(folder, 'old', 'confetti.db')]) {
    writeFileSync(each, gunzipSync(readFileSync(KEPT)));
    mentionSomebody(each);
  }
  old = new Database(join(folder, 'old', 'confetti.db'), { readonly: true });
  db = await openDatabase(folder);
  brandId = (old.prepare("select id from brands where slug = 'gullwick'").get() as { id: string }).id;
});
afterAll(async () => {
  old.close();
  await db.destroy();
  rmSync(folder, { recursive: true });
});

describe('a database of the schema before', () => {
  it('keeps every piece, as it was, with its first saved state', async () => {
    const rows = old.prepare('select id, brand_id, document, revision from pieces').all() as { id: string; brand_id: string; document: string; revision: number }[];
    expect(rows.length).toBeGreaterThan(10);
    for (const row of rows) {
      const piece = await findPiece(db, row.brand_id, row.id);
      expect([piece?.document, piece?.revision]).toEqual([JSON.parse(row.document), row.revision]);
      expect(readPiece(piece?.document)).toEqual(piece?.document);
      expect(await pageRevisions(db, row.id, null, 5)).toMatchObject([{ revision: row.revision, personName: 'Wren Adeyemi-Holt' }]);
    }
    const [first] = await pagePieces(db, brandId, allPieces);
    expect(first?.cuts).toBeGreaterThan(0);
    const [word = ''] = first?.name.match(/[\p{L}\p{N}]+/u) ?? [];
    const found = await pagePieces(db, brandId, { ...allPieces, words: [word], kind: first?.kind ?? null, sort: 'name' });
    expect(found.map(({ id }) => id)).toContain(first?.id);
  });

  it('gathers the deliveries of one scheduling in a post, with their states, words and moments', async () => {
    expect(Number((await db('posts').count({ count: '*' }).first())?.['count'])).toBe(count('snapshots'));
    expect(await countDeliveries(db, brandId, null)).toEqual(
      Object.fromEntries(deliveryStates.map((state) => [state, count('deliveries', `brand_id = '${brandId}' and state = '${state}'`)])),
    );
    const rows = old.prepare('select * from deliveries').all() as Record<string, unknown>[];
    for (const row of rows) {
      const [delivery] = await pageDeliveries(db, String(row['brand_id']), { state: null, pieceId: null, ids: [String(row['id'])], before: null, limit: 1 });
      expect(delivery).toMatchObject({ state: row['state'], dueMs: row['due_ms'], wall: row['wall'], address: row['address'], idempotencyKey: row['idempotency_key'], publishIntentMs: row['publish_intent_ms'], pieceName: row['piece_name'], pieceChanged: false });
      expect([delivery?.words.caption ?? '', delivery?.words.altText ?? '', delivery?.words.title ?? '']).toEqual([row['caption'], row['alt_text'], row['title']]);
    }
    const [partly] = old.prepare("select snapshot_id, brand_id from deliveries where state = 'failed'").all() as { snapshot_id: string; brand_id: string }[];
    expect((await findPost(db, partly?.brand_id ?? '', partly?.snapshot_id ?? ''))?.state).toBe('partly out');
  });

  it('pins what each post was made of, each document once', async () => {
    for (const { id, brand_id, content } of old.prepare('select * from snapshots').all() as { id: string; brand_id: string; content: string }[]) {
      const { version: _, pictures, book, ...before } = JSON.parse(content) as { version: number; pictures: { id: string; film?: object }[]; book: object };
      const pinned = await readPin(db, (await findPost(db, brand_id, id))?.pin ?? '');
      // A book of its day is read as one of today.
      expect(pinned).toMatchObject({ ...before, book: upgradeBrandBook(book) });
      expect(pinned.pictures.map((each) => [each.id, each.recording ?? null])).toEqual(pictures.map((each) => [each.id, each.film ?? null]));
    }
    const books = (await db('documents').where({ kind: 'book' })).length;
    expect(books).toBeLessThanOrEqual(2);
  });

  it('keeps sending what was scheduled, half sent or failed', async () => {
    const waiting = old.prepare("select id, due_ms, state from deliveries where state in ('scheduled', 'sending')").all() as { id: string; due_ms: number }[];
    const jobs = await findJobs(db, waiting.map(({ id }) => deliveryJobKey(id)));
    expect(waiting.map(({ id }) => jobs.get(deliveryJobKey(id))).map((job) => [job?.state, job?.dueMs])).toEqual(waiting.map(({ due_ms }) => ['waiting', due_ms]));
    const failed = old.prepare("select id from deliveries where state = 'failed'").get() as { id: string };
    expect(await getJob(db, deliveryJobKey(failed.id))).toMatchObject({ state: 'failed' });
  });

  it('keeps videos that are made, with what was measured', async () => {
    expect(await getVideoExport(db, 'exp-made')).toMatchObject({ format: 'mp4', measures: { loudnessLufs: -14 } });
    expect(await getJob(db, exportJobKey('exp-made'))).toMatchObject({ state: 'done' });
  });

  it('finds media by words, tags and kinds as before', async () => {
    const search = (words: string[], kind: 'seen' | 'sound' | null = null) => pageMedia(db, brandId, { before: null, limit: 50, words, tag: null, archived: false, kind });
    expect((await search([])).length).toBe(Math.min(50, count('media', `brand_id = '${brandId}'`)));
    expect((await search([], 'sound')).every(({ recording }) => recording?.kind === 'sound')).toBe(true);
    expect((await search(['kite'])).length).toBeGreaterThan(0);
    expect(await search(['kite', 'nowhere-to-be-found'])).toEqual([]);
    expect((await listTags(db, brandId))[0]?.count).toBeGreaterThan(0);
    const used = old.prepare("select id from media where brand_id = ? and name = 'windsocks.jpg'").get(brandId) as { id: string };
    const showing = await findPiecesShowing(db, brandId, used.id, 2);
    expect(showing.count).toBeGreaterThanOrEqual(showing.latest.length);
    // A use knows the state of its post.
    const uses: { state: string; of_post: string }[] = await db('post_media').join('posts', 'posts.id', 'post_media.post_id').select({ state: 'post_media.state', of_post: 'posts.state' });
    expect(new Set(uses.map(({ state }) => state)).size).toBeGreaterThan(1);
    expect(uses.filter(({ state, of_post }) => state !== of_post)).toEqual([]);
  });

  it('lists a brand’s own templates by what their documents say', async () => {
    const row = old.prepare("select brand_id, key, document from templates where key = 'own-one'").get() as { brand_id: string; key: string; document: string };
    const document = JSON.parse(row.document) as Template;
    const { name, purpose, kind } = document;
    expect((await listTemplates(db, row.brand_id)).filter(({ isOwn }) => isOwn)).toEqual([{ key: row.key, name, purpose, kind, family: null, isOwn: true, takesPictures: takesPictures(document), archived: false, wants: [], scheme: null }]);
  });

  it('knows whom pieces mention', async () => {
    const rows = old.prepare("select id, document from pieces where document like '%@%'").all() as { id: string; document: string }[];
    const expected = rows.flatMap(({ id, document }) => mentionsOfPiece(JSON.parse(document) as Piece).map((mention) => `${id} ${mention}`));
    const found = (await db('piece_mentions').select('piece_id', 'mention')) as { piece_id: string; mention: string }[];
    expect(expected.length).toBe(2);
    expect(found.map(({ piece_id, mention }) => `${piece_id} ${mention}`).toSorted()).toEqual(expected.toSorted());
  });

  it('keeps people, their roles and their order, and seals the tokens of channels', async () => {
    expect((await listMembers(db, brandId)).map(({ name, role }) => `${name} ${role}`)).toEqual(['Ottoline Brack owner', 'Wren Adeyemi-Holt designer', 'Caspian Muir writer', 'Tove Lindqvist reviewer']);
    const wren = old.prepare("select id from people where name like 'Wren%'").get() as { id: string };
    expect((await findBrandFor(db, 'gullwick', wren.id))?.role).toBe('designer');
    const sealer = sealerOf(Buffer.alloc(32, 7));
    await sealTokens(db, sealer);
    await sealTokens(db, sealer);
    const plain = new Map((old.prepare('select id, token from channels').all() as { id: string; token: string }[]).map(({ id, token }) => [id, token]));
    const sealed = await listTokens(db);
    expect(sealed.every(({ token }) => isSealed(token))).toBe(true);
    expect(sealed.map(({ id, token }) => sealer.open(token) === plain.get(id))).not.toContain(false);
  });
});
