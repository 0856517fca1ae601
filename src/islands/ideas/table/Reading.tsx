import { useQuery } from '@tanstack/react-query';
import { listTemplates } from '../../../contract/template-contracts.ts';
import { tableFields, type TableField } from '../../../core/ideas/table/table-fields.ts';
import { call } from '../../ui/call.ts';
import { ConfirmButton } from '../../ui/ConfirmButton.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { TimeOfDayField } from '../../ui/TimeOfDayField.tsx';
import { ChannelPick } from '../ChannelPick.tsx';
import type { IdeasContext } from '../ideas-context.ts';
import type { Table } from './TableView.tsx';

interface ReadingProps {
  readonly table: Table;
  readonly context: IdeasContext;
  readonly isDisabled: boolean;
  readonly onChange: (mapping: Table['mapping'], settings: Table['settings']) => void;
  readonly onDelete: () => void;
}

/** Which column is what, and what holds where a row says nothing. It is kept for tables with the same columns. */
export function Reading({ table: { header, mapping, settings }, context, isDisabled, onChange, onDelete }: ReadingProps) {
  const { brand } = context;
  const templates = useQuery({ queryKey: ['templates', brand.slug], queryFn: () => call(listTemplates, { params: { brand: brand.slug } }) });
  const columns = header.map((name, index) => [String(index), name] as const);
  const setColumn = (field: TableField, column: string): void => {
    const { [field]: _, ...others } = mapping;
    onChange(column === '' ? others : { ...others, [field]: Number(column) }, settings);
  };
  return (
    <section aria-label="How the table is read" className="mb-4 max-h-[45vh] overflow-auto rounded-md border border-line bg-panel p-4">
      <div className="grid grid-cols-[minmax(0,2fr)_minmax(0,1fr)] gap-6 max-lg:grid-cols-1">
        <div>
          <h3 className="mb-2 text-sm font-semibold">Columns</h3>
          <div className="grid grid-cols-[repeat(auto-fill,minmax(10rem,1fr))] gap-2.5">
            {tableFields.map(({ key, name }) => (
              <SelectField key={key} label={name} none="—" isDisabled={isDisabled} value={mapping[key] === undefined ? '' : String(mapping[key])} options={columns} onChange={(column) => setColumn(key, column)} />
            ))}
          </div>
        </div>
        <div className="grid content-start gap-3">
          <h3 className="text-sm font-semibold">Where a row says nothing</h3>
          <TimeOfDayField label="Time" time={settings.usualTime} onChange={(usualTime) => usualTime !== '' && onChange(mapping, { ...settings, usualTime })} />
          <SelectField label="Template" none="The one that suits each" isDisabled={isDisabled} value={settings.templateKey ?? ''} options={(templates.data?.items ?? []).filter(({ archived, kind }) => !archived && kind !== 'video').map(({ key, name }) => [key, name] as const)} onChange={(templateKey) => onChange(mapping, { ...settings, templateKey: templateKey === '' ? null : templateKey })} />
          <label className="flex items-center gap-2 text-sm">
            <input type="checkbox" disabled={isDisabled} checked={settings.together} onChange={(event) => onChange(mapping, { ...settings, together: event.target.checked })} className="size-4 accent-house" />
            Rows of one key are one post
          </label>
          <ChannelPick context={context} chosen={settings.usualChannelIds} onChoose={(usualChannelIds) => onChange(mapping, { ...settings, usualChannelIds: [...usualChannelIds] })} />
          <span>
            <ConfirmButton label="Delete the table" title="Delete the table" size="small" keepLabel="Keep" confirmLabel="Delete" confirmLook="stop" onConfirm={onDelete}>
              The table goes; pieces that were made of it stay.
            </ConfirmButton>
          </span>
        </div>
      </div>
    </section>
  );
}
