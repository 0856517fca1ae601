import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useRef, useState } from 'react';
import { beginFromBoilerplate, listBoilerplates, removeBoilerplate } from '../../contract/begin-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { roleMay } from '../../core/access/access.ts';
import type { IdeasBrand } from '../ideas/ideas-context.ts';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { ModalFrame } from '../ui/ModalFrame.tsx';
import { toast } from '../ui/toast.tsx';
import { weekdayNames } from '../ui/weekdays.ts';

type Boilerplate = AnswerOf<typeof listBoilerplates>['items'][number];

/** Begins a piece from a boilerplate: what it asks for stands in one form. */
export function BeginDialog({ brand, onClose }: { readonly brand: IdeasBrand; readonly onClose: () => void }) {
  const [chosen, setChosen] = useState<Boilerplate | null>(null);
  const client = useQueryClient();
  const all = useQuery({ queryKey: ['boilerplates', brand.slug], queryFn: () => call(listBoilerplates, { params: { brand: brand.slug } }) });
  const remove = useMutation({ mutationFn: (id: string) => call(removeBoilerplate, { params: { brand: brand.slug, boilerplate: id } }), onSuccess: () => client.invalidateQueries({ queryKey: ['boilerplates', brand.slug] }), onError: (error) => toast('problem', error.message) });
  if (chosen) return <Asked brand={brand} boilerplate={chosen} onBack={() => setChosen(null)} onClose={onClose} />;
  return (
    <ModalFrame title="Begin from a boilerplate" onClose={onClose}>
      {all.data?.items.length === 0 && <p className="text-sm text-quiet">There is none yet. Open a piece’s menu in Make › Pieces and choose “Save as boilerplate”. Write what changes each time in brackets, [like this]: it is asked for then.</p>}
      <ul>
        {all.data?.items.map((each) => (
          <li key={each.id} className="flex items-center gap-2 border-b border-line py-1.5">
            <button type="button" onClick={() => setChosen(each)} className="min-w-0 flex-1 text-left text-sm hover:text-house">
              <span className="block truncate font-semibold">{each.name}</span>
              <span className="block truncate text-xs text-quiet">
                {each.kind}
                {each.asks.length > 0 ? `, asks for ${each.asks.join(', ')}` : ''}
                {each.usual ? `, ${weekdayNames[each.usual.weekday - 1] ?? ''}s ${each.usual.time}` : ''}
              </span>
            </button>
            <Button size="small" look="quiet" aria-label={`Remove ${each.name}`} onClick={() => remove.mutate(each.id)}>
              Remove
            </Button>
          </li>
        ))}
      </ul>
    </ModalFrame>
  );
}

function Asked({ brand, boilerplate, onBack, onClose }: { readonly brand: IdeasBrand; readonly boilerplate: Boilerplate; readonly onBack: () => void; readonly onClose: () => void }) {
  const [values, setValues] = useState<Readonly<Record<string, string>>>({});
  const [isPlanned, setPlanned] = useState(boilerplate.usual !== null && roleMay(brand.role, 'send'));
  const request = useRef(nanoid(16));
  const begin = useMutation({
    mutationFn: () => call(beginFromBoilerplate, { params: { brand: brand.slug, boilerplate: boilerplate.id }, body: { request: request.current, values: boilerplate.asks.map((name) => ({ name, value: values[name] ?? '' })), plan: isPlanned } }),
    onSuccess: ({ pieceId }) => location.assign(`/b/${brand.slug}/make/pieces/${pieceId}`),
    onError: (error) => toast('problem', error.message),
  });
  return (
    <ModalFrame title={boilerplate.name} onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          begin.mutate();
        }}
      >
        {boilerplate.asks.map((name, index) => (
          <Field key={name} label={name.charAt(0).toUpperCase() + name.slice(1)}>
            {({ id }) => <input id={id} autoFocus={index === 0} value={values[name] ?? ''} onChange={(event) => setValues({ ...values, [name]: event.target.value })} className={inputClasses} />}
          </Field>
        ))}
        {boilerplate.asks.length === 0 && <p className="text-sm text-quiet">It asks for nothing.</p>}
        {boilerplate.usual && roleMay(brand.role, 'send') && (
          <label className="flex items-center gap-2 text-sm">
            <input type="checkbox" checked={isPlanned} onChange={(event) => setPlanned(event.target.checked)} className="size-4 accent-house" />
            Put it into the plan as a draft, next {weekdayNames[boilerplate.usual.weekday - 1]} at {boilerplate.usual.time}
          </label>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onBack}>Back</Button>
          <Button type="submit" look="primary" disabled={begin.isPending}>
            Begin
          </Button>
        </div>
      </form>
    </ModalFrame>
  );
}
