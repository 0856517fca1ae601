import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { createColumnHelper, tableFeatures, useTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import ArrowDown from 'lucide-react/icons/arrow-down';
import ArrowUp from 'lucide-react/icons/arrow-up';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { listResults, sortKeys } from '../../../contract/results-contracts.ts';
import { measureKeys, measures, type MeasureKey } from '../../../core/results/measures.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { call } from '../../ui/call.ts';
import { buttonClasses } from '../../ui/Button.tsx';
import { PictureWithFallback } from '../../ui/PictureWithFallback.tsx';
import { ageWords } from './StandingBar.tsx';
import { countOf, rateOf } from '../figure-words.ts';
import { PostPanel } from './PostPanel.tsx';
import { pictureOf, placeWords } from './PostCard.tsx';
import { channelOf, type PostRow, type ResultsContext } from './results-context.ts';
import { StandingBar } from './StandingBar.tsx';

const PAGE = 50;
const ROW_PX = 60;
const features = tableFeatures({});
const usualColumns: readonly MeasureKey[] = ['reach', 'saves', 'comments'];
const KEPT = 'confetti.results.columns';

type SortKey = (typeof sortKeys)[number];
interface Column {
  readonly key: MeasureKey | 'engagement' | 'rate';
  readonly name: string;
  readonly about: string;
}

const column = createColumnHelper<typeof features, PostRow>();

/** The posts of a period with their figures, sorted by any of them; the chosen one stands open beside. */
export default function PostsTable({ context }: { readonly context: ResultsContext }) {
  const { brand, filters, query, change } = context;
  const scroller = useRef<HTMLDivElement>(null);
  const [shown, setShown] = useColumns();
  const sort = sortKeys.find((key) => key === query.sort) ?? 'rate';
  const order = query.order === 'up' ? 'up' : 'down';
  const pages = useInfiniteQuery({
    queryKey: ['results', brand.slug, 'posts', filters, sort, order],
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: ({ pageParam }) => call(listResults, { params: { brand: brand.slug }, query: { ...filters, sort, order, offset: pageParam, limit: PAGE } }),
    getNextPageParam: (last, all) => (last.posts.length < PAGE ? undefined : all.length * PAGE),
  });
  const posts = useMemo(() => pages.data?.pages.flatMap((page) => page.posts) ?? [], [pages.data]);
  const base = pages.data?.pages[0]?.rateBase ?? 'reach';
  const measured: readonly Column[] = [...measureKeys.filter((key) => shown.includes(key)).map((key): Column => ({ key, ...measures[key] })), { key: 'engagement', name: 'Engagement', about: 'Reactions, comments, shares and saves.' }, { key: 'rate', name: 'Rate', about: `Engagement divided by ${base}.` }];
  const columns = useMemo(() => column.columns([column.accessor('title', { header: 'Post' })]), []);
  const table = useTable({ features, columns, data: posts });
  const rows = table.getRowModel().rows;
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => scroller.current, estimateSize: () => ROW_PX, overscan: 10 });
  const isNearEnd = (virtual.getVirtualItems().at(-1)?.index ?? 0) >= rows.length - 5;
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  useEffect(() => {
    if (rows.length > 0 && isNearEnd && hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [rows.length, isNearEnd, hasNextPage, isFetchingNextPage, fetchNextPage]);
  const sortBy = (key: SortKey): void => change({ sort: key === 'rate' ? undefined : key, order: sort === key && order === 'down' ? 'up' : undefined });
  const layout = { gridTemplateColumns: `2.75rem minmax(9rem,1fr) ${measured.map(() => '4.9rem').join(' ')} 8rem`, minWidth: `${24 + measured.length * 5.4}rem` };
  const sortHead = (key: SortKey, name: string, about: string, isRight = true) => (
    <span key={key} role="columnheader" aria-sort={sort === key ? (order === 'up' ? 'ascending' : 'descending') : 'none'} className={isRight ? 'text-right' : ''}>
      <button type="button" title={about} onClick={() => sortBy(key)} className="inline-flex items-center gap-1 rounded-md py-1 hover:text-house">
        {name}
        {sort === key && (order === 'up' ? <ArrowUp aria-hidden className="size-3" /> : <ArrowDown aria-hidden className="size-3" />)}
      </button>
    </span>
  );
  const count = pages.data?.pages[0]?.count ?? 0;
  return (
    <div className={`grid gap-5 ${query.post ? 'grid-cols-[minmax(0,1fr)_23rem] max-xl:grid-cols-1' : ''}`}>
      <div className="min-w-0">
        <div className="mb-2 flex items-center justify-between gap-3">
          <p className="text-sm text-quiet" role="status">
            {pages.isSuccess && `${countOf(count)} ${count === 1 ? 'post' : 'posts'}`}
          </p>
          <ColumnsMenu shown={shown} onChange={setShown} />
        </div>
        {pages.isError && <p className="text-sm text-coral-ink">{pages.error.message}</p>}
        <div ref={scroller} role="table" aria-label="Posts" aria-rowcount={count + 1} className="max-h-[calc(100dvh-11.5rem)] overflow-auto rounded-md border border-line bg-panel text-sm">
          <div role="rowgroup" className="sticky top-0 z-10 bg-panel">
            <div role="row" style={layout} className="grid h-9 items-center gap-3 border-b border-line px-3 text-xs font-semibold">
              <span role="columnheader">
                <span className="sr-only">Picture</span>
              </span>
              {sortHead('published', 'Post', 'When it went out.', false)}
              {measured.map(({ key, name, about }) => sortHead(key, name, about))}
              <span role="columnheader">Against its usual</span>
            </div>
          </div>
          <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize(), minWidth: layout.minWidth }}>
            {virtual.getVirtualItems().map((drawn) => {
              const post = rows[drawn.index]?.original;
              if (!post) return null;
              const isOpen = post.id === query.post;
              const channel = channelOf(context.facets, post.channelId);
              return (
                <div key={post.id} role="row" aria-rowindex={drawn.index + 2} aria-selected={isOpen} className={`absolute inset-x-0 grid items-center gap-3 border-b border-line px-3 tabular-nums ${isOpen ? 'bg-house-soft' : 'hover:bg-sunk'}`} style={{ ...layout, top: drawn.start, height: ROW_PX }} onClick={() => change({ post: isOpen ? undefined : post.id })}>
                  <span role="cell">
                    <PictureWithFallback src={pictureOf(brand.slug, post)} alt="" className="size-11 rounded-sm object-contain text-[9px]" />
                  </span>
                  <span role="cell" className="min-w-0">
                    <button
                      type="button"
                      aria-expanded={isOpen}
                      onClick={(event) => {
                        event.stopPropagation();
                        change({ post: isOpen ? undefined : post.id });
                      }}
                      className="block max-w-full truncate text-left font-semibold hover:underline"
                    >
                      {post.title || 'Without words'}
                    </button>
                    <span className="flex items-center gap-1.5 text-xs text-quiet" suppressHydrationWarning>
                      {channel?.badge && <ChannelBadge badge={channel.badge} size={13} />}
                      <span className="truncate">
                        {placeWords(post, context)}
                        {post.deliveryId === null && ' · without Confetti'}
                        {post.removedMs !== null && ' · taken down'}
                      </span>
                    </span>
                  </span>
                  {measured.map(({ key }) => (
                    <span key={key} role="cell" className={`text-right ${key === 'rate' ? 'font-semibold' : ''}`}>
                      {key === 'rate' ? rateOf(post.rate) : countOf(key === 'engagement' ? post.engagement : post.figures[key])}
                    </span>
                  ))}
                  <span role="cell">
                    <StandingBar standing={post.standing} />
                  </span>
                </div>
              );
            })}
          </div>
          {pages.isSuccess && rows.length === 0 && <p className="py-16 text-center text-sm text-quiet">No posts went out in these days with these filters.</p>}
        </div>
        <p className="mt-2 text-xs text-quiet">
          Rate: engagement divided by {base}. The band holds the middle four fifths of earlier posts of that channel and format at the same age ({ageWords(24)}, {ageWords(72)} or {ageWords(168)}); the stroke is this post. A dash: the network gives no such figure.
        </p>
      </div>
      {query.post && <PostPanel key={query.post} id={query.post} context={context} onClose={() => change({ post: undefined })} />}
    </div>
  );
}

