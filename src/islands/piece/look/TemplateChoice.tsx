import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useId } from 'react';
import { listTemplates } from '../../../contract/template-contracts.ts';
import { changeTemplateOfPiece } from '../../../core/piece/change-template.ts';
import { call } from '../../ui/call.ts';
import { toast } from '../../ui/toast.tsx';
import { templateQuery } from '../../preview/template-query.ts';
import type { ContentProps } from '../view-props.ts';

/** Another template for the same content: slots are matched, and what finds no place is kept. */
export function TemplateChoice({ brand, template, piece, store, readOnly }: ContentProps) {
  const id = useId();
  const client = useQueryClient();
  const templates = useQuery({ queryKey: ['templates', brand.slug], queryFn: () => call(listTemplates, { params: { brand: brand.slug } }), staleTime: 60_000 });
  const items = templates.data?.items.filter(({ key, kind, archived }) => key === template.key || (kind === piece.kind && !archived)) ?? [template];
  const choose = async (key: string): Promise<void> => {
    try {
      const { document } = await client.fetchQuery(templateQuery(brand.slug, key));
      store.change('template', (draft) => void Object.assign(draft, changeTemplateOfPiece(store.getState().history.document, template, document)));
    } catch (error) {
      toast('problem', error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <div className="grid grid-cols-[auto_1fr] items-center gap-x-2 gap-y-1 text-xs text-quiet">
      <label htmlFor={id}>Template</label>
      <select id={id} value={template.key} disabled={readOnly} onChange={(event) => void choose(event.target.value)} className="h-7 min-w-0 rounded-md border border-line bg-panel px-1.5 text-sm text-ink">
        {items.map((each) => (
          <option key={each.key} value={each.key}>
            {each.name}
          </option>
        ))}
      </select>
      <p className="col-start-2">{template.purpose}</p>
    </div>
  );
}
