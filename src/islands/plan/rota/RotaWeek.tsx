import { useRef } from 'react';
import { useDrag } from 'react-aria';
import type { Plan, RotaRule } from '../../../core/plan/plan.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { DayDrop } from '../DayDrop.tsx';
import { dragItem } from '../drag.ts';
import { ThemeTile } from '../ThemeTile.tsx';
import type { PlanContext } from '../use-plan.ts';
import { weekdayNames } from '../../ui/weekdays.ts';

const weekdays = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const SHOWN_BADGES = 5;

interface RotaWeekProps {
  readonly plan: Plan;
  readonly week: number;
  readonly context: PlanContext;
  readonly mayChange: boolean;
  readonly onAdd: (themeId: string | null, weekday: number, time: string) => void;
  readonly onMove: (ruleId: string, weekday: number, hour: string) => void;
  readonly onOpen: (rule: RotaRule) => void;
  readonly onNew: (weekday: number, time: string) => void;
}

/** The week by the hour: themes are dropped on an hour, slots dragged to another one; each hour is a button for the keyboard. */
export function RotaWeek({ plan, week, context, mayChange, onAdd, onMove, onOpen, onNew }: RotaWeekProps) {
  const rules = plan.rota.rules.filter((rule) => rule.week % plan.rota.weeks === week);
  const used = rules.map(({ time }) => Number(time.slice(0, 2)));
  const [first, last] = [Math.min(7, ...used), Math.max(21, ...used)];
  const hours = Array.from({ length: last - first + 1 }, (_, index) => String(first + index).padStart(2, '0'));
  return (
    <section aria-label="Week" data-two-ways className="min-h-0 overflow-auto rounded-md border border-line bg-panel">
      <div className="sticky top-0 z-10 grid min-w-136 grid-cols-[3rem_repeat(7,minmax(0,1fr))] border-b border-line bg-panel text-sm font-semibold">
        <span />
        {weekdays.map((name) => (
          <span key={name} className="border-l border-line px-2 py-1.5">
            {name}
          </span>
        ))}
      </div>
      {hours.map((hour) => (
        <div key={hour} className="grid min-w-136 grid-cols-[3rem_repeat(7,minmax(0,1fr))] border-b border-line last:border-b-0">
          <span className="px-1.5 py-1 text-right text-xs text-quiet tabular-nums">{hour}:00</span>
          {weekdays.map((name, index) => {
            const weekday = index + 1;
            const here = rules.filter((rule) => rule.weekday === weekday && rule.time.startsWith(hour)).toSorted((a, b) => (a.time < b.time ? -1 : 1));
            return (
              <DayDrop
                key={name}
                isOpen={mayChange}
                label={`${weekdayNames[index] ?? ''}, ${hour}:00`}
                onDrop={(dragged) => {
                  if (dragged.kind === 'theme') onAdd(dragged.themeId, weekday, `${hour}:00`);
                  else if (dragged.kind === 'rule') onMove(dragged.ruleId, weekday, hour);
                }}
                className="group/hour relative min-h-8 space-y-0.5 border-l border-line p-0.5"
              >
                {here.map((rule) => (
                  <RuleChip key={rule.id} rule={rule} plan={plan} context={context} mayChange={mayChange} onOpen={() => onOpen(rule)} />
                ))}
                {here.length === 0 && mayChange && (
                  <button type="button" aria-label={`Add a slot on ${weekdayNames[index] ?? ''} at ${hour}:00`} onClick={() => onNew(weekday, `${hour}:00`)} className="absolute inset-0.5 rounded-md text-transparent hover:bg-sunk hover:text-quiet focus-visible:text-quiet">
                    +
                  </button>
                )}
              </DayDrop>
            );
          })}
        </div>
      ))}
    </section>
  );
}

function RuleChip({ rule, plan, context: { channels, sheets }, mayChange, onOpen }: { readonly rule: RotaRule; readonly plan: Plan; readonly context: PlanContext; readonly mayChange: boolean; readonly onOpen: () => void }) {
  const ref = useRef<HTMLButtonElement>(null);
  const { dragProps, isDragging } = useDrag({ isDisabled: !mayChange, hasDragButton: true, getItems: () => [dragItem({ kind: 'rule', ruleId: rule.id })], getAllowedDropOperations: () => ['move'] });
  const theme = plan.themes.find(({ id }) => id === rule.themeId);
  const networks = [...new Set(rule.channelIds.map((channelId) => channels.find(({ id }) => id === channelId)?.network ?? ''))].filter((key) => sheets.has(key));
  const isSeasonal = rule.from !== null || rule.until !== null;
  return (
    <button
      {...dragProps}
      ref={ref}
      type="button"
      data-rule={rule.id}
      aria-label={`${theme?.name ?? 'Any theme'}, ${weekdayNames[rule.weekday - 1] ?? ''} ${rule.time}, ${rule.channelIds.length} ${rule.channelIds.length === 1 ? 'channel' : 'channels'}${isSeasonal ? ', in its season' : ''}`}
      onClick={onOpen}
      className={`relative block w-full rounded-md border border-edge bg-panel px-1 py-0.5 text-left text-xs hover:border-house ${isSeasonal ? 'border-dashed' : ''} ${isDragging ? 'opacity-40' : ''}`}
    >
      <span className="flex items-center gap-1">
        {theme ? <ThemeTile theme={theme} /> : <span className="text-quiet">any</span>}
        <span className="font-semibold tabular-nums">{rule.time}</span>
      </span>
      <span className="mt-0.5 flex flex-wrap items-center gap-0.5">
        {networks.slice(0, SHOWN_BADGES).map((key) => {
          const sheet = sheets.get(key);
          return sheet && <ChannelBadge key={key} badge={sheet.badge} size={12} />;
        })}
        {networks.length > SHOWN_BADGES && <span className="text-quiet">+{networks.length - SHOWN_BADGES}</span>}
      </span>
    </button>
  );
}
