import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { roleMay, roles, type Role } from '../../core/access/access.ts';
import { changeMember, endInvitation, invite, listInvitations, listMembers, removeMember } from '../../contract/brand-contracts.ts';
import { call } from '../ui/call.ts';
import { bodyResolver } from '../ui/body-resolver.ts';
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
      {mayManage && <Invitations brand={brand.slug} />}
    </section>
  );
}

function Invitations({ brand }: { readonly brand: string }) {
  const client = useQueryClient();
  const open = useQuery({ queryKey: ['invitations', brand], queryFn: () => call(listInvitations, { params: { brand } }) });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['invitations', brand] });
  const form = useForm({ resolver: bodyResolver(invite), defaultValues: { email: '', role: 'writer' as Role } });
  const [fresh, setFresh] = useState<{ readonly email: string; readonly address: string } | null>(null);
  const onError = (error: Error): void => toast('problem', error.message);
  const add = useMutation({
    mutationFn: (body: { email: string; role: Role }) => call(invite, { params: { brand }, body }),
    onSuccess: async ({ invitation, path }) => {
      setFresh({ email: invitation.email, address: `${location.origin}${path}` });
      form.reset();
      await refresh();
    },
    onError,
  });
  const end = useMutation({ mutationFn: (invitation: string) => call(endInvitation, { params: { brand, invitation } }), onSuccess: refresh, onError });
  const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' });
  return (
    <>
      <form noValidate onSubmit={(event) => void form.handleSubmit((values) => add.mutate(values))(event)} className="mt-3 grid grid-cols-[1fr_8rem_auto] items-start gap-2">
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
          Invite
        </Button>
      </form>
      {fresh && (
        <div role="status" className="mt-2 rounded-md bg-mint-soft px-3 py-2 text-sm">
          <p>Send this link to {fresh.email} yourself. It works once, for a week, and is shown only now.</p>
          <div className="mt-1.5 flex items-center gap-2">
            <code className="min-w-0 flex-1 truncate rounded-md bg-panel px-2 py-1 text-xs select-all">{fresh.address}</code>
            <Button size="small" onClick={() => void navigator.clipboard.writeText(fresh.address).then(() => toast('done', 'Copied.'))}>
              Copy
            </Button>
          </div>
        </div>
      )}
      {open.data && open.data.invitations.length > 0 && (
        <ul aria-label="Open invitations" className="mt-3 border-t border-line">
          {open.data.invitations.map((invitation) => (
            <li key={invitation.id} className="flex items-center gap-3 border-b border-line py-1.5 text-sm">
              <span className="min-w-0 flex-1 truncate">{invitation.email}</span>
              <span className="text-xs text-quiet">
                invited as {invitation.role}, until {day.format(invitation.expiresMs)}
              </span>
              <Button look="quiet" size="small" onClick={() => end.mutate(invitation.id)}>
                Cancel
              </Button>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
