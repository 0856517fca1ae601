import Download from 'lucide-react/icons/download';
import { useState } from 'react';
import type { AnswerOf } from '../../contract/contract.ts';
import { getBrandPackage, getWholePackage } from '../../contract/exchange-contracts.ts';
import type { getMe } from '../../contract/account-contracts.ts';
import { roleMay } from '../../core/access/access.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { buttonClasses } from '../ui/Button.tsx';
import { inputClasses } from '../ui/Field.tsx';
import { addressOf } from '../ui/call.ts';
import { SelectField } from '../ui/SelectField.tsx';

type Brands = AnswerOf<typeof getMe>['brands'];
type Scope = 'brand' | 'month' | 'media';

const scopes: readonly { readonly key: Scope; readonly name: string; readonly about: string }[] = [
  { key: 'brand', name: 'The whole brand', about: 'Book, templates, media, pieces, plan, ideas, and what went out with its figures.' },
  { key: 'month', name: 'A month', about: 'Pieces that stand in the plan of a month, with their pictures and words.' },
  { key: 'media', name: 'The media', about: 'Pictures, clips and sounds as files, with alt texts, credits, licences and tags.' },
];

/** What of a brand goes out, and the button that fetches it. */
export function ExportPackage({ brands, chosen }: { readonly brands: Brands; readonly chosen: string | null }) {
  const able = brands.filter(({ role }) => roleMay(role, 'make'));
  const [slug, setSlug] = useState(able.find((each) => each.slug === chosen)?.slug ?? able[0]?.slug ?? '');
  const brand = able.find((each) => each.slug === slug);
  const mayWhole = brand !== undefined && roleMay(brand.role, 'brand');
  const [scope, setScope] = useState<Scope>('brand');
  const shown: Scope = scope === 'brand' && !mayWhole ? 'media' : scope;
  const [month, setMonth] = useState<string | null>(null);
  const wanted = month ?? wallTimeOf(Date.now(), brand?.zone ?? 'UTC').slice(0, 7);
  if (!brand) {
    return (
      <section>
        <h2 className="text-base font-semibold">Export</h2>
        <p className="mt-2 text-sm text-quiet">You make nothing in any brand here, so there is nothing of yours to export. Ask one of its owners.</p>
      </section>
    );
  }
  const whole = brands.filter(({ role }) => roleMay(role, 'brand'));
  return (
    <section aria-labelledby="export-title">
      <h2 id="export-title" className="text-base font-semibold">
        Export
      </h2>
      <div className="mt-3 space-y-4">
        <SelectField label="Brand" value={slug} options={able.map((each) => [each.slug, each.name] as const)} onChange={setSlug} />
        <fieldset>
          <legend className="mb-1 text-sm font-semibold">What</legend>
          <div className="divide-y divide-line rounded-md border border-line bg-panel">
            {scopes.map(({ key, name, about }) => {
              const isOpen = key !== 'brand' || mayWhole;
              return (
                <label key={key} className={`flex items-start gap-2.5 px-3 py-2.5 text-sm ${isOpen ? 'cursor-pointer' : 'text-quiet'}`}>
                  <input type="radio" name="scope" className="mt-0.5 accent-house" disabled={!isOpen} checked={shown === key} onChange={() => setScope(key)} />
                  <span>
                    <span className="font-medium">{name}</span>
                    <span className="block text-quiet">{isOpen ? about : `As ${brand.role} you may not change the whole brand. Ask one of its owners or designers for it.`}</span>
                    {key === 'month' && shown === 'month' && <input type="month" aria-label="Month" required value={wanted} onChange={(event) => setMonth(event.target.value === '' ? null : event.target.value)} className={`${inputClasses} mt-1.5 w-44`} />}
                  </span>
                </label>
              );
            })}
          </div>
        </fieldset>
        <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
          <a href={addressOf(getBrandPackage, { brand: slug }, { scope: shown, month: shown === 'month' ? wanted : undefined })} download className={buttonClasses('primary')}>
            <Download aria-hidden className="size-4" />
            Export ZIP
          </a>
          {whole.length > 1 && (
            <a href={addressOf(getWholePackage, {})} download className="text-sm text-house underline-offset-2 hover:underline">
              Export all {whole.length} brands in one ZIP
            </a>
          )}
        </div>
        <p className="text-xs text-quiet">
          One piece goes out from its Download. The plan alone leaves as CSV from <a className="text-house underline" href={`/b/${slug}/plan/list`}>Plan, List</a>, and as a calendar feed from <a className="text-house underline" href={`/b/${slug}/plan/rota`}>Plan, Rota</a>.
        </p>
      </div>
    </section>
  );
}
