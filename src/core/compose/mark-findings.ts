import type { BrandMark } from '../brand/brand-book.ts';
import { outerColours } from '../brand/mark-parts.ts';
import { MIN_LARGE_CONTRAST } from '../colour/contrast.ts';
import { boxContains, growBox, intersectBoxes, type Box } from '../geometry/box.ts';
import { worstContrast, type LuminanceRange } from './backdrop.ts';
import type { CutFrame } from './cut-frame.ts';
import { slotOfRow } from './expand.ts';
import type { CutFinding } from './report.ts';

/** Rounding of the layout may put a mark this far over the edge. */
const CUT_OFF_TOLERANCE_PX = 1;
const SIZE_TOLERANCE_PX = 0.5;

interface MarkInCut {
  readonly mark: BrandMark;
  readonly box: Box;
  /** Whether a person has chosen this mark: then it may vanish into its ground. */
  readonly isChosen: boolean;
  readonly behind: LuminanceRange;
}

/** What is wrong with a mark in its place: it has to stand out, to be whole and large enough, and no words may come into its room. */
export function markFindings({ mark, box, isChosen, behind }: MarkInCut, { size }: CutFrame, words: ReadonlyMap<{ readonly slot: string }, Box>): readonly CutFinding[] {
  const findings: CutFinding[] = [];
  const ratio = Math.max(...outerColours(mark).map((colour) => worstContrast(colour, behind)));
  if (isChosen && ratio < MIN_LARGE_CONTRAST) findings.push({ kind: 'faint-mark', ratio, needed: MIN_LARGE_CONTRAST });
  if (!boxContains({ xPx: 0, yPx: 0, ...size }, box, CUT_OFF_TOLERANCE_PX)) findings.push({ kind: 'cut-off-mark' });
  const heightPx = box.heightPx / (size.widthPx / 1080);
  if (heightPx < mark.leastHeightPx - SIZE_TOLERANCE_PX) findings.push({ kind: 'small-mark', heightPx, leastHeightPx: mark.leastHeightPx });
  const room = growBox(box, mark.clearSpace * box.heightPx);
  const crowding = [...words].find(([, inkBox]) => intersectBoxes(room, inkBox) !== null);
  if (crowding) findings.push({ kind: 'crowded-mark', slot: slotOfRow(crowding[0].slot) });
  return findings;
}
