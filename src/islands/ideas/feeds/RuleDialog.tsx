import { useMutation, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { keepFeedRule } from '../../../contract/idea-contracts.ts';
import { listTemplates } from '../../../contract/template-contracts.ts';
import { call } from '../../ui/call.ts';
import { NumberBox } from '../../ui/NumberBox.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { FormActions } from '../../ui/FormActions.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { toast } from '../../ui/toast.tsx';
import { ChannelPick } from '../ChannelPick.tsx';
import type { IdeasContext } from '../ideas-context.ts';
import type { Rule } from './Feeds.tsx';

const usual: Rule['settings'] = { channelIds: [], templateKey: null, caption: '[title]\n\n[summary]\n\n[link]', button: '', themeId: null, everyHours: 12, take: 'newest', backlog: 5, as: 'draft' };

interface RuleDialogProps {
  readonly feedId: string;
  /** Null: a new one. */
  readonly rule: Rule | null;
  readonly context: IdeasContext;
  readonly onClose: () => void;
  readonly onSaved: () => Promise<void>;
}

/** How items of a feed become posts. */
export function RuleDialog({ feedId, rule, context, onClose, onSaved }: RuleDialogProps) {
  const { brand, themes, channels, sheets } = context;
  const [settings, setSettings] = useState(rule?.settings ?? usual);
  const set = (part: Partial<Rule['settings']>): void => setSettings((now) => ({ ...now, ...part }));
  const templates = useQuery({ queryKey: ['templates', brand.slug], queryFn: () => call(listTemplates, { params: { brand: brand.slug } }) });
  const [id] = useState(() => rule?.id ?? nanoid(12));
  const save = useMutation({
    mutationFn: () => call(keepFeedRule, { params: { brand: brand.slug }, body: { id, feedId, settings, isOn: true } }),
    onSuccess: async () => {
      toast('done', 'The rule is on. What it does is written down below it.');
      await onSaved();
      onClose();
    },
    onError: (error) => toast('problem', error.message),
  });
  const buttons = [...new Map(channels.filter((channel) => settings.channelIds.includes(channel.id)).flatMap(({ network }) => sheets.get(network)?.words.fields.find(({ key }) => key === 'button')?.options ?? []).map(({ key, name }) => [key, name] as const))];
  return (
    <ModalFrame title="Let items become posts" width="wide" onClose={onClose}>
      <form
        className="grid grid-cols-2 gap-x-6 gap-y-3 max-md:grid-cols-1"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <div className="grid content-start gap-3">
          <ChannelPick context={context} chosen={settings.channelIds} onChoose={(channelIds) => set({ channelIds: [...channelIds] })} />
          <Field label="Caption" hint="Fill-ins: [title] [summary] [link], and facts like {site}">{({ id: fieldId, describedBy }) => <textarea id={fieldId} aria-describedby={describedBy} rows={6} value={settings.caption} onChange={(event) => set({ caption: event.target.value })} className={inputClasses} />}</Field>
        </div>
        <div className="grid content-start gap-3">
          <SelectField label="Template" none="The one that suits, with its picture or without" value={settings.templateKey ?? ''} options={(templates.data?.items ?? []).filter(({ archived, kind }) => !archived && kind === 'graphic').map(({ key, name }) => [key, name] as const)} onChange={(key) => set({ templateKey: key === '' ? null : key })} />
          {buttons.length > 0 && <SelectField label="Button" none="None" value={settings.button} options={buttons} onChange={(button) => set({ button })} />}
          <SelectField label="Theme" none="None" value={settings.themeId ?? ''} options={[...themes.values()].map((theme) => [theme.id, theme.name] as const)} onChange={(key) => set({ themeId: key === '' ? null : key })} />
          <SelectField label="Which items" value={settings.take} options={[['newest', 'The newest only; older ones are passed over'], ['backlog', 'All of them, the oldest first']]} onChange={(take) => set({ take: take as 'newest' | 'backlog' })} />
          {settings.take === 'backlog' && (
            <label className="flex items-center gap-2 text-sm">
              Of what is there already, the last
              <NumberBox value={settings.backlog} min={1} max={100} onChange={(backlog) => set({ backlog })} />
            </label>
          )}
          <label className="flex items-center gap-2 text-sm">
            At most one in
            <NumberBox value={settings.everyHours} min={0} max={720} onChange={(everyHours) => set({ everyHours })} />
            hours
          </label>
          <SelectField label="What they become" value={settings.as} options={[['draft', 'Drafts in the plan, for a person to look at'], ['queue', 'Pieces in the queue of their channels']]} onChange={(as) => set({ as: as as 'draft' | 'queue' })} />
          <p className="text-xs text-quiet">A feed that turns strange (twenty items at once, another language, no pictures any more) stops the rule, and it asks you.</p>
        </div>
        <div className="col-span-2 max-md:col-span-1">
          <FormActions isBusy={save.isPending || settings.channelIds.length === 0 || settings.caption.trim() === ''} onCancel={onClose} />
        </div>
      </form>
    </ModalFrame>
  );
}
