import type { Size } from '../geometry/box.ts';
import type { Arrangement, Template } from '../template/template.ts';

/**
 * The arrangement of a cut: the one that was chosen for it, else the first made for its shape; for a shape outside all of
 * them, the nearest one in proportion. A choice that the template does not have counts as none.
 */
export function arrange(template: Template, size: Size, chosen?: string): Arrangement {
  const wanted = template.arrangements.find((each) => each.key === chosen);
  if (wanted) return wanted;
  return template.arrangements.reduce((best, each) => (awayFrom(each, size) < awayFrom(best, size) ? each : best));
}

/** Arrangements made for a shape that is this much wider or taller still do. */
const MOST_AWAY = Math.log(1.28);

/** The other arrangements that are made for shapes close to that of a cut, the nearest first. */
export function nearArrangements({ arrangements }: Template, size: Size, usual: Arrangement): readonly Arrangement[] {
  return arrangements.filter((each) => each !== usual && awayFrom(each, size) <= MOST_AWAY).toSorted((a, b) => awayFrom(a, size) - awayFrom(b, size));
}

/** How far the shape of a cut is from those that an arrangement is made for, as a logarithm of their proportion; 0 inside them. */
function awayFrom({ aspect: { from, to } }: Arrangement, { widthPx, heightPx }: Size): number {
  const aspect = widthPx / heightPx;
  return aspect >= from && aspect < to ? 0 : Math.min(Math.abs(Math.log(aspect / Math.max(from, 1e-6))), Math.abs(Math.log(aspect / to))) + 1e-9;
}
