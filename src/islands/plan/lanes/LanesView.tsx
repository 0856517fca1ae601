import { useCallback, useMemo, useState } from 'react';
import { roleMay } from '../../../core/access/access.ts';
import { cellsOf, oncePerLane, type PlanItem } from '../../../core/plan/plan-items.ts';
import { addDays, daysFrom } from '../../../core/time/day.ts';
import { GuideLink } from '../../ui/GuideLink.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { Button } from '../../ui/Button.tsx';
import { BulkBar } from '../BulkBar.tsx';
import { HoldButton } from '../HoldButton.tsx';
import { ItemDialog } from '../ItemDialog.tsx';
import { PlanBar } from '../PlanBar.tsx';
import { MAX_DAYS, MIN_DAYS } from '../plan-query.ts';
import { useLanes, usePlanContexts, usePlanQuery, type PlanViewProps } from '../use-plan.ts';
import { usePlanActions } from '../use-plan-actions.ts';
import { WaitingStrip } from '../WaitingStrip.tsx';
import { LaneGrid, linesOf } from './LaneGrid.tsx';
import { dayWords } from './LaneHead.tsx';
import { ProposalPane } from './ProposalPane.tsx';
import { usePlanProposal, withProposed } from './use-plan-proposal.ts';

const USUAL_DAYS = 11;

export default function LanesView(props: PlanViewProps) {
  return (
    <Queries>
      <LanesOf {...props} />
    </Queries>
  );
}

function LanesOf(props: PlanViewProps) {
  const [query, setQuery] = usePlanQuery();
  const contexts = usePlanContexts(props, query.brands);
  const [context] = contexts.all;
  const { brand, today } = context;
  const from = query.from ?? addDays(today, -1);
  const count = query.days ?? USUAL_DAYS;
  const days = useMemo(() => daysFrom(from, addDays(from, count - 1)), [from, count]);
  const lanes = useLanes(contexts.brands, from, count, query);
  const actionsOf = usePlanActions(contexts.brands);
  const mayMove = roleMay(brand.role, 'send');
  const plannedCells = useMemo(() => cellsOf(oncePerLane(lanes.items)), [lanes.items]);
  // Shows rows once their heights and the campaigns are known, so that the layout does not shift.
  const isReady = (context.plan !== null || context.problem !== null) && !lanes.isPending;
  const lines = useMemo(() => (isReady ? linesOf(contexts, query.channels) : []), [isReady, contexts, query.channels]);
  const { isOpen: isProposing, proposal } = usePlanProposal(brand.slug, query.channels?.split(',').filter((id) => id !== '') ?? []);
  const { placings } = proposal;
  const cells = useMemo(() => (isProposing ? withProposed(plannedCells, placings) : plannedCells), [plannedCells, isProposing, placings]);
  const [open, setOpen] = useState<PlanItem | null>(null);
  const [chosen, setChosen] = useState<ReadonlyMap<string, PlanItem>>(new Map());
  const choose = useCallback((item: PlanItem): void => {
    setChosen((now) => {
      const next = new Map(now);
      if (!next.delete(item.key)) next.set(item.key, item);
      return next;
    });
  }, []);
  return (
    <main className="flex min-h-0 flex-1 flex-col px-4 py-4 [@media(max-height:36rem)]:overflow-auto">
      <PlanBar
        title="Lanes"
        contexts={contexts}
        brands={props.brands}
        query={query}
        onChange={setQuery}
        steps={{ back: () => setQuery({ from: addDays(from, -count) }), today: () => setQuery({ from: undefined }), on: () => setQuery({ from: addDays(from, count) }), words: `${dayWords(from, true)} – ${dayWords(days.at(-1) ?? from, true)}` }}
        zoom={<Zoom days={count} onChange={(next) => setQuery({ days: next === USUAL_DAYS ? undefined : next })} />}
        actions={
          <>
            {mayMove && !isProposing && <Button onClick={() => proposal.propose(proposal.days)}>Fill open slots</Button>}
            <HoldButton context={context} />
          </>
        }
      />
      {context.problem !== null && <p className="mb-2 text-sm text-coral-ink">{context.problem}</p>}
      {lanes.problem !== null && <p className="mb-2 text-sm text-coral-ink">{lanes.problem}</p>}
      {isReady && mayMove && lanes.items.length === 0 && context.plan?.plan.rota.rules.length === 0 && (
        <p className="mb-2 text-sm text-quiet">
          Nothing is planned in these days, and no slots stand open.{' '}
          <a href={`/b/${brand.slug}/plan/rota`} className="font-medium text-house underline">
            Make a rota
          </a>
          , or press a day to put something there. <GuideLink view="lanes" />
        </p>
      )}
      {lanes.isCut && <p className="mb-2 text-sm text-marigold-ink">There is more in these days than is shown. Choose fewer channels or days.</p>}
      {chosen.size > 0 && <BulkBar items={[...chosen.values()]} contexts={contexts} actionsOf={actionsOf} onClear={() => setChosen(new Map())} />}
      <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-col [@media(max-height:36rem)]:h-80 [@media(max-height:36rem)]:flex-none">
        <LaneGrid contexts={contexts} days={days} lines={lines} cells={cells} lanes={lanes} chosen={chosen} actionsOf={actionsOf} onOpen={setOpen} onChoose={choose} />
        {isProposing && <ProposalPane context={context} proposal={proposal} />}
      </div>
      <WaitingStrip context={context} actions={actionsOf(brand.slug)} />
      {open && <ItemDialog item={open} context={contexts.of(open.channelId)} actions={actionsOf(contexts.of(open.channelId).brand.slug)} onClose={() => setOpen(null)} />}
    </main>
  );
}

const zoomSteps = [3, 7, 11, 14, 21, 28, 42, 56, 84] as const;

/** How many days are shown, from three to twelve weeks. */
function Zoom({ days, onChange }: { readonly days: number; readonly onChange: (days: number) => void }) {
  const at = zoomSteps.findIndex((step) => step >= days);
  const words = (count: number): string => (count < 14 || count % 7 !== 0 ? `${count} days` : `${count / 7} weeks`);
  return (
    <label className="flex items-center gap-2 text-xs text-quiet">
      <span className="w-14 text-right tabular-nums">{words(Math.min(MAX_DAYS, Math.max(MIN_DAYS, days)))}</span>
      <input type="range" aria-label="Days shown" aria-valuetext={words(days)} min={0} max={zoomSteps.length - 1} value={at < 0 ? zoomSteps.length - 1 : at} onChange={(event) => onChange(zoomSteps[Number(event.target.value)] ?? USUAL_DAYS)} className="w-24 accent-house" />
    </label>
  );
}
