import { join } from 'node:path';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { shippedSheets } from '../../../src/core/network/shipped-sheets.ts';
import { wallTimeOf } from '../../../src/core/time/wall-time.ts';
import type { Piece } from '../../../src/core/piece/piece.ts';
import { getShippedTemplate } from '../../../src/core/template/shipped-templates.ts';
import { hashSecret, newSecret } from '../../../src/server/auth/secrets.ts';
import { insertBrand, insertChannel, saveNetworkSheet } from '../../../src/server/db/brand-repository.ts';
import { openDatabase, type Db } from '../../../src/server/db/connection.ts';
import { insertMembership, insertPerson } from '../../../src/server/db/people-repository.ts';
import { insertAccessToken } from '../../../src/server/db/token-repository.ts';
import { insertPiece } from '../../../src/server/db/piece-repository.ts';
import { pinSnapshot } from '../../../src/server/documents/pins.ts';
import { importPicture } from '../../../src/server/media/import-picture.ts';
import { MediaStore } from '../../../src/server/media/media-store.ts';

/** How much a brand has gathered. */
export interface Amounts {
  readonly posts: number;
  readonly media: number;
  readonly channels: number;
  readonly pieces: number;
}

/** A brand as it begins to be used, and one after years of a large team. */
export const SMALL: Amounts = { posts: 1_000, media: 1_000, channels: 6, pieces: 100 };
export const LARGE: Amounts = { posts: 100_000, media: 50_000, channels: 300, pieces: 10_000 };

export const SCALE_BRAND = 'scale';
/** A picture that a hundredth of everything shows, and one that nothing shows. */
export const POPULAR_MEDIA = 'm0';

const ZONE = 'Europe/London';
const DELIVERIES_A_POST = 2;
const BATCH = 400;
const HOUR_MS = 3_600_000;
const WORDS = ['kite', 'sail', 'wind', 'harbour', 'lantern', 'workshop', 'ripstop', 'dune', 'line', 'reel', 'tail', 'festival', 'loft', 'morning', 'red', 'blue'];
const wordsOf = (index: number): readonly string[] => [WORDS[index % 16] ?? '', WORDS[(index * 7 + 3) % 16] ?? '', `item${index}`];

/** Fills an empty data folder with a brand of some size. @returns a token for its designer */
export async function seedScale(dataFolder: string, amounts: Amounts, nowMs: number): Promise<string> {
  const db = await openDatabase(dataFolder);
  try {
    const secret = newSecret('cft');
    await seedBrand(db, amounts, secret);
    await seedMedia(db, dataFolder, amounts, nowMs);
    await seedPieces(db, amounts, nowMs);
    await seedPosts(db, amounts, nowMs);
    await db.raw('analyze');
    return secret;
  } finally {
    await db.destroy();
  }
}

async function seedBrand(db: Db, { channels }: Amounts, secret: string): Promise<void> {
  await insertPerson(db, { id: 'wren', email: 'wren@scale.example', name: 'Wren', passwordHash: 'none' }, 0);
  await insertBrand(db, { id: 'b', slug: SCALE_BRAND, name: 'Scale', zone: ZONE, book: gullwickBook });
  await insertMembership(db, 'wren', 'b', 'designer');
  await insertAccessToken(db, { id: 't', name: 'Bench', scope: 'send', createdMs: 0, expiresMs: 4_000_000_000_000, lastUsedMs: null, personId: 'wren', secretHash: hashSecret(secret) });
  for (const sheet of shippedSheets) await saveNetworkSheet(db, sheet);
  for (let index = 0; index < channels; index += 1) {
    const sheet = shippedSheets[index % shippedSheets.length];
    if (sheet) await insertChannel(db, { id: `c${index}`, brandId: 'b', network: sheet.key, name: `${sheet.name} ${index}`, handle: `@scale${index}`, origin: 'http://127.0.0.1:1', token: 'none', offers: {} }, index);
  }
}

/** Rows in batches within one transaction: a commit a row would take hours. */
async function insertAll(db: Db, table: string, count: number, rowOf: (index: number) => object | readonly object[]): Promise<void> {
  await db.transaction(async (trx) => {
    for (let start = 0; start < count; start += BATCH) {
      const rows = Array.from({ length: Math.min(BATCH, count - start) }, (_, index) => rowOf(start + index)).flat();
      await trx.batchInsert(table, rows, BATCH);
    }
  });
}

