import { mediaOfPiece, pieceName, type Piece } from '../../core/piece/piece.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';
import { keepDocument } from './document-repository.ts';

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
  return { name: pieceName(document), template_key: document.template.key, cut_count: document.cuts.length };
}

export async function insertPiece(db: Db, piece: { readonly id: string; readonly brandId: string; readonly document: Piece; readonly createdBy: string }, nowMs: number): Promise<StoredPiece> {
  return db.transaction(async (trx) => {
    const hash = await keepDocument(trx, 'piece', piece.document, nowMs);
    await trx('pieces').insert({ id: piece.id, brand_id: piece.brandId, hash, ...summaryRow(piece.document), created_by: piece.createdBy, created_ms: nowMs, updated_ms: nowMs });
    await noteRevision(trx, piece.id, { revision: 1, hash, personId: piece.createdBy, document: piece.document }, nowMs);
    await noteChange(trx, { brandId: piece.brandId, kind: 'piece', subjectId: piece.id }, nowMs);
    return { id: piece.id, brandId: piece.brandId, document: piece.document, hash, revision: 1, updatedMs: nowMs };
  });
}

async function noteRevision(trx: Db, pieceId: string, made: { readonly revision: number; readonly hash: string; readonly personId: string; readonly document: Piece }, nowMs: number): Promise<void> {
  await trx('piece_revisions').insert({ piece_id: pieceId, revision: made.revision, hash: made.hash, person_id: made.personId, saved_ms: nowMs });
  const media = mediaOfPiece(made.document);
  await trx('piece_media').where({ piece_id: pieceId }).whereNotIn('media_id', [...media]).delete();
  if (media.length > 0) await trx('piece_media').insert(media.map((media_id) => ({ piece_id: pieceId, media_id }))).onConflict(['piece_id', 'media_id']).ignore();
}

export async function findPiece(db: Db, brandId: string, id: string): Promise<StoredPiece | null> {
  const row: PieceRow | undefined = await db('pieces').join('documents', 'documents.hash', 'pieces.hash').where({ brand_id: brandId, id }).first('pieces.*', 'documents.body');
  return row ? toPiece(row) : null;
}

/** Saves a document if the piece is still at `revision`; null when somebody saved in between. */
export async function savePiece(db: Db, piece: Pick<StoredPiece, 'id' | 'brandId' | 'revision'>, document: Piece, personId: string, nowMs: number): Promise<StoredPiece | null> {
  return db.transaction(async (trx) => {
    const hash = await keepDocument(trx, 'piece', document, nowMs);
    const revision = piece.revision + 1;
    const saved = await trx('pieces').where({ brand_id: piece.brandId, id: piece.id, revision: piece.revision }).update({ hash, ...summaryRow(document), revision, updated_ms: nowMs });
    if (saved === 0) return null;
    await noteRevision(trx, piece.id, { revision, hash, personId, document }, nowMs);
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

export interface PieceSummary {
  readonly id: string;
  readonly name: string;
  readonly template: string;
  readonly revision: number;
  readonly updatedMs: number;
  readonly cuts: number;
  readonly scheduled: number;
  readonly sent: number;
}

export async function pagePieces(db: Db, brandId: string, page: { readonly before: { readonly ms: number; readonly id: string } | null; readonly limit: number }): Promise<readonly PieceSummary[]> {
  const countOf = (state: string) => db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').count('*').whereRaw('?? = ??', ['posts.piece_id', 'pieces.id']).where({ 'deliveries.state': state });
  const query = db('pieces')
    .where({ brand_id: brandId })
    .select('id', 'name', 'revision', 'updated_ms', 'template_key', 'cut_count')
    .select(countOf('scheduled').as('scheduled'), countOf('sent').as('sent'))
    .orderBy([{ column: 'updated_ms', order: 'desc' }, { column: 'id', order: 'desc' }])
    .limit(page.limit);
  if (page.before) query.whereRaw('(updated_ms, id) < (?, ?)', [page.before.ms, page.before.id]);
  const rows: { id: string; name: string; template_key: string; revision: number; updated_ms: number; cut_count: number; scheduled: number; sent: number }[] = await query;
  return rows.map((row) => ({ id: row.id, name: row.name, template: row.template_key, revision: row.revision, updatedMs: row.updated_ms, cuts: row.cut_count, scheduled: Number(row.scheduled), sent: Number(row.sent) }));
}

/** Pieces that show a picture, clip or sound, at most a hundred, the last changed first. */
export async function findPiecesShowing(db: Db, brandId: string, mediaId: string): Promise<readonly { readonly id: string; readonly name: string }[]> {
  return db('piece_media').join('pieces', 'pieces.id', 'piece_media.piece_id').where({ media_id: mediaId, brand_id: brandId }).select('pieces.id', 'pieces.name').orderBy('pieces.updated_ms', 'desc').limit(100);
}
