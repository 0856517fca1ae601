import { mentionsOfPiece } from '../../core/piece/mentions-of-piece.ts';
import { mediaOfPiece, pieceName, pieceTexts, type Piece } from '../../core/piece/piece.ts';
import { tagsOfPiece } from '../../core/piece/tags-of-piece.ts';
import { noteChange } from './change-repository.ts';
import { boundedCount } from './bounded-count.ts';
import type { Db } from './connection.ts';
import { keepDocument } from './document-repository.ts';
import { keepWords, searchWords, whereWordsBegin, type WordList } from './search-words.ts';

export interface StoredPiece {
  readonly id: string;
  readonly brandId: string;
  readonly document: Piece;
  /** Names the document; equal documents have equal names. */
  readonly hash: string;
  readonly revision: number;
  readonly updatedMs: number;
}

interface PieceRow {
  id: string;
  brand_id: string;
  hash: string;
  body: string;
  revision: number;
  updated_ms: number;
}

function toPiece(row: PieceRow): StoredPiece {
  return { id: row.id, brandId: row.brand_id, document: JSON.parse(row.body) as Piece, hash: row.hash, revision: row.revision, updatedMs: row.updated_ms };
}

/** What lists say of a piece without reading its document. */
function summaryRow(document: Piece) {
  const name = pieceName(document);
  return { name, sort_name: name.toLocaleLowerCase('en'), kind: document.kind, template_key: document.template.key, cut_count: document.cuts.length };
}

const pieceWords: WordList = { table: 'piece_words', idColumn: 'piece_id', itemColumn: 'pieces.id' };
/** Words of one piece that it is found by. */
const MAX_WORDS = 400;
/** Hashtags of one piece that are counted. */
const MAX_TAGS = 100;
/** People of one piece that are counted. */
const MAX_MENTIONS = 100;

export async function insertPiece(db: Db, piece: { readonly id: string; readonly brandId: string; readonly document: Piece; readonly createdBy: string }, nowMs: number): Promise<StoredPiece> {
  return db.transaction(async (trx) => {
    const hash = await keepDocument(trx, 'piece', piece.document, nowMs);
    await trx('pieces').insert({ id: piece.id, brand_id: piece.brandId, hash, ...summaryRow(piece.document), created_by: piece.createdBy, created_ms: nowMs, updated_ms: nowMs });
    await noteRevision(trx, piece, { revision: 1, hash, personId: piece.createdBy, document: piece.document }, nowMs);
    await writeWords(trx, piece);
    await noteChange(trx, { brandId: piece.brandId, kind: 'piece', subjectId: piece.id }, nowMs);
    return { id: piece.id, brandId: piece.brandId, document: piece.document, hash, revision: 1, updatedMs: nowMs };
  });
}

/** Writes down what a piece is found by. */
async function writeWords(trx: Db, piece: Pick<StoredPiece, 'id' | 'brandId' | 'document'>): Promise<void> {
  const { document } = piece;
  await keepWords(trx, pieceWords, piece, new Set([pieceName(document), ...pieceTexts(document)].flatMap(searchWords)), MAX_WORDS);
}

async function noteRevision(trx: Db, { id: pieceId, brandId }: Pick<StoredPiece, 'id' | 'brandId'>, made: { readonly revision: number; readonly hash: string; readonly personId: string; readonly document: Piece }, nowMs: number): Promise<void> {
  await trx('piece_revisions').insert({ piece_id: pieceId, revision: made.revision, hash: made.hash, person_id: made.personId, saved_ms: nowMs });
  const media = mediaOfPiece(made.document);
  await trx('piece_media').where({ piece_id: pieceId }).whereNotIn('media_id', [...media]).delete();
  if (media.length > 0) await trx('piece_media').insert(media.map((media_id) => ({ piece_id: pieceId, media_id }))).onConflict(['piece_id', 'media_id']).ignore();
  const tags = tagsOfPiece(made.document).slice(0, MAX_TAGS).map((tag) => ({ brand_id: brandId, piece_id: pieceId, tag_key: tag.slice(1).toLowerCase(), tag }));
  await trx('piece_tags').where({ piece_id: pieceId }).whereNotIn('tag_key', tags.map(({ tag_key }) => tag_key)).delete();
  if (tags.length > 0) await trx('piece_tags').insert(tags).onConflict(['piece_id', 'tag_key']).merge(['tag']);
  const mentions = mentionsOfPiece(made.document).slice(0, MAX_MENTIONS).map((mention) => ({ brand_id: brandId, piece_id: pieceId, name_key: mention.slice(1).toLowerCase(), mention }));
  await trx('piece_mentions').where({ piece_id: pieceId }).whereNotIn('name_key', mentions.map(({ name_key }) => name_key)).delete();
  if (mentions.length > 0) await trx('piece_mentions').insert(mentions).onConflict(['piece_id', 'name_key']).merge(['mention']);
}

