import { useMemo, useState } from 'react';
import { getBrandPackage } from '../../../contract/exchange-contracts.ts';
import { roleMay } from '../../../core/access/access.ts';
import { groupItems, type PlanGroup, type PlanItem } from '../../../core/plan/plan-items.ts';
import { addDays, daysFrom, weekdayOf } from '../../../core/time/day.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { addressOf } from '../../ui/call.ts';
import { Queries } from '../../ui/Queries.tsx';
import { weekdayNames } from '../../ui/weekdays.ts';
import { DayDrop } from '../DayDrop.tsx';
import type { Dragged } from '../drag.ts';
import { GroupChip } from '../GroupChip.tsx';
import { HoldButton } from '../HoldButton.tsx';
import { ItemDialog } from '../ItemDialog.tsx';
import { PlanBar } from '../PlanBar.tsx';
import { monthBefore, monthGrid, nextMonth } from '../plan-query.ts';
import { ThemeTile } from '../ThemeTile.tsx';
import { useLanes, usePlanContexts, usePlanQuery, type PlanViewProps } from '../use-plan.ts';
import { usePlanActions } from '../use-plan-actions.ts';

const months = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December'] as const;
/** A day shows so many posts; the others are a press away. */
const SHOWN = 4;

export default function MonthView(props: PlanViewProps) {
  return (
    <Queries>
      <MonthOf {...props} />
    </Queries>
  );
}

function MonthOf(props: PlanViewProps) {
  const [query, setQuery] = usePlanQuery();
  const contexts = usePlanContexts(props, query.brands);
  const [context] = contexts.all;
  const { brand, today, campaigns } = context;
  const anchor = query.from ?? today;
  const { from, days, month } = monthGrid(anchor);
  const lanes = useLanes(contexts.brands, from, days, query);
  const actionsOf = usePlanActions(contexts.brands);
  const mayMove = roleMay(brand.role, 'send');
  const [open, setOpen] = useState<PlanItem | null>(null);
  const [wide, setWide] = useState<string | null>(null);
  const byDay = useMemo(() => {
    const found = new Map<string, PlanGroup[]>();
    for (const group of groupItems(lanes.items)) found.set(group.first.day, [...(found.get(group.first.day) ?? []), group]);
    return found;
  }, [lanes.items]);
  const drop = (dragged: Dragged, day: string): void => {
    if (dragged.kind !== 'items') return;
    const wall = `${day}T${dragged.time}`;
    void actionsOf(dragged.brand).move([...dragged.postIds.map((postId) => ({ postId, entryId: null })), ...dragged.entryIds.map((entryId) => ({ postId: null, entryId }))], { kind: 'at', wall }, wall);
  };
  const shownDays = daysFrom(from, addDays(from, days - 1));
  return (
    <main className="flex min-h-0 flex-1 flex-col px-4 py-4">
      <PlanBar
        title="Month"
        contexts={contexts}
        brands={props.brands}
        query={query}
        onChange={setQuery}
        steps={{ back: () => setQuery({ from: monthBefore(anchor) }), today: () => setQuery({ from: undefined }), on: () => setQuery({ from: nextMonth(anchor) }), words: `${months[Number(month.slice(5)) - 1] ?? ''} ${month.slice(0, 4)}` }}
        actions={
          <>
            {roleMay(brand.role, 'make') && (
              <a href={addressOf(getBrandPackage, { brand: brand.slug }, { scope: 'month', month: month.slice(0, 7) })} download className={buttonClasses('plain')} title="The pieces that stand in this month, as a package for another Confetti">
                Export month
              </a>
            )}
            <HoldButton context={context} />
          </>
        }
      />
      {lanes.problem !== null && <p className="mb-2 text-sm text-coral-ink">{lanes.problem}</p>}
      <div data-two-ways className="min-h-0 flex-1 overflow-auto rounded-md border border-line bg-panel">
        <div className="sticky top-0 z-10 grid min-w-[56rem] grid-cols-7 border-b border-line bg-panel text-xs font-semibold text-quiet">
          {weekdayNames.map((name) => (
            <span key={name} className="px-2 py-1.5">
              {name}
            </span>
          ))}
        </div>
        <div className="grid min-h-[calc(100%-1.9rem)] min-w-[56rem] auto-rows-fr grid-cols-7">
          {shownDays.map((day) => {
            // Brands in other zones have other moments at the same wall time.
            const groups = (byDay.get(day) ?? []).toSorted((a, b) => a.first.time.localeCompare(b.first.time));
            const shown = wide === day ? groups : groups.slice(0, SHOWN);
            const names = (lanes.days).filter((each) => each.day <= day && day <= each.until);
            const running = [...campaigns.values()].filter(({ fromDay, untilDay }) => fromDay <= day && day <= untilDay);
            const isOther = !day.startsWith(month);
            return (
              <DayDrop key={day} isOpen={mayMove && day >= today} label={day} onDrop={(dragged) => drop(dragged, day)} className={`min-h-24 border-r border-b border-line p-1.5 [&:nth-child(7n)]:border-r-0 ${isOther || weekdayOf(day) >= 6 ? 'bg-wall' : ''}`}>
                <p className="mb-1 flex items-center gap-1 text-xs">
                  <span className={`tabular-nums ${day === today ? 'grid size-5 place-items-center rounded-full bg-house font-bold text-house-ink' : isOther ? 'text-quiet' : 'font-semibold'}`}>{Number(day.slice(8))}</span>
                  <span className="min-w-0 flex-1 truncate text-quiet" title={names.map(({ name }) => name).join(', ')}>
                    {names.map(({ name, of }) => (of === 'pause' ? `Pause: ${name}` : name)).join(', ')}
                  </span>
                  {running.map((campaign) => (
                    <ThemeTile key={campaign.id} theme={campaign} />
                  ))}
                </p>
                <div className="space-y-0.5">
                  {shown.map((group) => (
                    <GroupChip key={group.key} group={group} context={contexts.of(group.first.channelId)} isBrandShown={contexts.of(group.first.channelId) !== context} hasPicture={false} onPress={setOpen} onShift={(item, by) => void actionsOf(contexts.of(item.channelId).brand.slug).shift([item], by)} />
                  ))}
                </div>
                {groups.length > SHOWN && (
                  <Button size="small" look="quiet" className="mt-0.5" onClick={() => setWide(wide === day ? null : day)}>
                    {wide === day ? 'Show fewer' : `${groups.length - SHOWN} more`}
                  </Button>
                )}
              </DayDrop>
            );
          })}
        </div>
      </div>
      {open && <ItemDialog item={open} context={contexts.of(open.channelId)} actions={actionsOf(contexts.of(open.channelId).brand.slug)} onClose={() => setOpen(null)} />}
    </main>
  );
}
