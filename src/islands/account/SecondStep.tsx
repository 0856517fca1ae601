import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { beginSecondStep, endSecondStep, getSecondStep, offerSecondStep } from '../../contract/account-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { toast } from '../ui/toast.tsx';

/** A code of an authenticator as the second step of signing in. */
export function SecondStep() {
  const client = useQueryClient();
  const state = useQuery({ queryKey: ['second-step'], queryFn: () => call(getSecondStep) });
  const [offer, setOffer] = useState<AnswerOf<typeof offerSecondStep> | null>(null);
  const [recoveryCodes, setRecoveryCodes] = useState<readonly string[]>([]);
  const [password, setPassword] = useState('');
  const [code, setCode] = useState('');
  const done = async (): Promise<void> => {
    setOffer(null);
    setPassword('');
    setCode('');
    await client.invalidateQueries({ queryKey: ['second-step'] });
  };
  const onError = (error: Error): void => toast('problem', error.message);
  const ask = useMutation({ mutationFn: () => call(offerSecondStep), onSuccess: setOffer, onError });
  const begin = useMutation({
    mutationFn: () => call(beginSecondStep, { body: { password, code, secret: offer?.secret ?? '' } }),
    onSuccess: async (answer) => {
      setRecoveryCodes(answer.recoveryCodes);
      await done();
    },
    onError,
  });
  const end = useMutation({
    mutationFn: () => call(endSecondStep, { body: { password, code } }),
    onSuccess: async () => {
      setRecoveryCodes([]);
      await done();
    },
    onError,
  });
  if (!state.data) return null;
  const { isOn } = state.data;
  const fields = (codeLabel: string) => (
    <>
      <Field label="Password now">{({ id }) => <input id={id} type="password" autoComplete="current-password" value={password} onChange={(event) => setPassword(event.target.value)} className={inputClasses} />}</Field>
      <Field label={codeLabel}>{({ id }) => <input id={id} autoComplete="one-time-code" value={code} onChange={(event) => setCode(event.target.value)} className={inputClasses} />}</Field>
    </>
  );
  return (
    <section aria-labelledby="second-step" className="mt-10">
      <h2 id="second-step" className="text-lg font-semibold">
        Second step
      </h2>
      <p className="mt-1 max-w-prose text-sm text-quiet">
        {isOn ? `Signing in asks for a code as well. ${state.data.recoveryCodes} recovery codes are left.` : 'With a code from an authenticator app, a stolen password alone opens nothing.'}
      </p>
      {recoveryCodes.length > 0 && (
        <div role="status" className="mt-3 rounded-md border border-mint bg-mint-soft p-3 text-sm">
          <p className="font-semibold">Keep these recovery codes. They are not shown again, and each works once.</p>
          <ul className="mt-2 grid grid-cols-2 gap-x-6 gap-y-1 font-mono text-sm select-all">
            {recoveryCodes.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </div>
      )}
      {isOn ? (
        <form
          className="mt-3 grid grid-cols-[1fr_1fr_auto] items-end gap-2 max-md:grid-cols-1"
          onSubmit={(event) => {
            event.preventDefault();
            end.mutate();
          }}
        >
          {fields('Code')}
          <Button type="submit" look="stop" disabled={end.isPending || password === '' || code === ''}>
            Switch off
          </Button>
        </form>
      ) : offer ? (
        <form
          className="mt-3 grid grid-cols-[9rem_1fr] items-start gap-5 max-md:grid-cols-1"
          onSubmit={(event) => {
            event.preventDefault();
            begin.mutate();
          }}
        >
          <img src={`data:image/svg+xml;utf8,${encodeURIComponent(offer.picture)}`} alt="QR code for an authenticator" className="size-36 rounded-md bg-white" />
          <div className="space-y-3">
            <p className="text-sm">
              Scan it with an authenticator app, or type <code className="text-xs break-all select-all">{offer.secret}</code>
            </p>
            {fields('The six digits it shows')}
            <div className="flex gap-2">
              <Button type="submit" look="primary" disabled={begin.isPending || password === '' || code === ''}>
                Switch on
              </Button>
              <Button look="quiet" onClick={() => setOffer(null)}>
                Cancel
              </Button>
            </div>
          </div>
        </form>
      ) : (
        <Button className="mt-3" disabled={ask.isPending} onClick={() => ask.mutate()}>
          Add a second step
        </Button>
      )}
    </section>
  );
}
