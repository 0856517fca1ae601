import Plus from 'lucide-react/icons/plus';
import Trash2 from 'lucide-react/icons/trash-2';
import { useState } from 'react';
import type { AddressCard } from '../../../core/brand/brand-book.ts';
import type { NetworkSheet } from '../../../core/network/network-sheet.ts';
import { Button } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { iconButtonClasses } from '../../ui/icon-button.ts';

interface CardsProps {
  readonly people: readonly AddressCard[];
  readonly sheets: readonly NetworkSheet[];
  readonly readOnly: boolean;
  readonly onChange: (people: AddressCard[]) => void;
}

const HANDLE = /^@[\p{L}\p{N}_][\p{L}\p{N}_.-]{0,60}$/u;

/** People and pages with their handle on each network: one mention becomes the right one everywhere. */
export function AddressCards({ people, sheets, readOnly, onChange }: CardsProps) {
  const set = (key: string, next: Partial<AddressCard>): void => onChange(people.map((card) => (card.key === key ? { ...card, ...next } : card)));
  const add = (form: HTMLFormElement): void => {
    const name = String(new FormData(form).get('name') ?? '').trim();
    const base = name.toLowerCase().replace(/[^\p{L}\p{N}_]+/gu, '').slice(0, 30);
    if (base === '') return;
    const key = people.some((card) => card.key === base) ? `${base}${people.length + 1}` : base;
    onChange([...people, { key, name, handles: {} }]);
    form.reset();
  };
  const networks = sheets.filter((sheet) => sheet.words.mentions.max !== 0);
  return (
    <section aria-labelledby="address-cards">
      <h2 id="address-cards" className="text-base font-semibold">
        People to mention
      </h2>
      <p className="mb-2 text-xs text-quiet">Write @ and the short name; each network gets the handle that it knows, or the plain name.</p>
      <ul className="space-y-3">
        {people.map((card) => (
          <li key={card.key}>
            <details>
              <summary className="text-sm">
                <span className="font-medium">{card.name}</span> <code className="text-xs text-quiet">@{card.key}</code>{' '}
                <span className="text-xs text-quiet">
                  on {Object.keys(card.handles).length} {Object.keys(card.handles).length === 1 ? 'network' : 'networks'}
                </span>
              </summary>
              <div className="mt-1.5 grid grid-cols-[6rem_1fr_auto] items-center gap-x-2 gap-y-1 text-xs">
                <span>Name</span>
                <input aria-label={`Name of @${card.key}`} value={card.name} maxLength={80} readOnly={readOnly} onChange={(event) => event.target.value.trim() !== '' && set(card.key, { name: event.target.value })} className={inputClasses} />
                {readOnly ? (
                  <span />
                ) : (
                  <button type="button" aria-label={`Remove ${card.name}`} onClick={() => onChange(people.filter((each) => each.key !== card.key))} className={iconButtonClasses}>
                    <Trash2 aria-hidden className="size-4" />
                  </button>
                )}
                {networks.map((sheet) => (
                  <HandleField key={sheet.key} label={`${card.name} on ${sheet.name}`} name={sheet.name} handle={card.handles[sheet.key] ?? ''} readOnly={readOnly} onChange={(handle) => set(card.key, { handles: withHandle(card.handles, sheet.key, handle) })} />
                ))}
              </div>
            </details>
          </li>
        ))}
      </ul>
      {!readOnly && (
        <form
          className="mt-3 flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            add(event.currentTarget);
          }}
        >
          <input name="name" aria-label="Name of somebody new" placeholder="Name of a person or page" maxLength={80} className={inputClasses} />
          <Button type="submit">
            <Plus aria-hidden className="size-4" />
            Add
          </Button>
        </form>
      )}
    </section>
  );
}

function withHandle(handles: AddressCard['handles'], network: string, handle: string): AddressCard['handles'] {
  const { [network]: _, ...others } = handles;
  return handle === '' ? others : { ...others, [network]: handle };
}

/** What is typed is kept once it is a handle, or nothing. */
function HandleField({ label, name, handle, readOnly, onChange }: { readonly label: string; readonly name: string; readonly handle: string; readonly readOnly: boolean; readonly onChange: (handle: string) => void }) {
  const [typed, setTyped] = useState(handle);
  const complete = typed.trim() === '' ? '' : typed.trim().startsWith('@') ? typed.trim() : `@${typed.trim()}`;
  return (
    <>
      <span>{name}</span>
      <input
        aria-label={label}
        value={typed}
        readOnly={readOnly}
        placeholder="no handle"
        aria-invalid={complete !== '' && !HANDLE.test(complete)}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          if (complete !== '' && !HANDLE.test(complete)) return;
          setTyped(complete);
          if (complete !== handle) onChange(complete);
        }}
        className={inputClasses}
      />
      <span />
    </>
  );
}
