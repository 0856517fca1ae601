import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import ChevronLeft from 'lucide-react/icons/chevron-left';
import ChevronRight from 'lucide-react/icons/chevron-right';
import { nanoid } from 'nanoid';
import { useState, type ReactNode } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { deletePlanView, keepPlanView, listPlanViews } from '../../contract/plan-contracts.ts';
import { zonePlace } from '../../core/time/wall-time.ts';
import { call } from '../ui/call.ts';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { inputClasses } from '../ui/Field.tsx';
import { toast } from '../ui/toast.tsx';
import { BrandFilter } from './BrandFilter.tsx';
import { ChannelFilter } from './ChannelFilter.tsx';
import { isFilteredPlan, writePlanQuery, type PlanQuery } from './plan-query.ts';
import type { PlanBrand, PlanContext, PlanContexts } from './use-plan.ts';

interface PlanBarProps {
  readonly title: string;
  readonly contexts: PlanContexts;
  /** All brands of the person. */
  readonly brands: readonly PlanBrand[];
  readonly query: PlanQuery;
  readonly onChange: (change: Partial<PlanQuery>) => void;
  /** Steps through time; missing: the view has none. */
  readonly steps?: { readonly back: () => void; readonly today: () => void; readonly on: () => void; readonly words: string };
  /** What stands behind the steps: a zoom. */
  readonly zoom?: ReactNode;
  readonly actions?: ReactNode;
}

const states = [['scheduled', 'Scheduled'], ['held', 'Held'], ['sent', 'Sent'], ['failed', 'Failed'], ['changed', 'Piece has changed'], ['draft', 'Drafts'], ['placeholder', 'Placeholders'], ['open', 'Open slots']] as const;
const kinds = [['graphic', 'Graphics'], ['carousel', 'Carousels'], ['video', 'Videos']] as const;

/** The head that all views of the plan share: where in time, which filters, which view is kept, and in which zone. */
export function PlanBar({ title, contexts, brands, query, onChange, steps, zoom, actions }: PlanBarProps) {
  const [context] = contexts.all;
  const { plan, brand } = context;
  const channels = contexts.all.length === 1 ? context : { channels: contexts.all.flatMap((each) => each.channels), sheets: new Map(contexts.all.toReversed().flatMap((each) => [...each.sheets])) };
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-2.5 gap-y-2">
      <h1 className="text-xl font-semibold">{title}</h1>
      {steps && (
        <div className="flex flex-wrap items-center gap-1">
          <Button size="icon" aria-label="Earlier" onClick={steps.back}>
            <ChevronLeft aria-hidden className="size-4" />
          </Button>
          <Button onClick={steps.today}>Today</Button>
          <Button size="icon" aria-label="Later" onClick={steps.on}>
            <ChevronRight aria-hidden className="size-4" />
          </Button>
          <span className="ml-1 text-sm font-semibold whitespace-nowrap tabular-nums" aria-live="polite" suppressHydrationWarning>
            {steps.words}
          </span>
        </div>
      )}
      {zoom}
      <div role="search" aria-label="Plan" className="flex flex-wrap items-center gap-1.5">
        <BrandFilter own={brand} brands={brands} chosen={query.brands} onChoose={(chosen) => onChange({ brands: chosen })} />
        <ChannelFilter context={channels} chosen={query.channels} onChoose={(channels) => onChange({ channels })} />
        <Choice label="Theme" all="All themes" value={query.theme} options={(plan?.plan.themes ?? []).map(({ id, name }) => [id, name] as const)} onChoose={(theme) => onChange({ theme })} />
        <Choice label="Status" all="Any status" value={query.state} options={states} onChoose={(state) => onChange({ state })} />
        <MoreFilters context={context} query={query} onChange={onChange} />
        {isFilteredPlan(query) && (
          <button type="button" onClick={() => onChange({ channels: undefined, state: undefined, kind: undefined, theme: undefined, campaign: undefined, label: undefined, person: undefined })} className="rounded-md px-1.5 py-0.5 text-xs font-medium text-house hover:bg-sunk">
            Clear filters
          </button>
        )}
      </div>
      <div className="ml-auto flex flex-wrap items-center gap-2">
        {!zoom && (
          <span className="text-xs text-quiet max-lg:hidden" suppressHydrationWarning>
            {zoneNote(brand.zone)}
          </span>
        )}
        <SavedViews brand={brand.slug} query={query} />
        {actions}
      </div>
    </div>
  );
}

