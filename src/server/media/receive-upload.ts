import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import { MOST_UPLOAD_BYTES } from '../../contract/media-contracts.ts';
import { ProblemError } from '../errors.ts';
import type { MediaStore } from './media-store.ts';

export interface ReceivedFile {
  readonly path: string;
  readonly bytes: number;
  readonly hash: string;
}

/**
 * Streams an upload to a temporary file, hashing on the way and never holding it in memory.
 * @throws ProblemError 413 when it is larger than allowed, before or while it comes in; 400 when it is empty
 */
export async function receiveUpload(request: Request, store: MediaStore, mostBytes = MOST_UPLOAD_BYTES): Promise<ReceivedFile> {
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) throw tooLarge(mostBytes);
  if (!request.body) throw new ProblemError(400, 'empty-upload', 'The file is empty.');
  const path = await store.temporaryPath();
  const hash = createHash('sha256');
  let bytes = 0;
  const measure = new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length;
      if (bytes > mostBytes) return done(tooLarge(mostBytes));
      hash.update(chunk);
      done(null, chunk);
    },
  });
  try {
    await pipeline(Readable.fromWeb(request.body as ReadableStream), measure, createWriteStream(path));
    if (bytes === 0) throw new ProblemError(400, 'empty-upload', 'The file is empty.');
  } catch (error) {
    await rm(path, { force: true });
    throw error;
  }
  return { path, bytes, hash: hash.digest('hex') };
}

function tooLarge(mostBytes: number): ProblemError {
  return new ProblemError(413, 'too-large', `The file is larger than ${mostBytes / 1024 / 1024} MB. Export it smaller and bring it in again.`);
}
