import type { ReadableStream as WebStream } from 'node:stream/web';
import { ProblemError } from '../errors.ts';

/**
 * The whole body of a request. Reading ends with the first byte too many, whatever length was announced: a body that comes
 * in chunks announces none.
 * @throws ProblemError 413
 */
export async function readBody(request: Request, maxBytes: number): Promise<Buffer> {
  const tooLarge = (): ProblemError => new ProblemError(413, 'too-large', 'That is more text than a request may hold.');
  if (Number(request.headers.get('content-length') ?? 0) > maxBytes) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let bytes = 0;
  // A request without a body has none to iterate over. Leaving the loop by an error cancels the stream.
  for await (const chunk of (request.body as WebStream | null) ?? []) {
    bytes += chunk.byteLength;
    if (bytes > maxBytes) throw tooLarge();
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}
