import { createHash } from 'node:crypto';
import canonicalize from 'canonicalize';
import type { Knex } from 'knex';

/** Rows are moved in batches of this many: a data folder may hold many. */
const BATCH = 200;

interface OldSnapshot {
  readonly piece: object;
  readonly template: object;
  readonly book: object;
  readonly sheets: readonly { readonly key: string }[];
  readonly pictures: readonly ({ readonly film?: object } & object)[];
}

/**
 * Documents under the hash of their content, and pins that name them. Copies of template, book and network sheets that posts and
 * exports held become references to one document each; pieces keep every saved state.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('documents', (table) => {
    table.text('hash').primary();
    table.text('kind').notNullable();
    table.text('body').notNullable();
    table.bigInteger('created_ms').notNullable();
  });
  // What a document of kind `pin` is made of, so that the sweep knows what is in use without reading bodies.
  await db.schema.createTable('document_links', (table) => {
    table.text('from_hash').notNullable().references('documents.hash').onDelete('CASCADE');
    table.text('to_hash').notNullable().references('documents.hash');
    table.primary(['from_hash', 'to_hash']);
    table.index(['to_hash']);
  });
  await db.raw('alter table media rename column film to recording');

  await db.schema.createTable('posts', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('piece_id').notNullable().references('pieces.id');
    table.text('piece_name').notNullable();
    table.text('kind').notNullable();
    table.text('pin').notNullable().references('documents.hash');
    // The hash of the pinned piece: a post whose piece has changed since is found by comparing two columns.
    table.text('piece_hash').notNullable();
    table.text('state').notNullable();
    table.bigInteger('due_ms').notNullable();
    table.text('wall').notNullable();
    table.text('zone').notNullable();
    table.integer('revision').notNullable().defaultTo(1);
    table.text('created_by').notNullable().references('people.id');
    table.bigInteger('created_ms').notNullable();
    table.bigInteger('updated_ms').notNullable();
    table.index(['brand_id', 'due_ms', 'id']);
    table.index(['piece_id']);
    table.index(['pin']);
  });
  await db.schema.createTable('post_media', (table) => {
    table.text('post_id').notNullable().references('posts.id').onDelete('CASCADE');
    table.text('media_id').notNullable();
    table.primary(['post_id', 'media_id']);
    table.index(['media_id']);
  });
  await db.schema.createTable('piece_media', (table) => {
    table.text('piece_id').notNullable().references('pieces.id').onDelete('CASCADE');
    table.text('media_id').notNullable();
    table.primary(['piece_id', 'media_id']);
    table.index(['media_id']);
  });
  await db.schema.createTable('piece_revisions', (table) => {
    table.text('piece_id').notNullable().references('pieces.id').onDelete('CASCADE');
    table.integer('revision').notNullable();
    table.text('hash').notNullable().references('documents.hash');
    table.text('person_id').notNullable().references('people.id');
    table.bigInteger('saved_ms').notNullable();
    table.primary(['piece_id', 'revision']);
    table.index(['hash']);
  });
  // As plain statements: the schema builder would make the table anew, and posts and uses point to its rows.
  await db.raw('alter table pieces add column hash text references documents(hash)');
  await db.raw("alter table pieces add column template_key text not null default ''");
  await db.raw('alter table pieces add column cut_count integer not null default 0');

  await movePieces(db);
  await moveDeliveries(db);
  await moveExports(db);
  await db.raw('alter table pieces drop column document');
  await db.schema.dropTable('snapshots');
}

export function down(): Promise<void> {
  // Two saved states of a piece cannot go back into one column without losing one.
  return Promise.reject(new Error('Migration 0011 cannot be reverted. Restore the backup from before it.'));
}

function hashOf(value: unknown): string {
  return createHash('sha256').update(canonicalize(value) ?? 'null').digest('hex');
}

async function keep(db: Knex, kind: string, value: unknown, nowMs: number): Promise<string> {
  const hash = hashOf(value);
  await db('documents').insert({ hash, kind, body: JSON.stringify(value), created_ms: nowMs }).onConflict('hash').ignore();
  return hash;
}

async function movePieces(db: Knex): Promise<void> {
  for (let after = ''; ; ) {
    const rows: { id: string; document: string; revision: number; created_by: string; updated_ms: number }[] = await db('pieces').where('id', '>', after).orderBy('id').limit(BATCH).select('id', 'document', 'revision', 'created_by', 'updated_ms');
    const last = rows.at(-1);
    if (!last) return;
    for (const row of rows) {
      const piece = JSON.parse(row.document) as { template: { key: string }; cuts: unknown[] };
      const hash = await keep(db, 'piece', piece, row.updated_ms);
      await db('pieces').where({ id: row.id }).update({ hash, template_key: piece.template.key, cut_count: piece.cuts.length });
      await db('piece_revisions').insert({ piece_id: row.id, revision: row.revision, hash, person_id: row.created_by, saved_ms: row.updated_ms });
      const media = mediaIn(piece);
      if (media.length > 0) await db('piece_media').insert(media.map((media_id) => ({ piece_id: row.id, media_id })));
    }
    after = last.id;
  }
}

/** Ids of media that a piece names: in slots and cover as `mediaId`, in its track as music and voice. */
function mediaIn(piece: unknown): readonly string[] {
  const found = new Set<string>();
  const visit = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    for (const [key, inner] of Object.entries(value)) {
      if (key === 'mediaId' && typeof inner === 'string') found.add(inner);
      else visit(inner);
    }
  };
  visit(piece);
  const { track } = piece as { track?: { music?: string; voice?: string } };
  for (const id of [track?.music, track?.voice]) if (id !== undefined) found.add(id);
  return [...found];
}

