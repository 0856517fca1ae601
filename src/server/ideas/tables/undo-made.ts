import { findPostsOfPiece } from '../../db/post-repository.ts';
import { actOnPost } from '../../post/change-post.ts';
import type { Services } from '../../services.ts';

/** Cancels whatever of a piece still waits to go out. */
export async function cancelPostsOf({ db, clock }: Services, pieceId: string): Promise<void> {
  const times = { nowMs: await clock.nowMs(), machineNowMs: clock.machineNowMs() };
  for (const post of await findPostsOfPiece(db, pieceId)) await actOnPost(db, post, 'cancel', times);
}
