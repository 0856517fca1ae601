import { createHash } from 'node:crypto';
import { rm, stat, writeFile } from 'node:fs/promises';
import { fileTypeFromFile } from 'file-type';
import { nanoid } from 'nanoid';
import type { Brand } from '../db/brand-repository.ts';
import { findMediaBySource, insertMediaOnce, noTerms, type MediaItem, type MediaTerms } from '../db/media-repository.ts';
import { MAX_UPLOAD_BYTES } from '../../contract/media-contracts.ts';
import { ProblemError } from '../errors.ts';
import { importRecording, type ImportOptions } from '../recording/import-recording.ts';
import type { Services } from '../services.ts';
import { importPicture } from '../media/import-picture.ts';
import { isRecordingType } from '../media/receive-upload.ts';
import type { MediaStore } from '../media/media-store.ts';

/** A file that has come in, and what is known about it. */
export interface IncomingMedia {
  readonly path: string;
  /** SHA-256 of its bytes. */
  readonly hash: string;
  readonly name: string;
  readonly altText?: string;
  readonly terms?: MediaTerms;
  readonly tags?: readonly string[];
  readonly sourceAddress?: string;
  /** What is known of it already; missing: it is read. */
  readonly reading?: MediaReading;
  readonly options?: ImportOptions;
}

/** What a file shows or sounds like, and where what is kept of it lies. */
export type MediaReading = Pick<MediaItem, 'mime' | 'widthPx' | 'heightPx' | 'bytes' | 'storedHash' | 'facts' | 'recording' | 'takenDay'>;

/**
 * Makes a picture, clip or sound of the brand out of a file, or finds the one that the same file has made before.
 * @throws ProblemError when the file is nothing that can be used
 */
export async function keepMedia(services: Pick<Services, 'db' | 'media'>, brand: Pick<Brand, 'id'>, incoming: IncomingMedia, nowMs: number): Promise<MediaItem> {
  const known = await findMediaBySource(services.db, brand.id, incoming.hash);
  if (known) return known;
  return insertMediaOnce(services.db, {
    id: nanoid(12),
    brandId: brand.id,
    name: incoming.name,
    ...(incoming.reading ?? (await readMedia(services.media, incoming.path, incoming.name, incoming.options))),
    sourceHash: incoming.hash,
    ownFocal: null,
    altText: incoming.altText ?? '',
    terms: incoming.terms ?? noTerms,
    tags: incoming.tags ?? [],
    sourceAddress: incoming.sourceAddress ?? null,
    archivedMs: null,
    revision: 1,
    createdMs: nowMs,
  });
}

/**
 * Reads a file by its bytes and keeps what it shows or sounds like. A clip or sound is kept with a picture that stands for it.
 * @throws ProblemError when it is nothing that can be used
 */
export async function readMedia(store: MediaStore, path: string, name: string, options: ImportOptions = {}): Promise<MediaReading> {
  const isRecording = isRecordingType((await fileTypeFromFile(path))?.mime);
  if (!isRecording && (await stat(path)).size > MAX_UPLOAD_BYTES) throw new ProblemError(413, 'too-large', `The picture is larger than ${MAX_UPLOAD_BYTES / 1024 / 1024} MB. Export it smaller and import it again.`);
  const recording = isRecording ? await importRecording(path, name, store, options) : null;
  const picture = recording?.still ?? (await importPicture(path, name));
  return {
    mime: picture.mime,
    widthPx: picture.widthPx,
    heightPx: picture.heightPx,
    bytes: picture.bytes.length,
    storedHash: await store.keep(picture.bytes),
    facts: picture.facts,
    takenDay: picture.takenDay,
    recording: recording && { ...recording.recording, storedHash: recording.storedHash, mime: recording.mime, bytes: recording.bytes },
  };
}

/** The same for bytes at hand. */
export async function keepMediaBytes(services: Pick<Services, 'db' | 'media'>, brand: Pick<Brand, 'id'>, bytes: Uint8Array, about: Omit<IncomingMedia, 'path' | 'hash'>, nowMs: number): Promise<MediaItem> {
  const path = await services.media.temporaryPath();
  try {
    await writeFile(path, bytes);
    return await keepMedia(services, brand, { ...about, path, hash: createHash('sha256').update(bytes).digest('hex') }, nowMs);
  } finally {
    await rm(path, { force: true });
  }
}
