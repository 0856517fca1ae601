import type { Db } from './connection.ts';

/** A list of words that items of one kind are found by. */
export interface WordList {
  readonly table: 'media_words' | 'piece_words' | 'idea_words';
  readonly idColumn: 'media_id' | 'piece_id' | 'idea_id';
  /** The column that items are found by, with its table. */
  readonly itemColumn: 'media.id' | 'pieces.id' | 'ideas.id';
}

/** The words of a text in small letters, as they are searched for. */
export function searchWords(text: string): readonly string[] {
  return text.toLocaleLowerCase('en').match(/[\p{L}\p{N}]+/gu) ?? [];
}

/** With fewer candidates than this a search begins with them; with more, the newest are looked through until a page is full. */
const FEW = 400;

/** Narrows a query to the items that have words beginning with each of these. */
export async function whereWordsBegin(db: Db, query: { whereExists(inner: unknown): unknown; whereIn(column: string, ids: unknown): unknown }, list: WordList, brandId: string, words: readonly string[]): Promise<void> {
  // By the item alone: naming the brand as well would lead through all of its words that begin so.
  for (const word of words) query.whereExists(beginningWith(db, list, word).select(db.raw('1')).whereRaw('?? = ??', [`${list.table}.${list.idColumn}`, list.itemColumn]));
  const [longest] = words.toSorted((a, b) => b.length - a.length);
  if (longest === undefined) return;
  const candidates = beginningWith(db, list, longest).where({ brand_id: brandId });
  const row: { count: number | string } | undefined = await db.from(candidates.clone().select(db.raw('1 as one')).limit(FEW).as('candidates')).count({ count: '*' }).first();
  if (Number(row?.count ?? 0) < FEW) query.whereIn(list.itemColumn, candidates.select(list.idColumn));
}

/** Entries of the word list that begin with a word. */
function beginningWith(db: Db, { table }: WordList, word: string) {
  return db(table).where('word', '>=', word).where('word', '<', `${word}\u{10ffff}`);
}

/** Writes down the words that an item is found by; only what has changed is written. */
export async function keepWords(trx: Db, { table, idColumn }: WordList, item: { readonly id: string; readonly brandId: string }, words: ReadonlySet<string>, maxWords: number): Promise<void> {
  const now = new Set([...words].slice(0, maxWords));
  const before: readonly string[] = await trx(table).where({ [idColumn]: item.id }).pluck('word');
  const gone = before.filter((word) => !now.has(word));
  const known = new Set(before);
  const come = [...now].filter((word) => !known.has(word));
  if (gone.length > 0) await trx(table).where({ [idColumn]: item.id }).whereIn('word', gone).delete();
  if (come.length > 0) await trx(table).insert(come.map((word) => ({ brand_id: item.brandId, word, [idColumn]: item.id })));
}
