import { apcaContrast } from '../colour/apca.ts';
import { contrastRatio, MIN_LARGE_CONTRAST, MIN_TEXT_CONTRAST } from '../colour/contrast.ts';
import { nearestPassing } from '../colour/nearest-passing.ts';
import { resolveScheme, type BrandBook } from './brand-book.ts';

/** What a pair of colours can carry: reading text, large text and marks, or neither. */
export type PairUse = 'text' | 'large' | 'none';

/** A colour on a ground of one of the brand's schemes. */
export interface ContrastPair {
  readonly scheme: string;
  readonly role: 'ink' | 'accent';
  readonly on: 'ground' | 'surface';
  readonly colour: string;
  readonly ground: string;
  /** WCAG 2.2 ratio and APCA lightness contrast. */
  readonly ratio: number;
  readonly lc: number;
  readonly use: PairUse;
  /** True when the pair carries what its role has to. */
  readonly enough: boolean;
  /** For a pair that does not: the nearest colour of the same hue that would, on the scheme's ground and surface alike. */
  readonly better: string | null;
}

/** What a role has to carry: ink is read, an accent is seen. */
const needed = { ink: MIN_TEXT_CONTRAST, accent: MIN_LARGE_CONTRAST } as const;

/** Every pair that the brand's templates put on each other, scheme by scheme. */
export function contrastTable(book: BrandBook): readonly ContrastPair[] {
  return book.schemes.flatMap(({ key }) => {
    const scheme = resolveScheme(book, key);
    return (['ink', 'accent'] as const).flatMap((role) =>
      (['ground', 'surface'] as const).map((on): ContrastPair => {
        const [colour, ground] = [scheme[role], scheme[on]];
        const ratio = contrastRatio(colour, ground);
        return {
          scheme: key,
          role,
          on,
          colour,
          ground,
          ratio,
          lc: apcaContrast(colour, ground),
          use: ratio >= MIN_TEXT_CONTRAST ? 'text' : ratio >= MIN_LARGE_CONTRAST ? 'large' : 'none',
          enough: ratio >= needed[role],
          better: ratio >= needed[role] ? null : nearestPassing(colour, [scheme.ground, scheme.surface], needed[role]),
        };
      }),
    );
  });
}
