import { useInfiniteQuery, useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Modal, ModalOverlay } from 'react-aria-components';
import { listMedia } from '../../../contract/media-contracts.ts';
import { endRotation, keepRotation } from '../../../contract/piece-plan-contracts.ts';
import type { CutRef } from '../../../core/piece/piece.ts';
import { distinctPosts, type RotationSettings } from '../../../core/plan/rotation.ts';
import { mediaAddress } from '../../media/media-address.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { call } from '../../ui/call.ts';
import { DayField } from '../../ui/DayField.tsx';
import { scrimClasses } from '../../ui/scrim-classes.ts';
import { toast } from '../../ui/toast.tsx';
import type { PiecePlan } from './use-piece-plan.ts';

interface RotationDialogProps {
  readonly brand: { readonly slug: string };
  readonly pieceId: string;
  readonly plan: PiecePlan;
  readonly cuts: readonly CutRef[];
  readonly isDisabled: boolean;
  readonly flush: () => Promise<unknown>;
  readonly onChanged: () => void;
}

const [PAIR_DAYS, REST_DAYS] = [60, 7];

/** Puts the piece into rotation: which wordings and pictures take turns, how long each rests, and until when. */
export function RotationDialog({ brand, pieceId, plan, cuts, isDisabled, flush, onChanged }: RotationDialogProps) {
  const begin = (): RotationSettings => plan.rotation?.settings ?? { cuts, wordings: plan.wordings.map(({ id }) => id), pictures: [plan.picture ?? ''], pairDays: PAIR_DAYS, restDays: REST_DAYS, lastDay: null, maxRuns: null, season: null };
  const [settings, setSettings] = useState<RotationSettings>(begin);
  const set = (part: Partial<RotationSettings>): void => setSettings((now) => ({ ...now, ...part }));
  const keep = useMutation({
    mutationFn: async () => {
      await flush();
      return call(keepRotation, { params: { brand: brand.slug, piece: pieceId }, body: { settings: { ...settings, cuts } as never, isOn: true } });
    },
    onSuccess: ({ distinct }) => {
      toast('done', `In rotation: ${distinct} different ${distinct === 1 ? 'post' : 'posts'}.`);
      onChanged();
    },
  });
  const end = useMutation({
    mutationFn: () => call(endRotation, { params: { brand: brand.slug, piece: pieceId } }),
    onSuccess: () => {
      toast('done', 'Removed from rotation. What is scheduled stays.');
      onChanged();
    },
    onError: (error) => toast('problem', error.message),
  });
  const toggle = (list: readonly string[], id: string): string[] => (list.includes(id) ? list.filter((each) => each !== id) : [...list, id]);
  const distinct = distinctPosts(settings);
  return (
    <DialogTrigger onOpenChange={(isOpen) => isOpen && setSettings(begin())}>
      <AriaButton isDisabled={isDisabled && !plan.rotation} className={buttonClasses('plain')}>
        {plan.rotation ? 'In rotation…' : 'Into rotation…'}
      </AriaButton>
      <ModalOverlay isDismissable className={scrimClasses}>
      <Modal className="shadow-float max-h-full w-full max-w-lg overflow-auto rounded-md border border-line bg-panel">
        <Dialog aria-label="Rotation" className="space-y-3 p-5 outline-none">
          {({ close }) => (
            <>
              <p className="text-sm">
                <span className="font-semibold tabular-nums">
                  {settings.wordings.length} {settings.wordings.length === 1 ? 'wording' : 'wordings'} × {settings.pictures.length} {settings.pictures.length === 1 ? 'picture' : 'pictures'} = {distinct} different {distinct === 1 ? 'post' : 'posts'}
                </span>
                : {distinct === 1 ? 'a week’s worth' : `about ${distinct} weeks`} at one a week.
              </p>
              <fieldset className="text-sm">
                <legend className="mb-1 font-semibold">Wordings</legend>
                <ul className="max-h-36 space-y-1 overflow-auto">
                  {plan.wordings.map(({ id, text }) => (
                    <li key={id}>
                      <label className="flex items-start gap-2">
                        <input type="checkbox" checked={settings.wordings.includes(id)} onChange={() => set({ wordings: toggle(settings.wordings, id) })} className="mt-0.5 size-4 shrink-0 accent-house" />
                        <span className="line-clamp-2">{text || 'The caption, which is empty yet'}</span>
                      </label>
                    </li>
                  ))}
                </ul>
                <p className="mt-1 text-xs text-quiet">Keep more captions as variants in Words.</p>
              </fieldset>
              {plan.picture !== null && <Pictures brand={brand.slug} own={plan.picture} chosen={settings.pictures} onToggle={(id) => set({ pictures: toggle(settings.pictures, id) })} />}
              <div className="grid grid-cols-2 gap-3 text-sm">
                <Days label="The same pair after days" value={settings.pairDays} onChange={(pairDays) => set({ pairDays })} />
                <Days label="The piece after days" value={settings.restDays} onChange={(restDays) => set({ restDays })} />
                <DayField label="Last day" day={settings.lastDay ?? ''} onChange={(day) => set({ lastDay: day === '' ? null : day })} />
                <label className="block">
                  <span className="mb-1 block font-semibold">At most times</span>
                  <input type="number" min={1} value={settings.maxRuns ?? ''} placeholder="no end" onChange={(event) => set({ maxRuns: event.target.value === '' ? null : Math.max(1, Math.round(Number(event.target.value))) })} className="h-8.5 w-full rounded-md border border-line bg-panel px-2 tabular-nums" />
                </label>
              </div>
              <Season season={settings.season} onChange={(season) => set({ season })} />
              {keep.error && (
                <p role="alert" className="text-sm text-coral-ink">
                  {keep.error.message}
                </p>
              )}
              <div className="flex justify-end gap-2">
                {plan.rotation && (
                  <Button look="stop" className="mr-auto" disabled={end.isPending} onClick={() => end.mutate(undefined, { onSuccess: close })}>
                    Remove
                  </Button>
                )}
                <Button onClick={close}>Close</Button>
                <Button look="primary" disabled={keep.isPending || cuts.length === 0 || distinct === 0} onClick={() => keep.mutate(undefined, { onSuccess: close })}>
                  {plan.rotation ? 'Keep' : `Rotate in ${cuts.length} ${cuts.length === 1 ? 'place' : 'places'}`}
                </Button>
              </div>
            </>
          )}
        </Dialog>
      </Modal>
      </ModalOverlay>
    </DialogTrigger>
  );
}

