import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';

/** A file as a response; what never changes under its address is kept by browsers for a year. */
export async function fileResponse(path: string, mime: string, keep: 'for-good' | 'ask-again'): Promise<Response> {
  const { size } = await stat(path);
  return new Response(Readable.toWeb(createReadStream(path)) as ReadableStream, {
    headers: {
      'content-type': mime,
      'content-length': String(size),
      'cache-control': keep === 'for-good' ? 'private, max-age=31536000, immutable' : 'private, no-cache',
      'x-content-type-options': 'nosniff',
    },
  });
}
