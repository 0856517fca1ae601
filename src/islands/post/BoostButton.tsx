import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { keepBoost } from '../../contract/outbox-contracts.ts';
import { buttonClasses } from '../ui/Button.tsx';
import { call } from '../ui/call.ts';
import { DialogActions } from '../ui/DialogActions.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { toast } from '../ui/toast.tsx';

/** Notes a paid boost with a post: a person sets it up on the network, Confetti reminds them. */
export function BoostButton({ brand, postId }: { readonly brand: { readonly slug: string }; readonly postId: string }) {
  const [budget, setBudget] = useState('');
  const [currency, setCurrency] = useState('EUR');
  const [days, setDays] = useState('3');
  const [audience, setAudience] = useState('');
  const [aim, setAim] = useState('');
  const keep = useMutation({
    mutationFn: () => call(keepBoost, { params: { brand: brand.slug, post: postId }, body: { budget: Number(budget), currency, days: Number(days), audience, aim } }),
    onSuccess: () => toast('done', 'The boost is noted. By hand reminds you once the post is out.'),
  });
  return (
    <DialogTrigger>
      <AriaButton className={buttonClasses('plain', 'small')}>Boost…</AriaButton>
      <Popover placement="bottom end" className="shadow-float w-96 max-w-[calc(100vw-1rem)] rounded-md border border-line bg-panel p-4">
        <Dialog aria-label="Plan a boost" className="outline-none">
          {({ close }) => (
            <div className="space-y-3">
              <p className="text-sm">Confetti moves no money: you set the boost up on the network, and are reminded of it.</p>
              <div className="grid grid-cols-3 gap-2">
                <Field label="Budget">{({ id }) => <input id={id} type="number" min={1} value={budget} onChange={(event) => setBudget(event.target.value)} className={inputClasses} />}</Field>
                <Field label="Currency">{({ id }) => <input id={id} value={currency} maxLength={3} onChange={(event) => setCurrency(event.target.value.toUpperCase())} className={inputClasses} />}</Field>
                <Field label="Days">{({ id }) => <input id={id} type="number" min={1} max={90} value={days} onChange={(event) => setDays(event.target.value)} className={inputClasses} />}</Field>
              </div>
              <Field label="Audience">{({ id }) => <input id={id} value={audience} maxLength={300} onChange={(event) => setAudience(event.target.value)} className={inputClasses} />}</Field>
              <Field label="Aim">{({ id }) => <input id={id} value={aim} maxLength={300} onChange={(event) => setAim(event.target.value)} className={inputClasses} />}</Field>
              {keep.error && (
                <p role="alert" className="text-sm text-coral-ink">
                  {keep.error.message}
                </p>
              )}
              <DialogActions keepLabel="Close" onKeep={close} label="Note the boost" look="primary" isDisabled={budget === '' || keep.isPending} onConfirm={() => keep.mutate(undefined, { onSuccess: close })} />
            </div>
          )}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
