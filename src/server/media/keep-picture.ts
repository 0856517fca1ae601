import { createHash } from 'node:crypto';
import { rm, writeFile } from 'node:fs/promises';
import { nanoid } from 'nanoid';
import type { Brand } from '../db/brand-repository.ts';
import { findMediaBySource, insertMediaOnce, noTerms, type MediaItem, type MediaTerms } from '../db/media-repository.ts';
import type { Services } from '../services.ts';
import { importPicture } from './import-picture.ts';

/** A file that has come in, and what is known about it. */
export interface IncomingPicture {
  readonly path: string;
  /** SHA-256 of its bytes. */
  readonly hash: string;
  readonly name: string;
  readonly altText?: string;
  readonly terms?: MediaTerms;
  readonly tags?: readonly string[];
  readonly sourceAddress?: string;
}

/**
 * Makes a picture of the brand out of a file, or finds the one that the same file has made before.
 * @throws ProblemError when the file is no picture that can be used
 */
export async function keepPicture(services: Pick<Services, 'db' | 'media'>, brand: Pick<Brand, 'id'>, incoming: IncomingPicture, nowMs: number): Promise<MediaItem> {
  const known = await findMediaBySource(services.db, brand.id, incoming.hash);
  if (known) return known;
  const picture = await importPicture(incoming.path, incoming.name);
  return insertMediaOnce(services.db, {
    id: nanoid(12),
    brandId: brand.id,
    name: incoming.name,
    mime: picture.mime,
    widthPx: picture.widthPx,
    heightPx: picture.heightPx,
    bytes: picture.bytes.length,
    sourceHash: incoming.hash,
    storedHash: await services.media.keep(picture.bytes),
    facts: picture.facts,
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

/** The same for bytes at hand. */
export async function keepPictureBytes(services: Pick<Services, 'db' | 'media'>, brand: Pick<Brand, 'id'>, bytes: Uint8Array, about: Omit<IncomingPicture, 'path' | 'hash'>, nowMs: number): Promise<MediaItem> {
  const path = await services.media.temporaryPath();
  try {
    await writeFile(path, bytes);
    return await keepPicture(services, brand, { ...about, path, hash: createHash('sha256').update(bytes).digest('hex') }, nowMs);
  } finally {
    await rm(path, { force: true });
  }
}
