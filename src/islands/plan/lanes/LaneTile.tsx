import { memo } from 'react';
import { canDelivery } from '../../../core/post/delivery-state.ts';
import type { PlanItem } from '../../../core/plan/plan-items.ts';
import type { Theme } from '../../../core/plan/plan.ts';
import { PieceThumbnail } from '../../ui/PieceThumbnail.tsx';
import { planStateWord, StateSign } from '../state-sign.tsx';
import { ThemeTile, toneGround } from '../ThemeTile.tsx';

/** How much of a thing there is room for. */
export type Density = 'wide' | 'middle' | 'small';

interface LaneTileProps {
  readonly item: PlanItem;
  readonly brand: string;
  readonly theme: Theme | undefined;
  readonly density: Density;
  readonly label: string;
  readonly isFocusable: boolean;
  readonly isChosen: boolean;
  readonly mayMove: boolean;
  readonly onPress: (item: PlanItem, event: { readonly ctrlKey: boolean; readonly metaKey: boolean; readonly shiftKey: boolean }) => void;
  readonly onFocus: () => void;
}

/** Whether a person may still move it. */
export function isMovable(item: PlanItem): boolean {
  return item.entryId !== null || (item.postId !== null && item.state === 'scheduled' && canDelivery('scheduled', 'cancel'));
}

const frames: Readonly<Partial<Record<PlanItem['state'], string>>> = {
  open: 'border-dashed border-edge bg-transparent',
  waiting: 'border-dashed border-edge opacity-70',
  rotation: 'border-dashed border-edge opacity-70',
  draft: 'border-dashed border-marigold',
  placeholder: 'border-dashed border-edge bg-sunk',
  proposed: 'border-dashed border-house bg-house-soft',
  failed: 'border-coral',
};

/** One thing of a lane: its picture, its time and its theme, as much of it as there is room for. */
export const LaneTile = memo(function LaneTile({ item, brand, theme, density, label, isFocusable, isChosen, mayMove, onPress, onFocus }: LaneTileProps) {
  const canMove = mayMove && isMovable(item);
  const frame = frames[item.state] ?? 'border-line';
  return (
    <button
      type="button"
      draggable={canMove}
      data-item={item.key}
      data-plan-state={item.state}
      aria-label={label}
      aria-pressed={isChosen}
      tabIndex={isFocusable ? 0 : -1}
      onFocus={onFocus}
      onClick={(event) => onPress(item, event)}
      className={`relative block w-full rounded-md text-left outline-offset-1 data-dragged:opacity-40 ${isChosen ? 'outline-2 outline-house' : ''} ${canMove ? 'cursor-grab' : ''}`}
    >
      {density === 'wide' ? <WideTile item={item} brand={brand} theme={theme} frame={frame} /> : <SmallTile item={item} brand={brand} theme={theme} frame={frame} isTiny={density === 'small'} />}
    </button>
  );
});

function WideTile({ item, brand, theme, frame }: Pick<LaneTileProps, 'item' | 'brand' | 'theme'> & { readonly frame: string }) {
  return (
    <>
      <span className={`relative block h-[38px] rounded-md border ${frame}`}>
        {item.pieceId !== null ? (
          <PieceThumbnail brand={brand} piece={item.pieceId} className="h-full w-full rounded-[5px] object-cover" />
        ) : (
          <span className="grid h-full place-items-center overflow-hidden px-1 text-center text-[10px] leading-3 text-quiet">{item.state === 'open' ? theme ? <ThemeTile theme={theme} /> : 'any' : <span className="line-clamp-3">{item.name}</span>}</span>
        )}
        <StateSign item={item} />
      </span>
      <span className="mt-0.5 flex h-4 items-center gap-1 overflow-hidden text-xs leading-4 tabular-nums">
        <span className={item.state === 'sent' ? 'text-quiet' : ''}>{item.time}</span>
        {theme && item.state !== 'open' && <ThemeTile theme={theme} />}
      </span>
    </>
  );
}

function SmallTile({ item, brand, theme, frame, isTiny }: Pick<LaneTileProps, 'item' | 'brand' | 'theme'> & { readonly frame: string; readonly isTiny: boolean }) {
  const isFilled = item.state !== 'open' && item.state !== 'placeholder';
  if (isTiny) {
    return (
      <span className={`relative grid h-4 place-items-center rounded-sm border text-[10px] leading-none font-bold ${frame} ${isFilled && theme ? `${toneGround(theme.tone)} text-tone-ink` : 'text-quiet'}`}>
        {theme?.letter ?? '·'}
        {item.state === 'failed' && <StateSign item={item} />}
      </span>
    );
  }
  return (
    <span className={`relative grid h-[30px] place-items-center rounded-md border ${frame}`}>
      {item.pieceId !== null ? <PieceThumbnail brand={brand} piece={item.pieceId} className="h-full w-full rounded-[5px] object-cover" /> : theme ? <ThemeTile theme={theme} /> : <span className="text-[10px] text-quiet">{planStateWord(item.state).slice(0, 4)}</span>}
      <StateSign item={item} />
    </span>
  );
}
