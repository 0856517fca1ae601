import { useState } from 'react';
import { Dialog, Modal, ModalOverlay } from 'react-aria-components';
import { channelsOfTheme, type Plan, type RotaRule } from '../../../core/plan/plan.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { Button } from '../../ui/Button.tsx';
import { DayField } from '../../ui/DayField.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { TimeOfDayField } from '../../ui/TimeOfDayField.tsx';
import { scrimClasses } from '../../ui/scrim-classes.ts';
import type { PlanContext } from '../use-plan.ts';
import type { EditedRule } from './RotaView.tsx';
import { weekdayNames } from '../../ui/weekdays.ts';

interface RuleDialogProps {
  readonly edited: EditedRule;
  readonly plan: Plan;
  readonly context: PlanContext;
  readonly mayChange: boolean;
  readonly onKeep: (edited: EditedRule) => void;
  readonly onRemove: (id: string) => void;
  readonly onClose: () => void;
}

/** A slot of the rota: when, for what, on which channels, and in which season. */
export function RuleDialog({ edited, plan, context: { channels, sheets }, mayChange, onKeep, onRemove, onClose }: RuleDialogProps) {
  const [rule, setRule] = useState<RotaRule>(edited.rule);
  const set = (part: Partial<RotaRule>): void => setRule((now) => ({ ...now, ...part }));
  const theme = plan.themes.find(({ id }) => id === rule.themeId);
  const allowed = new Set(channelsOfTheme(theme, channels.map(({ id }) => id)));
  const isWhole = rule.time !== '' && rule.channelIds.length > 0;
  return (
    <ModalOverlay isOpen isDismissable onOpenChange={(isOpen) => !isOpen && onClose()} className={scrimClasses}>
      <Modal className="shadow-float max-h-full w-full max-w-md overflow-auto rounded-md border border-line bg-panel">
        <Dialog aria-label={edited.isNew ? 'New slot' : 'Slot'} className="space-y-4 p-5 outline-none">
          <h2 className="text-base font-semibold">{edited.isNew ? 'New slot' : 'Slot'}</h2>
          <div className="grid grid-cols-2 gap-3">
            <SelectField label="Day" value={String(rule.weekday)} options={weekdayNames.map((name, index) => [String(index + 1), name] as const)} onChange={(weekday) => set({ weekday: Number(weekday) })} />
            <TimeOfDayField label="Time" time={rule.time} onChange={(time) => set({ time })} />
            <SelectField label="Theme" none="Anything" value={rule.themeId ?? ''} options={plan.themes.map(({ id, name }) => [id, name] as const)} onChange={(themeId) => set({ themeId: themeId === '' ? null : themeId })} />
            {plan.rota.weeks > 1 && <SelectField label="Week of the cycle" value={String(rule.week)} options={Array.from({ length: plan.rota.weeks }, (_, index) => [String(index), `Week ${index + 1}`] as const)} onChange={(week) => set({ week: Number(week) })} />}
          </div>
          <fieldset>
            <legend className="mb-1 text-sm font-semibold">Channels</legend>
            <ul className="max-h-56 overflow-auto">
              {channels.map((channel) => {
                const sheet = sheets.get(channel.network);
                return (
                  <li key={channel.id}>
                    <label className={`flex items-center gap-2 rounded-md px-1 py-0.5 text-sm ${allowed.has(channel.id) ? '' : 'text-quiet'}`}>
                      <input type="checkbox" disabled={!allowed.has(channel.id)} checked={rule.channelIds.includes(channel.id)} onChange={(event) => set({ channelIds: event.target.checked ? [...rule.channelIds, channel.id] : rule.channelIds.filter((id) => id !== channel.id) })} className="size-4 accent-house" />
                      {sheet && <ChannelBadge badge={sheet.badge} size={16} />}
                      <span className="min-w-0 truncate">
                        {sheet?.name} <span className="text-quiet">{channel.handle}</span>
                        {allowed.has(channel.id) ? '' : `: ${theme?.name ?? ''} does not go there`}
                      </span>
                    </label>
                  </li>
                );
              })}
            </ul>
          </fieldset>
          <div className="grid grid-cols-2 gap-3">
            <DayField label="First day of its season" day={rule.from ?? ''} onChange={(day) => set({ from: day === '' ? null : day })} />
            <DayField label="Last day" day={rule.until ?? ''} onChange={(day) => set({ until: day === '' ? null : day })} />
          </div>
          <p className="text-xs text-quiet">Without days it holds all year. What was put into a slot stays in it when its time changes.</p>
          <div className="flex justify-end gap-2">
            {!edited.isNew && mayChange && (
              <Button look="stop" className="mr-auto" onClick={() => onRemove(rule.id)}>
                Remove
              </Button>
            )}
            <Button onClick={onClose}>Close</Button>
            {mayChange && (
              <Button look="primary" disabled={!isWhole} onClick={() => onKeep({ ...edited, rule })}>
                {edited.isNew ? 'Add the slot' : 'Change the slot'}
              </Button>
            )}
          </div>
        </Dialog>
      </Modal>
    </ModalOverlay>
  );
}
