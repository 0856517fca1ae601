import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import AudioLines from 'lucide-react/icons/audio-lines';
import FilmIcon from 'lucide-react/icons/film';
import { useEffect, useRef, useState } from 'react';
import { getMedia, listMedia } from '../../contract/media-contracts.ts';
import { clockLength } from '../../core/video/recording.ts';
import { call } from '../ui/call.ts';
import { EndlessList } from '../ui/EndlessList.tsx';
import { Queries } from '../ui/Queries.tsx';
import { GuideLink } from '../ui/GuideLink.tsx';
import { roleMay, type Role } from '../../core/access/access.ts';
import { ImportMedia } from './ImportMedia.tsx';
import { filesOf } from '../media/dropped-files.ts';
import { DropFiles } from '../media/DropFiles.tsx';
import { allMedia, mediaQuery, MediaSearch } from '../media/MediaSearch.tsx';
import { MakeFromMedia } from './MakeFromMedia.tsx';
import { FocalPanel } from './FocalPanel.tsx';
import { UploadList } from '../media/UploadList.tsx';
import { useUploads } from '../media/use-uploads.ts';
import { mediaAddress, type MediaItem, type MediaSummary } from '../media/media-address.ts';

interface BrandProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly role: Role };
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
  const [found, setFound] = useState(allMedia);
  const [archived, setArchived] = useState(false);
  const filter = { ...mediaQuery(found), ...(archived ? { archived: 'only' as const } : {}) };
  const pages = useInfiniteQuery({
    queryKey: ['media', brand.slug, filter],
    queryFn: ({ pageParam, signal }) => call(listMedia, { params: { brand: brand.slug }, query: { limit: 48, ...filter, ...(pageParam === null ? {} : { before: pageParam }) }, signal }),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.next,
    placeholderData: (before) => before,
  });
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [picked, setPicked] = useState<readonly MediaSummary[]>([]);
  const pick = (item: MediaSummary): void => setPicked((now) => (now.some(({ id }) => id === item.id) ? now.filter(({ id }) => id !== item.id) : [...now, item]));
  const scroller = useRef<HTMLDivElement>(null);
  const show = (item: MediaItem): void => {
    void client.invalidateQueries({ queryKey: ['media', brand.slug] });
    setChosenId(item.id);
  };
  const uploads = useUploads(brand.slug, show);
  const { add } = uploads;
  useEffect(() => {
    const paste = (event: ClipboardEvent): void => {
      const transfer = event.clipboardData;
      if (!transfer || transfer.files.length === 0) return;
      event.preventDefault();
      void filesOf(transfer).then(add);
    };
    addEventListener('paste', paste);
    return () => removeEventListener('paste', paste);
  }, [add]);
  const items = pages.data?.pages.flatMap((page) => page.items) ?? [];
  const chosen = items.find((item) => item.id === chosenId) ?? null;
  const isFiltered = Object.keys(filter).length > 0;
  return (
    <DropFiles as="main" isOpen={roleMay(brand.role, 'make')} onFiles={uploads.add} className="relative flex min-h-0 flex-1">
      <div ref={scroller} className="min-w-0 flex-1 overflow-auto px-4 py-5 md:px-6">
        <div className="mb-3 flex flex-wrap items-center justify-between gap-x-4 gap-y-2">
          <h1 className="text-xl font-semibold">Media</h1>
          <ImportMedia brand={brand.slug} onFiles={uploads.add} onDone={show} />
        </div>
        <div className="mb-4 flex flex-wrap items-center gap-x-2 gap-y-1.5">
          <MediaSearch brand={brand.slug} filter={found} onChange={setFound} />
          <label className="ml-auto flex items-center gap-1.5 text-xs text-quiet">
            <input type="checkbox" checked={archived} onChange={(event) => setArchived(event.target.checked)} className="accent-house" />
            Archived
          </label>
        </div>
        <UploadList uploads={uploads} />
        {picked.length > 0 && <MakeFromMedia brand={brand.slug} picked={picked} onClear={() => setPicked([])} />}
        {pages.isError && <p className="text-coral-ink">{pages.error.message}</p>}
        {pages.isSuccess && items.length === 0 && isFiltered ? (
          <p className="py-16 text-center text-sm text-quiet">{archived ? 'Nothing is archived.' : 'No picture has all of these words.'}</p>
        ) : pages.isSuccess && items.length === 0 ? (
          <EmptyMedia />
        ) : (
          <EndlessList label="Media" items={items} keyOf={({ id }) => id} pages={pages} scroller={scroller} minColumnPx={160} gapPx={{ x: 12, y: 12 }} estimatedRowPx={220} className="rounded-md">
            {(item) => (
              <div className="group relative">
              <button
                type="button"
                aria-pressed={item.id === chosenId}
                onClick={() => setChosenId(item.id === chosenId ? null : item.id)}
                className={`block w-full overflow-hidden rounded-md border bg-panel text-left ${item.id === chosenId ? 'border-house ring-1 ring-house' : 'border-line hover:border-edge'}`}
              >
                <span className="relative block">
                  <img src={mediaAddress(brand.slug, item, 240)} alt={item.altText} className="aspect-square w-full bg-sunk object-contain" />
                  {item.recording && <RecordingLength recording={item.recording} />}
                </span>
                <span className="block truncate px-2 pt-1.5 text-sm font-medium">{item.name}</span>
                <span className="block px-2 pb-1.5 text-xs text-quiet tabular-nums">
                  {item.recording?.kind === 'sound' ? 'Sound' : `${item.widthPx} × ${item.heightPx}`}
                </span>
              </button>
              {!item.recording && !archived && roleMay(brand.role, 'make') && (
                <label className={`absolute top-1.5 left-1.5 grid size-7 cursor-pointer place-items-center rounded-md bg-panel group-hover:opacity-100 focus-within:opacity-100 ${picked.length > 0 ? '' : 'opacity-0'}`}>
                  <input type="checkbox" aria-label={`Pick ${item.name}`} checked={picked.some(({ id }) => id === item.id)} onChange={() => pick(item)} className="size-4 accent-house" />
                </label>
              )}
              </div>
            )}
          </EndlessList>
        )}
      </div>
      {chosenId !== null && <ChosenItem key={chosenId} brand={brand.slug} id={chosenId} revision={chosen?.revision ?? null} onClose={() => setChosenId(null)} />}
    </DropFiles>
  );
}

