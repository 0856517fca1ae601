import type { Knex } from 'knex';
import { shippedSheets } from '../../../core/network/shipped-sheets.ts';

interface KeptSheet {
  readonly words: { fields: { readonly key: string }[]; thread?: unknown; hashtags: { asField?: boolean } };
}

/**
 * What accounts have to choose from, hashtags by piece, short links with their clicks, cards of links, and a brand's writing service. Kept
 * network sheets get the fields that the shipped ones have by now; what is in them stays as it is.
 */
export async function up(db: Knex): Promise<void> {
  // As a plain statement: the schema builder would make the table anew, and others point to its rows.
  await db.raw("alter table channels add column offers text not null default '{}'");
  await db.schema.createTable('piece_tags', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('piece_id').notNullable().references('pieces.id').onDelete('cascade');
    /** The tag in small letters, without its sign. */
    table.text('tag_key').notNullable();
    table.text('tag').notNullable();
    table.primary(['piece_id', 'tag_key']);
    table.index(['brand_id', 'tag_key', 'piece_id'], 'piece_tags_by_tag');
  });
  await db.schema.createTable('short_links', (table) => {
    table.text('code').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('target').notNullable();
    /** What asks for one link: a second time it answers the same one. */
    table.text('label').notNullable();
    table.text('created_by').notNullable();
    table.bigInteger('created_ms').notNullable();
    table.unique(['brand_id', 'label', 'target']);
    table.index(['brand_id', 'created_ms'], 'short_links_by_brand');
  });
  await db.schema.createTable('link_clicks', (table) => {
    table.text('code').notNullable().references('short_links.code').onDelete('cascade');
    /** In the brand's zone, YYYY-MM-DD. */
    table.text('day').notNullable();
    /** Two letters as a header says them; empty where none does. */
    table.text('country').notNullable();
    /** The host that led here; empty where nobody says it. */
    table.text('source').notNullable();
    table.boolean('is_bot').notNullable();
    table.integer('clicks').notNullable();
    table.primary(['code', 'day', 'country', 'source', 'is_bot']);
  });
  await db.schema.createTable('link_cards', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('address').notNullable();
    table.text('title').notNullable();
    table.text('description').notNullable();
    table.text('site').notNullable();
    /** A small JPEG; empty where the page names no picture. */
    table.binary('picture');
    /** Why there is none; empty where there is one. */
    table.text('problem').notNullable();
    table.bigInteger('fetched_ms').notNullable();
    table.primary(['brand_id', 'address']);
  });
  await db.schema.createTable('writing_services', (table) => {
    table.text('brand_id').primary().references('brands.id').onDelete('cascade');
    table.text('address').notNullable();
    /** JSON of names and values, sealed: a key is among them. */
    table.text('headers').notNullable();
    table.text('body').notNullable();
    table.text('answer_path').notNullable();
    table.boolean('is_on').notNullable();
    table.text('agreed_by').notNullable();
    table.bigInteger('agreed_ms').notNullable();
  });
  const rows: { key: string; sheet: string }[] = await db('network_sheets').select('key', 'sheet');
  for (const { key, sheet: kept } of rows) {
    const shipped = shippedSheets.find((each) => each.key === key);
    if (!shipped) continue;
    const sheet = JSON.parse(kept) as KeptSheet;
    const known = new Set(sheet.words.fields.map((field) => field.key));
    sheet.words.fields.push(...shipped.words.fields.filter((field) => !known.has(field.key)));
    if (shipped.words.thread) sheet.words.thread ??= shipped.words.thread;
    await db('network_sheets').where({ key }).update({ sheet: JSON.stringify(sheet) });
  }
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['writing_services', 'link_cards', 'link_clicks', 'short_links', 'piece_tags']) await db.schema.dropTable(table);
  await db.raw('alter table channels drop column offers');
}
