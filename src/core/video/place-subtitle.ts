import { intersectBoxes, type Box, type Size } from '../geometry/box.ts';
import type { CutReport } from '../compose/report.ts';
import type { CutFrame } from '../compose/cut-frame.ts';
import type { Cue } from '../piece/track.ts';
import { toFrames, type Timeline } from './timeline.ts';

/** Room between a subtitle's ink and the edge of its band, and to the words of the shot, in m. */
const BAND_M = 0.5;
const GAP_M = 0.3;

/** The shots, by index, that a subtitle lies over. */
export function shotsUnder({ fromMs, toMs }: Pick<Cue, 'fromMs' | 'toMs'>, { shots }: Timeline): readonly number[] {
  const [from, to] = [toFrames(fromMs), toFrames(toMs)];
  return shots.flatMap(({ startFrame, lengthFrames }, index) => (startFrame < to && startFrame + lengthFrames > from ? [index] : []));
}

/** A subject fills about this share of the short side of a cut around its point. */
const SUBJECT_SHARE = 0.22;
/** So much of a cut's height a line rises for a panel or a subject; beyond, it would stand above it, out of place. */
const MOST_RISE_SHARE = 0.3;

/** What of a shot a line of subtitles keeps off. */
export type ShotBehind = Pick<CutReport, 'placed' | 'marks' | 'pictures' | 'panels'>;

/**
 * How far a line of subtitles rises from its usual place at the foot so that it lies over no words, no mark and, where a little is
 * enough for that, no panel and no subject of the shots behind it: to the lowest place that is free, and for the whole time it is
 * shown. Where none is free, it stays. A clip's crop follows its subject, which stays about where the shot has it.
 * @returns pixels, 0 or more, even: video keeps colour at half the resolution
 */
export function subtitleRisePx(line: Pick<CutReport, 'placed'>, shots: readonly ShotBehind[], { marginPx, safe, size }: Pick<CutFrame, 'marginPx' | 'safe' | 'size'>): number {
  const ink = line.placed[0]?.box;
  if (!ink) return 0;
  const band = { xPx: ink.xPx - BAND_M * marginPx, yPx: ink.yPx - BAND_M * marginPx, widthPx: ink.widthPx + 2 * BAND_M * marginPx, heightPx: ink.heightPx + 2 * BAND_M * marginPx };
  const words = shots.flatMap(({ placed, marks }) => [...placed.map(({ box }) => box), ...marks]);
  const free = (taken: readonly Box[]): number | null => riseToFree(band, taken, { gapPx: GAP_M * marginPx, topPx: safe.topPx });
  const panels = shots.flatMap((shot) => shot.panels);
  const subjects = shots.flatMap(({ pictures }) => subjectBoxes(pictures, size));
  const near = [[...words, ...panels, ...subjects], [...words, ...panels]].map(free).find((rise) => rise !== null && rise <= MOST_RISE_SHARE * size.heightPx);
  return near ?? free(words) ?? 0;
}

/** Room around the subjects of a shot. */
function subjectBoxes(pictures: CutReport['pictures'], { widthPx, heightPx }: Size): readonly Box[] {
  const side = SUBJECT_SHARE * Math.min(widthPx, heightPx);
  return pictures.flatMap(({ subject }) => (subject ? [{ xPx: subject.xPx - side / 2, yPx: subject.yPx - side / 2, widthPx: side, heightPx: side }] : []));
}

/** The least rise with which a box touches nothing; null where there is none below the top. */
function riseToFree(box: Box, taken: readonly Box[], { gapPx, topPx }: { readonly gapPx: number; readonly topPx: number }): number | null {
  const hits = (yPx: number): readonly Box[] => taken.filter((each) => intersectBoxes({ ...box, yPx }, each) !== null);
  let { yPx } = box;
  for (let blocking = hits(yPx); blocking.length > 0; blocking = hits(yPx)) {
    yPx = Math.min(...blocking.map((each) => each.yPx)) - box.heightPx - gapPx;
    if (yPx < topPx) return null;
  }
  const risePx = Math.ceil(box.yPx - yPx);
  return risePx + (risePx % 2);
}
