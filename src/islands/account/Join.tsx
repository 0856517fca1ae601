import { yupResolver } from '@hookform/resolvers/yup';
import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { acceptInvitation, MIN_PASSWORD, newcomer, readInvitation } from '../../contract/account-contracts.ts';
import type { AnswerOf, BodyOf } from '../../contract/contract.ts';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { Door, DoorProblem, secretOfAddress } from './Door.tsx';

type Invitation = AnswerOf<typeof readInvitation>;

/** Joining a brand by an invitation: as who is signed in, or as somebody new. */
export default function Join({ signedInAs }: { readonly signedInAs: string | null }) {
  const [invitation, setInvitation] = useState<Invitation | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    call(readInvitation, { body: { secret: secretOfAddress() } }).then(setInvitation, (error: Error) => setProblem(error.message));
  }, []);
  const accept = async (body: BodyOf<typeof acceptInvitation>): Promise<void> => {
    try {
      const { slug } = await call(acceptInvitation, { body });
      location.assign(`/b/${slug}/make/pieces`);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  if (!invitation) {
    return (
      <Door title="Join a brand">
        {problem === null ? <p className="text-sm text-quiet">Reading the invitation…</p> : <DoorProblem text={problem} />}
      </Door>
    );
  }
  return (
    <Door title={`Join ${invitation.brandName}`}>
      <p className="mb-5 text-sm text-quiet">
        {invitation.madeBy} invites you as {invitation.role}.
      </p>
      {signedInAs === null ? (
        <Newcomer email={invitation.email} onAccept={(values) => accept({ secret: secretOfAddress(), newcomer: values })} problem={problem} />
      ) : (
        <div className="space-y-4">
          <p className="text-sm">
            You are signed in as <span className="font-semibold">{signedInAs}</span>.
          </p>
          <DoorProblem text={problem} />
          <Button look="primary" className="w-full" onClick={() => void accept({ secret: secretOfAddress() })}>
            Join
          </Button>
        </div>
      )}
    </Door>
  );
}

interface NewcomerProps {
  readonly email: string;
  readonly onAccept: (values: { name: string; email: string; newPassword: string }) => Promise<void>;
  readonly problem: string | null;
}

function Newcomer({ email, onAccept, problem }: NewcomerProps) {
  const { register, handleSubmit, formState } = useForm({ resolver: yupResolver(newcomer), defaultValues: { name: '', email, newPassword: '' } });
  return (
    <form noValidate onSubmit={(event) => void handleSubmit(onAccept)(event)} className="space-y-4">
      <Field label="Your name" problem={formState.errors.name?.message}>
        {({ id, describedBy, invalid }) => <input id={id} autoComplete="name" aria-describedby={describedBy} aria-invalid={invalid} className={inputClasses} {...register('name')} />}
      </Field>
      <Field label="Email" problem={formState.errors.email?.message}>
        {({ id, describedBy, invalid }) => <input id={id} type="email" autoComplete="username" aria-describedby={describedBy} aria-invalid={invalid} className={inputClasses} {...register('email')} />}
      </Field>
      <Field label="Password" hint={`${MIN_PASSWORD} characters or more; a few words are fine.`} problem={formState.errors.newPassword?.message}>
        {({ id, describedBy, invalid }) => <input id={id} type="password" autoComplete="new-password" aria-describedby={describedBy} aria-invalid={invalid} className={inputClasses} {...register('newPassword')} />}
      </Field>
      <DoorProblem text={problem} />
      <Button type="submit" look="primary" className="w-full" disabled={formState.isSubmitting}>
        Join
      </Button>
      <p className="text-sm text-quiet">
        You have an account?{' '}
        <a href="/sign-in" className="text-house underline">
          Sign in
        </a>
        , then open this link again.
      </p>
    </form>
  );
}
