import jsonPatch, { type Operation } from 'fast-json-patch';

/** One change of a document (JSON Patch). Moving and copying are left out: they could make a small patch into a large document. */
export interface PatchOperation {
  readonly op: 'add' | 'replace' | 'remove';
  /** A JSON pointer, e.g. `/words/shared/caption`. */
  readonly path: string;
  readonly value?: unknown;
}

export type Patch = readonly PatchOperation[];

/** With more operations than this the whole document travels instead. */
export const MAX_OPERATIONS = 500;
/** Steps of a path; documents are not as deep. */
const MAX_DEPTH = 40;

/**
 * What turns one document into another, one operation a changed field, however often it changed in between.
 * @see https://www.rfc-editor.org/rfc/rfc6902
 */
export function patchBetween(before: object, after: object): Patch {
  const operations = jsonPatch.compare(before, after) as unknown as Patch;
  return operations.length > MAX_OPERATIONS ? [{ op: 'replace', path: '', value: after }] : operations;
}

/** A patch does not fit the document that it is applied to. */
export class PatchError extends Error {
  override readonly name = 'PatchError';
  readonly code = 'bad-patch';
}

/**
 * The document that a patch makes of another, which stays as it is.
 * @throws PatchError when the patch names a place that is not there
 */
export function applyPatch(document: object, patch: Patch): unknown {
  if (patch.some(({ path }) => path.split('/').length > MAX_DEPTH || /\/\d{6,}(?:\/|$)/.test(path))) throw new PatchError('The change names a place that no document has.');
  try {
    return jsonPatch.applyPatch(document, patch as unknown as Operation[], true, false).newDocument;
  } catch (error) {
    throw new PatchError('The change does not fit the document it was made for.', { cause: error });
  }
}
