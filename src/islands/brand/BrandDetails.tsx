import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { changeBrand } from '../../contract/brand-contracts.ts';
import { zonePlace } from '../../core/time/wall-time.ts';
import { roleMay } from '../../core/access/access.ts';
import type { Language } from '../../core/words/language.ts';
import { ChannelBadge } from '../channel/ChannelBadge.tsx';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { toast } from '../ui/toast.tsx';
import { LanguageField, ZoneField } from './LocaleFields.tsx';
import type { BrandProps, StoredBrand } from './use-book.ts';

interface DetailsProps extends BrandProps {
  readonly stored: StoredBrand;
  readonly language: Language | undefined;
  /** Null where nothing may be changed. */
  readonly onLanguage: ((language: Language | undefined) => void) | null;
}

/** What the brand is called, which clock it keeps, what it writes in, and where it has accounts. */
export function BrandDetails({ brand, stored, language, onLanguage }: DetailsProps) {
  return (
    <section aria-labelledby="details">
      <h2 id="details" className="mb-2 text-base font-semibold">
        Name, clock and channels
      </h2>
      <NameAndZone brand={brand} stored={stored} />
      <div className="mt-3">
        <LanguageField language={language ?? null} onChange={onLanguage && ((chosen) => onLanguage(chosen ?? undefined))} />
      </div>
      <Channels brand={brand} stored={stored} />
    </section>
  );
}

function NameAndZone({ brand, stored }: Pick<DetailsProps, 'brand' | 'stored'>) {
  const client = useQueryClient();
  const [name, setName] = useState(stored.name);
  const [zone, setZone] = useState(stored.zone);
  const [keep, setKeep] = useState<'wall' | 'moment'>('wall');
  const save = useMutation({
    mutationFn: () => call(changeBrand, { params: { brand: brand.slug }, body: { name, zone, keep } }),
    onSuccess: (saved) => {
      void client.invalidateQueries({ queryKey: ['brand', brand.slug] });
      toast('done', saved.zone === stored.zone ? `The brand is called ${saved.name} now.` : `The clock shows ${saved.zone} now. Scheduled posts keep ${keep === 'wall' ? 'what their clock shows' : 'their moment'}.`, { label: 'Reload the page', run: () => location.reload() });
    },
    onError: (error) => toast('problem', error.message),
  });
  const mayChange = roleMay(brand.role, 'brand');
  const changed = name.trim() !== stored.name || zone !== stored.zone;
  return (
    <form
      className="grid grid-cols-[1fr_1fr_auto] items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <Field label="Name">{({ id }) => <input id={id} value={name} maxLength={60} readOnly={!mayChange} onChange={(event) => setName(event.target.value)} className={inputClasses} />}</Field>
      <ZoneField zone={zone} onChange={mayChange ? setZone : null} />
      {zone !== stored.zone && (
        <fieldset className="col-span-3 flex flex-wrap gap-x-4 gap-y-1 text-sm">
          <legend className="mb-1 font-semibold">What is scheduled keeps</legend>
          {(['wall', 'moment'] as const).map((key) => (
            <label key={key} className="flex items-center gap-2">
              <input type="radio" name="keep-of-zone" checked={keep === key} onChange={() => setKeep(key)} className="accent-house" />
              {key === 'wall' ? `what its clock shows: 09:30 stays 09:30 in ${zonePlace(zone)}` : 'its moment: the clock shows another time then'}
            </label>
          ))}
        </fieldset>
      )}
      {mayChange && (
        <Button type="submit" disabled={!changed || name.trim().length < 2 || save.isPending}>
          Save
        </Button>
      )}
    </form>
  );
}

/** The brand's channels at a glance; they are connected and changed in Send. */
function Channels({ brand, stored }: Pick<DetailsProps, 'brand' | 'stored'>) {
  const sheetOf = (key: string) => stored.sheets.find((sheet) => sheet.key === key);
  return (
    <div className="mt-3">
      <h3 className="mb-1 text-sm font-semibold">Channels</h3>
      <ul className="border-t border-line">
        {stored.channels.map((channel) => {
          const sheet = sheetOf(channel.network);
          return (
            <li key={channel.id} className="flex items-center gap-2 border-b border-line py-1.5 text-sm">
              {sheet && <ChannelBadge badge={sheet.badge} />}
              <span className="font-medium">{sheet?.name ?? channel.network}</span>
              <span className="text-quiet">{channel.handle}</span>
            </li>
          );
        })}
      </ul>
      <a href={`/b/${brand.slug}/send/channels`} className="mt-2 inline-block text-sm font-medium text-house underline">
        {roleMay(brand.role, 'brand') ? 'Connect and change channels' : 'See the channels'}
      </a>
    </div>
  );
}
