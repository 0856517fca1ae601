import type { Box } from '../geometry/box.ts';
import type { FieldShape, WindowShape } from '../template/template.ts';

export function rectPath({ xPx, yPx, widthPx, heightPx }: Box): string {
  return `M${xPx} ${yPx}H${xPx + widthPx}V${yPx + heightPx}H${xPx}Z`;
}

/** Scallops around a seal. */
const SCALLOPS = 16;

/** The outline of a field around the box of its stack. */
export function fieldPath(shape: FieldShape, box: Box, marginPx: number): string {
  switch (shape) {
    case 'box':
      return rectPath(box);
    case 'disc':
      return ellipsePath(box);
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
  switch (shape) {
    case 'arch': {
      const radius = Math.min(widthPx / 2, heightPx);
      return `M${xPx} ${bottom}V${yPx + radius}A${widthPx / 2} ${radius} 0 0 1 ${right} ${yPx + radius}V${bottom}Z`;
    }
    case 'circle': {
      const side = Math.min(widthPx, heightPx);
      return ellipsePath({ xPx: xPx + (widthPx - side) / 2, yPx: yPx + (heightPx - side) / 2, widthPx: side, heightPx: side });
    }
    case 'sail':
      return `M${xPx} ${yPx}H${right}V${bottom - heightPx * 0.08}Q${xPx + widthPx * 0.45} ${bottom + heightPx * 0.02} ${xPx} ${bottom - heightPx * 0.26}Z`;
    case 'notch':
      return cutCornerPath(box, marginPx * 1.6);
  }
}

function ellipsePath({ xPx, yPx, widthPx, heightPx }: Box): string {
  const [rx, ry] = [widthPx / 2, heightPx / 2];
  return `M${xPx} ${yPx + ry}A${rx} ${ry} 0 1 1 ${xPx + widthPx} ${yPx + ry}A${rx} ${ry} 0 1 1 ${xPx} ${yPx + ry}Z`;
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
