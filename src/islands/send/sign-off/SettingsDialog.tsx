import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { getPlan } from '../../../contract/plan-contracts.ts';
import { getSettings, keepSettings } from '../../../contract/review-contracts.ts';
import type { SendSettings } from '../../../core/post/send-settings.ts';
import type { SignOff } from '../../../core/post/sign-off.ts';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { toast } from '../../ui/toast.tsx';
import type { SignOffBrand } from './SignOffView.tsx';

const choices = [
  ['0', 'Nobody'],
  ['1', 'One person'],
  ['2', 'Two people'],
] as const;

/** Who approves, by brand and by theme; and what becomes of posts that were missed. */
export function SettingsDialog({ brand, onClose }: { readonly brand: SignOffBrand; readonly onClose: () => void }) {
  const params = { brand: brand.slug };
  const kept = useQuery({ queryKey: ['send-settings', brand.slug], queryFn: () => call(getSettings, { params }) });
  return (
    <ModalFrame title="Who approves" onClose={onClose}>
      {kept.data ? <Form brand={brand} kept={kept.data.settings} onClose={onClose} /> : <p className="text-sm text-quiet">{kept.error?.message ?? 'One moment…'}</p>}
    </ModalFrame>
  );
}

function Form({ brand, kept, onClose }: { readonly brand: SignOffBrand; readonly kept: SendSettings; readonly onClose: () => void }) {
  const client = useQueryClient();
  const params = { brand: brand.slug };
  const [settings, setSettings] = useState(kept);
  const plan = useQuery({ queryKey: ['plan', brand.slug, 'document'], queryFn: () => call(getPlan, { params }) });
  const save = useMutation({
    mutationFn: () => call(keepSettings, { params, body: settings as never }),
    onSuccess: () => {
      toast('done', 'Posts that are scheduled from now on follow this.');
      void client.invalidateQueries({ queryKey: ['send-settings', brand.slug] });
      onClose();
    },
  });
  const setTheme = (id: string, value: string): void => {
    const { [id]: _, ...themes } = settings.themes;
    setSettings({ ...settings, themes: value === '' ? themes : { ...themes, [id]: Number(value) as SignOff } });
  };
  const themes = plan.data?.plan.themes ?? [];
  return (
    <form
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <SelectField label="Before a post goes out it is approved by" value={String(settings.signOff)} options={choices} onChange={(value) => setSettings({ ...settings, signOff: Number(value) as SignOff })} />
      <p className="text-xs text-quiet">Who made a post is never the only one to approve it. What a writer schedules is approved by at least one person.</p>
      {themes.length > 0 && (
        <fieldset className="grid grid-cols-2 gap-3">
          <legend className="mb-1 text-sm font-semibold">Other for these themes</legend>
          {themes.map(({ id, name }) => (
            <SelectField key={id} label={name} none="As the brand" value={settings.themes[id] === undefined ? '' : String(settings.themes[id])} options={choices} onChange={(value) => setTheme(id, value)} />
          ))}
        </fieldset>
      )}
      <Field label="A missed post still goes out within" hint="Hours after its moment, when Confetti did not run then or approval came late. After that a person decides.">
        {({ id, describedBy }) => <input id={id} aria-describedby={describedBy} type="number" min={0} max={72} step={0.5} value={settings.lateHours} onChange={(event) => setSettings({ ...settings, lateHours: Number(event.target.value) })} className={inputClasses} />}
      </Field>
      {save.error && (
        <p role="alert" className="text-sm text-coral-ink">
          {save.error.message}
        </p>
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button type="submit" look="primary" disabled={save.isPending}>
          Save
        </Button>
      </div>
    </form>
  );
}
