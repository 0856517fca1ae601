import { useMutation, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { closeFeed, importDays, listHolidayCountries, openFeed } from '../../../contract/plan-contracts.ts';
import type { NamedSpan, Plan } from '../../../core/plan/plan.ts';
import { Button } from '../../ui/Button.tsx';
import { call, sendFile } from '../../ui/call.ts';
import { DayField } from '../../ui/DayField.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { FilePick } from '../../ui/FilePick.tsx';
import { toast } from '../../ui/toast.tsx';
import type { PlanEdit } from '../plan-store.ts';
import type { PlanAnswer, PlanContext } from '../use-plan.ts';

interface SettingsProps {
  readonly edit: PlanEdit;
  readonly stored: PlanAnswer;
  readonly context: PlanContext;
  readonly mayChange: boolean;
}

/** Pauses, days that matter, holidays, what the queue keeps apart, and the address for calendar programs. */
export function PlanSettings({ edit: { plan, change }, stored, context, mayChange }: SettingsProps) {
  const { brand, today } = context;
  return (
    <>
      <Spans title="Pauses" hint="The rota rests on these days; posts at moments of their own go out." spans={plan.rota.pauses} today={today} mayChange={mayChange} onChange={(pauses) => change((now) => ({ ...now, rota: { ...now.rota, pauses: [...pauses] } }))} />
      <Spans title="Days that matter" hint="They stand in all views of the plan." spans={plan.days} today={today} mayChange={mayChange} onChange={(days) => change((now) => ({ ...now, days: [...days] }))} importFor={brand.slug} />
      <Countries plan={plan} mayChange={mayChange} onChange={(countries) => change((now) => ({ ...now, countries: [...countries] }))} />
      <Apart plan={plan} mayChange={mayChange} onChange={(apart) => change((now) => ({ ...now, apart }))} />
      {mayChange && <Feed brand={brand.slug} hasFeed={stored.hasFeed} />}
    </>
  );
}

interface SpansProps {
  readonly title: string;
  readonly hint: string;
  readonly spans: readonly NamedSpan[];
  readonly today: string;
  readonly mayChange: boolean;
  readonly onChange: (spans: readonly NamedSpan[]) => void;
  /** The brand whose calendar files may be imported here. */
  readonly importFor?: string;
}

function Spans({ title, hint, spans, today, mayChange, onChange, importFor }: SpansProps) {
  const [name, setName] = useState('');
  const [from, setFrom] = useState(today);
  const [until, setUntil] = useState(today);
  const [isYearly, setYearly] = useState(false);
  const bring = useMutation({
    mutationFn: (file: File) => sendFile(importDays, { brand: importFor ?? '' }, {}, file),
    onSuccess: ({ days }) => {
      const known = new Set(spans.map((span) => `${span.name} ${span.from}`));
      const fresh = days.filter((day) => !known.has(`${day.name} ${day.from}`)).map((day) => ({ ...day, id: nanoid(8) }));
      onChange([...spans, ...fresh]);
      toast('done', `${fresh.length} ${fresh.length === 1 ? 'day' : 'days'} read. Keep the rota to keep them.`);
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <section aria-label={title}>
      <h2 className="text-base font-semibold">{title}</h2>
      <p className="mb-2 text-xs text-quiet">{hint}</p>
      <ul className="max-h-48 space-y-0.5 overflow-auto text-sm">
        {spans.map((span) => (
          <li key={span.id} className="flex items-baseline justify-between gap-2">
            <span className="min-w-0 truncate">{span.name}</span>
            <span className="flex shrink-0 items-baseline gap-1 text-xs text-quiet tabular-nums">
              {span.from === span.until ? span.from : `${span.from} – ${span.until}`}
              {span.yearly === true && ', each year'}
              {mayChange && (
                <Button size="small" look="quiet" aria-label={`Remove ${span.name}`} onClick={() => onChange(spans.filter(({ id }) => id !== span.id))}>
                  Remove
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      {mayChange && (
        <form
          className="mt-2 grid grid-cols-2 gap-1.5"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() === '' || from === '' || until === '') return;
            onChange([...spans, { id: nanoid(8), name: name.trim().slice(0, 60), from, until: until < from ? from : until, ...(isYearly ? { yearly: true } : {}) }]);
            setName('');
          }}
        >
          <input aria-label={`${title}: name`} placeholder="Name" value={name} maxLength={60} onChange={(event) => setName(event.target.value)} className={`${inputClasses} col-span-2`} />
          <DayField label={`${title}: first day`} isBare day={from} onChange={setFrom} />
          <DayField label={`${title}: last day`} isBare day={until} onChange={setUntil} />
          {importFor !== undefined && (
            <label className="col-span-2 flex items-center gap-1.5 text-sm">
              <input type="checkbox" checked={isYearly} onChange={(event) => setYearly(event.target.checked)} className="size-4 accent-house" />
              It comes again each year
            </label>
          )}
          <span className="col-span-2 flex gap-1.5">
            <Button size="small" type="submit" disabled={name.trim() === ''}>
              Add
            </Button>
            {importFor !== undefined && <FilePick accept=".ics,text/calendar" size="small" onFiles={([file]) => file && bring.mutate(file)}>Import .ics</FilePick>}
          </span>
        </form>
      )}
    </section>
  );
}

function Countries({ plan, mayChange, onChange }: { readonly plan: Plan; readonly mayChange: boolean; readonly onChange: (countries: readonly string[]) => void }) {
  const countries = useQuery({ queryKey: ['holiday-countries'], queryFn: () => call(listHolidayCountries), staleTime: Infinity });
  const nameOf = (code: string): string => countries.data?.items.find((each) => each.code === code.slice(0, 2))?.name ?? code;
  return (
    <section aria-label="Public holidays">
      <h2 className="text-base font-semibold">Public holidays</h2>
      <ul className="my-1 space-y-0.5 text-sm">
        {plan.countries.map((code) => (
          <li key={code} className="flex items-baseline justify-between gap-2">
            {nameOf(code)}
            {code.length > 2 ? ` (${code.slice(3)})` : ''}
            {mayChange && (
              <Button size="small" look="quiet" aria-label={`Remove ${nameOf(code)}`} onClick={() => onChange(plan.countries.filter((each) => each !== code))}>
                Remove
              </Button>
            )}
          </li>
        ))}
      </ul>
      {mayChange && plan.countries.length < 12 && (
        <select aria-label="Add a country" value="" onChange={(event) => event.target.value !== '' && !plan.countries.includes(event.target.value) && onChange([...plan.countries, event.target.value])} className="h-8 w-full rounded-md border border-line bg-panel px-1.5 text-sm">
          <option value="">Add a country…</option>
          {countries.data?.items.map(({ code, name }) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </select>
      )}
    </section>
  );
}

function Apart({ plan: { apart }, mayChange, onChange }: { readonly plan: Plan; readonly mayChange: boolean; readonly onChange: (apart: Plan['apart']) => void }) {
  return (
    <section aria-label="What the queue keeps apart" className="text-sm">
      <h2 className="text-base font-semibold">What the queue keeps apart</h2>
      <label className="mt-1 flex items-center gap-2">
        <input type="checkbox" disabled={!mayChange} checked={apart.themeTwice} onChange={(event) => onChange({ ...apart, themeTwice: event.target.checked })} className="size-4 accent-house" />
        No theme twice in a row where a slot takes anything
      </label>
      {(['template', 'picture'] as const).map((what) => (
        <label key={what} className="mt-1 flex items-center gap-2">
          No {what} again within
          <input type="number" disabled={!mayChange} min={0} max={what === 'template' ? 50 : 200} value={apart[what]} onChange={(event) => onChange({ ...apart, [what]: Math.max(0, Math.min(what === 'template' ? 50 : 200, Math.round(Number(event.target.value) || 0))) })} className="h-7 w-14 rounded-md border border-line bg-panel px-1 text-center tabular-nums" />
          posts
        </label>
      ))}
    </section>
  );
}

function Feed({ brand, hasFeed }: { readonly brand: string; readonly hasFeed: boolean }) {
  const [path, setPath] = useState<string | null>(null);
  const [isOn, setOn] = useState(hasFeed);
  const open = useMutation({
    mutationFn: () => call(openFeed, { params: { brand }, body: {} }),
    onSuccess: (answer) => {
      setPath(answer.path);
      setOn(true);
    },
    onError: (error) => toast('problem', error.message),
  });
  const close = useMutation({
    mutationFn: () => call(closeFeed, { params: { brand } }),
    onSuccess: () => {
      setPath(null);
      setOn(false);
      toast('done', 'The calendar address has ended.');
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <section aria-label="For calendar programs" className="text-sm">
      <h2 className="text-base font-semibold">For calendar programs</h2>
      <p className="mt-1 text-xs text-quiet">Whoever has this address sees the plan, without signing in. {isOn && path === null ? 'It was shown when it was made; a new one ends it.' : ''}</p>
      {path !== null && <input readOnly aria-label="Calendar address" value={`${location.origin}${path}`} onFocus={(event) => event.target.select()} className={`${inputClasses} mt-1`} />}
      <div className="mt-2 flex gap-2">
        <Button size="small" disabled={open.isPending} onClick={() => open.mutate()}>
          {isOn ? 'New address' : 'Make an address'}
        </Button>
        {isOn && (
          <Button size="small" look="stop" disabled={close.isPending} onClick={() => close.mutate()}>
            End it
          </Button>
        )}
      </div>
    </section>
  );
}
