import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useRef, useState } from 'react';
import { cancelTableWork, changeTable, changeTableRow, checkTable, deleteTable, getTable, listTableRows, makeTable } from '../../../contract/table-contracts.ts';
import type { AnswerOf, BodyOf } from '../../../contract/contract.ts';
import { roleMay } from '../../../core/access/access.ts';
import { tableFields, type RowCells, type TableField } from '../../../core/ideas/table/table-fields.ts';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { ConfirmButton } from '../../ui/ConfirmButton.tsx';
import { EndlessList } from '../../ui/EndlessList.tsx';
import { toast } from '../../ui/toast.tsx';
import { useDraftWall, type Draft } from '../use-draft-wall.ts';
import type { IdeasContext } from '../ideas-context.ts';
import { Reading } from './Reading.tsx';
import { TableRowView } from './TableRowView.tsx';

export type Table = AnswerOf<typeof getTable>;
export type Row = AnswerOf<typeof changeTableRow>;
type Only = 'faulty' | 'ready' | 'made';

const PAINTED = { heightPx: 92, most: 1 } as const;
const PAGE = 30;
/** Work on a table is asked about at this pace while it goes on. */
const ASK_MS = 1_000;
const PAINTED_ROWS = 60;

/** One table: how it is read, its rows with their small cuts and faults, and what is made of it. */
export function TableView({ id, context, onClose }: { readonly id: string; readonly context: IdeasContext; readonly onClose: () => void }) {
  const { brand, data } = context;
  const client = useQueryClient();
  const params = { brand: brand.slug, table: id };
  const [only, setOnly] = useState<Only | null>(null);
  const [isReading, setReading] = useState(false);
  const scroller = useRef<HTMLDivElement>(null);
  const isOn = (table: Table | undefined): boolean => table?.job?.state === 'running' || table?.job?.state === 'waiting';
  const tableQuery = useQuery({ queryKey: ['post-tables', brand.slug, id], queryFn: () => call(getTable, { params }), refetchInterval: ({ state }) => (isOn(state.data) ? ASK_MS : false) });
  const rows = useInfiniteQuery({
    queryKey: ['post-tables', brand.slug, id, 'rows', only],
    queryFn: ({ pageParam }) => call(listTableRows, { params, query: { after: pageParam, limit: PAGE, ...(only === null ? {} : { only }) } }),
    initialPageParam: 0,
    getNextPageParam: (last) => last.next,
  });
  const items = useMemo(() => rows.data?.pages.flatMap((page) => page.rows) ?? [], [rows.data]);
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['post-tables', brand.slug] });
  const onError = (error: Error): void => toast('problem', error.message);
  const act = useMutation({ mutationFn: (work: () => Promise<unknown>) => work(), onSuccess: refresh, onError });
  const changeRow = useMutation({
    mutationFn: ({ number, body }: { readonly number: number; readonly body: { readonly cells?: RowCells; readonly isLeftOut?: boolean } }) => call(changeTableRow, { params: { ...params, row: String(number) }, body: body as BodyOf<typeof changeTableRow> }),
    onSuccess: async (row) => {
      client.setQueriesData<typeof rows.data>({ queryKey: ['post-tables', brand.slug, id, 'rows'] }, (now) => now && { ...now, pages: now.pages.map((page) => ({ ...page, rows: page.rows.map((each) => (each.number === row.number ? row : each)) })) });
      await client.invalidateQueries({ queryKey: ['post-tables', brand.slug, id], exact: true });
    },
    onError,
  });
  const drafts = useMemo(() => items.slice(-PAINTED_ROWS).flatMap(({ number, draft }): Draft[] => (draft ? [{ key: `row${number}`, template: draft.template, frames: draft.frames }] : [])), [items]);
  const { wall, cutsOf } = useDraftWall(data, drafts, PAINTED);
  const table = tableQuery.data;
  if (tableQuery.isError) return <p className="text-sm text-coral-ink">{tableQuery.error.message}</p>;
  if (!table) return <p className="text-sm text-quiet">Loading…</p>;
  const shown = tableFields.filter(({ key }) => table.mapping[key] !== undefined && key !== 'key').map(({ key, name }) => ({ key, name }));
  const mayMake = roleMay(brand.role, 'make');
  const { counts } = table;
  const busy = isOn(table);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <Button size="small" look="quiet" onClick={onClose}>
          ‹ Tables
        </Button>
        <h2 className="mr-2 max-w-72 truncate text-base font-semibold">{table.name}</h2>
        {([[null, `All ${counts.rows}`], ['faulty', `With faults ${counts.faulty}`], ['ready', `Ready ${counts.ready}`], ['made', `Made ${counts.made}`]] as const).map(([key, label]) => (
          <button key={label} type="button" aria-pressed={only === key} onClick={() => setOnly(key)} className={`rounded-md border px-2 py-0.5 text-sm tabular-nums ${only === key ? 'border-house bg-house-soft font-semibold' : 'border-line hover:border-edge'}`}>
            {label}
          </button>
        ))}
        <span className="ml-auto flex flex-wrap items-center gap-2">
          <Button aria-expanded={isReading} onClick={() => setReading(!isReading)}>
            How it is read
          </Button>
          {mayMake && (
            <>
              <Button disabled={busy || act.isPending} onClick={() => act.mutate(() => call(checkTable, { params, body: {} }))}>
                Check the cuts
              </Button>
              <Button look={roleMay(brand.role, 'send') ? 'plain' : 'primary'} disabled={busy || act.isPending || counts.ready === 0} onClick={() => act.mutate(() => call(makeTable, { params, body: { schedule: false } }))}>
                Make {counts.ready} {counts.ready === 1 ? 'draft' : 'drafts'}
              </Button>
              {roleMay(brand.role, 'send') && (
                <ConfirmButton isDisabled={busy || act.isPending || counts.ready === 0} label={`Make and schedule ${counts.ready}`} title="Schedule the rows" keepLabel="Not yet" confirmLabel={`Schedule ${counts.ready}`} confirmLook="primary" onConfirm={() => act.mutate(() => call(makeTable, { params, body: { schedule: true } }))}>
                  {counts.ready} {counts.ready === 1 ? 'row goes' : 'rows go'} out at their moments. Rows with faults stay here{counts.faulty > 0 ? ` (${counts.faulty})` : ''}.
                </ConfirmButton>
              )}
            </>
          )}
        </span>
      </div>
      {table.job && busy && (
        <div className="mb-3 flex items-center gap-3 text-sm" role="status">
          <span>{table.job.kind === 'check' ? 'Checking the cuts' : 'Making pieces'}</span>
          <progress max={1} value={table.job.share} className="h-2 w-60 accent-house" aria-label="Progress" />
          <span className="text-quiet tabular-nums">
            {Math.round(table.job.share * 100)}%{table.job.leftMs === null ? '' : `, about ${Math.max(1, Math.round(table.job.leftMs / 1_000))} s left`}
          </span>
          <Button size="small" onClick={() => act.mutate(() => call(cancelTableWork, { params, body: {} }))}>
            Stop
          </Button>
        </div>
      )}
      {table.job?.state === 'failed' && <p className="mb-3 text-sm text-coral-ink">{table.job.problem}</p>}
      {table.ambiguous.length > 0 && (
        <div role="alert" className="mb-3 flex flex-wrap items-center gap-3 rounded-md border border-marigold bg-marigold-soft px-3 py-2 text-sm">
          <span>Which number is the day in “{table.ambiguous[0]}”? It holds for the whole table.</span>
          {(['day-first', 'month-first'] as const).map((order) => (
            <Button key={order} size="small" disabled={!mayMake} onClick={() => act.mutate(() => call(changeTable, { params, body: { mapping: table.mapping, settings: { ...table.settings, order } } }))}>
              {order === 'day-first' ? 'The first' : 'The second'}
            </Button>
          ))}
        </div>
      )}
      {isReading && <Reading table={table} context={context} isDisabled={!mayMake || busy} onChange={(mapping, settings) => act.mutate(() => call(changeTable, { params, body: { mapping, settings } as BodyOf<typeof changeTable> }))} onDelete={() => act.mutate(() => call(deleteTable, { params }).then(onClose))} />}
      <div ref={scroller} className="-mx-1 min-h-0 flex-1 overflow-auto px-1 pb-5">
        {rows.isSuccess && items.length === 0 && <p className="py-10 text-center text-sm text-quiet">{only === 'faulty' ? 'No row has a fault.' : 'No rows here.'}</p>}
        {items.length > 0 && (
          <EndlessList label="Rows" items={items} keyOf={({ number }) => String(number)} pages={rows} scroller={scroller} estimatedRowPx={120}>
            {(row) => <TableRowView row={row} fields={shown} context={context} wall={wall} cuts={cutsOf(`row${row.number}`)} isDisabled={!mayMake || busy || changeRow.isPending} onCell={(field: TableField, value: string) => changeRow.mutate({ number: row.number, body: { cells: { [field]: value } } })} onLeaveOut={(isLeftOut) => changeRow.mutate({ number: row.number, body: { isLeftOut } })} />}
          </EndlessList>
        )}
      </div>
    </div>
  );
}
