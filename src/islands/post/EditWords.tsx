import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { changeDeliveryWords, getDeliveryWords } from '../../contract/send-contracts.ts';
import type { AnswerOf, BodyOf } from '../../contract/contract.ts';
import { buttonClasses } from '../ui/Button.tsx';
import { call } from '../ui/call.ts';
import { DialogActions } from '../ui/DialogActions.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { toast } from '../ui/toast.tsx';

/** Edits the words of one scheduled post on one channel, without cancelling it and without touching its piece. */
export function EditWords({ brand, deliveryId }: { readonly brand: string; readonly deliveryId: string }) {
  return (
    <DialogTrigger>
      <AriaButton className={buttonClasses('plain')}>Edit words</AriaButton>
      <Popover placement="bottom end" className="shadow-float max-h-[70vh] w-[28rem] max-w-[calc(100vw-1rem)] overflow-auto rounded-md border border-line bg-panel p-4">
        <Dialog aria-label="Edit the words of this post" className="outline-none">
          {({ close }) => <Loader brand={brand} deliveryId={deliveryId} onClose={close} />}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}

function Loader({ brand, deliveryId, onClose }: { readonly brand: string; readonly deliveryId: string; readonly onClose: () => void }) {
  const words = useQuery({ queryKey: ['delivery-words', brand, deliveryId], queryFn: () => call(getDeliveryWords, { params: { brand, delivery: deliveryId } }), gcTime: 0 });
  if (words.isError) return <p className="text-sm text-coral-ink">{words.error.message}</p>;
  return words.data ? <Form brand={brand} deliveryId={deliveryId} fields={words.data.fields} onClose={onClose} /> : <p className="text-sm text-quiet">Loading…</p>;
}

function Form({ brand, deliveryId, fields, onClose }: { readonly brand: string; readonly deliveryId: string; readonly fields: AnswerOf<typeof getDeliveryWords>['fields']; readonly onClose: () => void }) {
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(() => Object.fromEntries(fields.map(({ key, text }) => [key, text])));
  const changed = Object.fromEntries(fields.filter(({ key, text }) => texts[key] !== text).map(({ key }) => [key, texts[key] ?? '']));
  const save = useMutation({
    mutationFn: () => call(changeDeliveryWords, { params: { brand, delivery: deliveryId }, body: { words: changed } as BodyOf<typeof changeDeliveryWords> }),
    onSuccess: () => {
      toast('done', 'This post has these words now. Its piece stays as it is.');
      onClose();
    },
  });
  return (
    <div className="space-y-3">
      <p className="text-xs text-quiet">Only this post on this channel changes. Refreshing it from its piece takes the piece’s words again.</p>
      {fields.map(({ key, label, max }) => (
        <Field key={key} label={label} hint={max === null ? undefined : `At most ${max}`}>
          {({ id, describedBy }) =>
            key === 'caption' || key === 'firstComment' ? (
              <textarea id={id} aria-describedby={describedBy} rows={key === 'caption' ? 6 : 3} value={texts[key] ?? ''} onChange={(event) => setTexts((now) => ({ ...now, [key]: event.target.value }))} className={inputClasses} />
            ) : (
              <input id={id} aria-describedby={describedBy} value={texts[key] ?? ''} onChange={(event) => setTexts((now) => ({ ...now, [key]: event.target.value }))} className={inputClasses} />
            )
          }
        </Field>
      ))}
      {save.error && (
        <p role="alert" className="text-sm text-coral-ink">
          {save.error.message}
        </p>
      )}
      <DialogActions keepLabel="Close" onKeep={onClose} label="Save" look="primary" isDisabled={save.isPending || Object.keys(changed).length === 0} onConfirm={() => save.mutate()} />
    </div>
  );
}
