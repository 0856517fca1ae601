import { intersectBoxes, type Box } from '../geometry/box.ts';
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

/**
 * How far a line of subtitles rises from its usual place at the foot so that it lies over no words and no mark of the shots behind it:
 * to the lowest place that is free, and for the whole time it is shown. Where none is free, it stays.
 * @returns pixels, 0 or more, even: video keeps colour at half the resolution
 */
export function subtitleRisePx(line: Pick<CutReport, 'placed'>, shots: readonly Pick<CutReport, 'placed' | 'marks'>[], { marginPx, safe }: Pick<CutFrame, 'marginPx' | 'safe'>): number {
  const ink = line.placed[0]?.box;
  if (!ink) return 0;
  const band = { xPx: ink.xPx - BAND_M * marginPx, yPx: ink.yPx - BAND_M * marginPx, widthPx: ink.widthPx + 2 * BAND_M * marginPx, heightPx: ink.heightPx + 2 * BAND_M * marginPx };
  const taken = shots.flatMap(({ placed, marks }) => [...placed.map(({ box }) => box), ...marks]);
  const at = (yPx: number): Box => ({ ...band, yPx });
  const hits = (yPx: number): readonly Box[] => taken.filter((box) => intersectBoxes(at(yPx), box) !== null);
  let yPx = band.yPx;
  for (let blocking = hits(yPx); blocking.length > 0; blocking = hits(yPx)) {
    yPx = Math.min(...blocking.map((box) => box.yPx)) - band.heightPx - GAP_M * marginPx;
    if (yPx < safe.topPx) return 0;
  }
  const risePx = Math.ceil(band.yPx - yPx);
  return risePx + (risePx % 2);
}
