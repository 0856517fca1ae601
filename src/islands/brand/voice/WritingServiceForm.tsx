import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { getWritingService, removeWritingService, saveWritingService } from '../../../contract/word-contracts.ts';
import { roleMay } from '../../../core/access/access.ts';
import { Button } from '../../ui/Button.tsx';
import { call } from '../../ui/call.ts';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { toast } from '../../ui/toast.tsx';
import type { BrandProps } from '../use-book.ts';

const EXAMPLE_BODY = '{\n  "instructions": "{{instructions}}",\n  "sources": "{{sources}}",\n  "text": "{{text}}",\n  "count": {{versions}}\n}';

/** A writing service beside the desk: where it is, what is sent, where its answer stands. Off until an owner agrees. */
export function WritingServiceForm({ brand }: { readonly brand: BrandProps['brand'] }) {
  const client = useQueryClient();
  const service = useQuery({ queryKey: ['writing-service', brand.slug], queryFn: () => call(getWritingService, { params: { brand: brand.slug } }) });
  const [isOpen, setOpen] = useState(false);
  if (!roleMay(brand.role, 'people') || !service.data) return null;
  const kept = service.data.service;
  const done = async (): Promise<void> => {
    await client.invalidateQueries({ queryKey: ['writing-service', brand.slug] });
    setOpen(false);
  };
  return (
    <section aria-labelledby="writing-service" className="md:col-span-2">
      <h2 id="writing-service" className="text-base font-semibold">
        Writing service
      </h2>
      <p className="mb-2 max-w-prose text-xs text-quiet">
        The desk writes without any service. If you have one of your own, it can be asked as well; whatever it writes is held against the sources like everything else. Texts then leave Confetti.
      </p>
      {kept && !isOpen && (
        <p className="text-sm">
          {kept.isOn ? 'On' : 'Off'}: {kept.address} <span className="text-quiet">(agreed by {kept.agreedBy})</span>
        </p>
      )}
      {isOpen ? (
        <ServiceFields brand={brand} kept={kept} onDone={done} onCancel={() => setOpen(false)} />
      ) : (
        <Button className="mt-2" onClick={() => setOpen(true)}>
          {kept ? 'Change' : 'Set up a service'}
        </Button>
      )}
    </section>
  );
}

interface FieldsProps {
  readonly brand: BrandProps['brand'];
  readonly kept: { readonly address: string; readonly body: string; readonly answerPath: string; readonly isOn: boolean; readonly headers: readonly string[] } | null;
  readonly onDone: () => Promise<void>;
  readonly onCancel: () => void;
}

function ServiceFields({ brand, kept, onDone, onCancel }: FieldsProps) {
  const [address, setAddress] = useState(kept?.address ?? '');
  const [headers, setHeaders] = useState<readonly { name: string; value: string }[]>(kept?.headers.map((name) => ({ name, value: '' })) ?? [{ name: 'Authorization', value: '' }]);
  const [body, setBody] = useState(kept?.body ?? EXAMPLE_BODY);
  const [answerPath, setAnswerPath] = useState(kept?.answerPath ?? 'text');
  const [isOn, setOn] = useState(kept?.isOn ?? true);
  const [agrees, setAgrees] = useState(false);
  const save = useMutation({
    mutationFn: () => call(saveWritingService, { params: { brand: brand.slug }, body: { address: address.trim(), headers: headers.filter(({ name }) => name.trim() !== '').map(({ name, value }) => ({ name: name.trim(), value })), body, answerPath: answerPath.trim(), isOn, agrees: agrees as true } }),
    onSuccess: onDone,
    onError: (error) => toast('problem', error.message),
  });
  const remove = useMutation({ mutationFn: () => call(removeWritingService, { params: { brand: brand.slug } }), onSuccess: onDone, onError: (error) => toast('problem', error.message) });
  const setHeader = (index: number, next: Partial<{ name: string; value: string }>): void => setHeaders(headers.map((header, at) => (at === index ? { ...header, ...next } : header)));
  return (
    <form
      className="max-w-2xl space-y-3"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <Field label="Address" hint="It gets a POST with JSON.">
        {({ id, describedBy }) => <input id={id} aria-describedby={describedBy} type="url" required value={address} onChange={(event) => setAddress(event.target.value)} className={inputClasses} />}
      </Field>
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">Headers</legend>
        {headers.map((header, index) => (
          <div key={index} className="mb-1 grid grid-cols-[12rem_1fr] gap-2">
            <input aria-label={`Name of header ${index + 1}`} value={header.name} onChange={(event) => setHeader(index, { name: event.target.value })} className={inputClasses} />
            <input aria-label={`Value of header ${index + 1}`} type="password" autoComplete="off" value={header.value} placeholder={kept?.headers.includes(header.name) ? 'stays as it is' : ''} onChange={(event) => setHeader(index, { value: event.target.value })} className={inputClasses} />
          </div>
        ))}
        <Button size="small" onClick={() => setHeaders([...headers, { name: '', value: '' }])}>
          Add a header
        </Button>
      </fieldset>
      <Field label="Body" hint="JSON with places: {{instructions}}, {{sources}}, {{text}} in quotes; {{versions}} is a number.">
        {({ id, describedBy }) => <textarea id={id} aria-describedby={describedBy} rows={7} required value={body} onChange={(event) => setBody(event.target.value)} className={`${inputClasses} font-mono text-xs`} />}
      </Field>
      <Field label="Path of the answer" hint="Where the text stands in the answer: text, or choices.*.text; * takes every item of a list.">
        {({ id, describedBy }) => <input id={id} aria-describedby={describedBy} required value={answerPath} onChange={(event) => setAnswerPath(event.target.value)} className={inputClasses} />}
      </Field>
      <label className="flex items-center gap-2 text-sm">
        <input type="checkbox" className="size-6" checked={isOn} onChange={(event) => setOn(event.target.checked)} />
        Offer it on the writing desk
      </label>
      <label className="flex items-start gap-2 text-sm">
        <input type="checkbox" checked={agrees} onChange={(event) => setAgrees(event.target.checked)} className="size-6 shrink-0" />
        <span>I agree that texts of pieces, facts and articles are sent to this address when somebody asks it.</span>
      </label>
      <div className="flex gap-2">
        <Button look="primary" type="submit" disabled={!agrees || save.isPending}>
          Save
        </Button>
        <Button onClick={onCancel}>Cancel</Button>
        {kept && (
          <Button look="stop" className="ml-auto" onClick={() => remove.mutate()}>
            Remove
          </Button>
        )}
      </div>
    </form>
  );
}
