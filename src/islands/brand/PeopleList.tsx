import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { roleMay, roles, type Role } from '../../core/access/access.ts';
import { addMember, changeMember, listMembers, removeMember } from '../../contract/brand-contracts.ts';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { toast } from '../ui/toast.tsx';
import type { BrandProps } from './use-book.ts';

const roleHints: Readonly<Record<Role, string>> = {
  owner: 'everything, and who is in the brand',
  designer: 'the book, templates, pieces, sending',
  writer: 'pieces and media',
  reviewer: 'looks and signs off',
  viewer: 'looks',
};

/** Who is in the brand and what each may do; owners change it. */
export function PeopleList({ brand }: BrandProps) {
  const client = useQueryClient();
  const people = useQuery({ queryKey: ['people', brand.slug], queryFn: () => call(listMembers, { params: { brand: brand.slug } }) });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['people', brand.slug] });
  const onError = (error: Error): void => toast('problem', error.message);
  const change = useMutation({ mutationFn: ({ id, role }: { readonly id: string; readonly role: Role }) => call(changeMember, { params: { brand: brand.slug, person: id }, body: { role } }), onSuccess: refresh, onError });
  const remove = useMutation({ mutationFn: (id: string) => call(removeMember, { params: { brand: brand.slug, person: id } }), onSuccess: refresh, onError });
  const mayManage = roleMay(brand.role, 'people');
  return (
    <section aria-labelledby="people">
      <h2 id="people" className="mb-2 text-base font-semibold">
        People
      </h2>
      <ul className="border-t border-line">
        {people.data?.people.map((person) => (
          <li key={person.id} className="flex items-center gap-3 border-b border-line py-1.5 text-sm">
            <span className="w-44 truncate font-medium">{person.name}</span>
            {mayManage ? (
              <select aria-label={`Role of ${person.name}`} value={person.role} onChange={(event) => change.mutate({ id: person.id, role: event.target.value as Role })} className="h-7 rounded-md border border-line bg-panel px-1 text-sm">
                {roles.map((role) => (
                  <option key={role} value={role}>
                    {role}
                  </option>
                ))}
              </select>
            ) : (
              <span className="w-20">{person.role}</span>
            )}
            <span className="min-w-0 flex-1 truncate text-xs text-quiet">{roleHints[person.role]}</span>
            {mayManage && (
              <Button look="quiet" size="small" onClick={() => remove.mutate(person.id)}>
                Remove
              </Button>
            )}
          </li>
        ))}
      </ul>
      {mayManage && <AddPerson brand={brand.slug} onAdded={refresh} />}
    </section>
  );
}

function AddPerson({ brand, onAdded }: { readonly brand: string; readonly onAdded: () => Promise<void> }) {
  const form = useForm({ resolver: yupResolver(addMember.body), defaultValues: { name: '', email: '', role: 'writer' as Role } });
  const [password, setPassword] = useState<{ readonly name: string; readonly password: string } | null>(null);
  const add = useMutation({
    mutationFn: (body: { name: string; email: string; role: Role }) => call(addMember, { params: { brand }, body }),
    onSuccess: async (answer) => {
      setPassword(answer.password === null ? null : { name: answer.person.name, password: answer.password });
      form.reset();
      await onAdded();
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <>
      <form noValidate onSubmit={(event) => void form.handleSubmit((values) => add.mutate(values))(event)} className="mt-3 grid grid-cols-[1fr_1fr_7rem_auto] items-start gap-2">
        <Field label="Name" problem={form.formState.errors.name?.message}>
          {({ id, describedBy, invalid }) => <input id={id} aria-describedby={describedBy} aria-invalid={invalid} className={inputClasses} {...form.register('name')} />}
        </Field>
        <Field label="Email" problem={form.formState.errors.email?.message}>
          {({ id, describedBy, invalid }) => <input id={id} type="email" aria-describedby={describedBy} aria-invalid={invalid} className={inputClasses} {...form.register('email')} />}
        </Field>
        <Field label="Role">
          {({ id }) => (
            <select id={id} className={inputClasses} {...form.register('role')}>
              {roles.map((role) => (
                <option key={role} value={role}>
                  {role}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Button type="submit" className="mt-6" disabled={add.isPending}>
          Add
        </Button>
      </form>
      {password && (
        <p role="status" className="mt-2 rounded-md bg-mint-soft px-3 py-2 text-sm">
          {password.name} signs in with this password, shown only now: <code className="font-semibold select-all">{password.password}</code>
        </p>
      )}
    </>
  );
}
