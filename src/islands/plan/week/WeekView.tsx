import { useMemo, useState } from 'react';
import { roleMay } from '../../../core/access/access.ts';
import { groupItems, type PlanGroup, type PlanItem } from '../../../core/plan/plan-items.ts';
import { addDays, daysFrom, mondayOf } from '../../../core/time/day.ts';
import { wallTimeOf } from '../../../core/time/wall-time.ts';
import { Queries } from '../../ui/Queries.tsx';
import { DayDrop } from '../DayDrop.tsx';
import type { Dragged } from '../drag.ts';
import { GroupChip } from '../GroupChip.tsx';
import { HoldButton } from '../HoldButton.tsx';
import { ItemDialog } from '../ItemDialog.tsx';
import { dayWords } from '../lanes/LaneHead.tsx';
import { PlanBar } from '../PlanBar.tsx';
import { useLanes, usePlanContexts, usePlanQuery, type PlanViewProps } from '../use-plan.ts';
import { usePlanActions } from '../use-plan-actions.ts';

const HOURS = Array.from({ length: 24 }, (_, hour) => String(hour).padStart(2, '0'));

export default function WeekView(props: PlanViewProps) {
  return (
    <Queries>
      <WeekOf {...props} />
    </Queries>
  );
}

/** A week by the hour. Hours in which nothing stands are low, so that what matters is seen without scrolling. */
function WeekOf(props: PlanViewProps) {
  const [query, setQuery] = usePlanQuery();
  const contexts = usePlanContexts(props, query.brands);
  const [context] = contexts.all;
  const { brand, today, nowMs } = context;
  const from = mondayOf(query.from ?? today);
  const days = daysFrom(from, addDays(from, 6));
  const lanes = useLanes(contexts.brands, from, 7, query);
  const actionsOf = usePlanActions(contexts.brands);
  const mayMove = roleMay(brand.role, 'send');
  const [open, setOpen] = useState<PlanItem | null>(null);
  const cells = useMemo(() => {
    const found = new Map<string, PlanGroup[]>();
    for (const group of groupItems(lanes.items)) {
      const key = `${group.first.day} ${group.first.time.slice(0, 2)}`;
      found.set(key, [...(found.get(key) ?? []), group]);
    }
    return found;
  }, [lanes.items]);
  const busy = HOURS.filter((hour) => days.some((day) => cells.has(`${day} ${hour}`)));
  const [first, last] = [Math.min(7, Number(busy[0] ?? 7)), Math.max(21, Number(busy.at(-1) ?? 21))];
  const hours = HOURS.slice(first, last + 1);
  const wallNow = wallTimeOf(nowMs, brand.zone);
  const drop = (dragged: Dragged, day: string, hour: string): void => {
    if (dragged.kind !== 'items') return;
    const wall = `${day}T${hour}:${dragged.time.slice(3)}`;
    void actionsOf(dragged.brand).move([...dragged.postIds.map((postId) => ({ postId, entryId: null })), ...dragged.entryIds.map((entryId) => ({ postId: null, entryId }))], { kind: 'at', wall }, wall);
  };
  return (
    <main className="flex min-h-0 flex-1 flex-col px-4 py-4">
      <PlanBar title="Week" contexts={contexts} brands={props.brands} query={query} onChange={setQuery} steps={{ back: () => setQuery({ from: addDays(from, -7) }), today: () => setQuery({ from: undefined }), on: () => setQuery({ from: addDays(from, 7) }), words: `${dayWords(from, true)} – ${dayWords(days[6] ?? from, true)}` }} actions={<HoldButton context={context} />} />
      {lanes.problem !== null && <p className="mb-2 text-sm text-coral-ink">{lanes.problem}</p>}
      <div data-two-ways className="min-h-0 flex-1 overflow-auto rounded-md border border-line bg-panel">
        <div className="sticky top-0 z-10 grid min-w-[56rem] grid-cols-[3.5rem_repeat(7,minmax(0,1fr))] border-b border-line bg-panel text-sm font-semibold">
          <span />
          {days.map((day) => {
            const names = (lanes.days).filter((each) => each.day <= day && day <= each.until);
            return (
              <span key={day} className={`min-w-0 border-l border-line px-2 py-1.5 leading-4 ${day === today ? 'text-house' : ''}`}>
                <span className="block tabular-nums">{dayWords(day, day === from)}</span>
                {names.length > 0 && <span className="block truncate text-[11px] font-normal text-quiet">{names.map(({ name }) => name).join(', ')}</span>}
              </span>
            );
          })}
        </div>
        {hours.map((hour) => (
          <div key={hour} className="grid min-w-[56rem] grid-cols-[3.5rem_repeat(7,minmax(0,1fr))] border-b border-line last:border-b-0">
            <span className="px-2 py-1 text-right text-xs text-quiet tabular-nums">{hour}:00</span>
            {days.map((day) => {
              const isNow = wallNow.startsWith(`${day}T${hour}`);
              return (
                <DayDrop key={day} isOpen={mayMove && `${day}T${hour}:59` > wallNow} label={`${day}, ${hour}:00`} onDrop={(dragged) => drop(dragged, day, hour)} className={`min-h-7 space-y-0.5 border-l p-0.5 ${isNow ? 'border-l-2 border-house' : 'border-line'} ${day < today ? 'bg-wall' : ''}`}>
                  {(cells.get(`${day} ${hour}`) ?? []).map((group) => (
                    <GroupChip key={group.key} group={group} context={contexts.of(group.first.channelId)} isBrandShown={contexts.of(group.first.channelId) !== context} hasPicture onPress={setOpen} onShift={(item, by) => void actionsOf(contexts.of(item.channelId).brand.slug).shift([item], by)} />
                  ))}
                </DayDrop>
              );
            })}
          </div>
        ))}
      </div>
      {open && <ItemDialog item={open} context={contexts.of(open.channelId)} actions={actionsOf(contexts.of(open.channelId).brand.slug)} onClose={() => setOpen(null)} />}
    </main>
  );
}
