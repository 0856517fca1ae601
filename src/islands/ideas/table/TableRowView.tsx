import { useState } from 'react';
import type { TableField } from '../../../core/ideas/table/table-fields.ts';
import type { Wall } from '../../preview/wall.ts';
import { Button } from '../../ui/Button.tsx';
import { DraftPaintings } from '../DraftPaintings.tsx';
import type { DraftCut } from '../use-draft-wall.ts';
import type { IdeasContext } from '../ideas-context.ts';
import type { Row } from './TableView.tsx';

interface TableRowViewProps {
  readonly row: Row;
  readonly fields: readonly { readonly key: TableField; readonly name: string }[];
  readonly context: IdeasContext;
  readonly wall: Wall | null;
  readonly cuts: readonly DraftCut[];
  readonly isDisabled: boolean;
  readonly onCell: (field: TableField, value: string) => void;
  readonly onLeaveOut: (isLeftOut: boolean) => void;
}

const WIDE: readonly TableField[] = ['caption', 'headline', 'points', 'firstComment', 'altText'];

/** One row: its small cut, its cells to edit in place, and what is wrong in each of them. */
export function TableRowView({ row, fields, context, wall, cuts, isDisabled, onCell, onLeaveOut }: TableRowViewProps) {
  const { brand } = context;
  const stops = row.faults.filter(({ severity }) => severity === 'stops').length;
  // A fault whose cell is not among the columns stands below the row.
  const elsewhere = row.faults.filter(({ field }) => !fields.some(({ key }) => key === field));
  return (
    <article aria-label={`Row ${row.number}`} className={`grid grid-cols-[2.25rem_5.5rem_minmax(0,1fr)_6.5rem] gap-3 border-b border-line py-2.5 ${row.isLeftOut ? 'opacity-50' : ''}`}>
      <span className="pt-1 text-right text-xs text-quiet tabular-nums">{row.number}</span>
      <span className="overflow-hidden">{row.draft ? <DraftPaintings wall={wall} cuts={cuts} label={row.cells.headline ?? `Row ${row.number}`} /> : <span className="grid h-[92px] place-items-center rounded-md bg-sunk text-xs text-quiet">no cut</span>}</span>
      <div className="min-w-0">
        <dl className="grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-x-3 gap-y-1.5">
          {fields.map(({ key, name }) => (
            <Cell key={key} field={key} name={name} value={row.cells[key] ?? ''} faults={row.faults.filter(({ field }) => field === key)} isDisabled={isDisabled} onCell={onCell} />
          ))}
        </dl>
        {elsewhere.map(({ sentence, severity }) => (
          <p key={sentence} className={`mt-1 text-xs ${severity === 'stops' ? 'font-medium text-coral-ink' : 'text-marigold-ink'}`}>
            {severity === 'stops' ? '■' : '▲'} {sentence}
          </p>
        ))}
      </div>
      <div className="flex flex-col items-end gap-1 text-xs">
        {row.pieceId !== null ? (
          <a href={`/b/${brand.slug}/make/pieces/${row.pieceId}`} className="font-semibold text-mint-ink underline">
            ✓ made
          </a>
        ) : stops > 0 ? (
          <span className="font-semibold text-coral-ink">
            ■ {stops} {stops === 1 ? 'fault' : 'faults'}
          </span>
        ) : (
          <span className="text-quiet">ready</span>
        )}
        {row.isChanged && <span className="text-right text-marigold-ink">▲ changed since</span>}
        <Button size="small" look="quiet" disabled={isDisabled} onClick={() => onLeaveOut(!row.isLeftOut)}>
          {row.isLeftOut ? 'Take in' : 'Leave out'}
        </Button>
      </div>
    </article>
  );
}

interface CellProps {
  readonly field: TableField;
  readonly name: string;
  readonly value: string;
  readonly faults: Row['faults'];
  readonly isDisabled: boolean;
  readonly onCell: (field: TableField, value: string) => void;
}

/** A cell that is edited in place: Enter or leaving it keeps it, Escape gives it back. */
function Cell({ field, name, value, faults, isDisabled, onCell }: CellProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const [worst] = faults.toSorted((a, b) => (a.severity === b.severity ? 0 : a.severity === 'stops' ? -1 : 1));
  const isWide = WIDE.includes(field);
  const keep = (): void => {
    if (draft !== null && draft.trim() !== value) onCell(field, draft.trim());
    setDraft(null);
  };
  const frame = worst ? (worst.severity === 'stops' ? 'border-coral' : 'border-marigold') : 'border-transparent hover:border-line focus-within:border-line';
  const shared = {
    'aria-label': name,
    'aria-invalid': worst?.severity === 'stops',
    disabled: isDisabled && draft === null,
    value: draft ?? value,
    onChange: (event: { target: { value: string } }) => setDraft(event.target.value),
    onBlur: keep,
    className: 'block w-full resize-none bg-transparent px-1.5 py-0.5 text-sm outline-none',
  };
  return (
    <div className={isWide ? 'col-span-2' : ''}>
      <dt className="text-[11px] leading-4 text-quiet">{name}</dt>
      <dd className={`rounded-md border ${frame}`}>
        {isWide ? (
          <textarea {...shared} rows={Math.min(4, Math.max(1, Math.ceil((draft ?? value).length / 52)))} onKeyDown={(event) => event.key === 'Escape' && setDraft(null)} />
        ) : (
          <input
            {...shared}
            onKeyDown={(event) => {
              if (event.key === 'Enter') keep();
              if (event.key === 'Escape') setDraft(null);
            }}
          />
        )}
      </dd>
      {worst && (
        <p className={`mt-0.5 text-xs ${worst.severity === 'stops' ? 'font-medium text-coral-ink' : 'text-marigold-ink'}`}>
          {worst.severity === 'stops' ? '■' : '▲'} {worst.sentence}{' '}
          {worst.fix && (
            <button type="button" disabled={isDisabled} onClick={() => worst.fix && onCell(field, worst.fix.value)} className="font-semibold text-house underline">
              {worst.fix.label}
            </button>
          )}
        </p>
      )}
    </div>
  );
}
