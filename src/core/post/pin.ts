/**
 * What a post or an export is made of, by the hashes of documents. Documents never change, so what is pinned stays as it was;
 * pinning costs a few names, and whether a piece has changed since is a comparison of two of them.
 */
export interface Pin {
  readonly version: 1;
  readonly piece: string;
  readonly template: string;
  readonly book: string;
  /** Network sheets by their keys. */
  readonly sheets: Readonly<Record<string, string>>;
  /** What layout and sending know of each picture, clip and sound. */
  readonly pictures: readonly string[];
}

/** All documents that a pin names, each once. */
export function documentsOf({ piece, template, book, sheets, pictures }: Pin): readonly string[] {
  return [...new Set([piece, template, book, ...Object.values(sheets), ...pictures])];
}
