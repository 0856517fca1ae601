import Plus from 'lucide-react/icons/plus';
import Trash2 from 'lucide-react/icons/trash-2';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import { keyFrom } from '../../core/brand/exchange/draft-book.ts';
import { Button } from '../ui/Button.tsx';
import type { BookEdit } from './use-book.ts';

type Scheme = BrandBook['schemes'][number];

const roles = [
  { key: 'ground', name: 'Ground' },
  { key: 'surface', name: 'Surface' },
  { key: 'ink', name: 'Ink' },
  { key: 'accent', name: 'Accent' },
] as const;
/** Templates ask for these by key, so they stay. */
const KEPT = new Set(['light', 'dark', 'bold']);

/** Which colour plays which role, scheme by scheme. */
export function SchemeList({ edit }: { readonly edit: BookEdit }) {
  const { book, mayChange, change } = edit;
  const set = (key: string, next: Partial<Scheme>): void => change((now) => ({ ...now, schemes: now.schemes.map((scheme) => (scheme.key === key ? { ...scheme, ...next } : scheme)) }));
  const add = (): void =>
    change((now) => {
      const [first] = now.schemes;
      if (!first) return now;
      const name = `Scheme ${now.schemes.length + 1}`;
      return { ...now, schemes: [...now.schemes, { ...first, key: `${keyFrom(name, 'scheme')}`, name }] };
    });
  const hexOf = (key: string): string => book.colours.find((colour) => colour.key === key)?.hex ?? '#000000';
  return (
    <section aria-labelledby="schemes">
      <div className="mb-2 flex items-center justify-between">
        <h2 id="schemes" className="text-base font-semibold">
          Schemes
        </h2>
        {mayChange && book.schemes.length < 12 && (
          <Button look="quiet" size="small" onClick={add}>
            <Plus aria-hidden className="size-3.5" />
            Add a scheme
          </Button>
        )}
      </div>
      <ul className="space-y-3">
        {book.schemes.map((scheme) => (
          <li key={scheme.key} className="grid items-end gap-2 max-md:grid-cols-2 max-md:[&>:first-child]:col-span-2 md:grid-cols-[7rem_repeat(4,minmax(0,1fr))_1.5rem]">
            <div>
              <input
                aria-label={`Name of the scheme ${scheme.name}`}
                value={scheme.name}
                maxLength={60}
                readOnly={!mayChange}
                onChange={(event) => set(scheme.key, { name: event.target.value })}
                className="mb-1 w-full rounded-md border border-transparent bg-transparent px-1 text-sm font-semibold hover:border-line focus:border-house focus:bg-panel focus:outline-none"
              />
              <span aria-hidden style={{ background: hexOf(scheme.ground) }} className="flex h-8 items-center justify-between gap-2 rounded-md border border-line px-2">
                <span style={{ color: hexOf(scheme.ink) }} className="text-sm leading-none font-bold">
                  Aa
                </span>
                <span style={{ background: hexOf(scheme.surface) }} className="h-4 w-5" />
                <span style={{ background: hexOf(scheme.accent) }} className="size-3.5 rounded-full" />
              </span>
            </div>
            {roles.map((role) => (
              <label key={role.key} className="text-xs text-quiet">
                {role.name}
                <select
                  value={scheme[role.key]}
                  disabled={!mayChange}
                  onChange={(event) => set(scheme.key, { [role.key]: event.target.value })}
                  className="mt-1 block h-8 w-full min-w-0 truncate rounded-md border border-line bg-panel px-1 text-sm text-ink"
                >
                  {book.colours.map((colour) => (
                    <option key={colour.key} value={colour.key}>
                      {colour.name}
                    </option>
                  ))}
                </select>
              </label>
            ))}
            {mayChange && !KEPT.has(scheme.key) && (
              <button type="button" aria-label={`Remove the scheme ${scheme.name}`} onClick={() => change((now) => ({ ...now, schemes: now.schemes.filter((each) => each.key !== scheme.key) }))} className="mb-1.5 rounded-md p-1 text-quiet hover:bg-sunk hover:text-ink">
                <Trash2 aria-hidden className="size-3.5" />
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
