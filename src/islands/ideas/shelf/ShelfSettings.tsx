import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { getIdeaSettings, keepIdeaSettings } from '../../../contract/idea-contracts.ts';
import { kindNames, selfComing, type IdeaSettings } from '../../../core/ideas/idea.ts';
import { call } from '../../ui/call.ts';
import { NumberBox } from '../../ui/NumberBox.tsx';
import { Button } from '../../ui/Button.tsx';
import { FormActions } from '../../ui/FormActions.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { toast } from '../../ui/toast.tsx';

/** What comes to the shelf by itself, and how one writes to it from any web page. */
export function ShelfSettings({ brand }: { readonly brand: string }) {
  const [isOpen, setOpen] = useState(false);
  const settings = useQuery({ queryKey: ['idea-settings', brand], queryFn: () => call(getIdeaSettings, { params: { brand } }), enabled: isOpen });
  return (
    <>
      <Button onClick={() => setOpen(true)}>What comes here</Button>
      {isOpen && settings.data && <Settings brand={brand} settings={settings.data} onClose={() => setOpen(false)} />}
    </>
  );
}

const hints: Readonly<Record<(typeof selfComing)[number], string>> = {
  date: 'Public holidays and days worth knowing of the rota’s countries, and days of your own',
  feed: 'What the feeds say',
  trend: 'Hashtags that rise at your networks',
  prompt: 'Prompts of the collection, filled with your facts',
  saying: 'Sayings of the collection',
  revival: 'Posts that did well and are old enough',
  gap: 'Open slots of the rota',
  reply: 'What people wrote',
};

function Settings({ brand, settings, onClose }: { readonly brand: string; readonly settings: IdeaSettings; readonly onClose: () => void }) {
  const client = useQueryClient();
  const [perWeek, setPerWeek] = useState(settings.perWeek);
  const [kinds, setKinds] = useState(settings.kinds);
  const [revivalDays, setRevivalDays] = useState(settings.revivalDays);
  const keep = useMutation({
    mutationFn: () => call(keepIdeaSettings, { params: { brand }, body: { perWeek, kinds: [...kinds], revivalDays } }),
    onSuccess: async ({ came }) => {
      toast('done', came === 0 ? 'Saved' : `Saved; ${came} ${came === 1 ? 'idea' : 'ideas'} came`);
      await Promise.all([client.invalidateQueries({ queryKey: ['idea-settings', brand] }), client.invalidateQueries({ queryKey: ['ideas', brand] })]);
      onClose();
    },
    onError: (error) => toast('problem', error.message),
  });
  const bookmark = `javascript:location.href='${location.origin}/b/${brand}/make/ideas?note='+encodeURIComponent(document.title)+'&link='+encodeURIComponent(location.href)+'&text='+encodeURIComponent(String(getSelection()))`;
  return (
    <ModalFrame title="What comes to the shelf" onClose={onClose}>
      <form
        className="grid gap-4 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate();
        }}
      >
        <fieldset>
          <legend className="mb-1 font-semibold">By itself, each morning</legend>
          <ul>
            {selfComing.map((kind) => (
              <li key={kind}>
                <label className="flex items-baseline gap-2 py-0.5">
                  <input type="checkbox" checked={kinds.includes(kind)} onChange={() => setKinds(kinds.includes(kind) ? kinds.filter((each) => each !== kind) : [...kinds, kind])} className="size-4 translate-y-0.5 accent-house" />
                  <span>
                    {kindNames[kind]}
                    <span className="block text-xs text-quiet">{hints[kind]}</span>
                  </span>
                </label>
              </li>
            ))}
          </ul>
        </fieldset>
        <label className="flex items-center gap-2">
          At most
          <NumberBox value={perWeek} min={0} max={60} onChange={setPerWeek} />
          a week, the best ones
        </label>
        <label className="flex items-center gap-2">
          A post may come back after
          <NumberBox value={revivalDays} min={7} max={730} onChange={setRevivalDays} />
          days
        </label>
        <label className="block">
          <span className="mb-1 block font-semibold">From any web page</span>
          <input readOnly value={bookmark} onFocus={(event) => event.target.select()} className={`${inputClasses} font-mono text-xs`} />
          <span className="mt-1 block text-xs text-quiet">Keep this as the address of a bookmark. Pressed on a page, it begins a note with its title, its address and the words that are marked.</span>
        </label>
        <FormActions isBusy={keep.isPending} onCancel={onClose} />
      </form>
    </ModalFrame>
  );
}
