import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect, useState } from 'react';
import { getPieceThumbnail } from '../../../contract/piece-contracts.ts';
import { deleteCampaign, getCampaign, keepCampaign } from '../../../contract/plan-contracts.ts';
import { roleMay } from '../../../core/access/access.ts';
import { tones } from '../../../core/plan/plan.ts';
import { groupItems, itemsOf } from '../../../core/plan/plan-items.ts';
import { addDays } from '../../../core/time/day.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { addressOf, call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { ConfirmButton } from '../../ui/ConfirmButton.tsx';
import { DayField } from '../../ui/DayField.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { PictureWithFallback } from '../../ui/PictureWithFallback.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { GuideLink } from '../../ui/GuideLink.tsx';
import { toast } from '../../ui/toast.tsx';
import { TonePick } from '../rota/ThemeList.tsx';
import { planStateWord } from '../state-sign.tsx';
import { ThemeTile } from '../ThemeTile.tsx';
import { usePlanContext, usePlanQuery, type Campaign, type PlanContext, type PlanProps } from '../use-plan.ts';

export default function CampaignsView(props: PlanProps) {
  return (
    <Queries>
      <CampaignsOf {...props} />
    </Queries>
  );
}

function CampaignsOf(props: PlanProps) {
  const context = usePlanContext(props);
  const { brand, today, campaigns } = context;
  const [query, setQuery] = usePlanQuery();
  const [draft, setDraft] = useState<Campaign | null>(null);
  const mayChange = roleMay(brand.role, 'make');
  const all = [...campaigns.values()];
  const shown = draft ?? campaigns.get(query.campaign ?? '') ?? all[0] ?? null;
  const begin = (): void => setDraft({ id: nanoid(12), name: '', fromDay: today, untilDay: addDays(today, 28), aim: '', note: '', tone: tones[all.length % tones.length] ?? 'slate', letter: 'C' });
  return (
    <main className="flex min-h-0 flex-1 gap-6 overflow-hidden px-4 py-4 max-md:flex-col max-md:overflow-auto">
      <nav aria-label="Campaigns" className="w-60 shrink-0 overflow-auto max-md:w-full">
        <div className="mb-3 flex items-center justify-between">
          <h1 className="text-xl font-semibold">Campaigns</h1>
          {mayChange && (
            <Button size="small" onClick={begin}>
              New
            </Button>
          )}
        </div>
        <ul className="space-y-0.5">
          {all.map((campaign) => (
            <li key={campaign.id}>
              <button
                type="button"
                aria-current={campaign.id === shown?.id ? 'true' : undefined}
                onClick={() => {
                  setDraft(null);
                  setQuery({ campaign: campaign.id });
                }}
                className={`flex w-full items-center gap-2 rounded-md px-2 py-1.5 text-left text-sm ${campaign.id === shown?.id ? 'bg-panel font-semibold' : 'hover:bg-sunk'}`}
              >
                <ThemeTile theme={campaign} size="large" />
                <span className="min-w-0">
                  <span className="block truncate">{campaign.name}</span>
                  <span className="block text-xs font-normal text-quiet tabular-nums">
                    {campaign.fromDay} – {campaign.untilDay}
                  </span>
                </span>
              </button>
            </li>
          ))}
        </ul>
        {context.plan && all.length === 0 && !draft && <p className="text-sm text-quiet">A campaign gathers the pieces and posts of a launch, a season, a sale, and shows what is done, planned and missing. <GuideLink view="campaigns" /></p>}
      </nav>
      {shown && <CampaignPage key={shown.id} campaign={shown} isNew={draft !== null} context={context} mayChange={mayChange} onDone={() => setDraft(null)} onKept={(id) => setQuery({ campaign: id })} />}
    </main>
  );
}

interface PageProps {
  readonly campaign: Campaign;
  readonly isNew: boolean;
  readonly context: PlanContext;
  readonly mayChange: boolean;
  readonly onDone: () => void;
  readonly onKept: (id: string) => void;
}

