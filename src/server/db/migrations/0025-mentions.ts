import type { Knex } from 'knex';

const MENTION = /(?<![\p{L}\p{N}_.])@[\p{L}\p{N}_](?:[\p{L}\p{N}_.]*[\p{L}\p{N}_])?/gu;
/** People of one piece that are counted. */
const MAX_MENTIONS = 100;
const ROWS_AT_ONCE = 200;

interface KeptWords {
  readonly words?: { readonly shared?: object; readonly own?: Readonly<Record<string, object>> };
}

/** Whom pieces mention: a writer is offered those whom the brand has mentioned before. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('piece_mentions', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('piece_id').notNullable().references('pieces.id').onDelete('cascade');
    /** The name in small letters, without its sign. */
    table.text('name_key').notNullable();
    table.text('mention').notNullable();
    table.primary(['piece_id', 'name_key']);
    table.index(['brand_id', 'name_key', 'piece_id'], 'piece_mentions_by_name');
  });
  for (let after = ''; ; ) {
    const rows: { id: string; brand_id: string; body: string }[] = await db('pieces').join('documents', 'documents.hash', 'pieces.hash').where('pieces.id', '>', after).orderBy('pieces.id').limit(ROWS_AT_ONCE).select('pieces.id', 'pieces.brand_id', 'documents.body');
    const mentions = rows.flatMap(({ id, brand_id, body }) => mentionsIn(JSON.parse(body) as KeptWords).map((mention) => ({ brand_id, piece_id: id, name_key: mention.slice(1).toLowerCase(), mention })));
    await db.batchInsert('piece_mentions', mentions, ROWS_AT_ONCE);
    const last = rows.at(-1);
    if (!last || rows.length < ROWS_AT_ONCE) return;
    after = last.id;
  }
}

function mentionsIn({ words }: KeptWords): readonly string[] {
  const texts = [words?.shared ?? {}, ...Object.values(words?.own ?? {})].flatMap((row) => Object.values(row)).filter((text) => typeof text === 'string');
  const mentions = texts.flatMap((text) => [...text.matchAll(MENTION)].map(([mention]) => mention));
  return [...new Map(mentions.map((mention) => [mention.toLowerCase(), mention])).values()].slice(0, MAX_MENTIONS);
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('piece_mentions');
}
