import type { Role } from '../../core/access/access.ts';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { pickPerson, signIn } from '../../contract/account-contracts.ts';
import { ApiProblem, call } from '../ui/call.ts';
import { bodyResolver } from '../ui/body-resolver.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { UntilReady } from '../ui/UntilReady.tsx';

interface PickablePerson {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  readonly brand: string;
}

/** Signing in; in the demo a person can be picked instead. */
export default function SignIn({ people, next }: { readonly people: readonly PickablePerson[]; readonly next: string }) {
  const [problem, setProblem] = useState<string | null>(null);
  const [needsCode, setNeedsCode] = useState(false);
  const { register, handleSubmit, formState } = useForm({ resolver: bodyResolver(signIn), defaultValues: { email: '', password: '' } });
  const enter = async (attempt: () => Promise<unknown>): Promise<void> => {
    try {
      await attempt();
      location.assign(next);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      // A code is the second step, no failure.
      const isFirstAsked = error.code === 'code-needed' && !needsCode;
      if (error.code === 'code-needed') setNeedsCode(true);
      setProblem(isFirstAsked ? null : error.message);
    }
  };
  const brands = [...new Set(people.map((person) => person.brand))];
  return (
    <main className="grid min-h-0 flex-1 overflow-auto lg:grid-cols-[minmax(22rem,5fr)_7fr]">
      <UntilReady>
        <div className="flex flex-col justify-center bg-panel px-10 py-12 lg:px-16">
          <div className="w-full max-w-80">
            <div className="mb-8 flex items-center gap-2.5">
              <img src="/mark.svg" alt="" className="size-9" />
              <h1 className="text-2xl font-bold">Confetti</h1>
            </div>
            <form noValidate onSubmit={(event) => void handleSubmit((values) => enter(() => call(signIn, { body: values })))(event)} className="space-y-4">
              <Field label="Email" problem={formState.errors.email?.message}>
                {({ id, describedBy, invalid }) => <input id={id} type="email" autoComplete="username" aria-describedby={describedBy} aria-invalid={invalid} className={inputClasses} {...register('email')} />}
              </Field>
              <Field label="Password" problem={formState.errors.password?.message}>
                {({ id, describedBy, invalid }) => <input id={id} type="password" autoComplete="current-password" aria-describedby={describedBy} aria-invalid={invalid} className={inputClasses} {...register('password')} />}
              </Field>
              {needsCode && (
                <Field label="Code" hint="The six digits that your authenticator shows, or a recovery code.">
                  {({ id, describedBy }) => <input id={id} autoFocus autoComplete="one-time-code" aria-describedby={describedBy} className={inputClasses} {...register('code')} />}
                </Field>
              )}
              {problem && (
                <p role="alert" className="text-sm font-medium text-coral-ink">
                  {problem}
                </p>
              )}
              <Button type="submit" look="primary" className="w-full" disabled={formState.isSubmitting}>
                Sign in
              </Button>
            </form>
          </div>
        </div>
        <div className="flex flex-col justify-center px-10 py-12 lg:px-16">
          {people.length === 0 ? (
            <p className="max-w-md font-heading text-3xl leading-tight font-semibold">Write it once, see it everywhere, and know why it goes out right.</p>
          ) : (
            <div className="max-w-xl">
              <h2 className="text-xl font-semibold">This is the demo: come in as</h2>
              {brands.map((brand) => (
                <section key={brand} aria-label={brand} className="mt-6">
                  <h3 className="mb-1 text-sm font-semibold text-quiet">{brand}</h3>
                  <ul className="border-t border-line">
                    {people
                      .filter((person) => person.brand === brand)
                      .map((person) => (
                        <li key={person.id} className="border-b border-line">
                          <button type="button" onClick={() => void enter(() => call(pickPerson, { body: { personId: person.id } }))} className="flex w-full items-baseline justify-between gap-4 px-1 py-2.5 text-left hover:bg-panel">
                            <span className="text-base font-medium">{person.name}</span>
                            <span className="text-sm text-quiet">{person.role}</span>
                          </button>
                        </li>
                      ))}
                  </ul>
                </section>
              ))}
            </div>
          )}
        </div>
      </UntilReady>
    </main>
  );
}
