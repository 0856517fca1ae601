import type { Box } from '../geometry/box.ts';

export type Point = readonly [number, number];

/** Closed path data through points, in hundredths of a pixel. */
export function polygon(points: readonly Point[]): string {
  return `M${points.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join('L')}Z`;
}

/** A full circle as path data. */
export function circle(x: number, y: number, radius: number): string {
  const r = radius.toFixed(2);
  return `M${(x - radius).toFixed(2)} ${y.toFixed(2)}a${r} ${r} 0 1 0 ${(radius * 2).toFixed(2)} 0a${r} ${r} 0 1 0 ${(-radius * 2).toFixed(2)} 0Z`;
}

/** A line of even width along points, as a filled outline. */
export function band(points: readonly Point[], halfWidthPx: number): string {
  const sides = points.map(([x, y], index) => {
    const [fromX, fromY] = points[Math.max(0, index - 1)] ?? [x, y];
    const [toX, toY] = points[Math.min(points.length - 1, index + 1)] ?? [x, y];
    const length = Math.hypot(toX - fromX, toY - fromY) || 1;
    const [nx, ny] = [(-(toY - fromY) / length) * halfWidthPx, ((toX - fromX) / length) * halfWidthPx];
    return { left: [x + nx, y + ny] as Point, right: [x - nx, y - ny] as Point };
  });
  return polygon([...sides.map((side) => side.left), ...sides.map((side) => side.right).reverse()]);
}

/** The box around points. */
export function boxAround(points: readonly Point[], marginPx = 0): Box {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [xPx, yPx] = [Math.min(...xs) - marginPx, Math.min(...ys) - marginPx];
  return { xPx, yPx, widthPx: Math.max(...xs) + marginPx - xPx, heightPx: Math.max(...ys) + marginPx - yPx };
}