function Days({ label, value, onChange }: { readonly label: string; readonly value: number; readonly onChange: (days: number) => void }) {
  return (
    <label className="block">
      <span className="mb-1 block font-semibold">{label}</span>
      <input type="number" min={0} max={3_650} value={value} onChange={(event) => onChange(Math.max(0, Math.min(3_650, Math.round(Number(event.target.value) || 0))))} className="h-8.5 w-full rounded-md border border-line bg-panel px-2 tabular-nums" />
    </label>
  );
}

function Pictures({ brand, own, chosen, onToggle }: { readonly brand: string; readonly own: string; readonly chosen: readonly string[]; readonly onToggle: (id: string) => void }) {
  const media = useInfiniteQuery({ queryKey: ['media', brand, 'rotation'], queryFn: ({ pageParam }) => call(listMedia, { params: { brand }, query: { limit: 24, kind: 'seen', ...(pageParam === null ? {} : { before: pageParam }) } }), initialPageParam: null as string | null, getNextPageParam: (last) => last.next });
  const items = media.data?.pages.flatMap((page) => page.items) ?? [];
  const sorted = items.toSorted((a, b) => Number(b.id === own) - Number(a.id === own));
  return (
    <fieldset className="text-sm">
      <legend className="mb-1 font-semibold">Pictures</legend>
      <div className="flex max-h-36 flex-wrap gap-1.5 overflow-auto p-0.5">
        {sorted.map((item) => (
          <button key={item.id} type="button" aria-pressed={chosen.includes(item.id)} aria-label={item.name} title={item.name} onClick={() => onToggle(item.id)} className={`relative size-14 overflow-hidden rounded-md border ${chosen.includes(item.id) ? 'border-house outline-2 outline-house' : 'border-line'}`}>
            <img src={mediaAddress(brand, item, 240)} alt="" loading="lazy" className="h-full w-full object-cover" />
          </button>
        ))}
        {media.hasNextPage && (
          <Button size="small" onClick={() => void media.fetchNextPage()}>
            More
          </Button>
        )}
      </div>
    </fieldset>
  );
}

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;
const lastOfMonth = ['31', '29', '31', '30', '31', '30', '31', '31', '30', '31', '30', '31'] as const;

function Season({ season, onChange }: { readonly season: RotationSettings['season']; readonly onChange: (season: RotationSettings['season']) => void }) {
  const month = (index: number): string => String(index + 1).padStart(2, '0');
  const pick = (part: 'from' | 'until', index: number): void => {
    const now = season ?? { from: '01-01', until: '12-31' };
    onChange({ ...now, [part]: part === 'from' ? `${month(index)}-01` : `${month(index)}-${lastOfMonth[index] ?? '28'}` });
  };
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm">
      <label className="flex items-center gap-2">
        <input type="checkbox" checked={season !== null} onChange={(event) => onChange(event.target.checked ? { from: '01-01', until: '12-31' } : null)} className="size-4 accent-house" />
        Only in season
      </label>
      {season !== null &&
        (['from', 'until'] as const).map((part) => (
          <label key={part} className="flex items-center gap-1.5">
            {part}
            <select aria-label={`Season ${part}`} value={Number(season[part].slice(0, 2)) - 1} onChange={(event) => pick(part, Number(event.target.value))} className="h-8 rounded-md border border-line bg-panel px-1">
              {months.map((name, index) => (
                <option key={name} value={index}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        ))}
    </div>
  );
}
