import type { Box } from '../geometry/box.ts';
import svgpath from 'svgpath';
import { seededNumbers } from '../motif/seeded-numbers.ts';
import type { Edge, FieldShape, PicturePart, WindowShape } from '../template/parts.ts';

export function rectPath({ xPx, yPx, widthPx, heightPx }: Box): string {
  return `M${xPx} ${yPx}H${xPx + widthPx}V${yPx + heightPx}H${xPx}Z`;
}

/** How far a slanted window leans, and half the gap between it and its neighbour, in m. Pictures go on half of it under each other. */
export const SLANT_M = 2.4;
const SLANT_GAP_M = 0.09;
/** Scallops around a seal. */
const SCALLOPS = 16;

/** The outline of a field around the box of its stack. */
export function fieldPath(shape: FieldShape, box: Box, marginPx: number): string {
  switch (shape) {
    case 'box':
      return rectPath(box);
    case 'disc':
      return circlePath(box);
    case 'seal':
      return sealPath(box);
    case 'tab':
      return cutCornerPath(box, Math.min(marginPx * 0.55, box.heightPx / 3));
  }
}

/** The outline of the window that a picture is seen through. */
export function windowPath(shape: WindowShape, box: Box, marginPx: number): string {
  const { xPx, yPx, widthPx, heightPx } = box;
  const [right, bottom] = [xPx + widthPx, yPx + heightPx];
  const [leanPx, gapPx] = [SLANT_M * marginPx, SLANT_GAP_M * marginPx];
  switch (shape) {
    case 'arch': {
      const radius = Math.min(widthPx / 2, heightPx);
      return `M${xPx} ${bottom}V${yPx + radius}A${widthPx / 2} ${radius} 0 0 1 ${right} ${yPx + radius}V${bottom}Z`;
    }
    case 'circle':
      return circlePath(box);
    case 'sail':
      return `M${xPx} ${yPx}H${right}V${bottom - heightPx * 0.08}Q${xPx + widthPx * 0.45} ${bottom + heightPx * 0.02} ${xPx} ${bottom - heightPx * 0.26}Z`;
    case 'notch':
      return cutCornerPath(box, marginPx * 1.6);
    case 'torn-bottom':
      return `M${xPx} ${yPx}H${right}${tornEdge(box, bottom, -1, marginPx)}Z`;
    case 'torn-top':
      return `M${xPx} ${bottom}H${right}${tornEdge(box, yPx, 1, marginPx)}Z`;
    case 'slant-right':
      return polygonPath([xPx, yPx], [right - gapPx, yPx], [right - leanPx - gapPx, bottom], [xPx, bottom]);
    case 'slant-left':
      return polygonPath([xPx + leanPx + gapPx, yPx], [right, yPx], [right, bottom], [xPx + gapPx, bottom]);
    case 'slant-bottom':
      return polygonPath([xPx, yPx], [right, yPx], [right, bottom - leanPx - gapPx], [xPx, bottom - gapPx]);
    case 'slant-top':
      return polygonPath([xPx, yPx + leanPx + gapPx], [right, yPx + gapPx], [right, bottom], [xPx, bottom]);
  }
}

/** A window of the brand's own, whole in the middle of a box. */
export function ownWindowPath({ viewBox, d }: NonNullable<PicturePart['outline']>, { xPx, yPx, widthPx, heightPx }: Box): string {
  const scale = Math.min(widthPx / viewBox.width, heightPx / viewBox.height);
  return svgpath(d)
    .scale(scale)
    .translate(xPx + (widthPx - viewBox.width * scale) / 2, yPx + (heightPx - viewBox.height * scale) / 2)
    .round(2)
    .toString();
}

/** An edge of torn paper: long waves with short fibres on them. Its reach and the distance of its corners, in m. */
const TORN = { waveM: 0.34, fibreM: 0.11, stepM: 0.13, seed: 11 } as const;

/** From the right of a box to its left along a torn edge; `inward` is the direction of the picture. */
function tornEdge({ xPx, widthPx }: Box, edgePx: number, inward: 1 | -1, marginPx: number): string {
  const random = seededNumbers(TORN.seed);
  const count = Math.max(8, Math.round(widthPx / (TORN.stepM * marginPx)));
  const phases = [random(), random()].map((value) => value * Math.PI * 2);
  const points = Array.from({ length: count + 1 }, (_, index) => {
    const along = index / count;
    const wave = 0.5 + 0.25 * Math.sin(along * 9 + (phases[0] ?? 0)) + 0.25 * Math.sin(along * 23 + (phases[1] ?? 0));
    const inPx = (TORN.waveM * wave + TORN.fibreM * random()) * marginPx;
    return `L${(xPx + widthPx * (1 - along)).toFixed(1)} ${(edgePx + inward * inPx).toFixed(1)}`;
  });
  return points.join('');
}

function polygonPath(...corners: readonly (readonly [number, number])[]): string {
  return `M${corners.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join('L')}Z`;
}

/** The largest circle in the middle of a box. */
function circlePath({ xPx, yPx, widthPx, heightPx }: Box): string {
  const radius = Math.min(widthPx, heightPx) / 2;
  const [left, right, y] = [xPx + widthPx / 2 - radius, xPx + widthPx / 2 + radius, yPx + heightPx / 2];
  return `M${left} ${y}A${radius} ${radius} 0 1 1 ${right} ${y}A${radius} ${radius} 0 1 1 ${left} ${y}Z`;
}

/** A box without its lower right corner. */
function cutCornerPath({ xPx, yPx, widthPx, heightPx }: Box, cutPx: number): string {
  const [right, bottom] = [xPx + widthPx, yPx + heightPx];
  return `M${xPx} ${yPx}H${right}V${bottom - cutPx}L${right - cutPx} ${bottom}H${xPx}Z`;
}

/** A round seal with a scalloped edge, as on a price sticker. */
function sealPath({ xPx, yPx, widthPx, heightPx }: Box): string {
  const radius = Math.max(widthPx, heightPx) / 2;
  const [x, y] = [xPx + widthPx / 2, yPx + heightPx / 2];
  const at = (index: number, reach: number): string => {
    const angle = (index / (SCALLOPS * 2)) * Math.PI * 2;
    return `${(x + Math.cos(angle) * radius * reach).toFixed(2)} ${(y + Math.sin(angle) * radius * reach).toFixed(2)}`;
  };
  const scallops = Array.from({ length: SCALLOPS }, (_, index) => `Q${at(index * 2 + 1, 1.13)} ${at(index * 2 + 2, 0.97)}`);
  return `M${at(0, 0.97)}${scallops.join('')}Z`;
}

/** A box whose one edge rises from left to right (or leans to the right) by `slantPx` beyond the box. */
export function slantedPath({ xPx, yPx, widthPx, heightPx }: Box, edge: Edge, slantPx: number): string {
  const [right, bottom] = [xPx + widthPx, yPx + heightPx];
  const corners: Record<Edge, readonly (readonly [number, number])[]> = {
    top: [[xPx, yPx], [right, yPx - slantPx], [right, bottom], [xPx, bottom]],
    bottom: [[xPx, yPx], [right, yPx], [right, bottom], [xPx, bottom + slantPx]],
    right: [[xPx, yPx], [right + slantPx, yPx], [right, bottom], [xPx, bottom]],
    left: [[xPx, yPx], [right, yPx], [right, bottom], [xPx - slantPx, bottom]],
  };
  return `M${corners[edge].map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join('L')}Z`;
}