/** Keeps a copy of all that a post was made of as documents, and answers the pin that names them. */
async function pin(db: Knex, snapshot: OldSnapshot, nowMs: number): Promise<{ readonly pin: string; readonly piece: string }> {
  const piece = await keep(db, 'piece', snapshot.piece, nowMs);
  const template = await keep(db, 'template', snapshot.template, nowMs);
  const book = await keep(db, 'book', snapshot.book, nowMs);
  const sheets: Record<string, string> = {};
  for (const sheet of snapshot.sheets) sheets[sheet.key] = await keep(db, 'sheet', sheet, nowMs);
  const pictures: string[] = [];
  for (const { film, ...picture } of snapshot.pictures) pictures.push(await keep(db, 'picture', film === undefined ? picture : { ...picture, recording: film }, nowMs));
  const made = await keep(db, 'pin', { version: 1, piece, template, book, sheets, pictures }, nowMs);
  const links = [...new Set([piece, template, book, ...Object.values(sheets), ...pictures])];
  await db('document_links').insert(links.map((to_hash) => ({ from_hash: made, to_hash }))).onConflict(['from_hash', 'to_hash']).ignore();
  return { pin: made, piece };
}

interface OldDelivery {
  readonly id: string;
  readonly state: string;
  readonly snapshot_id: string;
  readonly [column: string]: unknown;
}

