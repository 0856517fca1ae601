import { useRef, type ReactNode } from 'react';
import { useDrop } from 'react-aria';
import { DRAG_TYPE, readDragged, type Dragged } from './drag.ts';

/** A day or an hour that posts are dropped on. */
export function DayDrop({ isOpen, label, className, onDrop, children }: { readonly isOpen: boolean; readonly label: string; readonly className: string; readonly onDrop: (dragged: Dragged) => void; readonly children?: ReactNode }) {
  const ref = useRef<HTMLDivElement>(null);
  const { dropProps, isDropTarget } = useDrop({
    ref,
    isDisabled: !isOpen,
    getDropOperation: (types) => (types.has(DRAG_TYPE) ? 'move' : 'cancel'),
    onDrop: async ({ items }) => {
      const dragged = await readDragged(items);
      if (dragged) onDrop(dragged);
    },
  });
  return (
    <div {...dropProps} ref={ref} role="group" aria-label={label} className={`${className} ${isDropTarget ? 'bg-house-soft' : ''}`}>
      {children}
    </div>
  );
}
