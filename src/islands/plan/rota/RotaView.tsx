import { useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { getPlan } from '../../../contract/plan-contracts.ts';
import { roleMay } from '../../../core/access/access.ts';
import { channelsOfTheme, type Plan, type RotaRule } from '../../../core/plan/plan.ts';
import { ConflictNote } from '../../editor/ConflictNote.tsx';
import { HistoryButtons } from '../../editor/HistoryButtons.tsx';
import { Button } from '../../ui/Button.tsx';
import { call } from '../../ui/call.ts';
import { Queries } from '../../ui/Queries.tsx';
import { usePlanEdit } from '../plan-store.ts';
import { usePlanContext, type PlanAnswer, type PlanContext, type PlanProps } from '../use-plan.ts';
import { PlanSettings } from './PlanSettings.tsx';
import { RotaWeek } from './RotaWeek.tsx';
import { RuleDialog } from './RuleDialog.tsx';
import { ThemeList } from './ThemeList.tsx';
import { WhatIf } from './WhatIf.tsx';

export default function RotaView(props: PlanProps) {
  return (
    <Queries>
      <Loader {...props} />
    </Queries>
  );
}

function Loader(props: PlanProps) {
  const context = usePlanContext(props);
  const { brand } = context;
  const plan = useQuery({ queryKey: ['plan', brand.slug, 'rota'], queryFn: () => call(getPlan, { params: { brand: brand.slug } }), staleTime: Infinity });
  if (plan.isError) return <p className="p-6 text-coral-ink">{plan.error.message}</p>;
  return plan.data ? <Rota context={context} stored={plan.data} /> : <p className="p-6 text-sm text-quiet">Loading…</p>;
}

/** Whether a rule is new: it is written when the dialog says so. */
export interface EditedRule {
  readonly rule: RotaRule;
  readonly isNew: boolean;
}

function Rota({ context, stored }: { readonly context: PlanContext; readonly stored: PlanAnswer }) {
  const { brand, channels } = context;
  const edit = usePlanEdit(brand.slug, stored);
  const { plan, store, state, isChanged, change } = edit;
  const [rule, setRule] = useState<EditedRule | null>(null);
  const [week, setWeek] = useState(0);
  const mayChange = roleMay(brand.role, 'send');
  const shownWeek = Math.min(week, plan.rota.weeks - 1);

  /** A new slot for a theme: on the channels that its other slots have, else on all that the theme allows. */
  const draftRule = (themeId: string | null, weekday: number, time: string): RotaRule => {
    const theme = plan.themes.find(({ id }) => id === themeId);
    const like = plan.rota.rules.find((each) => each.themeId === themeId);
    return { id: nanoid(8), week: shownWeek, weekday, time: freeTime(plan, shownWeek, weekday, time), themeId, channelIds: [...(like?.channelIds ?? channelsOfTheme(theme, channels.map(({ id }) => id)))], from: null, until: null };
  };
  const keepRule = ({ rule: kept, isNew }: EditedRule): void => {
    change((now) => ({ ...now, rota: { ...now.rota, rules: isNew ? [...now.rota.rules, kept] : now.rota.rules.map((each) => (each.id === kept.id ? kept : each)) } }));
    setRule(null);
  };
  const removeRule = (id: string): void => {
    change((now) => ({ ...now, rota: { ...now.rota, rules: now.rota.rules.filter((each) => each.id !== id) } }));
    setRule(null);
  };
  const addTo = (themeId: string | null, weekday: number, time: string): void => {
    const made = draftRule(themeId, weekday, time);
    if (made.channelIds.length === 0) setRule({ rule: made, isNew: true });
    else keepRule({ rule: made, isNew: true });
  };
  const moveRule = (id: string, weekday: number, hour: string): void => change((now) => ({ ...now, rota: { ...now.rota, rules: now.rota.rules.map((each) => (each.id === id ? { ...each, weekday, time: freeTime({ ...now, rota: { ...now.rota, rules: now.rota.rules.filter((other) => other.id !== id) } }, each.week, weekday, `${hour}:${each.time.slice(3)}`) } : each)) } }));
  const { save } = state;
  return (
    <main className="flex min-h-0 flex-1 flex-col px-4 py-4">
      {save.kind === 'conflict' && <ConflictNote by={save.by} conflicts={save.conflicts} nameOf={(path) => path.join(', ')} onResolve={(decide) => void store.resolve(decide)} />}
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="text-xl font-semibold">Rota</h1>
        <label className="flex items-center gap-2 text-sm">
          A cycle of
          <select aria-label="Weeks of the cycle" value={plan.rota.weeks} disabled={!mayChange} onChange={(event) => change((now) => ({ ...now, rota: { ...now.rota, weeks: Number(event.target.value) } }))} className="h-8 rounded-md border border-line bg-panel px-1.5 text-sm">
            {[1, 2, 3, 4, 5, 6, 7, 8].map((count) => (
              <option key={count} value={count}>
                {count} {count === 1 ? 'week' : 'weeks'}
              </option>
            ))}
          </select>
        </label>
        {plan.rota.weeks > 1 && (
          <div role="group" aria-label="Week shown" className="flex gap-1">
            {Array.from({ length: plan.rota.weeks }, (_, index) => (
              <button key={index} type="button" aria-pressed={index === shownWeek} onClick={() => setWeek(index)} className={`rounded-md px-2 py-1 text-sm ${index === shownWeek ? 'bg-panel font-semibold text-house shadow-[inset_0_0_0_1px_var(--c-line)]' : 'text-quiet hover:text-ink'}`}>
                Week {index + 1}
              </button>
            ))}
          </div>
        )}
        <div className="ml-auto flex items-center gap-2">
          {save.kind === 'refused' && (
            <p role="alert" className="text-sm text-coral-ink">
              {save.sentence}
            </p>
          )}
          {save.kind === 'offline' && <p className="text-sm text-marigold-ink">{save.sentence}</p>}
          {isChanged && <span className="text-sm font-semibold text-marigold-ink">A what-if: nothing of it holds yet</span>}
          {mayChange && <HistoryButtons store={store} state={state} />}
          {isChanged && <Button onClick={() => store.discard()}>Discard</Button>}
          {mayChange && (
            <Button look="primary" disabled={!isChanged || save.kind === 'saving'} onClick={() => void store.flush()}>
              Keep this rota
            </Button>
          )}
        </div>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[13rem_minmax(34rem,1fr)_19rem] gap-4 overflow-auto max-lg:auto-rows-max max-lg:grid-cols-1">
        <ThemeList edit={edit} channels={channels} sheets={context.sheets} mayChange={mayChange} onAdd={(themeId) => setRule({ rule: draftRule(themeId, 1, '09:00'), isNew: true })} />
        <RotaWeek plan={plan} week={shownWeek} context={context} mayChange={mayChange} onAdd={addTo} onMove={moveRule} onOpen={(opened) => setRule({ rule: opened, isNew: false })} onNew={(weekday, time) => setRule({ rule: draftRule(plan.themes[0]?.id ?? null, weekday, time), isNew: true })} />
        <div className="min-h-0 space-y-6 overflow-auto pr-1 pb-4">
          <WhatIf context={context} plan={plan} isChanged={isChanged} />
          <PlanSettings edit={edit} stored={stored} context={context} mayChange={mayChange} />
        </div>
      </div>
      {rule && <RuleDialog edited={rule} plan={plan} context={context} mayChange={mayChange} onKeep={keepRule} onRemove={removeRule} onClose={() => setRule(null)} />}
    </main>
  );
}

/** The first time from this one on, by quarters of an hour, at which no other slot stands that day. */
function freeTime(plan: Plan, week: number, weekday: number, time: string): string {
  const taken = new Set(plan.rota.rules.filter((rule) => rule.week === week && rule.weekday === weekday).map((rule) => rule.time));
  let minutes = Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
  const words = (at: number): string => `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`;
  while (taken.has(words(minutes)) && minutes < 23 * 60 + 45) minutes += 15;
  return words(minutes);
}
