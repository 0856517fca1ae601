import Check from 'lucide-react/icons/check';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, type KeyboardEvent } from 'react';
import { shortDay } from '../../../core/time/wall-time.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { GuideLink } from '../../ui/GuideLink.tsx';
import { lengthOf } from '../figure-words.ts';
import type { Facets } from '../results/results-context.ts';
import { kindNames } from './replies-query.ts';
import type { Replies, Summary } from './use-replies.ts';

interface ListProps {
  readonly replies: Replies;
  readonly activeId: string | undefined;
  readonly chosen: ReadonlySet<string>;
  readonly channels: Facets['channels'];
  readonly people: Facets['people'];
  readonly nowMs: number;
  readonly zone: string;
  readonly state: string;
  readonly onOpen: (id: string) => void;
  readonly onToggle: (id: string) => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
}

const ROW_PX = 84;
const HOUR_MS = 3_600_000;
const empty: Readonly<Record<string, string>> = {
  'to-do': 'Nothing waits. What people write on your channels comes here.',
  unread: 'Everything is read.',
  open: 'Nothing is open.',
  closed: 'Nothing has been closed yet.',
  apart: 'Nothing is set apart. Messages with words of your list stand here; nothing is deleted.',
};

/** The conversations as one list with its keys: the arrows move, a letter acts on the one that stands open or on those that are chosen. */
export function RepliesList({ replies, activeId, chosen, channels, people, nowMs, zone, state, onOpen, onToggle, onKeyDown }: ListProps) {
  const { items, pages, answerWithinHours } = replies;
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({ count: items.length, getScrollElement: () => scroller.current, estimateSize: () => ROW_PX, overscan: 8 });
  const at = items.findIndex(({ id }) => id === activeId);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
  }, [at, virtual]);
  const drawn = virtual.getVirtualItems();
  const isNearEnd = (drawn.at(-1)?.index ?? 0) >= items.length - 5;
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  useEffect(() => {
    if (items.length > 0 && isNearEnd && hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [items.length, isNearEnd, hasNextPage, isFetchingNextPage, fetchNextPage]);
  return (
    <div className="flex min-h-0 flex-col max-md:max-h-[45dvh]">
      {pages.isError && <p className="text-sm text-coral-ink">{pages.error.message}</p>}
      <div
        ref={scroller}
        role="listbox"
        tabIndex={0}
        aria-label="Conversations"
        aria-multiselectable
        aria-activedescendant={at >= 0 ? `reply-${activeId}` : undefined}
        onKeyDown={onKeyDown}
        className="min-h-0 flex-1 overflow-auto rounded-md border border-line bg-panel outline-none focus-visible:ring-2 focus-visible:ring-house"
      >
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {drawn.map((row) => {
            const item = items[row.index];
            return item && <Row key={item.id} item={item} top={row.start} isActive={item.id === activeId} isChosen={chosen.has(item.id)} channel={channels.find(({ id }) => id === item.channelId)} person={people.find(({ id }) => id === item.assignedTo)?.name} nowMs={nowMs} zone={zone} isLate={item.waitingSinceMs !== null && nowMs - item.waitingSinceMs > answerWithinHours * HOUR_MS} onOpen={onOpen} onToggle={onToggle} />;
          })}
        </div>
        {pages.isSuccess && items.length === 0 && <p className="px-6 py-16 text-center text-sm text-quiet">{empty[state]} <GuideLink view="replies" /></p>}
      </div>
      <p className="py-2 text-xs text-quiet max-md:hidden">
        In the list: <Key>↑</Key> <Key>↓</Key> move, <Key>Space</Key> chooses, <Key>A</Key> answer, <Key>C</Key> close, <Key>O</Key> open again, <Key>M</Key> mine, <Key>S</Key> set apart, <Key>B</Key> bring back
      </p>
    </div>
  );
}

function Key({ children }: { readonly children: string }) {
  return <kbd className="rounded-sm border border-line bg-panel px-1 font-sans text-[11px]">{children}</kbd>;
}

interface RowProps {
  readonly item: Summary;
  readonly top: number;
  readonly isActive: boolean;
  readonly isChosen: boolean;
  readonly channel: Facets['channels'][number] | undefined;
  readonly person: string | undefined;
  readonly nowMs: number;
  readonly zone: string;
  readonly isLate: boolean;
  readonly onOpen: (id: string) => void;
  readonly onToggle: (id: string) => void;
}

function Row({ item, top, isActive, isChosen, channel, person, nowMs, zone, isLate, onOpen, onToggle }: RowProps) {
  const isUnread = item.state === 'unread';
  return (
    <div id={`reply-${item.id}`} role="option" aria-selected={isChosen} className={`absolute inset-x-0 flex gap-2 border-b border-line px-3 py-2 text-sm ${isActive ? 'bg-house-soft' : 'hover:bg-sunk'}`} style={{ top, height: ROW_PX }} onClick={() => onOpen(item.id)}>
      <span className="flex w-4 shrink-0 flex-col items-center gap-1.5 pt-0.5">
        <span
          aria-hidden
          data-choose
          onClick={(event) => {
            event.stopPropagation();
            onToggle(item.id);
          }}
          className={`grid size-4 cursor-pointer place-items-center rounded-sm border ${isChosen ? 'border-house bg-house text-house-ink' : 'border-edge bg-panel'}`}
        >
          {isChosen && <Check className="size-3" />}
        </span>
        {isUnread && <span role="img" aria-label="Unread" className="size-2 rounded-full bg-house" />}
      </span>
      <span className="min-w-0 flex-1">
        <span className="flex items-center justify-between gap-2">
          <span className={`flex min-w-0 items-center gap-1.5 ${isUnread ? 'font-semibold' : ''}`}>
            {channel?.badge && <ChannelBadge badge={channel.badge} name={channel.networkName} size={14} />}
            <span className="truncate">{item.author.name}</span>
          </span>
          <time suppressHydrationWarning className="shrink-0 text-xs text-quiet">
            {shortDay(item.lastMs, nowMs, zone)}
          </time>
        </span>
        <span className={`line-clamp-2 text-[13px] leading-snug [overflow-wrap:anywhere] ${isUnread ? '' : 'text-quiet'}`}>{item.snippet}</span>
        <span className="flex items-center gap-1.5 text-[11px] text-quiet">
          <span>{kindNames[item.kind]}</span>
          {isLate && item.waitingSinceMs !== null && (
            <span className="font-semibold text-marigold-ink" suppressHydrationWarning>
              ▲ waits {lengthOf(nowMs - item.waitingSinceMs)}
            </span>
          )}
          {person && <span className="truncate">· {person}</span>}
          {item.labels.map((label) => (
            <span key={label} className="truncate rounded-sm bg-sunk px-1">
              {label}
            </span>
          ))}
        </span>
      </span>
    </div>
  );
}
