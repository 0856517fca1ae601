import type { Knex } from 'knex';

const DAY_MS = 86_400_000;
/** Sessions end after this long; when one that is kept began follows from it. */
const SESSION_MS = 30 * DAY_MS;
/** Tokens that were made to last for ever last this much longer. */
const OLD_TOKEN_MS = 365 * DAY_MS;

/**
 * One-time links for invitations and new passwords, sessions that can be listed and end when idle, tokens with a scope and an end, a second
 * step of signing in, and who may begin brands.
 */
export async function up(db: Knex): Promise<void> {
  // As plain statements: the schema builder would make the table anew, and others point to its rows.
  await db.raw('alter table people add column may_begin_brands boolean not null default false');
  await db.raw('alter table people add column code_secret text');
  await db.raw('alter table people add column code_step bigint');
  await db('people').whereIn('id', db('memberships').where({ role: 'owner' }).select('person_id')).update({ may_begin_brands: true });

  await db.raw("alter table sessions add column id text not null default ''");
  await db.raw("alter table sessions add column client text not null default ''");
  await db.raw('alter table sessions add column created_ms bigint not null default 0');
  await db.raw('alter table sessions add column last_used_ms bigint not null default 0');
  const nowMs = Date.now();
  await db('sessions').update({ id: db.raw('substr(secret_hash, 1, 12)'), created_ms: db.raw('expires_ms - ?', [SESSION_MS]), last_used_ms: nowMs });

  await db.raw("alter table access_tokens add column scope text not null default 'send'");
  await db.raw('alter table access_tokens add column expires_ms bigint');
  await db('access_tokens').update({ expires_ms: nowMs + OLD_TOKEN_MS });

  await db.schema.createTable('recovery_codes', (table) => {
    table.text('person_id').notNullable().references('people.id').onDelete('CASCADE');
    table.text('code_hash').notNullable();
    table.primary(['person_id', 'code_hash']);
  });
  await db.schema.createTable('known_addresses', (table) => {
    table.text('person_id').notNullable().references('people.id').onDelete('CASCADE');
    table.text('address').notNullable();
    table.bigInteger('last_ms').notNullable();
    table.primary(['person_id', 'address']);
  });
  await db.schema.createTable('one_time_links', (table) => {
    table.text('id').primary();
    table.text('kind').notNullable();
    table.text('secret_hash').notNullable().unique();
    table.text('person_id').references('people.id').onDelete('CASCADE');
    table.text('brand_id').references('brands.id').onDelete('CASCADE');
    table.text('role');
    table.text('email').notNullable().defaultTo('');
    table.text('made_by').references('people.id').onDelete('CASCADE');
    table.bigInteger('created_ms').notNullable();
    table.bigInteger('expires_ms').notNullable();
    table.bigInteger('ended_ms');
    table.index(['brand_id', 'created_ms']);
  });
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['one_time_links', 'known_addresses', 'recovery_codes']) await db.schema.dropTable(table);
  for (const [table, columns] of [['access_tokens', ['scope', 'expires_ms']], ['sessions', ['id', 'client', 'created_ms', 'last_used_ms']], ['people', ['may_begin_brands', 'code_secret', 'code_step']]] as const) {
    for (const column of columns) await db.raw(`alter table ${table} drop column ${column}`);
  }
}
