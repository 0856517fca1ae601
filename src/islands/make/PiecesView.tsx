import { useInfiniteQuery } from '@tanstack/react-query';
import Plus from 'lucide-react/icons/plus';
import { useEffect, useRef, useState } from 'react';
import { getPieceThumbnail, listPieces } from '../../contract/piece-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { roleMay, type Role } from '../../core/access/access.ts';
import { shortDay } from '../../core/time/wall-time.ts';
import { addressOf, call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { EndlessList } from '../ui/EndlessList.tsx';
import { PictureWithFallback } from '../ui/PictureWithFallback.tsx';
import { Queries } from '../ui/Queries.tsx';
import { useNow } from '../ui/use-now.ts';
import { DropFiles } from '../media/DropFiles.tsx';
import { UploadList } from '../media/UploadList.tsx';
import { useUploads } from '../media/use-uploads.ts';
import type { MediaItem } from '../media/media-address.ts';
import { MakeFromMedia } from './MakeFromMedia.tsx';
import { isFiltered, readPieceQuery, toListQuery, writePieceQuery, type PieceQuery } from './piece-query.ts';
import { PieceFilters } from './PieceFilters.tsx';
import { PieceMenu } from './PieceMenu.tsx';
import { TemplatePicker } from './TemplatePicker.tsx';

interface BrandProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly role: Role; readonly zone: string };
  /** The server's clock when the page was made. */
  readonly nowMs: number;
}

export default function PiecesView(props: BrandProps) {
  return (
    <Queries>
      <Pieces {...props} />
    </Queries>
  );
}

type Item = AnswerOf<typeof listPieces>['items'][number];

const nothing = { use: 'No piece fits these filters.', archived: 'Nothing is archived.', deleted: 'Nothing was deleted in the last 30 days.' } as const;

function Pieces({ brand, nowMs: serverNowMs }: BrandProps) {
  const [picking, setPicking] = useState(false);
  const [query, setQuery] = useState<PieceQuery>({});
  const nowMs = useNow(serverNowMs);
  // Pictures that are dropped here become pieces.
  const [dropped, setDropped] = useState<readonly MediaItem[]>([]);
  const uploads = useUploads(brand.slug, (item) => setDropped((now) => [...now, item]));
  const mayMake = roleMay(brand.role, 'make');
  const scroller = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (new URLSearchParams(location.search).has('new')) setPicking(true);
    setQuery(readPieceQuery(location.search));
  }, []);
  const filter = toListQuery(query);
  const pages = useInfiniteQuery({
    queryKey: ['pieces', brand.slug, filter],
    queryFn: ({ pageParam, signal }) => call(listPieces, { params: { brand: brand.slug }, query: { limit: 24, ...filter, ...(pageParam === null ? {} : { before: pageParam }) }, signal }),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.next,
    placeholderData: (before) => before,
  });
  const change = (next: PieceQuery): void => {
    setQuery(next);
    history.replaceState(history.state, '', writePieceQuery(next));
  };
  const items = pages.data?.pages.flatMap((page) => page.items) ?? [];
  const shelf = query.shelf ?? 'use';
  const isNarrowed = isFiltered(query) || shelf !== 'use';
  const isFirst = pages.isSuccess && items.length === 0 && !isNarrowed;
  return (
    <DropFiles as="main" isOpen={mayMake} onFiles={uploads.add} className="flex min-h-0 flex-1 flex-col">
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto px-4 py-5 md:px-6">
      <div className="mb-4 flex items-center justify-between gap-4">
        <h1 className="text-xl font-semibold">Pieces</h1>
        {!picking && mayMake && (
          <Button look="primary" onClick={() => setPicking(true)}>
            <Plus aria-hidden className="size-4" />
            New piece
          </Button>
        )}
      </div>
      <UploadList uploads={uploads} />
      {dropped.length > 0 && <MakeFromMedia brand={brand.slug} picked={dropped} onClear={() => setDropped([])} />}
      {(picking || isFirst) && mayMake && <TemplatePicker brand={brand.slug} onClose={items.length > 0 ? () => setPicking(false) : null} />}
      {!isFirst && <PieceFilters brand={brand.slug} query={query} onChange={change} />}
      {pages.isError && <p className="text-coral-ink">{pages.error.message}</p>}
      {pages.isSuccess && items.length === 0 && isNarrowed && <p className="py-16 text-center text-sm text-quiet">{isFiltered(query) ? nothing.use : nothing[shelf]}</p>}
      <EndlessList label="Pieces" items={items} keyOf={({ id }) => id} pages={pages} scroller={scroller} minColumnPx={184} gapPx={{ x: 16, y: 24 }} estimatedRowPx={280}>
        {(item) => (
          <article className="group relative">
            <a {...(shelf === 'deleted' ? {} : { href: `/b/${brand.slug}/make/pieces/${item.id}` })} className="block">
              <PictureWithFallback
                src={shelf === 'deleted' ? null : addressOf(getPieceThumbnail, { brand: brand.slug, piece: item.id }, { revision: item.revision })}
                alt=""
                className="aspect-square w-full rounded-md border border-line object-contain group-hover:border-edge"
              />
              <span className="mt-2 line-clamp-2 pr-7 text-base leading-5 font-semibold">{item.name}</span>
            </a>
            <span className="mt-0.5 block text-xs text-quiet tabular-nums">{summary(item)}</span>
            <span className="block truncate text-xs text-quiet tabular-nums">
              {query.sort === 'created' ? `Started ${shortDay(item.createdMs, nowMs, brand.zone)}` : `Changed ${shortDay(item.updatedMs, nowMs, brand.zone)}`} · {item.personName}
            </span>
            {mayMake && (
              <span className="absolute right-0 bottom-9">
                <PieceMenu brand={brand.slug} piece={item} shelf={shelf} />
              </span>
            )}
          </article>
        )}
      </EndlessList>
    </div>
    </DropFiles>
  );
}

const kindNames = { graphic: 'Graphic', carousel: 'Carousel', video: 'Video' } as const;

function summary({ kind, cuts, scheduled, sent }: Pick<Item, 'kind' | 'cuts' | 'scheduled' | 'sent'>): string {
  const parts = [kindNames[kind], `${cuts} ${cuts === 1 ? 'cut' : 'cuts'}`, ...(scheduled > 0 ? [`${scheduled} scheduled`] : []), ...(sent > 0 ? [`${sent} sent`] : [])];
  return parts.join(' · ');
}