export async function findPiece(db: Db, brandId: string, id: string): Promise<StoredPiece | null> {
  const row: PieceRow | undefined = await db('pieces').join('documents', 'documents.hash', 'pieces.hash').where({ brand_id: brandId, id }).whereNot('shelf', 'deleted').first('pieces.*', 'documents.body');
  return row ? toPiece(row) : null;
}

/** Saves a document if the piece is still at `revision`; null when somebody saved in between. */
export async function savePiece(db: Db, piece: Pick<StoredPiece, 'id' | 'brandId' | 'revision'>, document: Piece, personId: string, nowMs: number): Promise<StoredPiece | null> {
  return db.transaction(async (trx) => {
    const hash = await keepDocument(trx, 'piece', document, nowMs);
    const revision = piece.revision + 1;
    const saved = await trx('pieces').where({ brand_id: piece.brandId, id: piece.id, revision: piece.revision }).update({ hash, ...summaryRow(document), revision, updated_ms: nowMs });
    if (saved === 0) return null;
    await noteRevision(trx, piece, { revision, hash, personId, document }, nowMs);
    await writeWords(trx, { ...piece, document });
    await noteChange(trx, { brandId: piece.brandId, kind: 'piece', subjectId: piece.id }, nowMs);
    return { id: piece.id, brandId: piece.brandId, document, hash, revision, updatedMs: nowMs };
  });
}

/** A saved state of a piece: who saved it, and when. */
export interface PieceRevision {
  readonly revision: number;
  readonly personId: string;
  readonly personName: string;
  readonly savedMs: number;
}

const REVISION_COLUMNS = ['piece_revisions.revision', 'piece_revisions.person_id', 'people.name', 'piece_revisions.saved_ms'];
interface RevisionRow {
  revision: number;
  person_id: string;
  name: string;
  saved_ms: number;
}
const toRevision = (row: RevisionRow): PieceRevision => ({ revision: row.revision, personId: row.person_id, personName: row.name, savedMs: row.saved_ms });

/** Saved states of a piece, the latest first. */
export async function pageRevisions(db: Db, pieceId: string, beforeRevision: number | null, limit: number): Promise<readonly PieceRevision[]> {
  const query = db('piece_revisions').join('people', 'people.id', 'piece_revisions.person_id').where({ piece_id: pieceId }).orderBy('revision', 'desc').limit(limit).select(REVISION_COLUMNS);
  if (beforeRevision !== null) query.where('revision', '<', beforeRevision);
  return ((await query) as RevisionRow[]).map(toRevision);
}

/** One saved state with its document; null when it is not kept any more. */
export async function findRevision(db: Db, pieceId: string, revision: number): Promise<(PieceRevision & { readonly document: Piece }) | null> {
  const row: (RevisionRow & { body: string }) | undefined = await db('piece_revisions')
    .join('people', 'people.id', 'piece_revisions.person_id')
    .join('documents', 'documents.hash', 'piece_revisions.hash')
    .where({ piece_id: pieceId, revision })
    .first([...REVISION_COLUMNS, 'documents.body']);
  return row ? { ...toRevision(row), document: JSON.parse(row.body) as Piece } : null;
}

