import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import Copy from 'lucide-react/icons/copy';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { createToken, listTokens, revokeToken, tokenDays } from '../../contract/account-contracts.ts';
import type { BodyOf } from '../../contract/contract.ts';
import type { TokenScope } from '../../core/access/access.ts';
import { call } from '../ui/call.ts';
import { bodyResolver } from '../ui/body-resolver.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { toast } from '../ui/toast.tsx';

const scopeWords: Readonly<Record<TokenScope, string>> = { read: 'look', make: 'look and make', send: 'look, make and send' };

/** Tokens for scripts, each with what it may do and an end. */
export function Tokens() {
  const client = useQueryClient();
  const tokens = useQuery({ queryKey: ['tokens'], queryFn: () => call(listTokens) });
  const [fresh, setFresh] = useState<string | null>(null);
  const form = useForm({ resolver: bodyResolver(createToken), defaultValues: { name: '', scope: 'make' as TokenScope, days: 90 } });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['tokens'] });
  const create = useMutation({
    mutationFn: (body: BodyOf<typeof createToken>) => call(createToken, { body }),
    onSuccess: async ({ token }) => {
      setFresh(token);
      form.reset();
      await refresh();
    },
    onError: (error) => toast('problem', error.message),
  });
  const revoke = useMutation({ mutationFn: (token: string) => call(revokeToken, { params: { token } }), onSuccess: refresh, onError: (error) => toast('problem', error.message) });
  const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: 'UTC' });
  return (
    <section aria-labelledby="tokens" className="mt-10">
      <h2 id="tokens" className="text-lg font-semibold">
        Access tokens
      </h2>
      <p className="mt-1 max-w-prose text-sm text-quiet">
        A token lets a script do what you may do, as far as it reaches. It is shown once, here, when it is made. The endpoints are described at{' '}
        <a href="/api/openapi.json" className="text-house underline">
          /api/openapi.json
        </a>
        .
      </p>
      <form noValidate onSubmit={(event) => void form.handleSubmit((values) => create.mutate(values))(event)} className="mt-4 grid grid-cols-[1fr_11rem_7rem_auto] items-end gap-2 max-md:grid-cols-2">
        <Field label="What is it for?" problem={form.formState.errors.name?.message}>
          {({ id, describedBy, invalid }) => <input id={id} aria-describedby={describedBy} aria-invalid={invalid} placeholder="e.g. nightly import" className={inputClasses} {...form.register('name')} />}
        </Field>
        <Field label="May">
          {({ id }) => (
            <select id={id} className={inputClasses} {...form.register('scope')}>
              {Object.entries(scopeWords).map(([scope, words]) => (
                <option key={scope} value={scope}>
                  {words}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Lasts">
          {({ id }) => (
            <select id={id} className={inputClasses} {...form.register('days', { valueAsNumber: true })}>
              {tokenDays.map((days) => (
                <option key={days} value={days}>
                  {days} days
                </option>
              ))}
            </select>
          )}
        </Field>
        <Button type="submit" look="primary" disabled={create.isPending}>
          Make a token
        </Button>
      </form>
      {fresh && (
        <div className="mt-4 rounded-md border border-mint bg-mint-soft p-3">
          <p className="text-sm font-semibold">Copy it now: it is not shown again.</p>
          <div className="mt-1.5 flex items-center gap-2">
            <code data-testid="fresh-token" className="min-w-0 flex-1 truncate rounded-md bg-panel px-2 py-1 text-sm">
              {fresh}
            </code>
            <Button onClick={() => void navigator.clipboard.writeText(fresh).then(() => toast('done', 'Copied.'))}>
              <Copy aria-hidden className="size-4" />
              Copy
            </Button>
          </div>
        </div>
      )}
      <ul className="mt-5 border-t border-line">
        {tokens.data?.tokens.map((token) => (
          <li key={token.id} className="flex items-center justify-between gap-4 border-b border-line py-2">
            <span className="min-w-0 flex-1">
              <span className="block truncate font-medium">{token.name}</span>
              <span className="block text-xs text-quiet">
                may {scopeWords[token.scope]}, until {day.format(token.expiresMs)}; {token.lastUsedMs === null ? 'never used' : `last used ${day.format(token.lastUsedMs)}`}
              </span>
            </span>
            <Button look="stop" onClick={() => revoke.mutate(token.id)}>
              Revoke
            </Button>
          </li>
        ))}
        {tokens.data?.tokens.length === 0 && <li className="py-3 text-sm text-quiet">No tokens yet.</li>}
      </ul>
    </section>
  );
}
