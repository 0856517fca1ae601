import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { changeRepeat } from '../../../contract/piece-plan-contracts.ts';
import { formatMoment, wallTimeOf } from '../../../core/time/wall-time.ts';
import { MomentFields, type ChosenMoment } from '../../post/MomentFields.tsx';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { call } from '../../ui/call.ts';
import { toast } from '../../ui/toast.tsx';
import type { PiecePlan } from './use-piece-plan.ts';

interface RepeatListProps {
  readonly brand: { readonly slug: string; readonly zone: string };
  readonly repeats: PiecePlan['repeats'];
  readonly nowMs: number;
  readonly mayChange: boolean;
  readonly onChanged: () => void;
}

type Reach = 'this' | 'following' | 'all';
const reaches: readonly (readonly [Reach, string])[] = [['this', 'This one'], ['following', 'This and following'], ['all', 'All of them']];

/** How the piece repeats, and its next times: each can be moved or left out by itself, with those that follow, or all together. */
export function RepeatList({ brand, repeats, nowMs, mayChange, onChanged }: RepeatListProps) {
  if (repeats.length === 0) return null;
  return (
    <section aria-labelledby="repeats" className="mt-6 max-w-5xl">
      <h2 id="repeats" className="mb-1 text-base font-semibold">
        Repeats
      </h2>
      <ul className="border-t border-line">
        {repeats.map((repeat) => (
          <li key={repeat.id} className="border-b border-line py-2 text-sm">
            <p className="font-semibold">
              Repeats {repeat.words}, at {repeat.start.slice(11)} <span className="font-normal text-quiet">in {repeat.cuts.length} {repeat.cuts.length === 1 ? 'place' : 'places'}</span>
            </p>
            <ul className="mt-1 flex flex-wrap gap-1.5">
              {repeat.next.map((next) => (
                <li key={next.key}>
                  <Occurrence brand={brand} repeatId={repeat.id} next={next} nowMs={nowMs} mayChange={mayChange} onChanged={onChanged} />
                </li>
              ))}
              {repeat.next.length === 0 && <li className="text-quiet">It does not come round any more.</li>}
            </ul>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Occurrence({ brand, repeatId, next, nowMs, mayChange, onChanged }: Pick<RepeatListProps, 'brand' | 'nowMs' | 'mayChange' | 'onChanged'> & { readonly repeatId: string; readonly next: PiecePlan['repeats'][number]['next'][number] }) {
  const [reach, setReach] = useState<Reach>('this');
  const [moment, setMoment] = useState<ChosenMoment>({ wall: wallTimeOf(next.atMs, brand.zone) });
  const change = useMutation({
    mutationFn: (to: string | null) => call(changeRepeat, { params: { brand: brand.slug, repeat: repeatId }, body: { occurrence: next.key, reach, to } }),
    onSuccess: (_, to) => {
      toast('done', to === null ? 'Left out.' : 'Moved.');
      onChanged();
    },
    onError: (error) => toast('problem', error.message),
  });
  const words = formatMoment(next.atMs, brand.zone).replace(/ [^ ]+$/, '');
  if (!mayChange) return <span className="text-quiet tabular-nums">{words}</span>;
  return (
    <DialogTrigger>
      <AriaButton className={`${buttonClasses('plain', 'small')} ${next.postId === null ? 'border-dashed' : ''}`}>{words}</AriaButton>
      <Popover placement="bottom start" className="shadow-float w-96 max-w-[calc(100vw-1rem)] rounded-md border border-line bg-panel p-4">
        <Dialog aria-label={`Occurrence of ${words}`} className="space-y-3 outline-none">
          {({ close }) => (
            <>
              <fieldset className="flex flex-wrap gap-3 text-sm">
                <legend className="mb-1 font-semibold">Change</legend>
                {reaches.map(([key, name]) => (
                  <label key={key} className="flex items-center gap-1.5">
                    <input type="radio" name={`reach-${next.key}`} checked={reach === key} onChange={() => setReach(key)} className="accent-house" />
                    {name}
                  </label>
                ))}
              </fieldset>
              <MomentFields moment={moment} zone={brand.zone} nowMs={nowMs} onChange={setMoment} />
              <div className="flex justify-end gap-2">
                <Button look="stop" className="mr-auto" disabled={change.isPending} onClick={() => change.mutate(null, { onSuccess: close })}>
                  {reach === 'this' ? 'Leave it out' : 'End it'}
                </Button>
                <Button onClick={close}>Close</Button>
                <Button look="primary" disabled={change.isPending} onClick={() => change.mutate(moment.wall, { onSuccess: close })}>
                  Move
                </Button>
              </div>
            </>
          )}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
