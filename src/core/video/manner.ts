import type { MotionManner } from '../brand/brand-book.ts';

/**
 * How a part of a text comes into its place:
 * - `rise`: from a little below, out of nothing;
 * - `unveil`: it appears from its first letter to its last, as if a cover were pulled away;
 * - `climb`: up from behind the lower edge of its own line.
 */
export type Entrance = 'rise' | 'unveil' | 'climb';

/** Times are frames of a video; see `VIDEO_FPS`. */
export interface Manner {
  /** What comes in by itself, one after the other. */
  readonly by: 'text' | 'line' | 'word';
  readonly entrance: Entrance;
  /** From the beginning of one part to that of the next. */
  readonly staggerFrames: number;
  readonly enterFrames: number;
  /** All parts leave together. */
  readonly leaveFrames: number;
  /** Parts slow down while they come in: they move by 1 - (1 - t)^power. A higher power arrives sooner and settles longer. */
  readonly enterPower: number;
}

/**
 * The three manners a brand chooses from. Nothing bounces, nothing flashes: all curves are monotone.
 *
 * | manner  | part | entrance | apart | in     | out    | curve in      | curve out |
 * |---------|------|----------|-------|--------|--------|---------------|-----------|
 * | calm    | text | rise     | 67 ms | 400 ms | 200 ms | 1 - (1 - t)^3 | fades     |
 * | brisk   | line | unveil   | 67 ms | 300 ms | 167 ms | 1 - (1 - t)^4 | t^2       |
 * | playful | word | climb    | 67 ms | 367 ms | 200 ms | 1 - (1 - t)^5 | t^2       |
 *
 * @see R. Penner, Motion, Tweening, and Easing (2002), for curves as powers
 */
export const manners: Readonly<Record<MotionManner, Manner>> = {
  calm: { by: 'text', entrance: 'rise', staggerFrames: 2, enterFrames: 12, leaveFrames: 6, enterPower: 3 },
  brisk: { by: 'line', entrance: 'unveil', staggerFrames: 2, enterFrames: 9, leaveFrames: 5, enterPower: 4 },
  playful: { by: 'word', entrance: 'climb', staggerFrames: 2, enterFrames: 11, leaveFrames: 6, enterPower: 5 },
};

/** Parts speed up while they leave: they move by t^power. */
export const LEAVE_POWER = 2;

/** A text with more words than this comes in line by line. */
export const MOST_WORDS = 8;

/** The manner of a brand; one that has chosen none is calm. */
export function mannerOf(video: { readonly manner?: MotionManner | undefined } | undefined): Manner {
  return manners[video?.manner ?? 'calm'];
}
