import type { BrandBook } from '../../core/brand/brand-book.ts';

interface ColourListProps {
  readonly book: BrandBook;
  readonly readOnly: boolean;
  readonly onChange: (key: string, hex: string) => void;
}

/** The brand's colours, and in which roles of which schemes each is used. */
export function ColourList({ book, readOnly, onChange }: ColourListProps) {
  return (
    <section aria-labelledby="colours">
      <h2 id="colours" className="mb-2 text-base font-semibold">
        Colours
      </h2>
      <ul className="border-t border-line">
        {book.colours.map((colour) => (
          <li key={colour.key} className="flex items-center gap-3 border-b border-line py-1.5">
            <input
              type="color"
              aria-label={`${colour.name}, ${colour.hex}`}
              value={colour.hex.toLowerCase()}
              disabled={readOnly}
              onChange={(event) => onChange(colour.key, event.target.value)}
              className="h-8 w-12 shrink-0 cursor-pointer rounded-md border border-line bg-panel p-0.5 disabled:cursor-default"
            />
            <span className="w-28 truncate text-base font-medium">{colour.name}</span>
            <code className="w-16 text-xs text-quiet">{colour.hex.toUpperCase()}</code>
            <span className="min-w-0 flex-1 truncate text-right text-xs text-quiet">{usesOf(book, colour.key)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function usesOf(book: BrandBook, colour: string): string {
  const uses = book.schemes.flatMap((scheme) => (['ground', 'surface', 'ink', 'accent'] as const).flatMap((role) => (scheme[role] === colour ? [`${scheme.name.toLowerCase()} ${role}`] : [])));
  return uses.length > 0 ? uses.join(', ') : 'not in a scheme';
}
