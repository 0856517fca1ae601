import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { getLearnSettings, keepLearnSettings } from '../../../contract/results-contracts.ts';
import type { BodyOf } from '../../../contract/contract.ts';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { Button } from '../../ui/Button.tsx';
import { call } from '../../ui/call.ts';
import { FormActions } from '../../ui/FormActions.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { toast } from '../../ui/toast.tsx';

type Settings = BodyOf<typeof keepLearnSettings>;

/** What the brand measures by, which words hold messages back, and how long people may wait. */
export function SettingsButton({ brand }: { readonly brand: { readonly slug: string; readonly role: Role } }) {
  const [isOpen, setOpen] = useState(false);
  const settings = useQuery({ queryKey: ['learn-settings', brand.slug], enabled: isOpen, queryFn: () => call(getLearnSettings, { params: { brand: brand.slug } }) });
  if (!roleMay(brand.role, 'brand')) return null;
  return (
    <>
      <Button onClick={() => setOpen(true)}>Settings</Button>
      {isOpen && settings.data && <SettingsDialog brand={brand.slug} settings={settings.data} onClose={() => setOpen(false)} />}
    </>
  );
}

function SettingsDialog({ brand, settings, onClose }: { readonly brand: string; readonly settings: Settings; readonly onClose: () => void }) {
  const client = useQueryClient();
  const [rateBase, setRateBase] = useState(settings.rateBase);
  const [held, setHeld] = useState(settings.heldWords.join('\n'));
  const [hours, setHours] = useState(String(settings.answerWithinHours));
  const keep = useMutation({
    mutationFn: () => call(keepLearnSettings, { params: { brand }, body: { rateBase, heldWords: held.split('\n').map((word) => word.trim()).filter((word) => word !== ''), answerWithinHours: Number(hours) } }),
    onSuccess: async () => {
      await client.invalidateQueries();
      onClose();
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <ModalFrame title="How results and replies are read" onClose={onClose}>
      <form
        className="grid gap-4 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate();
        }}
      >
        <fieldset>
          <legend className="mb-1 font-semibold">The rate of engagement is measured by</legend>
          {(
            [
              ['reach', 'Reach', 'reactions, comments, shares and saves, divided by the people who saw the post'],
              ['impressions', 'Impressions', 'the same, divided by how often the post was shown'],
            ] as const
          ).map(([key, name, about]) => (
            <label key={key} className="flex items-start gap-2 py-1">
              <input type="radio" name="base" checked={rateBase === key} onChange={() => setRateBase(key)} className="mt-0.5 size-4 accent-house" />
              <span>
                <span className="font-medium">{name}</span>
                <span className="block text-quiet">{about}</span>
              </span>
            </label>
          ))}
        </fieldset>
        <label className="block">
          <span className="mb-1 block font-semibold">Words that set messages apart</span>
          <textarea value={held} onChange={(event) => setHeld(event.target.value)} rows={5} className="w-full rounded-md border border-line bg-panel p-2" />
          <span className="text-quiet">One word or phrase a line. What has one stands under “Apart”; nothing is deleted.</span>
        </label>
        <label className="block">
          <span className="mb-1 block font-semibold">People may wait for an answer</span>
          <span className="flex items-center gap-2">
            <input type="number" min={1} max={720} required value={hours} onChange={(event) => setHours(event.target.value)} className="h-8.5 w-24 rounded-md border border-line bg-panel px-2 tabular-nums" /> hours; who waits longer stands in Today
          </span>
        </label>
        <FormActions isBusy={keep.isPending} onCancel={onClose} />
      </form>
    </ModalFrame>
  );
}
