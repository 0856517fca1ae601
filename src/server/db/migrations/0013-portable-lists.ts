import type { Knex } from 'knex';

/** Columns that were made as integers: 32 bits in other engines than SQLite, too few for milliseconds and for bytes of files. */
const WIDE_NUMBERS: Readonly<Record<string, readonly string[]>> = {
  people: ['created_ms'],
  sessions: ['expires_ms'],
  sign_in_attempts: ['at_ms'],
  access_tokens: ['created_ms', 'last_used_ms', 'revoked_ms'],
  media: ['bytes', 'created_ms', 'archived_ms'],
  pieces: ['created_ms', 'updated_ms'],
  uploads: ['bytes', 'started_ms'],
  typefaces: ['created_ms'],
  templates: ['updated_ms', 'archived_ms'],
};

/** What lists filter and sort by gets columns and tables of its own, so that every engine answers the same queries. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('media', (table) => {
    table.text('kind').notNullable().defaultTo('picture');
    table.bigInteger('duration_ms');
    table.boolean('has_sound');
    table.float('proposed_x').notNullable().defaultTo(0.5);
    table.float('proposed_y').notNullable().defaultTo(0.5);
    table.index(['brand_id', 'kind', 'created_ms', 'id']);
  });
  // What a search looks through: every word of an item once.
  await db.schema.createTable('media_words', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('word').notNullable();
    table.text('media_id').notNullable().references('media.id').onDelete('CASCADE');
    table.primary(['brand_id', 'word', 'media_id']);
    table.index(['media_id']);
  });
  await db.schema.createTable('brand_tags', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('tag').notNullable();
    table.integer('uses').notNullable();
    table.primary(['brand_id', 'tag']);
    table.index(['brand_id', 'uses']);
  });
  await db.schema.createTable('media_tags', (table) => {
    table.text('media_id').notNullable().references('media.id').onDelete('CASCADE');
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('tag').notNullable();
    table.primary(['media_id', 'tag']);
    table.index(['brand_id', 'tag']);
  });
  await fillMedia(db);
  const uses: { brand_id: string; tag: string; uses: number }[] = await db('media_tags').groupBy('brand_id', 'tag').select('brand_id', 'tag').count({ uses: '*' });
  await db.batchInsert('brand_tags', uses, 100);
  await db.raw('alter table media drop column search');
  for (const table of ['brands', 'people', 'memberships']) {
    await db.schema.alterTable(table, (altered) => {
      altered.integer('position').notNullable().defaultTo(0);
    });
  }
  // Until now, the order of insertion was the order of lists; other engines than SQLite have no rows from before.
  const isSqlite = (db.client as { config: { client: string } }).config.client === 'better-sqlite3';
  const inOrder = async (table: string, columns: readonly string[]): Promise<void> => {
    for (const [index, row] of (await db(table).select([...columns]).modify((query) => void (isSqlite && query.orderBy('rowid')))).entries()) await db(table).where(row).update({ position: index + 1 });
  };
  await inOrder('brands', ['id']);
  await inOrder('people', ['id']);
  await inOrder('memberships', ['person_id', 'brand_id']);
  if (isSqlite) return;
  for (const [table, columns] of Object.entries(WIDE_NUMBERS)) {
    await db.schema.alterTable(table, (altered) => {
      for (const column of columns) altered.bigInteger(column).alter({ alterNullable: false });
    });
  }
}

interface OldMedia {
  readonly id: string;
  readonly brand_id: string;
  readonly facts: string;
  readonly recording: string | null;
  readonly tags: string;
  readonly search: string;
}

async function fillMedia(db: Knex): Promise<void> {
  for (let after = ''; ; ) {
    const rows: OldMedia[] = await db('media').where('id', '>', after).orderBy('id').limit(200).select('id', 'brand_id', 'facts', 'recording', 'tags', 'search');
    const last = rows.at(-1);
    if (!last) return;
    for (const row of rows) {
      const recording = row.recording === null ? null : (JSON.parse(row.recording) as { kind: string; durationMs: number; hasSound: boolean });
      const { focal } = JSON.parse(row.facts) as { focal: { x: number; y: number } };
      await db('media').where({ id: row.id }).update({ kind: recording?.kind ?? 'picture', duration_ms: recording?.durationMs ?? null, has_sound: recording?.hasSound ?? null, proposed_x: focal.x, proposed_y: focal.y });
      const tags = [...new Set(JSON.parse(row.tags) as string[])];
      if (tags.length > 0) await db('media_tags').insert(tags.map((tag) => ({ media_id: row.id, brand_id: row.brand_id, tag })));
      const words = [...new Set(row.search.match(/[\p{L}\p{N}]+/gu) ?? [])].slice(0, 300);
      if (words.length > 0) await db('media_words').insert(words.map((word) => ({ brand_id: row.brand_id, word, media_id: row.id })));
    }
    after = last.id;
  }
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['memberships', 'people', 'brands']) await db.schema.alterTable(table, (altered) => altered.dropColumn('position'));
  for (const table of ['brand_tags', 'media_words', 'media_tags']) await db.schema.dropTable(table);
  await db.schema.alterTable('media', (table) => {
    table.dropIndex(['brand_id', 'kind', 'created_ms', 'id']);
    table.dropColumns('kind', 'duration_ms', 'has_sound', 'proposed_x', 'proposed_y');
    table.text('search').notNullable().defaultTo('');
  });
}
