import svgpath from 'svgpath';
import type { Box } from '../geometry/box.ts';

/** The box of the points and control points of SVG path data: at least as large as its ink. Null for a path without points. */
export function pathBox(d: string): Box | null {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const add = (x: number, y: number): void => {
    [left, top, right, bottom] = [Math.min(left, x), Math.min(top, y), Math.max(right, x), Math.max(bottom, y)];
  };
  svgpath(d)
    .abs()
    .unshort()
    .unarc()
    .iterate(([command, ...numbers], _index, x, y) => {
      const values = numbers as number[];
      if (command === 'H') add(values[0] ?? x, y);
      else if (command === 'V') add(x, values[0] ?? y);
      else for (let at = 0; at + 1 < values.length; at += 2) add(values[at] ?? 0, values[at + 1] ?? 0);
    });
  return left > right ? null : { xPx: left, yPx: top, widthPx: right - left, heightPx: bottom - top };
}
