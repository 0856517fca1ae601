import { contrastRatio } from '../colour/contrast.ts';
import type { BrandBook, BrandMark } from './brand-book.ts';
import { outerColours } from './mark-parts.ts';

/**
 * The ground, of those that the brand's schemes use, on which a mark shows best: where the weakest of its parts that meet the ground stands out most.
 * @throws RangeError when no scheme has a ground
 */
export function bestGround(book: BrandBook, mark: BrandMark): BrandBook['colours'][number] {
  const grounds = book.colours.filter((colour) => book.schemes.some((scheme) => scheme.ground === colour.key));
  const weakest = (ground: string): number => Math.min(...outerColours(mark).map((colour) => contrastRatio(colour, ground)));
  const [first] = grounds;
  if (!first) throw new RangeError('The brand book has no scheme with a ground');
  return grounds.reduce((best, each) => (weakest(each.hex) > weakest(best.hex) ? each : best), first);
}
