import type { Words } from '../words/fields.ts';
import { readThread } from '../words/thread.ts';

/** A request that follows a post: a further part of its thread, or its first comment. */
export interface FollowUp {
  readonly kind: 'part' | 'comment';
  readonly text: string;
  /** Which of the post's pictures it shows: from the first of these to before the second. */
  readonly pictures: readonly [from: number, to: number];
}

/** The post, and its follow-ups in order. */
export interface Sequence {
  readonly words: Words;
  /** How many of the pictures the post itself shows. */
  readonly pictures: number;
  readonly followUps: readonly FollowUp[];
}

const NONE = [0, 0] as const;

/**
 * Takes composed words apart: networks take a post first, then the further parts of its thread one by one, then a comment. Where each
 * part has a picture of its own, the last part has those that are left.
 */
export function sequenceOf(composed: Words, pictures: number): Sequence {
  const { thread: written, firstComment, ...words } = composed;
  const thread = written === undefined ? null : readThread(written);
  const [first = words.caption, ...further] = thread?.parts ?? [];
  const lastOf = (index: number): number => (index === further.length - 1 ? pictures : Math.min(pictures, index + 2));
  const parts = further.map((text, index): FollowUp => ({ kind: 'part', text, pictures: thread?.pictureEach ? [Math.min(pictures, index + 1), lastOf(index)] : NONE }));
  const comment: readonly FollowUp[] = firstComment === undefined || firstComment.trim() === '' ? [] : [{ kind: 'comment', text: firstComment, pictures: NONE }];
  return {
    words: first === undefined ? words : { ...words, caption: first },
    pictures: thread?.pictureEach ? Math.min(pictures, 1) : pictures,
    followUps: [...parts, ...comment],
  };
}

/** Says how many follow-ups of a published post are out; empty when all are. */
export function howFarOut(followUps: readonly FollowUp[], done: number): string {
  const next = followUps[done];
  if (!next) return '';
  if (next.kind === 'comment') return 'It is out; its first comment is not.';
  const parts = followUps.filter(({ kind }) => kind === 'part').length + 1;
  return `It is out up to part ${done + 1} of ${parts}.`;
}
