import type { Knex } from 'knex';

const BATCH = 200;
/** Words a piece is found by; a long article in a caption need not be all there. */
const MAX_WORDS = 400;

/** Pieces are searched, sorted, archived and deleted with a way back: what lists ask of them gets columns, and their words a list. Lists of templates tell which take pictures. */
export async function up(db: Knex): Promise<void> {
  // As plain statements: the schema builder would make the table anew, and posts point to its rows.
  await db.raw("alter table pieces add column kind text not null default 'graphic'");
  await db.raw("alter table pieces add column sort_name text not null default ''");
  await db.raw("alter table pieces add column shelf text not null default 'use'");
  await db.raw('alter table pieces add column shelved_ms bigint');
  await db.schema.alterTable('pieces', (table) => {
    table.index(['brand_id', 'shelf', 'updated_ms', 'id'], 'pieces_by_change');
    table.index(['brand_id', 'shelf', 'created_ms', 'id'], 'pieces_by_start');
    table.index(['brand_id', 'shelf', 'sort_name', 'id'], 'pieces_by_name');
    table.dropIndex(['brand_id', 'updated_ms', 'id']);
  });
  await db.schema.createTable('piece_words', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('word').notNullable();
    table.text('piece_id').notNullable().references('pieces.id').onDelete('CASCADE');
    table.primary(['brand_id', 'word', 'piece_id']);
    table.index(['piece_id', 'word']);
  });
  await db.raw('alter table templates add column takes_pictures boolean not null default true');
  const templates: { brand_id: string; key: string }[] = await db('templates').select('brand_id', 'key');
  for (const { brand_id, key } of templates) {
    const row: { document: string } = await db('templates').where({ brand_id, key }).first('document');
    await db('templates').where({ brand_id, key }).update({ takes_pictures: takesPictures(JSON.parse(row.document)) });
  }
  for (let after = ''; ; ) {
    const rows: { id: string; brand_id: string; name: string; body: string }[] = await db('pieces').join('documents', 'documents.hash', 'pieces.hash').where('pieces.id', '>', after).orderBy('pieces.id').limit(BATCH).select('pieces.id', 'pieces.brand_id', 'pieces.name', 'documents.body');
    const last = rows.at(-1);
    if (!last) return;
    for (const { id, brand_id, name, body } of rows) {
      const piece = JSON.parse(body) as { kind: string; frames: unknown; words: unknown };
      await db('pieces').where({ id }).update({ kind: piece.kind, sort_name: name.toLocaleLowerCase('en') });
      const words = new Set([name, ...textsIn(piece.frames), ...textsIn(piece.words)].flatMap((text) => text.toLocaleLowerCase('en').match(/[\p{L}\p{N}]+/gu) ?? []));
      for (const word of [...words].slice(0, MAX_WORDS)) await db('piece_words').insert({ brand_id, word, piece_id: id });
    }
    after = last.id;
  }
}

interface TemplateShape {
  readonly kind: string;
  readonly slots: readonly { readonly kind: string }[];
  readonly slides?: readonly { readonly use: string; readonly slots: readonly { readonly kind: string }[] }[];
}

/** A graphic with a slot for a picture; a carousel with a kind of slide for one. */
function takesPictures({ kind, slots, slides = [] }: TemplateShape): boolean {
  const slide = slides.find(({ use }) => use === 'picture') ?? slides.find(({ use }) => use === 'point');
  return (kind === 'graphic' ? slots : (slide?.slots ?? [])).some((slot) => slot.kind === 'picture');
}

/** Texts of slots (`text`) and of words (any text below them). */
function textsIn(value: unknown, key = ''): readonly string[] {
  if (typeof value === 'string') return key === 'text' || key === 'title' || key === 'caption' || key === 'altText' || key === 'firstComment' ? [value] : [];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([each, inner]) => textsIn(inner, each));
}

export async function down(db: Knex): Promise<void> {
  await db.raw('alter table templates drop column takes_pictures');
  await db.schema.dropTable('piece_words');
  await db.schema.alterTable('pieces', (table) => {
    table.index(['brand_id', 'updated_ms', 'id']);
    for (const name of ['pieces_by_change', 'pieces_by_start', 'pieces_by_name']) table.dropIndex([], name);
  });
  for (const column of ['kind', 'sort_name', 'shelf', 'shelved_ms']) await db.raw(`alter table pieces drop column ${column}`);
}
