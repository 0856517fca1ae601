/** An answer other than success that the caller can act on; becomes `application/problem+json` (RFC 9457). */
export class ProblemError extends Error {
  override readonly name = 'ProblemError';
  constructor(
    readonly status: 400 | 401 | 403 | 404 | 409 | 413 | 415 | 422 | 429 | 503 | 507,
    /** A fixed word that programs may branch on. */
    readonly code: string,
    /** A sentence for the person. */
    readonly sentence: string,
    /** More for programs: field errors, the newer value after a conflict, seconds to wait. */
    readonly details: Readonly<Record<string, unknown>> = {},
  ) {
    super(sentence);
  }
}

export function notFound(thing: string): ProblemError {
  return new ProblemError(404, 'not-found', `There is no such ${thing}, or it is not yours to see.`);
}

const storageTroubles: Readonly<Record<string, readonly [status: 503 | 507, code: string, sentence: string]>> = {
  SQLITE_FULL: [507, 'disk-full', 'The disk of this Confetti is full. Nothing was changed. You can look at everything; tell whoever runs it to make room.'],
  ENOSPC: [507, 'disk-full', 'The disk of this Confetti is full. Nothing was changed. You can look at everything; tell whoever runs it to make room.'],
  SQLITE_BUSY: [503, 'database-busy', 'The database is held by another program. Nothing was changed; try again in a moment.'],
  SQLITE_BUSY_SNAPSHOT: [503, 'database-busy', 'The database is held by another program. Nothing was changed; try again in a moment.'],
  SQLITE_READONLY: [503, 'read-only', 'The data folder of this Confetti can only be read. Nothing was changed; tell whoever runs it.'],
  SQLITE_READONLY_DBMOVED: [503, 'read-only', 'The data folder of this Confetti can only be read. Nothing was changed; tell whoever runs it.'],
  SQLITE_CANTOPEN: [503, 'read-only', 'The database of this Confetti cannot be opened. Nothing was changed; tell whoever runs it.'],
  EROFS: [503, 'read-only', 'The data folder of this Confetti can only be read. Nothing was changed; tell whoever runs it.'],
  EACCES: [503, 'read-only', 'The data folder of this Confetti can only be read. Nothing was changed; tell whoever runs it.'],
  SQLITE_CORRUPT: [503, 'database-damaged', 'The database of this Confetti is damaged. Tell whoever runs it to restore the last backup.'],
  SQLITE_NOTADB: [503, 'database-damaged', 'The database of this Confetti is damaged. Tell whoever runs it to restore the last backup.'],
};

/** What trouble with disk or database means for a person; null for any other error. */
export function storageProblem(error: unknown): ProblemError | null {
  const code = (error as { code?: unknown } | null)?.code;
  const known = typeof code === 'string' ? storageTroubles[code] : undefined;
  return known ? new ProblemError(known[0], known[1], known[2]) : null;
}
