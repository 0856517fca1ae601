import Plus from 'lucide-react/icons/plus';
import Trash2 from 'lucide-react/icons/trash-2';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import { keyFrom } from '../../core/brand/exchange/draft-book.ts';
import { freeKey } from '../../core/brand/take-colour.ts';
import { Button } from '../ui/Button.tsx';
import type { BookEdit } from './use-book.ts';

type Colour = BrandBook['colours'][number];

/** The brand's colours by name, and in which roles of which schemes each is used. */
export function ColourList({ edit }: { readonly edit: BookEdit }) {
  const { book, mayChange, change } = edit;
  const set = (key: string, next: Partial<Colour>): void => change((now) => ({ ...now, colours: now.colours.map((colour) => (colour.key === key ? { ...colour, ...next } : colour)) }));
  const add = (): void => change((now) => ({ ...now, colours: [...now.colours, { key: freeKey(now, keyFrom('New colour', 'colour')), name: 'New colour', hex: '#888888' }] }));
  return (
    <section aria-labelledby="colours">
      <div className="mb-2 flex items-center justify-between">
        <h2 id="colours" className="text-base font-semibold">
          Colours
        </h2>
        {mayChange && (
          <Button look="quiet" size="small" onClick={add}>
            <Plus aria-hidden className="size-3.5" />
            Add a colour
          </Button>
        )}
      </div>
      <ul className="border-t border-line">
        {book.colours.map((colour) => {
          const uses = usesOf(book, colour.key);
          return (
            <li key={colour.key} className="flex items-center gap-3 border-b border-line py-1.5">
              <input
                type="color"
                aria-label={`${colour.name}, ${colour.hex}`}
                value={colour.hex.toLowerCase()}
                disabled={!mayChange}
                onChange={(event) => set(colour.key, { hex: event.target.value })}
                className="h-8 w-12 shrink-0 cursor-pointer rounded-md border border-line bg-panel p-0.5 disabled:cursor-default"
              />
              <input
                aria-label={`Name of ${colour.hex}`}
                value={colour.name}
                maxLength={60}
                readOnly={!mayChange}
                onChange={(event) => set(colour.key, { name: event.target.value })}
                className="w-32 truncate rounded-md border border-transparent bg-transparent px-1 py-0.5 text-base font-medium hover:border-line focus:border-house focus:bg-panel focus:outline-none"
              />
              <code className="w-16 text-xs text-quiet">{colour.hex.toUpperCase()}</code>
              <span className="min-w-0 flex-1 truncate text-right text-xs text-quiet">{uses.length > 0 ? uses.join(', ') : 'not in a scheme'}</span>
              {mayChange && uses.length === 0 && book.colours.length > 2 && (
                <button type="button" aria-label={`Remove ${colour.name}`} onClick={() => change((now) => ({ ...now, colours: now.colours.filter((each) => each.key !== colour.key) }))} className="rounded-md p-1 text-quiet hover:bg-sunk hover:text-ink">
                  <Trash2 aria-hidden className="size-3.5" />
                </button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function usesOf(book: BrandBook, colour: string): readonly string[] {
  return book.schemes.flatMap((scheme) => (['ground', 'surface', 'ink', 'accent'] as const).flatMap((role) => (scheme[role] === colour ? [`${scheme.name.toLowerCase()} ${role}`] : [])));
}
