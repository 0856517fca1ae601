import Plus from 'lucide-react/icons/plus';
import Trash2 from 'lucide-react/icons/trash-2';
import { useState } from 'react';
import type { BrandBook, Fact } from '../../core/brand/brand-book.ts';
import { keyFrom } from '../../core/brand/exchange/draft-book.ts';
import { fillInOf } from '../../core/brand/facts.ts';
import { Button } from '../ui/Button.tsx';
import { inputClasses } from '../ui/Field.tsx';
import { BookFrame } from './BookFrame.tsx';
import type { BookEdit, BrandProps } from './use-book.ts';

/** Standing fill-ins: what they are called, how they are written in a text, and what they become. */
export default function FactsView({ brand }: BrandProps) {
  return (
    <BookFrame brand={brand} title="Facts">
      {(edit) => <Facts edit={edit} />}
    </BookFrame>
  );
}

function Facts({ edit }: { readonly edit: BookEdit }) {
  const { book, mayChange, change } = edit;
  const set = (key: string, next: Partial<Fact>): void => change((now) => ({ ...now, facts: now.facts.map((fact) => (fact.key === key ? { ...fact, ...next } : fact)) }));
  return (
    <div className="max-w-3xl">
      <p className="mb-4 text-sm text-quiet">
        Write a fact’s fill-in into any text of a piece or caption, and its words appear there. Change it here once, and every cut that is not out yet follows. Weekday hours (“hours-mon” and so on) fill the Door template.
      </p>
      <ul className="border-t border-line">
        {book.facts.map((fact) => (
          <li key={fact.key} className="grid items-center gap-x-3 gap-y-1.5 max-md:grid-cols-[minmax(0,1fr)_1.75rem] md:grid-cols-[11rem_10rem_1fr_1.75rem] border-b border-line py-2">
            <input aria-label={`Name of ${fact.name}`} value={fact.name} maxLength={40} readOnly={!mayChange} onChange={(event) => set(fact.key, { name: event.target.value })} className={inputClasses} />
            <code className="text-xs text-quiet max-md:order-1 max-md:col-span-2">{fillInOf(fact)}</code>
            <input
              aria-label={`Text of ${fact.name}`}
              value={fact.text}
              maxLength={300}
              readOnly={!mayChange}
              placeholder="no text yet: preflight stops what uses it"
              onChange={(event) => set(fact.key, { text: event.target.value })}
              className={`${inputClasses} max-md:order-1 max-md:col-span-2`}
            />
            {mayChange && (
              <button type="button" aria-label={`Remove ${fact.name}`} onClick={() => change((now) => ({ ...now, facts: now.facts.filter((each) => each.key !== fact.key) }))} className="rounded-md p-1 text-quiet hover:bg-sunk hover:text-ink">
                <Trash2 aria-hidden className="size-4" />
              </button>
            )}
          </li>
        ))}
      </ul>
      {mayChange && <AddFact taken={book.facts.map((fact) => fact.key)} onAdd={(fact) => change((now) => ({ ...now, facts: [...now.facts, fact] }))} />}
    </div>
  );
}

const MAX_FACT = 300;

function AddFact({ taken, onAdd }: { readonly taken: readonly string[]; readonly onAdd: (fact: BrandBook['facts'][number]) => void }) {
  // What a reply told can be kept as a fact: it comes with the address.
  const [told, setTold] = useState(() => (typeof location === 'undefined' ? '' : (new URLSearchParams(location.search).get('add') ?? '').slice(0, MAX_FACT)));
  const add = (form: HTMLFormElement): void => {
    const name = String(new FormData(form).get('name') ?? '').trim();
    if (name === '') return;
    const base = keyFrom(name, 'fact');
    const key = taken.includes(base) ? `${base}-${taken.length + 1}` : base;
    onAdd({ key, name, text: told.trim() });
    setTold('');
    form.reset();
  };
  return (
    <form
      className="mt-3 flex flex-wrap items-center gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        add(event.currentTarget);
      }}
    >
      <input name="name" aria-label="Name of a new fact" placeholder="Name of a new fact, e.g. Parking" maxLength={40} className={`${inputClasses} max-w-72`} />
      {told !== '' && <input aria-label="Text of the new fact" value={told} maxLength={MAX_FACT} onChange={(event) => setTold(event.target.value)} className={inputClasses} />}
      <Button type="submit">
        <Plus aria-hidden className="size-4" />
        Add
      </Button>
    </form>
  );
}
