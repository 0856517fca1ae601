import type { Role } from '../../core/access/access.ts';
import { useInfiniteQuery } from '@tanstack/react-query';
import Plus from 'lucide-react/icons/plus';
import { useEffect, useRef, useState } from 'react';
import { getPieceThumbnail, listPieces } from '../../contract/piece-contracts.ts';
import { addressOf, call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { EndlessList } from '../ui/EndlessList.tsx';
import { PictureWithFallback } from '../ui/PictureWithFallback.tsx';
import { Queries } from '../ui/Queries.tsx';
import { TemplatePicker } from './TemplatePicker.tsx';

interface BrandProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly role: Role };
}

export default function PiecesView(props: BrandProps) {
  return (
    <Queries>
      <Pieces {...props} />
    </Queries>
  );
}

function Pieces({ brand }: BrandProps) {
  const [picking, setPicking] = useState(false);
  const scroller = useRef<HTMLElement>(null);
  useEffect(() => {
    if (new URLSearchParams(location.search).has('new')) setPicking(true);
  }, []);
  const pages = useInfiniteQuery({
    queryKey: ['pieces', brand.slug],
    queryFn: ({ pageParam, signal }) => call(listPieces, { params: { brand: brand.slug }, query: { limit: 24, ...(pageParam === null ? {} : { before: pageParam }) }, signal }),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.next,
  });
  const items = pages.data?.pages.flatMap((page) => page.items) ?? [];
  return (
    <main ref={scroller} className="min-h-0 flex-1 overflow-auto px-6 py-5">
      <div className="mb-4 flex items-center justify-between gap-4">
        <h1 className="text-xl font-semibold">Pieces</h1>
        {!picking && (
          <Button look="primary" onClick={() => setPicking(true)}>
            <Plus aria-hidden className="size-4" />
            New piece
          </Button>
        )}
      </div>
      {(picking || (pages.isSuccess && items.length === 0)) && <TemplatePicker brand={brand.slug} onClose={items.length > 0 ? () => setPicking(false) : null} />}
      {pages.isError && <p className="text-coral-ink">{pages.error.message}</p>}
      <EndlessList label="Pieces" items={items} keyOf={({ id }) => id} pages={pages} scroller={scroller} minColumnPx={184} gapPx={{ x: 16, y: 24 }} estimatedRowPx={260}>
        {(item) => (
          <a href={`/b/${brand.slug}/make/pieces/${item.id}`} className="group block">
            <PictureWithFallback
              src={addressOf(getPieceThumbnail, { brand: brand.slug, piece: item.id }, { revision: item.revision })}
              alt=""
              className="aspect-square w-full rounded-md border border-line object-contain group-hover:border-edge"
            />
            <span className="mt-2 line-clamp-2 text-base leading-5 font-semibold">{item.name}</span>
            <span className="mt-0.5 block text-xs text-quiet tabular-nums">{summary(item)}</span>
          </a>
        )}
      </EndlessList>
    </main>
  );
}

function summary(item: { readonly cuts: number; readonly scheduled: number; readonly sent: number }): string {
  const parts = [`${item.cuts} cuts`, ...(item.scheduled > 0 ? [`${item.scheduled} scheduled`] : []), ...(item.sent > 0 ? [`${item.sent} sent`] : [])];
  return parts.join(' · ');
}