/** The chosen item, with what its list does not say. */
function ChosenItem({ brand, id, revision, onClose }: { readonly brand: string; readonly id: string; readonly revision: number | null; readonly onClose: () => void }) {
  const item = useQuery({ queryKey: ['media', brand, 'item', id, revision], queryFn: () => call(getMedia, { params: { brand, media: id } }), placeholderData: (before) => before });
  if (item.error) return <aside className="w-96 shrink-0 border-l border-line bg-panel p-4 text-sm text-coral-ink">{item.error.message}</aside>;
  return item.data ? <FocalPanel brand={brand} item={item.data} onClose={onClose} /> : <aside className="w-96 shrink-0 border-l border-line bg-panel" aria-busy="true" />;
}

/** How long a clip or sound is, on the picture that stands for it. */
function RecordingLength({ recording }: { readonly recording: NonNullable<MediaSummary['recording']> }) {
  const Icon = recording.kind === 'sound' ? AudioLines : FilmIcon;
  return (
    <span className="absolute right-1.5 bottom-1.5 flex items-center gap-1 rounded-md bg-ink px-1.5 py-0.5 text-xs text-panel tabular-nums">
      <Icon aria-hidden className="size-3" />
      <span className="sr-only">{recording.kind === 'sound' ? 'Sound of ' : 'Clip of '}</span>
      {clockLength(recording.durationMs)}
    </span>
  );
}

function EmptyMedia() {
  return (
    <div className="grid h-80 place-items-center rounded-md border border-dashed border-edge text-center">
      <div className="max-w-sm">
        <p className="font-heading text-lg font-semibold">Drop pictures here</p>
        <p className="mt-1 text-sm text-quiet">JPEG, PNG or WebP. They are turned upright, their location is removed, and the point that every crop should keep is proposed.</p>
        <GuideLink view="media" className="mt-2" />
      </div>
    </div>
  );
}
