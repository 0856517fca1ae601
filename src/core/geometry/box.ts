/** An upright rectangle in pixels; the origin is the upper left corner of the cut. */
export interface Box {
  readonly xPx: number;
  readonly yPx: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** A width and a height in pixels. */
export interface Size {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Distances from the four edges of a box, in pixels. */
export interface Insets {
  readonly topPx: number;
  readonly rightPx: number;
  readonly bottomPx: number;
  readonly leftPx: number;
}

export function insetBox(box: Box, insets: Insets): Box {
  return {
    xPx: box.xPx + insets.leftPx,
    yPx: box.yPx + insets.topPx,
    widthPx: Math.max(0, box.widthPx - insets.leftPx - insets.rightPx),
    heightPx: Math.max(0, box.heightPx - insets.topPx - insets.bottomPx),
  };
}

/** The common part of two boxes, or null where they do not meet. */
export function intersectBoxes(a: Box, b: Box): Box | null {
  const xPx = Math.max(a.xPx, b.xPx);
  const yPx = Math.max(a.yPx, b.yPx);
  const widthPx = Math.min(a.xPx + a.widthPx, b.xPx + b.widthPx) - xPx;
  const heightPx = Math.min(a.yPx + a.heightPx, b.yPx + b.heightPx) - yPx;
  return widthPx > 0 && heightPx > 0 ? { xPx, yPx, widthPx, heightPx } : null;
}

/** The smallest box around all of these; null around none. */
export function boxAround(boxes: readonly Box[]): Box | null {
  if (boxes.length === 0) return null;
  const [xPx, yPx] = [Math.min(...boxes.map((box) => box.xPx)), Math.min(...boxes.map((box) => box.yPx))];
  return { xPx, yPx, widthPx: Math.max(...boxes.map((box) => box.xPx + box.widthPx)) - xPx, heightPx: Math.max(...boxes.map((box) => box.yPx + box.heightPx)) - yPx };
}

/** The part of a box that lies inside a cut of a size, at least a pixel of it. */
export function clampBox(box: Box, size: Size): Box {
  const xPx = Math.max(0, box.xPx);
  const yPx = Math.max(0, box.yPx);
  return { xPx, yPx, widthPx: Math.max(1, Math.min(size.widthPx, box.xPx + box.widthPx) - xPx), heightPx: Math.max(1, Math.min(size.heightPx, box.yPx + box.heightPx) - yPx) };
}

/** True when `inner` lies in `outer`, give or take `tolerancePx` on each side. */
export function boxContains(outer: Box, inner: Box, tolerancePx = 0): boolean {
  return (
    inner.xPx >= outer.xPx - tolerancePx &&
    inner.yPx >= outer.yPx - tolerancePx &&
    inner.xPx + inner.widthPx <= outer.xPx + outer.widthPx + tolerancePx &&
    inner.yPx + inner.heightPx <= outer.yPx + outer.heightPx + tolerancePx
  );
}

/** The box grown outward (to whole pixels), so that rasters neither lose nor blur an edge. */
export function snapBoxOutward(box: Box): Box {
  const xPx = Math.floor(box.xPx + 1e-6);
  const yPx = Math.floor(box.yPx + 1e-6);
  return {
    xPx,
    yPx,
    widthPx: Math.ceil(box.xPx + box.widthPx - 1e-6) - xPx,
    heightPx: Math.ceil(box.yPx + box.heightPx - 1e-6) - yPx,
  };
}

/** A box with room added on all sides. */
export function growBox({ xPx, yPx, widthPx, heightPx }: Box, byPx: number): Box {
  return { xPx: xPx - byPx, yPx: yPx - byPx, widthPx: widthPx + 2 * byPx, heightPx: heightPx + 2 * byPx };
}
