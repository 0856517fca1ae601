import { useEffect, useMemo, useRef, type DragEvent } from 'react';
import type { PlanItem } from '../../../core/plan/plan-items.ts';
import { DRAG_TYPE, type Dragged } from '../drag.ts';
import { isMovable } from './LaneTile.tsx';

/** What the grid knows of what is dragged over it. */
export interface LaneDrag {
  readonly itemOf: (key: string) => PlanItem | undefined;
  /** What moves along with an item: everything that is chosen, or the item alone. */
  readonly together: (item: PlanItem) => readonly PlanItem[];
  readonly brandOf: (channelId: string) => string;
  readonly mayDrop: (channelId: string, day: string) => boolean;
  readonly onDrop: (dragged: Dragged, channelId: string, day: string) => void;
}

/** Mark the cell that something is dragged over, and the thing that is dragged. */
const [OVER, DRAGGED] = ['data-drop-target', 'data-dragged'];

/**
 * Drag and drop for all lanes at once, from one place: a listener in each of thousands of cells would make scrolling jerk.
 * By keyboard things are moved with Alt and the arrows.
 */
export function useLaneDrag(drag: LaneDrag) {
  const current = useRef(drag);
  useEffect(() => {
    current.current = drag;
  });
  return useMemo(() => {
    let over: Element | null = null;
    let held: Element | null = null;
    const end = (): void => {
      mark(null);
      held?.removeAttribute(DRAGGED);
      held = null;
    };
    const mark = (cell: Element | null): void => {
      if (cell === over) return;
      over?.removeAttribute(OVER);
      cell?.setAttribute(OVER, '');
      over = cell;
    };
    const cellUnder = (event: DragEvent): { readonly cell: Element; readonly channelId: string; readonly day: string } | null => {
      const cell = event.dataTransfer.types.includes(DRAG_TYPE) ? (event.target as Element).closest('[data-cell]') : null;
      const [channelId = '', day = ''] = cell?.getAttribute('data-cell')?.split(' ') ?? [];
      return cell && current.current.mayDrop(channelId, day) ? { cell, channelId, day } : null;
    };
    return {
      onDragStart(event: DragEvent): void {
        const item = current.current.itemOf((event.target as Element).closest('[data-item]')?.getAttribute('data-item') ?? '');
        if (!item || !isMovable(item)) return;
        const moved = current.current.together(item).filter(isMovable);
        const dragged: Dragged = { kind: 'items', brand: current.current.brandOf(item.channelId), postIds: moved.flatMap(({ postId }) => postId ?? []), entryIds: moved.flatMap(({ entryId }) => entryId ?? []), time: item.time };
        event.dataTransfer.setData(DRAG_TYPE, JSON.stringify(dragged));
        event.dataTransfer.effectAllowed = 'move';
        held = (event.target as Element).closest('[data-item]');
        held?.setAttribute(DRAGGED, '');
      },
      onDragOver(event: DragEvent): void {
        const under = cellUnder(event);
        mark(under?.cell ?? null);
        if (!under) return;
        event.preventDefault();
        event.dataTransfer.dropEffect = 'move';
      },
      onDragLeave(event: DragEvent): void {
        if (!(event.relatedTarget instanceof Node) || !event.currentTarget.contains(event.relatedTarget)) mark(null);
      },
      onDrop(event: DragEvent): void {
        const under = cellUnder(event);
        end();
        if (!under) return;
        event.preventDefault();
        current.current.onDrop(JSON.parse(event.dataTransfer.getData(DRAG_TYPE)) as Dragged, under.channelId, under.day);
      },
      onDragEnd: end,
    };
  }, []);
}
