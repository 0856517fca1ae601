import { useRef } from 'react';
import { useDrag } from 'react-aria';
import { roleMay } from '../../core/access/access.ts';
import type { PlanGroup, PlanItem } from '../../core/plan/plan-items.ts';
import { PieceThumbnail } from '../ui/PieceThumbnail.tsx';
import { dragItem } from './drag.ts';
import { isMovable } from './lanes/LaneTile.tsx';
import { planStateWord, StateSign } from './state-sign.tsx';
import { ThemeTile } from './ThemeTile.tsx';
import type { PlanContext } from './use-plan.ts';

interface GroupChipProps {
  readonly group: PlanGroup;
  /** The plan that it belongs to. */
  readonly context: PlanContext;
  /** Whether it belongs to another brand than the page, and says so. */
  readonly isBrandShown: boolean;
  readonly hasPicture: boolean;
  readonly onPress: (item: PlanItem) => void;
  readonly onShift: (item: PlanItem, days: number) => void;
}

/** A post with all its channels as a calendar shows it: time, theme, name. */
export function GroupChip({ group, context: { brand, themes }, isBrandShown, hasPicture, onPress, onShift }: GroupChipProps) {
  const ref = useRef<HTMLButtonElement>(null);
  const { first, channels } = group;
  const theme = first.themeId === null ? undefined : themes.get(first.themeId);
  const canMove = roleMay(brand.role, 'send') && isMovable(first);
  const { dragProps, isDragging } = useDrag({
    isDisabled: !canMove,
    hasDragButton: true,
    getItems: () => [dragItem({ kind: 'items', brand: brand.slug, postIds: first.postId === null ? [] : [first.postId], entryIds: first.entryId === null ? [] : [first.entryId], time: first.time })],
    getAllowedDropOperations: () => ['move'],
  });
  const isLight = first.state === 'open' || first.state === 'waiting' || first.state === 'rotation' || first.state === 'placeholder' || first.state === 'draft';
  const name = first.name || (first.state === 'open' ? 'Open slot' : 'Nothing yet');
  return (
    <button
      {...dragProps}
      ref={ref}
      type="button"
      data-group={group.key}
      data-plan-state={first.state}
      aria-label={`${isBrandShown ? `${brand.name}: ` : ''}${name}, ${first.time}, ${channels} ${channels === 1 ? 'channel' : 'channels'}, ${planStateWord(first.state)}${canMove ? '. Alt and arrows move it' : ''}`}
      onClick={() => onPress(first)}
      onKeyDown={(event) => {
        const days = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : event.key === 'ArrowUp' ? -7 : event.key === 'ArrowDown' ? 7 : 0;
        if (!event.altKey || days === 0 || !canMove) return;
        event.preventDefault();
        onShift(first, days);
      }}
      className={`relative flex w-full items-center gap-1.5 rounded-md border bg-panel px-1 py-0.5 text-left text-xs hover:border-edge ${isLight ? 'border-dashed border-edge' : first.state === 'failed' ? 'border-coral' : 'border-line'} ${isDragging ? 'opacity-40' : ''} ${canMove ? 'cursor-grab' : ''}`}
    >
      {hasPicture && first.pieceId !== null && <PieceThumbnail brand={brand.slug} piece={first.pieceId} className={`size-6 shrink-0 rounded-sm object-cover ${isLight ? 'opacity-60' : ''}`} />}
      <span className={`shrink-0 tabular-nums ${first.state === 'sent' ? 'text-quiet' : 'font-medium'}`}>{first.time}</span>
      {theme && <ThemeTile theme={theme} />}
      {isBrandShown && (
        <span aria-hidden title={brand.name} className="shrink-0 rounded-sm bg-sunk px-1 text-[10px] leading-4 font-semibold text-quiet">
          {initialsOf(brand.name)}
        </span>
      )}
      <span className={`min-w-0 flex-1 truncate ${isLight ? 'text-quiet' : ''}`}>{name}</span>
      {channels > 1 && <span className="shrink-0 text-quiet tabular-nums">{channels}</span>}
      <StateSign item={{ ...first, pieceKind: null }} />
    </button>
  );
}

const MAX_INITIALS = 3;
const initialsOf = (name: string): string => name.split(/\s+/u).map((word) => [...word][0] ?? '').join('').slice(0, MAX_INITIALS).toUpperCase();
