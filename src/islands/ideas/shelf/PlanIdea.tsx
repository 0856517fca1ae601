import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useRef, useState } from 'react';
import { planIdea } from '../../../contract/idea-contracts.ts';
import { addDays } from '../../../core/time/day.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { call } from '../../ui/call.ts';
import { DayField } from '../../ui/DayField.tsx';
import { FormActions } from '../../ui/FormActions.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { TimeOfDayField } from '../../ui/TimeOfDayField.tsx';
import { toast } from '../../ui/toast.tsx';
import { ChannelPick } from '../ChannelPick.tsx';
import type { IdeasContext } from '../ideas-context.ts';
import type { Idea } from './Shelf.tsx';

/** Puts an idea into the plan as a placeholder: at a moment, or in the slot that it is for. */
export function PlanIdea({ idea, context, onClose }: { readonly idea: Idea; readonly context: IdeasContext; readonly onClose: () => void }) {
  const { brand, today, channels, themes } = context;
  const client = useQueryClient();
  const allowed = idea.themeId === null ? null : (themes.get(idea.themeId)?.channelIds ?? null);
  const [day, setDay] = useState(idea.day ?? addDays(today, 3));
  const [time, setTime] = useState('12:00');
  const [chosen, setChosen] = useState<readonly string[]>(idea.channelIds.length > 0 ? idea.channelIds : channels.filter(({ id }) => allowed === null || allowed.includes(id)).map(({ id }) => id));
  // One key a dialog: a second press, or a request sent again, makes one placeholder.
  const request = useRef(nanoid(16));
  const plan = useMutation({
    mutationFn: () => call(planIdea, { params: { brand: brand.slug, idea: idea.id }, body: { request: request.current, channelIds: [...chosen], ...(idea.slotKey === null ? { wall: `${day}T${time}`, slotKey: null } : { slotKey: idea.slotKey }) } }),
    onSuccess: async ({ dueMs }) => {
      toast('done', `A placeholder stands in the plan, ${formatMoment(dueMs, brand.zone)}`, { label: 'Open the plan', run: () => location.assign(`/b/${brand.slug}/plan/lanes?from=${day}`) });
      await client.invalidateQueries({ queryKey: ['ideas', brand.slug] });
      onClose();
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <ModalFrame title={`Plan “${idea.title.slice(0, 80)}”`} onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          plan.mutate();
        }}
      >
        {idea.slotKey === null ? (
          <div className="grid grid-cols-2 gap-3">
            <DayField label="Day" day={day} onChange={setDay} />
            <TimeOfDayField label="Time" time={time} onChange={setTime} />
          </div>
        ) : (
          <p className="text-sm text-quiet">It takes the open slot that it stands for.</p>
        )}
        <ChannelPick context={context} chosen={chosen} onChoose={setChosen} />
        <FormActions isBusy={plan.isPending || chosen.length === 0 || day === ''} onCancel={onClose} />
      </form>
    </ModalFrame>
  );
}
