import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { listPieceFacets } from '../../contract/piece-contracts.ts';
import { call } from '../ui/call.ts';
import { inputClasses } from '../ui/Field.tsx';
import { isFiltered, type PieceQuery } from './piece-query.ts';

interface PieceFiltersProps {
  readonly brand: string;
  readonly query: PieceQuery;
  readonly onChange: (query: PieceQuery) => void;
}

const kinds = [['graphic', 'Graphics'], ['carousel', 'Carousels'], ['video', 'Videos']] as const;
const statuses = [['draft', 'Drafts'], ['scheduled', 'Scheduled'], ['sent', 'Sent']] as const;
const spans = [['1', 'Today and yesterday'], ['7', 'Last 7 days'], ['30', 'Last 30 days'], ['365', 'Last year']] as const;
const sorts = [['changed', 'Last changed'], ['created', 'Last started'], ['name', 'Name']] as const;
const shelves = [['use', 'In use'], ['archived', 'Archived'], ['deleted', 'Deleted']] as const;

/** What is shown of the pieces, and in which order. */
export function PieceFilters({ brand, query, onChange }: PieceFiltersProps) {
  const facets = useQuery({ queryKey: ['pieces', brand, 'facets'], queryFn: () => call(listPieceFacets, { params: { brand } }) });
  const set = (change: PieceQuery): void => onChange({ ...query, ...change });
  return (
    <div role="search" aria-label="Pieces" className="mb-4 flex flex-wrap items-center gap-2">
      <div className="w-64 max-w-full">
        <input type="search" aria-label="Search pieces" placeholder="Search names and texts" value={query.words ?? ''} onChange={(event) => set({ words: event.target.value })} className={inputClasses} />
      </div>
      <Choice label="Kind" all="All kinds" value={query.kind} options={kinds} onChoose={(kind) => set({ kind })} />
      <Choice label="Status" all="Any status" value={query.status} options={statuses} onChoose={(status) => set({ status })} />
      <Choice label="Template" all="All templates" value={query.template} options={facets.data?.templates.map(({ key, name }) => [key, name] as const) ?? []} onChoose={(template) => set({ template })} />
      {(facets.data?.people.length ?? 0) > 1 && <Choice label="Started by" all="Started by anyone" value={query.person} options={facets.data?.people.map(({ id, name }) => [id, name] as const) ?? []} onChoose={(person) => set({ person })} />}
      <Choice label="Changed" all="Changed any time" value={query.days} options={spans} onChoose={(days) => set({ days })} />
      {isFiltered(query) && (
        <button type="button" onClick={() => onChange({ sort: query.sort, shelf: query.shelf })} className="rounded-md px-1.5 py-0.5 text-xs font-medium text-house hover:bg-sunk">
          Clear filters
        </button>
      )}
      <span className="ml-auto flex gap-2">
        <Choice label="Sort by" value={query.sort ?? 'changed'} options={sorts} onChoose={(sort) => set({ sort: sort === 'changed' ? undefined : sort })} />
        <Choice label="Show" value={query.shelf ?? 'use'} options={shelves} onChoose={(shelf) => set({ shelf: shelf === 'use' ? undefined : shelf })} />
      </span>
    </div>
  );
}

interface ChoiceProps<Key extends string> {
  readonly label: string;
  /** What it says when nothing is chosen; missing: something always is. */
  readonly all?: string;
  readonly value: Key | undefined;
  readonly options: readonly (readonly [Key, string])[];
  readonly onChoose: (key: Key | undefined) => void;
}

function Choice<Key extends string>({ label, all, value, options, onChoose }: ChoiceProps<Key>): ReactNode {
  return (
    <select aria-label={label} value={value ?? ''} onChange={(event) => onChoose(options.find(([key]) => key === event.target.value)?.[0])} className={`h-8 max-w-44 rounded-md border bg-panel px-2 text-sm ${all !== undefined && value !== undefined ? 'border-house font-semibold' : 'border-line'}`}>
      {all !== undefined && <option value="">{all}</option>}
      {options.map(([key, name]) => (
        <option key={key} value={key}>
          {name}
        </option>
      ))}
    </select>
  );
}
