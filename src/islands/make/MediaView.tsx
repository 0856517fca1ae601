import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import ImagePlus from 'lucide-react/icons/image-plus';
import { useState } from 'react';
import type { AnswerOf } from '../../contract/contract.ts';
import { listMedia } from '../../contract/media-contracts.ts';
import { call } from '../ui/call.ts';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { Queries } from '../ui/Queries.tsx';
import { FocalPanel } from './FocalPanel.tsx';
import { UploadList } from './UploadList.tsx';
import { useUploads } from './use-uploads.ts';
import { mediaAddress } from '../ui/media-address.ts';

export type MediaItem = AnswerOf<typeof listMedia>['items'][number];

interface BrandProps {
  readonly brand: { readonly slug: string; readonly name: string };
}

export default function MediaView(props: BrandProps) {
  return (
    <Queries>
      <Media {...props} />
    </Queries>
  );
}

function Media({ brand }: BrandProps) {
  const client = useQueryClient();
  const pages = useInfiniteQuery({
    queryKey: ['media', brand.slug],
    queryFn: ({ pageParam, signal }) => call(listMedia, { params: { brand: brand.slug }, query: { limit: 48, ...(pageParam === null ? {} : { before: pageParam }) }, signal }),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.next,
  });
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [dragging, setDragging] = useState(false);
  const uploads = useUploads(brand.slug, (item) => {
    void client.invalidateQueries({ queryKey: ['media', brand.slug] });
    setChosenId(item.id);
  });
  const items = pages.data?.pages.flatMap((page) => page.items) ?? [];
  const chosen = items.find((item) => item.id === chosenId) ?? null;
  return (
    <main
      className="flex min-h-0 flex-1"
      onDragOver={(event) => {
        event.preventDefault();
        setDragging(true);
      }}
      onDragLeave={(event) => event.currentTarget === event.target && setDragging(false)}
      onDrop={(event) => {
        event.preventDefault();
        setDragging(false);
        uploads.add([...event.dataTransfer.files]);
      }}
    >
      <div className="min-w-0 flex-1 overflow-auto px-6 py-5">
        <div className="mb-4 flex items-center justify-between gap-4">
          <h1 className="text-xl font-semibold">Media</h1>
          <label className={`${buttonClasses('primary')} focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-house`}>
            <ImagePlus aria-hidden className="size-4" />
            Bring in pictures
            <input
              type="file"
              multiple
              accept="image/jpeg,image/png,image/webp"
              className="sr-only"
              onChange={(event) => {
                uploads.add([...(event.target.files ?? [])]);
                event.target.value = '';
              }}
            />
          </label>
        </div>
        <UploadList uploads={uploads} />
        {pages.isError && <p className="text-coral-ink">{pages.error.message}</p>}
        {pages.isSuccess && items.length === 0 ? (
          <EmptyMedia dragging={dragging} />
        ) : (
          <ul className={`grid grid-cols-[repeat(auto-fill,minmax(10rem,1fr))] gap-3 rounded-md ${dragging ? 'outline-2 outline-offset-8 outline-house outline-dashed' : ''}`}>
            {items.map((item) => (
              <li key={item.id}>
                <button
                  type="button"
                  aria-pressed={item.id === chosenId}
                  onClick={() => setChosenId(item.id === chosenId ? null : item.id)}
                  className={`block w-full overflow-hidden rounded-md border bg-panel text-left ${item.id === chosenId ? 'border-house ring-1 ring-house' : 'border-line hover:border-edge'}`}
                >
                  <img src={mediaAddress(brand.slug, item, 240)} alt={item.altText} loading="lazy" className="aspect-square w-full bg-sunk object-contain" />
                  <span className="block truncate px-2 pt-1.5 text-sm font-medium">{item.name}</span>
                  <span className="block px-2 pb-1.5 text-xs text-quiet tabular-nums">
                    {item.widthPx} × {item.heightPx}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        )}
        {pages.hasNextPage && (
          <div className="mt-4 text-center">
            <Button onClick={() => void pages.fetchNextPage()} disabled={pages.isFetchingNextPage}>
              Show older ones
            </Button>
          </div>
        )}
      </div>
      {chosen && <FocalPanel key={chosen.id} brand={brand.slug} item={chosen} onClose={() => setChosenId(null)} />}
    </main>
  );
}

function EmptyMedia({ dragging }: { readonly dragging: boolean }) {
  return (
    <div className={`grid h-80 place-items-center rounded-md border border-dashed text-center ${dragging ? 'border-house bg-house-soft' : 'border-edge'}`}>
      <div className="max-w-sm">
        <p className="font-heading text-lg font-semibold">Drop pictures here</p>
        <p className="mt-1 text-sm text-quiet">JPEG, PNG or WebP. They are turned upright, their location is removed, and the point that every crop should keep is proposed.</p>
      </div>
    </div>
  );
}
