import { memo, type ReactNode } from 'react';
import { leftOver, type ComposedRow } from '../../../core/wording/compose.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import type { SheetRow } from './sheet/sheet-rows.ts';

/** The name of a row, with what the network's limits leave. */
export const RowHead = memo(function RowHead({ row, composed, isChosen, isAlone, children }: { readonly row: SheetRow; readonly composed: ComposedRow | null; readonly isChosen: boolean; readonly isAlone: boolean; readonly children: ReactNode }) {
  const left = row.channel && composed ? leftOver(composed, row.channel.sheet) : null;
  const notes = left ? [left.characters === null ? 'no limit' : left.characters < 0 ? `${-left.characters} over` : `${left.characters.toLocaleString('en')} left`, left.hashtags === null ? '' : `${left.hashtags} tags`, left.parts > 1 ? `${left.parts} parts` : ''] : ['every row without its own'];
  return (
    <div role="rowheader" className={`sticky left-0 z-[6] flex min-w-0 items-start gap-1 border-r border-line bg-panel px-2.5 py-2 ${isChosen ? 'text-house' : ''}`}>
      <div className="min-w-0 flex-1">
        <p className="flex items-center gap-1.5 text-sm font-semibold">
          {row.channel && <ChannelBadge badge={row.channel.sheet.badge} size={16} />}
          <span className="truncate" title={row.name}>
            {row.channel && isAlone ? row.channel.sheet.name : row.name}
          </span>
        </p>
        <p className={`text-[11px] leading-4 ${left && left.characters !== null && left.characters < 0 ? 'font-semibold text-coral-ink' : 'text-quiet'}`}>{notes.filter((note) => note !== '').join(' · ')}</p>
      </div>
      {children}
    </div>
  );
});
