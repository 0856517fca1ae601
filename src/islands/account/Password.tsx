import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { changePassword, MIN_PASSWORD } from '../../contract/account-contracts.ts';
import type { BodyOf } from '../../contract/contract.ts';
import { call } from '../ui/call.ts';
import { bodyResolver } from '../ui/body-resolver.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { toast } from '../ui/toast.tsx';

/** Changing the password: whoever else had an access loses it. */
export function Password() {
  const client = useQueryClient();
  const form = useForm({ resolver: bodyResolver(changePassword), defaultValues: { password: '', newPassword: '' } });
  const change = useMutation({
    mutationFn: (body: BodyOf<typeof changePassword>) => call(changePassword, { body }),
    onSuccess: async () => {
      form.reset();
      toast('done', 'The password is changed. Other sessions and all tokens have ended.');
      await client.invalidateQueries();
    },
    onError: (error) => form.setError('password', { message: error.message }),
  });
  return (
    <section aria-labelledby="password" className="mt-8">
      <h2 id="password" className="text-lg font-semibold">
        Password
      </h2>
      <p className="mt-1 text-sm text-quiet">A new password ends all other sessions and all tokens.</p>
      <form noValidate onSubmit={(event) => void form.handleSubmit((values) => change.mutate(values))(event)} className="mt-3 grid grid-cols-[1fr_1fr_auto] items-start gap-2 max-md:grid-cols-1">
        <Field label="Password now" problem={form.formState.errors.password?.message}>
          {({ id, describedBy, invalid }) => <input id={id} type="password" autoComplete="current-password" aria-describedby={describedBy} aria-invalid={invalid} className={inputClasses} {...form.register('password')} />}
        </Field>
        <Field label="New password" hint={`${MIN_PASSWORD} characters or more`} problem={form.formState.errors.newPassword?.message}>
          {({ id, describedBy, invalid }) => <input id={id} type="password" autoComplete="new-password" aria-describedby={describedBy} aria-invalid={invalid} className={inputClasses} {...form.register('newPassword')} />}
        </Field>
        <Button type="submit" className="mt-6 max-md:mt-0" disabled={change.isPending}>
          Change
        </Button>
      </form>
    </section>
  );
}