/** Which measures have a column; the browser keeps it. */
function useColumns(): readonly [readonly MeasureKey[], (shown: readonly MeasureKey[]) => void] {
  const [shown, setShown] = useState<readonly MeasureKey[]>(usualColumns);
  useEffect(() => {
    const kept = localStorage.getItem(KEPT);
    if (kept !== null) setShown(measureKeys.filter((key) => kept.split(',').includes(key)));
  }, []);
  return [
    shown,
    (next) => {
      localStorage.setItem(KEPT, next.join(','));
      setShown(next);
    },
  ];
}

function ColumnsMenu({ shown, onChange }: { readonly shown: readonly MeasureKey[]; readonly onChange: (shown: readonly MeasureKey[]) => void }) {
  return (
    <DialogTrigger>
      <AriaButton className={buttonClasses('plain')}>Columns</AriaButton>
      <Popover placement="bottom end" className="shadow-float rounded-md border border-line bg-panel p-3">
        <Dialog aria-label="Columns" className="grid w-52 gap-1 outline-none">
          {measureKeys.map((key) => (
            <label key={key} className="flex items-center gap-2 text-sm">
              <input type="checkbox" checked={shown.includes(key)} onChange={(event) => onChange(measureKeys.filter((each) => (each === key ? event.target.checked : shown.includes(each))))} className="size-4 accent-house" />
              {measures[key].name}
            </label>
          ))}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
