import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { startRepeat } from '../../../contract/piece-plan-contracts.ts';
import type { CutRef } from '../../../core/piece/piece.ts';
import { weekdayOf } from '../../../core/time/day.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { MomentFields, type ChosenMoment } from '../../post/MomentFields.tsx';
import { buttonClasses } from '../../ui/Button.tsx';
import { ApiProblem, call } from '../../ui/call.ts';
import { DayField } from '../../ui/DayField.tsx';
import { DialogActions } from '../../ui/DialogActions.tsx';
import { toast } from '../../ui/toast.tsx';
import { weekdayNames } from '../../ui/weekdays.ts';

type Rhythm = 'daily' | 'weekly' | 'fortnightly' | 'monthly-day' | 'monthly-weekday' | 'monthly-last' | 'yearly';

const days = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;

/** The rule of a rhythm that begins on a day, as RFC 5545 writes it. */
function ruleOf(rhythm: Rhythm, start: string): string {
  const weekday = days[weekdayOf(start.slice(0, 10)) - 1] ?? 'MO';
  const nth = Math.ceil(Number(start.slice(8, 10)) / 7);
  switch (rhythm) {
    case 'daily':
      return 'FREQ=DAILY';
    case 'weekly':
      return `FREQ=WEEKLY;BYDAY=${weekday}`;
    case 'fortnightly':
      return `FREQ=WEEKLY;INTERVAL=2;BYDAY=${weekday}`;
    case 'monthly-day':
      return `FREQ=MONTHLY;BYMONTHDAY=${Number(start.slice(8, 10))}`;
    case 'monthly-weekday':
      return `FREQ=MONTHLY;BYDAY=${Math.min(4, nth)}${weekday}`;
    case 'monthly-last':
      return `FREQ=MONTHLY;BYDAY=-1${weekday}`;
    case 'yearly':
      return 'FREQ=YEARLY';
  }
}

interface RepeatDialogProps {
  readonly brand: { readonly slug: string; readonly zone: string };
  readonly pieceId: string;
  readonly cuts: readonly CutRef[];
  readonly shared: ChosenMoment;
  readonly nowMs: number;
  readonly isDisabled: boolean;
  readonly flush: () => Promise<unknown>;
  readonly onStarted: () => void;
}

/** Lets the piece come round: in which rhythm, from when, until when. */
export function RepeatDialog({ brand, pieceId, cuts, shared, nowMs, isDisabled, flush, onStarted }: RepeatDialogProps) {
  const [rhythm, setRhythm] = useState<Rhythm>('weekly');
  const [moment, setMoment] = useState<ChosenMoment>(shared);
  const [end, setEnd] = useState<'never' | 'day' | 'count'>('never');
  const [lastDay, setLastDay] = useState('');
  const [count, setCount] = useState(10);
  const [mustAgree, setMustAgree] = useState<string | null>(null);
  const weekday = weekdayNames[weekdayOf(/^\d{4}-\d{2}-\d{2}/.test(moment.wall) ? moment.wall.slice(0, 10) : '2026-01-05') - 1] ?? '';
  const rhythms: readonly (readonly [Rhythm, string])[] = [['daily', 'Every day'], ['weekly', `Every ${weekday}`], ['fortnightly', `Every second ${weekday}`], ['monthly-day', `Every month on the ${Number(moment.wall.slice(8, 10))}.`], ['monthly-weekday', `Every month on this ${weekday} of the month`], ['monthly-last', `Every month on the last ${weekday}`], ['yearly', 'Every year']];
  const start = useMutation({
    mutationFn: async (isClockAgreed: boolean) => {
      await flush();
      const ending = end === 'day' && lastDay !== '' ? `;UNTIL=${lastDay.replaceAll('-', '')}T235959` : end === 'count' ? `;COUNT=${count}` : '';
      return call(startRepeat, { params: { brand: brand.slug, piece: pieceId }, body: { rule: `${ruleOf(rhythm, moment.wall)}${ending}`, start: moment.wall, cuts: cuts.map((cut) => ({ ...cut })), isClockAgreed } });
    },
    onSuccess: ({ words, next }) => {
      toast('done', `It repeats ${words}; next ${formatMoment(next[0] ?? 0, brand.zone)}.`);
      onStarted();
    },
    onError: (error) => setMustAgree(error instanceof ApiProblem && error.code === 'clock-change' ? error.message : null),
  });
  return (
    <DialogTrigger
      onOpenChange={(isOpen) => {
        if (!isOpen) return;
        setMoment(shared);
        setMustAgree(null);
        start.reset();
      }}
    >
      <AriaButton isDisabled={isDisabled} className={buttonClasses('plain')}>
        Repeat…
      </AriaButton>
      <Popover placement="top start" className="shadow-float w-96 max-w-[calc(100vw-1rem)] rounded-md border border-line bg-panel p-4">
        <Dialog aria-label="Repeat" className="space-y-3 outline-none">
          {({ close }) => (
            <>
              <label className="block text-sm">
                <span className="mb-1 block font-semibold">Goes out</span>
                <select aria-label="Rhythm" value={rhythm} onChange={(event) => setRhythm(rhythms.find(([key]) => key === event.target.value)?.[0] ?? 'weekly')} className="h-8.5 w-full rounded-md border border-line bg-panel px-1.5">
                  {rhythms.map(([key, words]) => (
                    <option key={key} value={key}>
                      {words}
                    </option>
                  ))}
                </select>
              </label>
              <MomentFields moment={moment} zone={brand.zone} nowMs={nowMs} onChange={setMoment} />
              <fieldset className="space-y-1 text-sm">
                <legend className="mb-1 font-semibold">Until</legend>
                {(['never', 'day', 'count'] as const).map((key) => (
                  <label key={key} className="flex items-center gap-2">
                    <input type="radio" name="repeat-end" checked={end === key} onChange={() => setEnd(key)} className="accent-house" />
                    {key === 'never' ? 'somebody ends it' : key === 'day' ? 'a day' : 'so many times'}
                    {key === 'count' && end === 'count' && <input type="number" aria-label="Times" min={1} max={10_000} value={count} onChange={(event) => setCount(Math.max(1, Math.min(10_000, Math.round(Number(event.target.value) || 1))))} className="h-7 w-20 rounded-md border border-line bg-panel px-1.5 tabular-nums" />}
                  </label>
                ))}
                {end === 'day' && <DayField label="Last day" day={lastDay} onChange={setLastDay} />}
              </fieldset>
              <p className="text-xs text-quiet">In {cuts.length} {cuts.length === 1 ? 'place' : 'places'}. Posts stand in the plan two weeks ahead; each can be changed by itself.</p>
              {start.error && (
                <p role="alert" className="text-sm text-coral-ink">
                  {start.error.message}
                </p>
              )}
              <DialogActions keepLabel="Close" onKeep={close} label={mustAgree === null ? 'Start the repeat' : 'Yes, start it'} look="primary" isDisabled={start.isPending || cuts.length === 0} onConfirm={() => start.mutate(mustAgree !== null, { onSuccess: close })} />
            </>
          )}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
