import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { object } from 'yup';
import { MIN_PASSWORD, newPassword, setPasswordByLink } from '../../contract/account-contracts.ts';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { Door, DoorProblem, secretOfAddress } from './Door.tsx';

const form = object({ newPassword: newPassword() });

/** A new password by a one-time link. */
export default function NewPassword() {
  const { register, handleSubmit, formState } = useForm({ resolver: yupResolver(form), defaultValues: { newPassword: '' } });
  const [problem, setProblem] = useState<string | null>(null);
  const set = async (values: { newPassword: string }): Promise<void> => {
    try {
      await call(setPasswordByLink, { body: { secret: secretOfAddress(), ...values } });
      location.assign('/sign-in');
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Door title="New password">
      <p className="mb-5 text-sm text-quiet">Everywhere you are signed in now, you are signed out, and your tokens end.</p>
      <form noValidate onSubmit={(event) => void handleSubmit(set)(event)} className="space-y-4">
        <Field label="New password" hint={`${MIN_PASSWORD} characters or more; a few words are fine.`} problem={formState.errors.newPassword?.message}>
          {({ id, describedBy, invalid }) => <input id={id} type="password" autoComplete="new-password" aria-describedby={describedBy} aria-invalid={invalid} className={inputClasses} {...register('newPassword')} />}
        </Field>
        <DoorProblem text={problem} />
        <Button type="submit" look="primary" className="w-full" disabled={formState.isSubmitting}>
          Set the password
        </Button>
      </form>
    </Door>
  );
}
