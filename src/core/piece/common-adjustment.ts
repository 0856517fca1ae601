import { adjustmentKeys, differsIn, type Adjustment } from './adjustment.ts';

/** What is chosen for a piece as a whole; it is kept in each of its cuts, so that one of them may have it otherwise. */
const OF_PIECE = ['scheme', 'align', 'swapsSides', 'isPlain'] as const satisfies readonly (keyof Adjustment)[];
const isOfPiece = (key: keyof Adjustment): boolean => OF_PIECE.some((each) => each === key);

/** What more than half of the cuts of a piece have in common: the piece's own choice, which none of them differs by. */
export function commonAdjustment(adjustments: readonly Adjustment[]): Adjustment {
  const common: Record<string, unknown> = {};
  for (const key of OF_PIECE) {
    const values = adjustments.map((each) => each[key]);
    const most = values.find((value) => values.filter((each) => each === value).length > adjustments.length / 2);
    if (most !== undefined) common[key] = most;
  }
  return common as Adjustment;
}

/** Whether a cut differs in anything from what its piece has in common. */
export function differsFrom(adjustment: Adjustment, common: Adjustment): boolean {
  return adjustmentKeys.some((key) => (isOfPiece(key) ? adjustment[key] !== common[key] : differsIn(adjustment, key)));
}
