import { resolveScheme, type BrandBook } from '../../core/brand/brand-book.ts';
import { drawMotif } from '../../core/motif/motif.ts';
import { motifFor, ownMotifs, USUAL_MOTIF, type OwnMotif } from '../../core/motif/own-motif.ts';
import { BookChoice } from './BookChoice.tsx';
import type { BookEdit } from './use-book.ts';

const names: Readonly<Record<OwnMotif, string>> = { halftone: 'Print dots', arcs: 'Rings', fan: 'Fan', contours: 'Contour lines', scraps: 'Paper scraps', tail: 'Bows on a line' };

/** A sample in CSS pixels, with the margin that a cut of that size would have. */
const [WIDTH, HEIGHT, MARGIN] = [140, 88, 9];
const SEED = 7;

/** The ornament that is the brand's own. */
export function MotifChoice({ edit: { book, mayChange, change } }: { readonly edit: BookEdit }) {
  return (
    <section aria-labelledby="motif">
      <h2 id="motif" className="text-base font-semibold">
        Motif
      </h2>
      <p className="mb-2 text-sm text-quiet">Templates without a picture show it where words leave room.</p>
      <div role="radiogroup" aria-labelledby="motif" className="grid grid-cols-3 gap-2">
        {ownMotifs.map((motif) => (
          <BookChoice key={motif} group="motif" name={names[motif]} isChosen={(book.motif ?? USUAL_MOTIF) === motif} isDisabled={!mayChange} onChoose={() => change((now) => ({ ...now, motif }))}>
            <Sample book={book} motif={motif} />
          </BookChoice>
        ))}
      </div>
    </section>
  );
}

function Sample({ book, motif }: { readonly book: BrandBook; readonly motif: OwnMotif }) {
  const scheme = resolveScheme(book, book.schemes[0]?.key ?? '');
  const { generator, mirror } = motifFor('brand', motif);
  return (
    <svg aria-hidden viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full" style={{ background: scheme.ground }}>
      {drawMotif(generator, { xPx: 0, yPx: 0, widthPx: WIDTH, heightPx: HEIGHT }, MARGIN, SEED, mirror).map(({ path, ink }, index) => (
        <path key={index} d={path} fill={scheme[ink]} />
      ))}
    </svg>
  );
}