/** Whose time the plan shows; for a person in another zone, which theirs is. */
export function zoneNote(zone: string): string {
  const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return own === zone ? `${zonePlace(zone)} time` : `${zonePlace(zone)} time; yours is ${zonePlace(own)}`;
}

function MoreFilters({ context: { plan, campaigns }, query, onChange }: Pick<PlanBarProps, 'query' | 'onChange'> & { readonly context: PlanContext }) {
  const count = [query.kind, query.campaign, query.label, query.person].filter(Boolean).length;
  return (
    <DialogTrigger>
      <AriaButton className={`${buttonClasses('plain')} ${count > 0 ? 'border-house font-semibold' : ''}`}>{count > 0 ? `More filters: ${count}` : 'More filters'}</AriaButton>
      <Popover className="shadow-float rounded-md border border-line bg-panel p-3">
        <Dialog aria-label="More filters" className="grid w-56 gap-2 outline-none [&_select]:w-full [&_select]:max-w-none">
          <Choice label="Kind" all="All kinds" value={query.kind} options={kinds} onChoose={(kind) => onChange({ kind })} />
          <Choice label="Campaign" all="All campaigns" value={query.campaign} options={[...campaigns.values()].map(({ id, name }) => [id, name] as const)} onChoose={(campaign) => onChange({ campaign })} />
          <Choice label="Label" all="All labels" value={query.label} options={(plan?.labels ?? []).map((label) => [label, label] as const)} onChoose={(label) => onChange({ label })} />
          <Choice label="Scheduled by" all="Scheduled by anyone" value={query.person} options={(plan?.people ?? []).map(({ id, name }) => [id, name] as const)} onChoose={(person) => onChange({ person })} />
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}

/** A menu of keys with their names. */
export function Choice({ label, all, value, options, onChoose }: { readonly label: string; readonly all: string; readonly value: string | undefined; readonly options: readonly (readonly [string, string])[]; readonly onChoose: (key: string | undefined) => void }) {
  return (
    <select aria-label={label} value={value ?? ''} onChange={(event) => onChoose(event.target.value === '' ? undefined : event.target.value)} className={`h-8 max-w-30 rounded-md border bg-panel px-1.5 text-sm ${value ? 'border-house font-semibold' : 'border-line'}`}>
      <option value="">{all}</option>
      {options.map(([key, name]) => (
        <option key={key} value={key}>
          {name}
        </option>
      ))}
    </select>
  );
}

/** Views with their filters that a person keeps under a name. */
function SavedViews({ brand, query }: { readonly brand: string; readonly query: PlanQuery }) {
  const client = useQueryClient();
  const [name, setName] = useState('');
  const views = useQuery({ queryKey: ['plan-views', brand], queryFn: () => call(listPlanViews, { params: { brand } }) });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['plan-views', brand] });
  const keep = useMutation({
    mutationFn: () => call(keepPlanView, { params: { brand }, body: { id: nanoid(12), name: name.trim(), address: writePlanQuery(query) } }),
    onSuccess: () => {
      setName('');
      return refresh();
    },
    onError: (error) => toast('problem', error.message),
  });
  const remove = useMutation({ mutationFn: (view: string) => call(deletePlanView, { params: { brand, view } }), onSuccess: refresh, onError: (error) => toast('problem', error.message) });
  const items = views.data?.items ?? [];
  return (
    <DialogTrigger>
      <AriaButton className={buttonClasses('plain')}>Saved views</AriaButton>
      <Popover placement="bottom end" className="shadow-float rounded-md border border-line bg-panel p-3">
        <Dialog aria-label="Saved views" className="w-72 outline-none">
          {items.length === 0 && <p className="text-sm text-quiet">Keep what you see now, with its filters, under a name.</p>}
          <ul>
            {items.map((view) => (
              <li key={view.id} className="flex items-center justify-between gap-2 py-0.5 text-sm">
                <a href={view.address} className="min-w-0 truncate font-medium text-house hover:underline">
                  {view.name}
                </a>
                <Button size="small" look="quiet" aria-label={`Delete the view ${view.name}`} onClick={() => remove.mutate(view.id)}>
                  Delete
                </Button>
              </li>
            ))}
          </ul>
          <form
            className="mt-2 flex gap-1.5"
            onSubmit={(event) => {
              event.preventDefault();
              if (name.trim() !== '') keep.mutate();
            }}
          >
            <input aria-label="Name of the view" placeholder="Name" value={name} maxLength={60} onChange={(event) => setName(event.target.value)} className={inputClasses} />
            <button type="submit" disabled={name.trim() === ''} className={buttonClasses('plain')}>
              Save
            </button>
          </form>
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
