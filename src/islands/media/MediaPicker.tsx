import { useInfiniteQuery, useMutation } from '@tanstack/react-query';
import ImagePlus from 'lucide-react/icons/image-plus';
import { useRef, useState } from 'react';
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import { getMedia, listMedia } from '../../contract/media-contracts.ts';
import { clockLength } from '../../core/video/recording.ts';
import { call } from '../ui/call.ts';
import { toast } from '../ui/toast.tsx';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { EndlessList } from '../ui/EndlessList.tsx';
import { scrimClasses } from '../ui/scrim-classes.ts';
import { allMedia, mediaQuery, MediaSearch } from './MediaSearch.tsx';
import { UploadList } from './UploadList.tsx';
import { useUploads } from './use-uploads.ts';
import { mediaAddress, type MediaItem } from './media-address.ts';

/** The brand's pictures to choose from; new ones can be dropped in at once. */
export function MediaPicker({ brand, onChoose, onClose }: { readonly brand: string; readonly onChoose: (item: MediaItem) => void; readonly onClose: () => void }) {
  const [found, setFound] = useState(allMedia);
  const filter = mediaQuery(found);
  const pages = useInfiniteQuery({
    queryKey: ['media', brand, 'seen', filter],
    queryFn: ({ pageParam, signal }) => call(listMedia, { params: { brand }, query: { limit: 48, kind: 'seen', ...filter, ...(pageParam === null ? {} : { before: pageParam }) }, signal }),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.next,
    placeholderData: (before) => before,
  });
  const scroller = useRef<HTMLDivElement>(null);
  // Lists are short of what layout needs: that comes with the chosen one.
  const choose = useMutation({
    mutationFn: (id: string) => call(getMedia, { params: { brand, media: id } }),
    onSuccess: onChoose,
    onError: (error) => toast('problem', error.message),
  });
  const uploads = useUploads(brand, onChoose);
  const items = pages.data?.pages.flatMap((page) => page.items) ?? [];
  return (
    <ModalOverlay isOpen isDismissable onOpenChange={(open) => !open && onClose()} className={`${scrimClasses} md:p-8`}>
      <Modal className="shadow-float flex max-h-full w-full max-w-4xl flex-col rounded-md border border-line bg-panel">
        <Dialog
          className="flex min-h-0 flex-col outline-none"
          aria-label="Choose a picture"
        >
          <div className="flex items-center justify-between gap-3 border-b border-line px-4 py-3">
            <Heading slot="title" className="text-base font-semibold">
              Choose a picture
            </Heading>
            <div className="flex gap-2">
              <label className={`${buttonClasses('plain')} relative focus-within:outline-2 focus-within:outline-house`}>
                <ImagePlus aria-hidden className="size-4" />
                Upload
                <input type="file" accept="image/jpeg,image/png,image/webp,video/*" className="sr-only" onChange={(event) => uploads.add([...(event.target.files ?? [])])} />
              </label>
              <Button onClick={onClose}>Close</Button>
            </div>
          </div>
          <div className="flex flex-wrap items-center gap-x-2 gap-y-1.5 border-b border-line px-4 py-2.5">
            <MediaSearch brand={brand} filter={found} onChange={setFound} />
          </div>
          <div
            ref={scroller}
            className="min-h-[min(16rem,40dvh)] overflow-auto p-4"
            onDragOver={(event) => event.preventDefault()}
            onDrop={(event) => {
              event.preventDefault();
              uploads.add([...event.dataTransfer.files].slice(0, 1));
            }}
          >
            <UploadList uploads={uploads} />
            {pages.isSuccess && items.length === 0 && <p className="py-16 text-center text-sm text-quiet">{Object.keys(filter).length > 0 ? 'No picture has all of these words.' : 'No pictures yet. Drop one here.'}</p>}
            <EndlessList label="Pictures and clips" items={items} keyOf={({ id }) => id} pages={pages} scroller={scroller} minColumnPx={128} gapPx={{ x: 10, y: 10 }} estimatedRowPx={160}>
              {(item) => (
                <button type="button" onClick={() => choose.mutate(item.id)} className="relative block w-full overflow-hidden rounded-md border border-line bg-sunk hover:border-house">
                  <img src={mediaAddress(brand, item, 240)} alt={item.altText || item.name} className="aspect-square w-full object-cover" />
                  {item.recording && <span className="absolute top-1.5 right-1.5 rounded-md bg-panel px-1.5 py-0.5 text-xs font-medium tabular-nums">{clockLength(item.recording.durationMs)}</span>}
                  <span className="block truncate bg-panel px-2 py-1 text-left text-xs">{item.name}</span>
                </button>
              )}
            </EndlessList>
          </div>
        </Dialog>
      </Modal>
    </ModalOverlay>
  );
}
