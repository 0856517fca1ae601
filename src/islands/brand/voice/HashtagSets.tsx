import Plus from 'lucide-react/icons/plus';
import Trash2 from 'lucide-react/icons/trash-2';
import type { HashtagSet } from '../../../core/brand/brand-book.ts';
import type { NetworkSheet } from '../../../core/network/network-sheet.ts';
import { Button } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { iconButtonClasses } from '../../ui/icon-button.ts';
import { TypedTags } from './TypedTags.tsx';

interface SetsProps {
  readonly sets: readonly HashtagSet[];
  readonly sheets: readonly NetworkSheet[];
  readonly readOnly: boolean;
  readonly onChange: (sets: HashtagSet[]) => void;
}

/** Hashtags that go together, for a theme and some networks or for any. */
export function HashtagSets({ sets, sheets, readOnly, onChange }: SetsProps) {
  const set = (key: string, next: Partial<HashtagSet>): void => onChange(sets.map((each) => (each.key === key ? { ...each, ...next } : each)));
  const add = (): void => {
    const key = ['set', ...sets.map((_, index) => `set-${index + 2}`)].find((each) => sets.every((other) => other.key !== each)) ?? 'set';
    onChange([...sets, { key, name: 'New set', tags: [], theme: '', networks: [] }]);
  };
  return (
    <section aria-labelledby="hashtag-sets">
      <h2 id="hashtag-sets" className="text-base font-semibold">
        Sets of hashtags
      </h2>
      <p className="mb-2 text-xs text-quiet">One click beside the wording sheet adds a whole set.</p>
      <ul className="space-y-4">
        {sets.map((each) => (
          <li key={each.key} className="space-y-1.5">
            <div className="flex items-center gap-2">
              <input aria-label={`Name of set ${each.name}`} value={each.name} maxLength={60} readOnly={readOnly} onChange={(event) => set(each.key, { name: event.target.value })} className={inputClasses} />
              <input aria-label={`Theme of ${each.name}`} placeholder="any theme" value={each.theme} maxLength={60} readOnly={readOnly} onChange={(event) => set(each.key, { theme: event.target.value })} className={`${inputClasses} w-36`} />
              {!readOnly && (
                <button type="button" aria-label={`Remove set ${each.name}`} onClick={() => onChange(sets.filter((other) => other.key !== each.key))} className={iconButtonClasses}>
                  <Trash2 aria-hidden className="size-4" />
                </button>
              )}
            </div>
            <TypedTags label={`Hashtags of ${each.name}`} hint={each.networks.length === 0 ? 'on every network' : `on ${each.networks.map((key) => sheets.find((sheet) => sheet.key === key)?.name ?? key).join(', ')}`} tags={each.tags} readOnly={readOnly} onChange={(tags) => set(each.key, { tags })} />
            {!readOnly && (
              <div role="group" aria-label={`Networks of ${each.name}`} className="flex flex-wrap gap-x-3 gap-y-1 text-xs">
                {sheets.map((sheet) => (
                  <label key={sheet.key} className="flex items-center gap-1">
                    <input type="checkbox" className="size-6" checked={each.networks.includes(sheet.key)} onChange={(event) => set(each.key, { networks: event.target.checked ? [...each.networks, sheet.key] : each.networks.filter((key) => key !== sheet.key) })} />
                    {sheet.name}
                  </label>
                ))}
              </div>
            )}
          </li>
        ))}
      </ul>
      {!readOnly && (
        <Button className="mt-3" onClick={add}>
          <Plus aria-hidden className="size-4" />
          Add a set
        </Button>
      )}
    </section>
  );
}
