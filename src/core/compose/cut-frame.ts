import type { TypeRoleName } from '../brand/type-role.ts';
import type { Insets, Size } from '../geometry/box.ts';
import type { Placement } from '../network/network-sheet.ts';

/** Size, margin and safe zone of a cut. */
export interface CutFrame {
  readonly size: Size;
  /** The margin `m` in pixels: 6% of the short side. */
  readonly marginPx: number;
  readonly safe: Insets;
}

/** The margin `m` of a picture of this size, in pixels: 6% of its short side. Lengths of templates and of motion are counted in it. */
export function marginPx({ widthPx, heightPx }: Size): number {
  return Math.min(widthPx, heightPx) * 0.06;
}

/**
 * Smallest sizes at a cut 1080 pixels wide, in proportion elsewhere: such a cut is seen about 390 points wide on a phone.
 */
export const MIN_READING_PX_AT_1080 = 32;
export const MIN_LABEL_PX_AT_1080 = 26;

export function cutFrame(placement: Placement): CutFrame {
  const { width, height } = placement.exportPx;
  const { top, right, bottom, left } = placement.safePercent;
  const size = { widthPx: width, heightPx: height };
  return {
    size,
    marginPx: marginPx(size),
    safe: { topPx: (top / 100) * height, rightPx: (right / 100) * width, bottomPx: (bottom / 100) * height, leftPx: (left / 100) * width },
  };
}

/** Smallest type of a role in this cut, in pixels. */
export function leastTypePx(frame: CutFrame, role: TypeRoleName): number {
  return (role === 'label' ? MIN_LABEL_PX_AT_1080 : MIN_READING_PX_AT_1080) * (frame.size.widthPx / 1080);
}