/** Every saved state is kept for this long: somebody may still edit on top of it. */
const KEEP_ALL_MS = 30 * 60_000;
/** Later, of what one person saved within this time the last state is kept. */
const TOGETHER_MS = 2 * 60_000;

/** Thins out old saved states: of an hour's typing a state every two minutes is enough. Answers how many went. */
export async function thinRevisions(db: Db, nowMs: number): Promise<number> {
  return db('piece_revisions')
    .where('saved_ms', '<', nowMs - KEEP_ALL_MS)
    .whereExists(
      db('piece_revisions as later')
        .select(db.raw('1'))
        .whereRaw('?? = ??', ['later.piece_id', 'piece_revisions.piece_id'])
        .whereRaw('?? = ??', ['later.person_id', 'piece_revisions.person_id'])
        .whereRaw('?? > ??', ['later.revision', 'piece_revisions.revision'])
        .whereRaw('?? < ?? + ?', ['later.saved_ms', 'piece_revisions.saved_ms', TOGETHER_MS]),
    )
    .delete();
}

/** Where a piece stands: in use, archived, or deleted with a way back for a while. */
export type PieceShelf = 'use' | 'archived' | 'deleted';

export interface PieceSummary {
  readonly id: string;
  readonly name: string;
  readonly kind: Piece['kind'];
  readonly template: string;
  readonly revision: number;
  readonly personName: string;
  readonly createdMs: number;
  readonly updatedMs: number;
  readonly cuts: number;
  readonly scheduled: number;
  readonly sent: number;
}

/** How far a piece has come: nothing is planned, something waits for its moment, something went out. */
export type PieceStatus = 'draft' | 'scheduled' | 'sent';
export type PieceSort = 'changed' | 'created' | 'name';

export interface PieceFilter {
  readonly shelf: PieceShelf;
  readonly words: readonly string[];
  readonly kind: Piece['kind'] | null;
  readonly template: string | null;
  readonly status: PieceStatus | null;
  /** Who started it. */
  readonly personId: string | null;
  /** Changed no earlier than this. */
  readonly sinceMs: number | null;
  readonly sort: PieceSort;
  /** The sorting value and id of the last piece of the page before. */
  readonly after: { readonly value: number | string; readonly id: string } | null;
  readonly limit: number;
}

const SORT_COLUMNS = { changed: 'pieces.updated_ms', created: 'pieces.created_ms', name: 'pieces.sort_name' } as const satisfies Readonly<Record<PieceSort, string>>;

/** A page of a brand's pieces: the latest first, or by name. Words are found by their beginnings. */
export async function pagePieces(db: Db, brandId: string, filter: PieceFilter): Promise<readonly PieceSummary[]> {
  const deliveriesIn = (state: string) => db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').whereRaw('?? = ??', ['posts.piece_id', 'pieces.id']).where({ 'deliveries.state': state });
  const countOf = (state: string) => deliveriesIn(state).count('*');
  const column = SORT_COLUMNS[filter.sort];
  const direction = filter.sort === 'name' ? 'asc' : 'desc';
  const query = db('pieces')
    .join('people', 'people.id', 'pieces.created_by')
    .where({ 'pieces.brand_id': brandId, shelf: filter.shelf })
    .select('pieces.id', 'pieces.name', 'pieces.kind', 'pieces.revision', 'pieces.created_ms', 'pieces.updated_ms', 'pieces.template_key', 'pieces.cut_count', 'people.name as person_name')
    .select(countOf('scheduled').as('scheduled'), countOf('sent').as('sent'))
    .orderBy([{ column, order: direction }, { column: 'pieces.id', order: direction }])
    .limit(filter.limit);
  if (filter.kind !== null) query.where({ kind: filter.kind });
  if (filter.template !== null) query.where({ template_key: filter.template });
  if (filter.personId !== null) query.where({ created_by: filter.personId });
  if (filter.sinceMs !== null) query.where('pieces.updated_ms', '>=', filter.sinceMs);
  if (filter.status === 'draft') query.whereNotExists(deliveriesIn('scheduled').select(db.raw('1'))).whereNotExists(deliveriesIn('sent').select(db.raw('1')));
  else if (filter.status !== null) query.whereExists(deliveriesIn(filter.status).select(db.raw('1')));
  await whereWordsBegin(db, query, pieceWords, brandId, filter.words.flatMap(searchWords));
  if (filter.after) query.whereRaw(`(??, ??) ${direction === 'asc' ? '>' : '<'} (?, ?)`, [column, 'pieces.id', filter.after.value, filter.after.id]);
  const rows: { id: string; name: string; kind: Piece['kind']; template_key: string; revision: number; created_ms: number; updated_ms: number; cut_count: number; person_name: string; scheduled: number; sent: number }[] = await query;
  return rows.map((row) => ({ id: row.id, name: row.name, kind: row.kind, template: row.template_key, revision: row.revision, personName: row.person_name, createdMs: row.created_ms, updatedMs: row.updated_ms, cuts: row.cut_count, scheduled: Number(row.scheduled), sent: Number(row.sent) }));
}