async function seedMedia(db: Db, dataFolder: string, { media }: Amounts, nowMs: number): Promise<void> {
  const store = new MediaStore(dataFolder);
  const picture = await importPicture(join('demo', 'media', 'windsocks.jpg'), 'windsocks.jpg');
  const storedHash = await store.keep(picture.bytes);
  const facts = JSON.stringify(picture.facts);
  await insertAll(db, 'media', media, (index) => ({
    id: `m${index}`, brand_id: 'b', name: `${wordsOf(index).join(' ')}.jpg`, mime: picture.mime, width_px: picture.widthPx, height_px: picture.heightPx, bytes: picture.bytes.length, source_hash: `source-${index}`, stored_hash: storedHash, facts,
    kind: 'picture', proposed_x: 0.5, proposed_y: 0.5, alt_text: `A ${wordsOf(index)[0]}`, tags: JSON.stringify([wordsOf(index)[0]]), credit: '', licence: '', created_ms: nowMs - index * HOUR_MS,
  }));
  await insertAll(db, 'media_words', media, (index) => [...new Set(wordsOf(index))].map((word) => ({ brand_id: 'b', word, media_id: `m${index}` })));
  await insertAll(db, 'media_tags', media, (index) => ({ media_id: `m${index}`, brand_id: 'b', tag: wordsOf(index)[0] }));
  const uses: object[] = await db('media_tags').groupBy('tag').select('tag').count({ uses: '*' });
  await db.batchInsert('brand_tags', uses.map((row) => ({ brand_id: 'b', ...row })), BATCH);
}

const pieceOf = (index: number, media: number): Piece => ({
  version: 1,
  kind: 'graphic',
  title: `Piece ${index} about ${wordsOf(index)[0]}`,
  template: { key: 'headland' },
  frames: [{ id: 'f', slots: { headline: { kind: 'text', text: `${wordsOf(index)[1]} number ${index}` }, photo: { kind: 'picture', mediaId: index % 100 === 0 ? POPULAR_MEDIA : `m${index % media}` } } }],
  cuts: [{ channelId: 'c0', placement: shippedSheets[0]?.placements[0]?.key ?? '' }],
  adjustments: {},
  words: { shared: { caption: `Caption ${index}`, altText: 'A kite' }, own: {} },
});

async function seedPieces(db: Db, { pieces, media }: Amounts, nowMs: number): Promise<void> {
  // The repository's own way, so that documents, revisions and uses are as they would be.
  for (let index = 0; index < pieces; index += 1) await insertPiece(db, { id: `p${index}`, brandId: 'b', document: pieceOf(index, media), createdBy: 'wren' }, nowMs - index * HOUR_MS);
}

async function seedPosts(db: Db, { posts, pieces, media, channels }: Amounts, nowMs: number): Promise<void> {
  const hashes = new Map<string, string>((await db('pieces').select('id', 'hash')).map((row: { id: string; hash: string }) => [row.id, row.hash]));
  const { pin } = await pinSnapshot(db, { piece: pieceOf(0, media), template: getShippedTemplate('headland'), book: gullwickBook, sheets: shippedSheets, pictures: [] }, nowMs);
  // Most are out, a few hundred wait, some have failed: as after years.
  const stateOf = (index: number): string => (index < posts / 100 ? 'scheduled' : index % 50 === 0 ? 'failed' : index % 37 === 0 ? 'cancelled' : 'sent');
  const dueOf = (index: number): number => nowMs + (posts / 100 - index) * HOUR_MS;
  const postStates: Readonly<Record<string, string>> = { scheduled: 'scheduled', failed: 'failed', cancelled: 'cancelled', sent: 'out' };
  const pieceIdOf = (index: number): string => `p${index % pieces}`;
  await insertAll(db, 'posts', posts, (index) => ({
    id: `post${index}`, brand_id: 'b', piece_id: pieceIdOf(index), piece_name: `Piece ${index % pieces}`, kind: 'graphic', pin, piece_hash: hashes.get(pieceIdOf(index)), state: postStates[stateOf(index)], due_ms: dueOf(index), wall: wallTimeOf(dueOf(index), ZONE), zone: ZONE, created_by: 'wren', created_ms: nowMs, updated_ms: nowMs,
  }));
  await insertAll(db, 'post_media', posts, (index) => ({ post_id: `post${index}`, media_id: index % 100 === 0 ? POPULAR_MEDIA : `m${(index % pieces) % media}`, state: postStates[stateOf(index)] }));
  await insertAll(db, 'deliveries', posts * DELIVERIES_A_POST, (index) => {
    const post = Math.floor(index / DELIVERIES_A_POST);
    return { id: `d${index}`, post_id: `post${post}`, brand_id: 'b', channel_id: `c${index % channels}`, placement: 'feed-square', placement_name: 'Square', words: JSON.stringify({ caption: `Caption ${post}` }), state: stateOf(post), due_ms: dueOf(post), idempotency_key: `key${index}`, attempt: 1, updated_ms: nowMs };
  });
}
