import type { Brand } from '../db/brand-repository.ts';
import { findPiecesShowing } from '../db/piece-repository.ts';
import { countPostsShowing } from '../db/post-repository.ts';
import type { Services } from '../services.ts';

/** Pieces that a picture's uses name; the others are counted. */
const MAX_NAMED = 12;

/** Where a picture of the brand is used: the last changed pieces by name, all pieces and posts by number, and the brand book's marks. */
export async function usesOfMedia(services: Pick<Services, 'db'>, brand: Brand, mediaId: string) {
  const [pieces, posts] = await Promise.all([findPiecesShowing(services.db, brand.id, mediaId, MAX_NAMED), countPostsShowing(services.db, mediaId)]);
  const inBook = brand.book.marks.some((mark) => mark.kind === 'picture' && mark.mediaId === mediaId);
  return { pieces: [...pieces.latest], pieceCount: pieces.count, ...posts, inBook };
}
