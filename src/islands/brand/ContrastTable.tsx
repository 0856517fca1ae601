import { useMemo } from 'react';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import { contrastTable, type ContrastPair, type PairUse } from '../../core/brand/contrast-table.ts';
import { Button } from '../ui/Button.tsx';

const useWords: Readonly<Record<PairUse, { readonly word: string; readonly tone: string; readonly path: string }>> = {
  text: { word: 'any text', tone: 'text-mint-ink', path: 'M6.2 13.2 1.4 8.4l1.9-1.9 2.9 2.9 6.5-6.6 1.9 1.9Z' },
  large: { word: 'large text and marks', tone: 'text-sky-ink', path: 'M8 2a6 6 0 1 1 0 12A6 6 0 0 1 8 2Z' },
  none: { word: 'ornament only', tone: 'text-marigold-ink', path: 'M8 1.5 15 14H1Z' },
};

interface ContrastProps {
  readonly book: BrandBook;
  /** Gives the pair's role another colour; null where the book may only be read. */
  readonly onTake: ((pair: ContrastPair, hex: string) => void) | null;
}

/** What each pair of colours that templates put on each other is good for, and the nearest colour that would be. */
export function ContrastTable({ book, onTake }: ContrastProps) {
  const pairs = useMemo(() => contrastTable(book), [book]);
  return (
    <section aria-labelledby="contrast">
      <h2 id="contrast" className="text-base font-semibold">
        Contrast
      </h2>
      <p className="mb-2 text-xs text-quiet">WCAG 2.2 ratio and APCA lightness contrast (Lc). Where a pair is too weak, cuts take another ink by themselves; a nearer colour of the same hue is offered here.</p>
      <div className="overflow-x-auto">
        <table className="w-full min-w-md text-left text-sm">
          <thead className="text-xs text-quiet">
            <tr className="border-b border-line">
              <th scope="col" className="py-1 font-medium">
                Pair
              </th>
              <th scope="col" className="w-14 font-medium">
                Ratio
              </th>
              <th scope="col" className="w-14 font-medium">
                Lc
              </th>
              <th scope="col" className="w-44 font-medium">
                Good for
              </th>
              <th scope="col" className="w-32 font-medium">
                Nearest that passes
              </th>
            </tr>
          </thead>
          <tbody>
            {pairs.map((pair) => (
              <PairRow key={`${pair.scheme}.${pair.role}.${pair.on}`} pair={pair} onTake={onTake} schemeName={book.schemes.find((scheme) => scheme.key === pair.scheme)?.name ?? pair.scheme} />
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

function PairRow({ pair, schemeName, onTake }: { readonly pair: ContrastPair; readonly schemeName: string } & Pick<ContrastProps, 'onTake'>) {
  const use = useWords[pair.use];
  return (
    <tr className="border-b border-line tabular-nums">
      <th scope="row" className="py-1 font-normal">
        <span className="flex items-center gap-2.5">
          <span aria-hidden style={{ background: pair.ground }} className="flex h-6 w-10 shrink-0 items-center justify-center gap-0.5 rounded-md border border-line">
            <span style={{ background: pair.colour }} className="size-3 rounded-full" />
            <span style={{ background: pair.colour }} className="h-0.5 w-3" />
          </span>
          {schemeName}: {pair.role} on {pair.on}
        </span>
      </th>
      <td>{pair.ratio.toFixed(1)}</td>
      <td>{Math.round(Math.abs(pair.lc))}</td>
      <td>
        <span className={`flex items-center gap-1.5 ${use.tone}`}>
          <svg viewBox="0 0 16 16" className="size-3" aria-hidden>
            <path d={use.path} fill="currentColor" />
          </svg>
          {use.word}
        </span>
      </td>
      <td>
        {!pair.enough && pair.better === null && <span className="text-xs text-quiet">none on both grounds</span>}
        {pair.better !== null &&
          (onTake ? (
            <Button size="small" onClick={() => onTake(pair, pair.better ?? pair.colour)}>
              <span aria-hidden style={{ background: pair.better }} className="size-3 rounded-full border border-line" />
              Take {pair.better.toUpperCase()}
            </Button>
          ) : (
            <code className="text-xs">{pair.better.toUpperCase()}</code>
          ))}
      </td>
    </tr>
  );
}
