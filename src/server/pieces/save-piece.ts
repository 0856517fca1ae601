import { ValidationError } from 'yup';
import { mergeDocuments, type Conflict } from '../../core/document/merge.ts';
import { applyPatch, PatchError, type Patch } from '../../core/document/patch.ts';
import { readPiece, type Piece } from '../../core/piece/piece.ts';
import type { Brand } from '../db/brand-repository.ts';
import { findPiece, findRevision, pageRevisions, savePiece, type StoredPiece } from '../db/piece-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { checkReferences } from './check-references.ts';

/** Changes made on top of a revision. */
export interface PieceChange {
  readonly revision: number;
  readonly patches: Patch;
}

/** Saves of others that may come between reading and writing before it is given up. */
const MAX_TRIES = 5;

/**
 * Saves changes of a piece. What others have saved since stays, as long as nobody wrote in the same place.
 * @throws ProblemError 409 `conflict` with both texts where two people wrote in one place, `base-gone` when the revision is not kept
 * any more; 422 when the changed piece would not be valid
 */
export async function saveChanges(services: Services, brand: Brand, id: string, change: PieceChange, personId: string, nowMs: number): Promise<StoredPiece> {
  for (let tries = 0; tries < MAX_TRIES; tries += 1) {
    const current = await findPiece(services.db, brand.id, id);
    if (!current) throw notFound('piece');
    const document = await changed(services, current, change);
    await checkReferences(services, brand, document);
    const saved = await savePiece(services.db, current, document, personId, nowMs);
    if (saved) return saved;
  }
  throw new ProblemError(409, 'busy', 'Others save this piece at the same moment. Confetti tries again.');
}

async function changed({ db }: Services, current: StoredPiece, { revision, patches }: PieceChange): Promise<Piece> {
  if (revision === current.revision) return checked(() => applyPatch(current.document, patches));
  const base = revision < current.revision ? await findRevision(db, current.id, revision) : null;
  if (!base) throw new ProblemError(409, 'base-gone', 'This piece has changed a lot since it was opened.', { current: describe(current) });
  const mine = checked(() => applyPatch(base.document, patches));
  const { document, conflicts } = mergeDocuments<Piece>(base.document, mine, current.document);
  if (conflicts.length > 0) throw await conflict(db, current, conflicts);
  return checked(() => document);
}

async function conflict(db: Services['db'], current: StoredPiece, conflicts: readonly Conflict[]): Promise<ProblemError> {
  const [latest] = await pageRevisions(db, current.id, null, 1);
  const by = latest?.personName ?? 'Somebody else';
  return new ProblemError(409, 'conflict', `${by} has written in the same place.`, { current: describe(current), by, conflicts });
}

function describe({ id, revision, document, updatedMs }: StoredPiece) {
  return { id, revision, document, updatedMs };
}

/** A document as a piece, as JSON keeps it: what is undefined is not there. */
function checked(make: () => unknown): Piece {
  try {
    return readPiece(JSON.parse(JSON.stringify(make())));
  } catch (error) {
    if (error instanceof ValidationError) throw new ProblemError(422, 'not-valid', error.errors[0] ?? 'The piece would not be valid.', { fields: [{ path: error.path ?? '', message: error.message }] });
    if (error instanceof PatchError) throw new ProblemError(422, error.code, error.message);
    throw error;
  }
}
