/** An answer other than success that the caller can act on; becomes `application/problem+json` (RFC 9457). */
export class ProblemError extends Error {
  override readonly name = 'ProblemError';
  constructor(
    readonly status: 400 | 401 | 403 | 404 | 409 | 413 | 415 | 422 | 429 | 503,
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
