import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import parseRange from 'range-parser';

type Keep = 'for-good' | 'for-a-visit' | 'ask-again';

/** How long browsers keep a file: a year when it never changes, five minutes for one visit of a page, else they ask whether it has changed. */
const cacheControl: Readonly<Record<Keep, string>> = { 'for-good': 'private, max-age=31536000, immutable', 'for-a-visit': 'private, max-age=300', 'ask-again': 'private, no-cache' };

interface ServedFile {
  readonly size: number;
  readonly etag: string;
}

/** Files are named by the hash of what they are made of, so name, size and time tell one from another (RFC 9110, section 8.8.3). */
async function look(path: string): Promise<ServedFile> {
  const { size, mtimeMs, ino } = await stat(path);
  return { size, etag: `"${size.toString(36)}-${Math.round(mtimeMs).toString(36)}-${ino.toString(36)}"` };
}

function isKnown(request: Request, etag: string): boolean {
  return (request.headers.get('if-none-match') ?? '').split(',').some((each) => each.trim().replace(/^W\//, '') === etag);
}

/** A file as a response; 304 without it where the client has it already. */
export async function fileResponse(request: Request, path: string, mime: string, keep: Keep): Promise<Response> {
  const { size, etag } = await look(path);
  const headers = { etag, 'cache-control': cacheControl[keep], 'x-content-type-options': 'nosniff' };
  if (isKnown(request, etag)) return new Response(null, { status: 304, headers });
  return new Response(streamOf(path, 0, size - 1), { headers: { ...headers, 'content-type': mime, 'content-length': String(size) } });
}

/** A file of which a player may ask for parts (RFC 9110, section 14); a range that cannot be met is answered 416. */
export async function rangeResponse(request: Request, path: string, mime: string): Promise<Response> {
  const { size, etag } = await look(path);
  const headers = { etag, 'content-type': mime, 'accept-ranges': 'bytes', 'cache-control': cacheControl['for-good'], 'x-content-type-options': 'nosniff' };
  if (isKnown(request, etag)) return new Response(null, { status: 304, headers });
  const ranges = parseRange(size, request.headers.get('range') ?? '');
  if (ranges === -1) return new Response(null, { status: 416, headers: { 'content-range': `bytes */${size}` } });
  const [range] = ranges === -2 || ranges.type !== 'bytes' || ranges.length > 1 ? [] : ranges;
  if (!range) return new Response(streamOf(path, 0, size - 1), { headers: { ...headers, 'content-length': String(size) } });
  return new Response(streamOf(path, range.start, range.end), { status: 206, headers: { ...headers, 'content-length': String(range.end - range.start + 1), 'content-range': `bytes ${range.start}-${range.end}/${size}` } });
}

function streamOf(path: string, start: number, end: number): ReadableStream {
  return Readable.toWeb(createReadStream(path, { start, end })) as ReadableStream;
}
