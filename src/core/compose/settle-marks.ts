import type { BrandMark } from '../brand/brand-book.ts';
import type { MarkPart } from '../template/parts.ts';

type Marks = ReadonlyMap<MarkPart, BrandMark>;

/** What a layout comes to, as far as its marks go. */
interface LaidOutMarks {
  readonly emitted: {
    /** The marks that what lies behind their places asks for, of whatever shape. */
    readonly marks: Marks;
    /** The contrast of the part of a mark that can be seen least. */
    readonly leastOfMarks: number;
  };
}

/** So often a layout is made anew for marks of another shape. */
const ROUNDS = 3;

/**
 * Which mark stands out is known when all lies where it lies. A mark of another shape needs another layout, and on that another mark may stand out.
 * Where no layout has room for the marks that it asks for, that one is taken in which they are seen best.
 * @param layOut lays out a cut with room for the given marks; for none, with room for the usual ones
 * @param hasRoom whether a layout has room for the marks that it asks for
 */
export function settleMarks<Cut extends LaidOutMarks>(layOut: (marks: Marks) => Cut, hasRoom: (cut: Cut) => boolean): Cut {
  let latest = layOut(new Map());
  // The first layout may paint marks in the room of others, so each one after it is better.
  let best: Cut | null = null;
  for (let round = 1; round < ROUNDS && !hasRoom(latest); round += 1) {
    latest = layOut(latest.emitted.marks);
    if (!best || latest.emitted.leastOfMarks > best.emitted.leastOfMarks) best = latest;
  }
  return hasRoom(latest) ? latest : (best ?? latest);
}
