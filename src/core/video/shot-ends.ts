import type { VideoRule } from '../network/network-sheet.ts';
import type { Cover } from '../piece/cover.ts';
import type { ShotEnds } from './motion.ts';
import type { Timeline } from './timeline.ts';

/** Whether a cover goes along with the video in a place; where none does, its first frame stands for it. */
export function takesCover(cover: Cover | undefined, rule: VideoRule | undefined): boolean {
  return cover !== undefined && rule?.cover !== undefined;
}

/** How the texts of a shot begin and end. The first frame of a video without a cover says all it has to say. */
export function shotEnds({ shots }: Timeline, index: number, hasCover: boolean): ShotEnds {
  return { lengthFrames: shots[index]?.lengthFrames ?? 0, isLast: index === shots.length - 1, standsAtStart: index === 0 && !hasCover };
}
