import type { Size } from '../geometry/box.ts';
import type { Arrangement, Template } from '../template/template.ts';

/** The first arrangement made for a shape; for a shape outside all of them, the nearest one in proportion. */
export function arrange(template: Template, size: Size): Arrangement {
  const aspect = size.widthPx / size.heightPx;
  const distance = ({ aspect: { from, to } }: Arrangement): number =>
    aspect >= from && aspect < to ? 0 : Math.min(Math.abs(Math.log(aspect / Math.max(from, 1e-6))), Math.abs(Math.log(aspect / to))) + 1e-9;
  return template.arrangements.reduce((best, each) => (distance(each) < distance(best) ? each : best));
}
