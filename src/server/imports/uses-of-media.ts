import type { Brand } from '../db/brand-repository.ts';
import { findPiecesShowing } from '../db/piece-repository.ts';
import { countPostsShowing } from '../db/post-repository.ts';
import type { Services } from '../services.ts';

/** Where a picture is used: pieces by name, posts by number, and the brand book's marks. */
export async function usesOfMedia(services: Pick<Services, 'db'>, brand: Brand, mediaId: string) {
  const [pieces, posts] = await Promise.all([findPiecesShowing(services.db, brand.id, mediaId), countPostsShowing(services.db, brand.id, mediaId)]);
  const inBook = brand.book.marks.some((mark) => mark.kind === 'picture' && mark.mediaId === mediaId);
  return { pieces: [...pieces], ...posts, inBook };
}
