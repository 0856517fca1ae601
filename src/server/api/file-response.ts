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

/** A file of which a player may ask for parts (RFC 9110, section 14); a range that cannot be met is answered 416. */
export async function rangeResponse(request: Request, path: string, mime: string): Promise<Response> {
  const { size } = await stat(path);
  const headers = { 'content-type': mime, 'accept-ranges': 'bytes', 'cache-control': 'private, max-age=31536000, immutable', 'x-content-type-options': 'nosniff' };
  const asked = /^bytes=(\d*)-(\d*)$/.exec(request.headers.get('range') ?? '');
  if (!asked || (asked[1] === '' && asked[2] === '')) return new Response(streamOf(path, 0, size - 1), { headers: { ...headers, 'content-length': String(size) } });
  const from = asked[1] === '' ? Math.max(0, size - Number(asked[2])) : Number(asked[1]);
  const to = asked[1] === '' || asked[2] === '' ? size - 1 : Math.min(size - 1, Number(asked[2]));
  if (from > to) return new Response(null, { status: 416, headers: { 'content-range': `bytes */${size}` } });
  return new Response(streamOf(path, from, to), { status: 206, headers: { ...headers, 'content-length': String(to - from + 1), 'content-range': `bytes ${from}-${to}/${size}` } });
}

function streamOf(path: string, start: number, end: number): ReadableStream {
  return Readable.toWeb(createReadStream(path, { start, end })) as ReadableStream;
}
