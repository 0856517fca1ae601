import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { buttonClasses } from '../ui/Button.tsx';
import type { PlanBrand } from './use-plan.ts';

interface BrandFilterProps {
  readonly own: PlanBrand;
  /** All brands of the person, `own` among them. */
  readonly brands: readonly PlanBrand[];
  readonly chosen: string | undefined;
  readonly onChoose: (brands: string | undefined) => void;
}

/** Which other brands stand in this view beside its own. */
export function BrandFilter({ own, brands, chosen, onChoose }: BrandFilterProps) {
  const others = brands.filter(({ slug }) => slug !== own.slug);
  if (others.length === 0) return null;
  const slugs = new Set(chosen?.split(','));
  const shown = others.filter(({ slug }) => slugs.has(slug));
  const toggle = (slug: string): void => {
    const next = others.filter((each) => slugs.has(each.slug) !== (each.slug === slug));
    onChoose(next.length === 0 ? undefined : next.map((each) => each.slug).join(','));
  };
  return (
    <DialogTrigger>
      <AriaButton className={`${buttonClasses('plain')} ${shown.length > 0 ? 'border-house font-semibold' : ''}`}>{shown.length === 0 ? 'This brand' : `${shown.length + 1} brands`}</AriaButton>
      <Popover className="shadow-float rounded-md border border-line bg-panel p-3">
        <Dialog aria-label="Brands" className="w-56 outline-none">
          <p className="mb-1 text-xs text-quiet">Shown beside {own.name}:</p>
          <ul className="max-h-80 overflow-auto">
            {others.map(({ slug, name }) => (
              <li key={slug}>
                <label className="flex items-center gap-2 py-0.5 text-sm">
                  <input type="checkbox" checked={slugs.has(slug)} onChange={() => toggle(slug)} className="size-4 accent-house" />
                  <span className="min-w-0 truncate">{name}</span>
                </label>
              </li>
            ))}
          </ul>
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
