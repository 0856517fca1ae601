import type { Size } from '../geometry/box.ts';
import type { Arrangement, Template } from '../template/template.ts';

/**
 * The arrangement of a cut: the one that was chosen for it, else the first made for its shape; for a shape outside all of
 * them, the nearest one in proportion. A choice that the template does not have counts as none.
 */
export function arrange(template: Template, size: Size, chosen?: string): Arrangement {
  const wanted = template.arrangements.find((each) => each.key === chosen);
  if (wanted) return wanted;
  const aspect = size.widthPx / size.heightPx;
  const distance = ({ aspect: { from, to } }: Arrangement): number =>
    aspect >= from && aspect < to ? 0 : Math.min(Math.abs(Math.log(aspect / Math.max(from, 1e-6))), Math.abs(Math.log(aspect / to))) + 1e-9;
  return template.arrangements.reduce((best, each) => (distance(each) < distance(best) ? each : best));
}
