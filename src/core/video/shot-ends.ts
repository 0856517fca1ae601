import type { VideoRule } from '../network/network-sheet.ts';
import type { ShotEnds } from './motion.ts';
import type { Timeline } from './timeline.ts';

/** How the texts of a shot begin and end in a place. Where a place takes no cover, the first frame stands for the video: it says all it has to say. */
export function shotEnds({ shots }: Timeline, index: number, rule: VideoRule | undefined): ShotEnds {
  return { lengthFrames: shots[index]?.lengthFrames ?? 0, isLast: index === shots.length - 1, standsAtStart: index === 0 && rule !== undefined && rule.cover === undefined };
}