/** A campaign: its name, span and aim, and what of it is out, planned and missing. */
function CampaignPage({ campaign, isNew, context, mayChange, onDone, onKept }: PageProps) {
  const { brand, nowMs } = context;
  const client = useQueryClient();
  const [edited, setEdited] = useState(campaign);
  useEffect(() => setEdited(campaign), [campaign]);
  const found = useQuery({ queryKey: ['plan', brand.slug, 'campaign', campaign.id], enabled: !isNew, queryFn: () => call(getCampaign, { params: { brand: brand.slug, campaign: campaign.id } }) });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['plan', brand.slug] });
  const keep = useMutation({
    mutationFn: () => call(keepCampaign, { params: { brand: brand.slug }, body: { ...edited, name: edited.name.trim() } }),
    onSuccess: async ({ id }) => {
      await refresh();
      onKept(id);
      onDone();
      toast('done', 'The campaign is kept.');
    },
    onError: (error) => toast('problem', error.message),
  });
  const remove = useMutation({ mutationFn: () => call(deleteCampaign, { params: { brand: brand.slug, campaign: campaign.id } }), onSuccess: refresh, onError: (error) => toast('problem', error.message) });
  const set = (part: Partial<Campaign>): void => setEdited((now) => ({ ...now, ...part }));
  const groups = found.data ? groupItems(itemsOf({ outings: found.data.outings, entries: found.data.entries, fills: [] })) : [];
  const [out, ahead] = [groups.filter(({ first }) => first.state === 'sent'), groups.filter(({ first }) => first.state !== 'sent')];
  const missing = (found.data?.pieces ?? []).filter(({ isPlanned }) => !isPlanned);
  const isChanged = isNew || JSON.stringify(edited) !== JSON.stringify(campaign);
  const left = Math.max(0, Math.ceil((Date.parse(`${campaign.untilDay}T23:59Z`) - nowMs) / 86_400_000));
  return (
    <div className="min-w-0 flex-1 overflow-auto pr-2">
      <div className="grid max-w-4xl grid-cols-2 gap-4 max-md:grid-cols-1">
        <div className="space-y-3">
          <Field label="Name">{({ id }) => <input id={id} disabled={!mayChange} value={edited.name} maxLength={60} onChange={(event) => set({ name: event.target.value, ...(isNew && /^[\p{L}\p{N}]/u.test(event.target.value) ? { letter: event.target.value[0]?.toUpperCase() ?? 'C' } : {}) })} className={inputClasses} />}</Field>
          <div className="grid grid-cols-2 gap-3">
            <DayField label="First day" day={edited.fromDay} onChange={(fromDay) => set({ fromDay })} />
            <DayField label="Last day" day={edited.untilDay} onChange={(untilDay) => set({ untilDay })} />
          </div>
          <div className="flex items-end gap-3">
            <Field label="Letter">{({ id }) => <input id={id} disabled={!mayChange} value={edited.letter} maxLength={2} onChange={(event) => /^[\p{L}\p{N}]$/u.test(event.target.value.slice(-1)) && set({ letter: event.target.value.slice(-1).toUpperCase() })} className={`${inputClasses} w-14`} />}</Field>
            <TonePick tone={edited.tone} onChange={(tone) => set({ tone })} />
          </div>
        </div>
        <div className="space-y-3">
          <Field label="Aim">{({ id }) => <input id={id} disabled={!mayChange} value={edited.aim} maxLength={500} onChange={(event) => set({ aim: event.target.value })} className={inputClasses} />}</Field>
          <Field label="Notes">{({ id }) => <textarea id={id} disabled={!mayChange} rows={4} value={edited.note} maxLength={5_000} onChange={(event) => set({ note: event.target.value })} className={inputClasses} />}</Field>
        </div>
      </div>
      {mayChange && (
        <div className="mt-3 flex gap-2">
          <Button look="primary" disabled={!isChanged || edited.name.trim() === '' || edited.fromDay > edited.untilDay || keep.isPending} onClick={() => keep.mutate()}>
            {isNew ? 'Start the campaign' : 'Save'}
          </Button>
          {isNew ? (
            <Button onClick={onDone}>Cancel</Button>
          ) : (
            <ConfirmButton label="Delete" title="Delete the campaign" keepLabel="Keep it" confirmLabel="Delete it" confirmLook="stop" onConfirm={() => remove.mutate()}>
              <p className="text-sm">Its pieces and posts stay, without a campaign.</p>
            </ConfirmButton>
          )}
        </div>
      )}
      {!isNew && (
        <>
          <p className="mt-5 text-sm tabular-nums">
            <span className="font-semibold">{out.length}</span> out, <span className="font-semibold">{ahead.length}</span> planned, <span className="font-semibold">{missing.length}</span> {missing.length === 1 ? 'piece' : 'pieces'} without a time, {left} {left === 1 ? 'day' : 'days'} left.{' '}
            <a href={`/b/${brand.slug}/plan/lanes?campaign=${campaign.id}`} className="font-medium text-house underline">
              See it in the lanes
            </a>
          </p>
          <div className="mt-3 grid max-w-5xl grid-cols-3 gap-6 max-lg:grid-cols-1">
            <Part title="Missing" hint="Pieces of this campaign that are planned nowhere.">
              {missing.map((piece) => (
                <PieceLine key={piece.id} brand={brand.slug} pieceId={piece.id} name={piece.name} words="Give it a time" />
              ))}
            </Part>
            <Part title="Planned" hint="What goes out for it.">
              {ahead.map(({ key, first, channels }) => (
                <PieceLine key={key} brand={brand.slug} pieceId={first.pieceId} name={first.name} words={`${formatMoment(first.atMs, brand.zone)}, ${channels} ${channels === 1 ? 'channel' : 'channels'}, ${planStateWord(first.state).toLowerCase()}`} />
              ))}
            </Part>
            <Part title="Out" hint="What has gone out for it.">
              {out.map(({ key, first, channels }) => (
                <PieceLine key={key} brand={brand.slug} pieceId={first.pieceId} name={first.name} words={`${formatMoment(first.atMs, brand.zone)}, ${channels} ${channels === 1 ? 'channel' : 'channels'}`} />
              ))}
            </Part>
          </div>
        </>
      )}
    </div>
  );
}

function Part({ title, hint, children }: { readonly title: string; readonly hint: string; readonly children: readonly React.ReactNode[] }) {
  return (
    <section aria-label={title}>
      <h2 className="border-b border-line pb-1 text-base font-semibold">
        {title} <span className="font-normal text-quiet tabular-nums">{children.length}</span>
      </h2>
      {children.length === 0 ? <p className="mt-2 text-sm text-quiet">{hint}</p> : <ul className="mt-1">{children}</ul>}
    </section>
  );
}

function PieceLine({ brand, pieceId, name, words }: { readonly brand: string; readonly pieceId: string | null; readonly name: string; readonly words: string }) {
  return (
    <li className="flex items-center gap-2.5 py-1.5 text-sm">
      <PictureWithFallback src={pieceId === null ? null : addressOf(getPieceThumbnail, { brand, piece: pieceId })} alt="" className="size-9 shrink-0 rounded-sm object-contain" />
      <span className="min-w-0">
        {pieceId === null ? <span className="line-clamp-1 font-medium">{name}</span> : <a href={`/b/${brand}/make/pieces/${pieceId}`} className="line-clamp-1 font-medium hover:underline">{name}</a>}
        <span className="block text-xs text-quiet tabular-nums">{words}</span>
      </span>
    </li>
  );
}
