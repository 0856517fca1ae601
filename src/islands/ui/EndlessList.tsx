import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type ReactNode, type RefObject } from 'react';
import { Button } from './Button.tsx';

/** A list that arrives in pages, as an infinite query holds it. */
export interface PagedList {
  readonly hasNextPage: boolean;
  readonly isFetchingNextPage: boolean;
  readonly isFetchNextPageError: boolean;
  readonly fetchNextPage: () => unknown;
  /** Whether the items are those of the question before, until the answer is there. */
  readonly isPlaceholderData: boolean;
}

interface EndlessListProps<Item> {
  readonly label: string;
  readonly items: readonly Item[];
  readonly keyOf: (item: Item) => string;
  readonly pages: PagedList;
  /** The element that scrolls. */
  readonly scroller: RefObject<HTMLElement | null>;
  /** As many columns of at least this width as there is room for; without it every item is a row. */
  readonly minColumnPx?: number;
  readonly gapPx?: { readonly x: number; readonly y: number };
  /** A row's height until it is measured. */
  readonly estimatedRowPx: number;
  readonly className?: string;
  readonly children: (item: Item) => ReactNode;
}

const NO_GAP = { x: 0, y: 0 };
/** Rows that are kept ready beyond the edges of what is seen. */
const ROWS_BEYOND = 4;

/** Draws the rows near the view alone, and asks for the next page before its rows are needed. */
export function EndlessList<Item>({ label, items, keyOf, pages, scroller, minColumnPx, gapPx = NO_GAP, estimatedRowPx, className = '', children }: EndlessListProps<Item>) {
  const list = useRef<HTMLDivElement>(null);
  const { columns, topPx } = usePlace(list, scroller, minColumnPx, gapPx.x);
  const rows = columns === 0 ? 0 : Math.ceil(items.length / columns);
  const virtual = useVirtualizer({
    count: rows,
    getScrollElement: () => scroller.current,
    estimateSize: () => estimatedRowPx,
    getItemKey: (row) => keyOf(items[row * columns] as Item),
    overscan: ROWS_BEYOND,
    gap: gapPx.y,
    scrollMargin: topPx,
  });
  const drawn = virtual.getVirtualItems();
  const isNearEnd = (drawn.at(-1)?.index ?? 0) >= rows - 1;
  const { hasNextPage, isFetchingNextPage, isFetchNextPageError, fetchNextPage, isPlaceholderData } = pages;
  useEffect(() => {
    if (rows > 0 && isNearEnd && hasNextPage && !isFetchingNextPage && !isFetchNextPageError) fetchNextPage();
  }, [rows, isNearEnd, hasNextPage, isFetchingNextPage, isFetchNextPageError, fetchNextPage]);
  return (
    <>
      {/* What is about to go cannot be acted on: it may have other actions than what comes. */}
      <div ref={list} role="list" aria-label={label} inert={isPlaceholderData} aria-busy={isPlaceholderData} className={`relative ${isPlaceholderData ? 'opacity-50 transition-opacity delay-150' : ''} ${className}`} style={{ height: virtual.getTotalSize() }}>
        {drawn.map((row) => (
          <div
            key={row.key}
            ref={virtual.measureElement}
            data-index={row.index}
            role="presentation"
            className="absolute inset-x-0 top-0 grid"
            style={{ transform: `translateY(${row.start - topPx}px)`, columnGap: gapPx.x, gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
          >
            {items.slice(row.index * columns, (row.index + 1) * columns).map((item, index) => (
              <div key={keyOf(item)} role="listitem" aria-posinset={row.index * columns + index + 1} aria-setsize={hasNextPage ? -1 : items.length}>
                {children(item)}
              </div>
            ))}
          </div>
        ))}
      </div>
      {isFetchingNextPage && <p className="mt-4 text-center text-sm text-quiet">Loading more…</p>}
      {isFetchNextPageError && (
        <p role="alert" className="mt-4 flex items-center justify-center gap-3 text-sm text-coral-ink">
          The next ones could not be loaded.
          <Button size="small" onClick={() => fetchNextPage()}>
            Try again
          </Button>
        </p>
      )}
    </>
  );
}

/** How many columns a list has room for (0 until it is measured), and where it begins within what scrolls, in pixels. */
function usePlace(list: RefObject<HTMLElement | null>, scroller: RefObject<HTMLElement | null>, minColumnPx: number | undefined, gapPx: number) {
  const [place, setPlace] = useState({ columns: 0, topPx: 0 });
  // Not a layout effect: those run before the scrolling element around the list has its ref.
  useEffect(() => {
    const [element, outer] = [list.current, scroller.current];
    if (!element || !outer) return undefined;
    const measure = (): void => {
      const topPx = element.getBoundingClientRect().top - outer.getBoundingClientRect().top + outer.scrollTop;
      const columns = minColumnPx === undefined ? 1 : Math.max(1, Math.floor((element.clientWidth + gapPx) / (minColumnPx + gapPx)));
      setPlace((now) => (now.columns === columns && now.topPx === topPx ? now : { columns, topPx }));
    };
    measure();
    const observer = new ResizeObserver(measure);
    // What stands above the list moves it when it grows.
    for (const each of [element, outer, ...outer.children]) observer.observe(each);
    return () => observer.disconnect();
  }, [list, scroller, minColumnPx, gapPx]);
  return place;
}