/** One scheduling made one snapshot with its deliveries: that is a post. */
async function moveDeliveries(db: Knex): Promise<void> {
  await db.schema.alterTable('deliveries', (table) => {
    table.dropIndex(['state', 'due_ms']);
    table.dropIndex(['brand_id', 'due_ms', 'id']);
    table.dropIndex(['piece_id']);
    table.dropUnique(['idempotency_key']);
  });
  await db.schema.renameTable('deliveries', 'old_deliveries');
  await db.schema.createTable('deliveries', (table) => {
    // PostgreSQL keeps the names of a renamed table's constraints.
    table.text('id').primary('deliveries_of_posts_pkey');
    table.text('post_id').notNullable().references('posts.id').onDelete('CASCADE');
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('channel_id').notNullable().references('channels.id');
    table.text('placement').notNullable();
    table.text('placement_name').notNullable();
    // The composed words as one record over the fields of the network sheet.
    table.text('words').notNullable();
    table.text('state').notNullable();
    table.bigInteger('due_ms').notNullable();
    table.bigInteger('not_before_ms').notNullable().defaultTo(0);
    table.text('lease');
    table.integer('attempt').notNullable().defaultTo(0);
    table.text('idempotency_key').notNullable().unique();
    table.text('remote_media').notNullable().defaultTo('[]');
    table.text('remote_draft_id');
    table.bigInteger('publish_intent_ms');
    table.text('address');
    table.text('problem');
    table.bigInteger('sent_ms');
    table.bigInteger('updated_ms').notNullable();
    table.index(['post_id']);
    table.index(['brand_id', 'due_ms', 'id']);
    table.index(['brand_id', 'state', 'due_ms', 'id']);
  });
  for (let after = ''; ; ) {
    const snapshots: { id: string; content: string; created_ms: number }[] = await db('snapshots').where('id', '>', after).orderBy('id').limit(BATCH).select('id', 'content', 'created_ms');
    const last = snapshots.at(-1);
    if (!last) break;
    for (const { id, content, created_ms } of snapshots) {
      const rows: OldDelivery[] = await db('old_deliveries').where({ snapshot_id: id }).orderBy('id');
      const [first] = rows;
      if (!first) continue;
      const snapshot = JSON.parse(content) as OldSnapshot;
      const made = await pin(db, snapshot, created_ms);
      await db('posts').insert({
        id, brand_id: first['brand_id'], piece_id: first['piece_id'], piece_name: first['piece_name'], kind: first['kind'], pin: made.pin, piece_hash: made.piece, state: stateOf(rows.map(({ state }) => state)),
        due_ms: first['due_ms'], wall: first['wall'], zone: first['zone'], created_by: first['created_by'], created_ms, updated_ms: Math.max(...rows.map((row) => Number(row['updated_ms']))),
      });
      const media = mediaIn(snapshot.piece);
      if (media.length > 0) await db('post_media').insert(media.map((media_id) => ({ post_id: id, media_id })));
      await db.batchInsert('deliveries', rows.map((row) => toDelivery(row, id)), BATCH);
    }
    after = last.id;
  }
  await db.schema.dropTable('old_deliveries');
}

/** Words by the keys of the field registry; empty ones are left out. */
function toDelivery(row: OldDelivery, post_id: string) {
  const words = { caption: row['caption'], altText: row['alt_text'], title: row['title'], link: row['link'], firstComment: row['first_comment'] };
  return {
    id: row.id, post_id, brand_id: row['brand_id'], channel_id: row['channel_id'], placement: row['placement'], placement_name: row['placement_name'],
    words: JSON.stringify(Object.fromEntries(Object.entries(words).filter(([, text]) => text !== ''))),
    state: row.state, due_ms: row['due_ms'], not_before_ms: row['not_before_ms'], lease: row['lease'], attempt: row['attempt'], idempotency_key: row['idempotency_key'],
    remote_media: row['remote_media'], remote_draft_id: row['remote_draft_id'], publish_intent_ms: row['publish_intent_ms'], address: row['address'], problem: row['problem'], sent_ms: row['sent_ms'], updated_ms: row['updated_ms'],
  };
}

/** The state of a post by those of its deliveries, as it was defined when this was written. */
function stateOf(states: readonly string[]): string {
  const [all, some] = [(state: string) => states.every((each) => each === state), (state: string) => states.includes(state)];
  if (some('sending')) return 'sending';
  if (some('scheduled')) return 'scheduled';
  if (all('cancelled')) return 'cancelled';
  const sent = states.filter((state) => state === 'sent').length;
  return sent === 0 ? 'failed' : some('failed') ? 'partly out' : 'out';
}

async function moveExports(db: Knex): Promise<void> {
  await db.schema.createTable('video_exports', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('piece_id').notNullable().references('pieces.id').onDelete('CASCADE');
    table.text('channel_id').notNullable();
    table.text('placement').notNullable();
    table.text('format').notNullable();
    table.text('pin').notNullable().references('documents.hash');
    table.text('measures');
    table.bigInteger('created_ms').notNullable();
    table.index(['piece_id', 'created_ms', 'id']);
    table.index(['pin']);
  });
  for (const row of await db('film_exports').where({ state: 'made' })) {
    const { pin: made } = await pin(db, JSON.parse(row.snapshot) as OldSnapshot, row.created_ms);
    await db('video_exports').insert({ id: row.id, brand_id: row.brand_id, piece_id: row.piece_id, channel_id: row.channel_id, placement: row.placement, format: row.format, pin: made, measures: row.measures, created_ms: row.created_ms });
  }
  await db.schema.dropTable('film_exports');
}