/** What pieces can be filtered by: templates and people that pieces in use have, the most frequent first. */
export async function pieceFacets(db: Db, brandId: string): Promise<{ readonly templates: readonly string[]; readonly people: readonly { readonly id: string; readonly name: string }[] }> {
  const inUse = () => db('pieces').where({ 'pieces.brand_id': brandId, shelf: 'use' });
  const templates: string[] = await inUse().groupBy('template_key').orderByRaw('count(*) desc').orderBy('template_key').pluck('template_key');
  const people: { id: string; name: string }[] = await inUse().join('people', 'people.id', 'pieces.created_by').groupBy('people.id', 'people.name').orderByRaw('count(*) desc').orderBy('people.name').select('people.id', 'people.name');
  return { templates, people };
}

/** Puts a piece on another shelf; false when there is none, or it has been purged. */
export async function shelvePiece(db: Db, brandId: string, id: string, shelf: PieceShelf, nowMs: number): Promise<boolean> {
  return db.transaction(async (trx) => {
    const moved = await trx('pieces').where({ brand_id: brandId, id }).update({ shelf, shelved_ms: shelf === 'use' ? null : nowMs });
    if (moved === 0) return false;
    await noteChange(trx, { brandId, kind: 'piece', subjectId: id }, nowMs);
    return true;
  });
}

/** How many posts of a piece still wait for their moment or are on their way. */
export async function countWaitingPosts(db: Db, pieceId: string): Promise<number> {
  const row = await db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').where({ 'posts.piece_id': pieceId }).whereIn('deliveries.state', ['in review', 'scheduled', 'held', 'sending', 'by hand']).countDistinct({ posts: 'posts.id' }).first();
  return Number(row?.['posts'] ?? 0);
}

/** Throws away pieces that were deleted before a moment. Those that went out stay, unseen: their posts point to them. */
export async function purgePieces(db: Db, beforeMs: number): Promise<number> {
  return db('pieces').where({ shelf: 'deleted' }).where('shelved_ms', '<', beforeMs).whereNotExists(db('posts').select(db.raw('1')).whereRaw('?? = ??', ['posts.piece_id', 'pieces.id'])).delete();
}

/** Pieces that show a picture, clip or sound: the last changed of them, and how many there are, at most `MAX_COUNTED`. */
export async function findPiecesShowing(db: Db, brandId: string, mediaId: string, limit: number): Promise<{ readonly latest: readonly { readonly id: string; readonly name: string }[]; readonly count: number }> {
  const showing = db('piece_media').join('pieces', 'pieces.id', 'piece_media.piece_id').where({ media_id: mediaId, brand_id: brandId }).whereNot('shelf', 'deleted');
  const latest: { id: string; name: string }[] = await showing.clone().select('pieces.id', 'pieces.name').orderBy('pieces.updated_ms', 'desc').limit(limit);
  return { latest, count: latest.length < limit ? latest.length : await boundedCount(db, showing) };
}
