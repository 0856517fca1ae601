import type { DeliveryState } from '../post/delivery-state.ts';
import { formatMoment } from '../time/wall-time.ts';

/** What a person wants to hear of a brand's posts, and how. */
export interface ReminderSettings {
  /** So many minutes before a post goes out; null: not at all. */
  readonly beforeMin: number | null;
  readonly whenOut: boolean;
  readonly whenFailed: boolean;
  readonly byMail: boolean;
}

export const usualReminders: ReminderSettings = { beforeMin: null, whenOut: false, whenFailed: true, byMail: false };

/** A post as reminders see it: its deliveries on their channels. */
export interface RemindedPost {
  readonly postId: string;
  readonly pieceId: string;
  readonly pieceName: string;
  readonly dueMs: number;
  readonly states: readonly DeliveryState[];
  readonly problem: string | null;
}

/** A message to a person; each subject is sent once. */
export interface Notice {
  readonly subject: string;
  readonly sentence: string;
  readonly pieceId: string;
}

/** Things older than this are no news. */
const NEWS_MS = 3_600_000;

/** What there is to tell at a moment, of posts around it. */
export function noticesOf(posts: readonly RemindedPost[], settings: ReminderSettings, zone: string, nowMs: number): readonly Notice[] {
  return posts.flatMap(({ postId, pieceId, pieceName, dueMs, states, problem }): readonly Notice[] => {
    const when = formatMoment(dueMs, zone);
    const waits = states.includes('scheduled');
    const isNews = dueMs <= nowMs && nowMs - dueMs < NEWS_MS;
    if (settings.whenFailed && states.includes('failed') && dueMs <= nowMs) return isNews ? [{ subject: `failed ${postId}`, sentence: `“${pieceName}” failed: ${problem ?? 'no reason is known.'}`, pieceId }] : [];
    // Every member gets this notice: only a person can publish the post.
    if (states.includes('by hand') && isNews) return [{ subject: `hand ${postId}`, sentence: `“${pieceName}” waits for you to place it by hand.`, pieceId }];
    if (settings.whenOut && isNews && !waits && !states.includes('sending') && states.includes('sent')) return [{ subject: `out ${postId}`, sentence: `“${pieceName}” is out, on ${states.filter((state) => state === 'sent').length} ${states.filter((state) => state === 'sent').length === 1 ? 'channel' : 'channels'}.`, pieceId }];
    if (settings.beforeMin !== null && waits && dueMs > nowMs && dueMs - nowMs <= settings.beforeMin * 60_000) return [{ subject: `before ${postId} ${dueMs}`, sentence: `“${pieceName}” goes out ${when}.`, pieceId }];
    return [];
  });
}
