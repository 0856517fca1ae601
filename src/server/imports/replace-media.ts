import type { Brand } from '../db/brand-repository.ts';
import { findMedia, updateMedia, type MediaItem } from '../db/media-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { readMedia, type IncomingMedia } from './keep-media.ts';

/**
 * Puts another file in the place of an item's; pieces follow, scheduled posts keep what they have pinned.
 * @throws ProblemError when the file is of another kind or cannot be used, or the item has changed meanwhile
 */
export async function replaceMedia({ db, media, clock }: Pick<Services, 'db' | 'media' | 'clock'>, brand: Pick<Brand, 'id'>, { mediaId, revision }: { readonly mediaId: string; readonly revision: number }, incoming: IncomingMedia): Promise<MediaItem> {
  const current = await findMedia(db, brand.id, mediaId);
  if (!current) throw notFound('picture');
  const read = await readMedia(media, incoming.path, incoming.name, incoming.options);
  if ((read.recording?.kind ?? null) !== (current.recording?.kind ?? null)) throw new ProblemError(415, 'other-kind', 'Only a file of the same kind can take its place: a picture for a picture, a clip for a clip.');
  const updated = await updateMedia(db, brand.id, mediaId, revision, { file: { ...read, sourceHash: incoming.hash } }, clock.machineNowMs());
  if (!updated) throw new ProblemError(409, 'stale-revision', 'Somebody else has just changed this picture.');
  return updated;
}
