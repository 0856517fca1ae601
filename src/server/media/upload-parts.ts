import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rm, stat, truncate } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import { ProblemError } from '../errors.ts';
import type { MediaStore } from './media-store.ts';
import { requireRoom } from './receive-upload.ts';

/** Uploads whose part is being written: two at once would mix their bytes. */
const writing = new Set<string>();

/** The files of uploads that come in parts: the bytes that have arrived so far, and appending the next part. */
export class UploadParts {
  constructor(readonly store: Pick<MediaStore, 'dataFolder'>) {}

  pathOf(id: string): string {
    return join(this.store.dataFolder, 'incoming', `part-${id}`);
  }

  /** Bytes that have arrived. */
  async received(id: string): Promise<number> {
    return stat(this.pathOf(id)).then(
      ({ size }) => size,
      () => 0,
    );
  }

  /**
   * Writes what comes from `at` on, never beyond the announced size. What arrives before a connection breaks is kept.
   * @throws ProblemError 409 when `at` is not the length that has arrived, or another part is coming in; 413 when more comes than was announced
   */
  async append(id: string, at: number, bytes: number, request: Request): Promise<number> {
    const tooMuch = (): ProblemError => new ProblemError(413, 'too-large', 'More bytes came than were announced.');
    if (at + Number(request.headers.get('content-length') ?? 0) > bytes) throw tooMuch();
    if (writing.has(id)) throw new ProblemError(409, 'part-under-way', 'A part of this file is coming in already.', { received: await this.received(id) });
    writing.add(id);
    try {
      return await this.#write(id, at, bytes, request, tooMuch);
    } finally {
      writing.delete(id);
    }
  }

  async #write(id: string, at: number, bytes: number, request: Request, tooMuch: () => ProblemError): Promise<number> {
    requireRoom(this.store.dataFolder, bytes - at);
    const before = await this.received(id);
    if (at > before) throw new ProblemError(409, 'gap', 'A part before this one is missing.', { received: before });
    await mkdir(join(this.store.dataFolder, 'incoming'), { recursive: true });
    // A part that is sent again takes the place of what had come of it.
    if (at < before) await truncate(this.pathOf(id), at);
    let room = bytes - at;
    const limit = new Transform({
      transform(chunk: Buffer, _, done) {
        room -= chunk.length;
        if (room < 0) return done(tooMuch());
        done(null, chunk);
      },
    });
    if (request.body) await pipeline(Readable.fromWeb(request.body as ReadableStream), limit, createWriteStream(this.pathOf(id), { flags: 'a' }));
    return this.received(id);
  }

  async hashOf(id: string): Promise<string> {
    const hash = createHash('sha256');
    for await (const chunk of createReadStream(this.pathOf(id))) hash.update(chunk as Buffer);
    return hash.digest('hex');
  }

  async drop(id: string): Promise<void> {
    await rm(this.pathOf(id), { force: true });
  }
}
