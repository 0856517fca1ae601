import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import { fileTypeFromBuffer } from 'file-type';
import { MAX_RECORDING_BYTES, MAX_UPLOAD_BYTES } from '../../contract/media-contracts.ts';
import { ProblemError } from '../errors.ts';
import { diskRoom } from '../upkeep/disk-reserve.ts';
import type { MediaStore } from './media-store.ts';

export interface ReceivedFile {
  readonly path: string;
  readonly bytes: number;
  readonly hash: string;
}

/**
 * Streams an upload to a temporary file, hashing on the way and never holding it in memory. Its first bytes say how large it may be.
 * @throws ProblemError 413 when it is larger than allowed, before or while it comes in; 400 when it is empty
 */
export async function receiveUpload(request: Request, store: MediaStore, limitOf: (start: Uint8Array) => number | Promise<number> = mostMediaBytes): Promise<ReceivedFile> {
  const announced = Number(request.headers.get('content-length') ?? 0);
  if (announced > MAX_RECORDING_BYTES) throw tooLarge(MAX_RECORDING_BYTES);
  requireRoom(store.dataFolder, announced);
  if (!request.body) throw new ProblemError(400, 'empty-upload', 'The file is empty.');
  const path = await store.temporaryPath();
  const hash = createHash('sha256');
  let bytes = 0;
  let mostBytes: number | null = null;
  const measure = new Transform({
    async transform(chunk: Buffer, _, done) {
      mostBytes ??= await limitOf(chunk);
      bytes += chunk.length;
      if (Math.max(announced, bytes) > mostBytes) return done(tooLarge(mostBytes));
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

/** @throws ProblemError 507 when the disk has no room for a file of this size */
export function requireRoom(dataFolder: string, bytes: number): void {
  const { freeBytes, keptBytes } = diskRoom(dataFolder);
  if (freeBytes - bytes < keptBytes) throw new ProblemError(507, 'disk-full', 'There is no room for this file on the disk of this Confetti. Tell whoever runs it to make room.');
}

export function isRecordingType(mime: string | undefined): boolean {
  return mime !== undefined && /^(?:video|audio)\//.test(mime);
}

async function mostMediaBytes(start: Uint8Array): Promise<number> {
  return isRecordingType((await fileTypeFromBuffer(start))?.mime) ? MAX_RECORDING_BYTES : MAX_UPLOAD_BYTES;
}

function tooLarge(mostBytes: number): ProblemError {
  return new ProblemError(413, 'too-large', `The file is larger than ${mostBytes / 1024 / 1024} MB. Export it smaller and import it again.`);
}
