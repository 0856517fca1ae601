import { useMutation, useQuery } from '@tanstack/react-query';
import ImagePlus from 'lucide-react/icons/image-plus';
import X from 'lucide-react/icons/x';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Heading, Menu, MenuItem, MenuTrigger, Modal, ModalOverlay, Popover } from 'react-aria-components';
import { fetchMedia, getLibraryPreview, mediaFromPost, searchLibrary, takeFromLibrary } from '../../contract/media-contracts.ts';
import { listDeliveries } from '../../contract/send-contracts.ts';
import { addressOf, call } from '../ui/call.ts';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { FilePick } from '../ui/FilePick.tsx';
import { scrimClasses } from '../ui/scrim-classes.ts';
import type { MediaItem } from '../media/media-address.ts';
import { toast } from '../ui/toast.tsx';

interface BringInProps {
  readonly brand: string;
  readonly onFiles: (files: readonly File[]) => void;
  readonly onDone: (item: MediaItem) => void;
}

const FILES = 'image/jpeg,image/png,image/webp,video/*,audio/*';

type Way = 'address' | 'library' | 'post';
const wayNames: Readonly<Record<Way, string>> = { address: 'From a web address', library: 'From the picture library', post: 'From what went out' };

/** The ways pictures come in: files or a folder, an address, the library, a post that went out. */
export function ImportMedia({ brand, onFiles, onDone }: BringInProps) {
  const [way, setWay] = useState<Way | null>(null);
  return (
    <div className="flex flex-wrap items-center gap-2">
      <MenuTrigger>
        <AriaButton className={buttonClasses('plain')}>From elsewhere</AriaButton>
        <Popover className="shadow-float rounded-md border border-line bg-panel p-1">
          <Menu aria-label="Import from" className="min-w-52 outline-none" onAction={(key) => setWay(key as Way)}>
            {(Object.keys(wayNames) as Way[]).map((key) => (
              <MenuItem key={key} id={key} className="cursor-pointer rounded-md px-2.5 py-1.5 text-sm outline-none data-[focused]:bg-sunk">
                {wayNames[key]}
              </MenuItem>
            ))}
          </Menu>
        </Popover>
      </MenuTrigger>
      {/* A folder gives everything in it; only its pictures, clips and sounds are meant. */}
      <FilePick folder accept={FILES} onFiles={(files) => onFiles(files.filter((file) => /^(?:image|video|audio)\//.test(file.type)))}>
        Upload a folder
      </FilePick>
      <FilePick multiple look="primary" accept={FILES} onFiles={onFiles}>
        <ImagePlus aria-hidden className="size-4" />
        Upload files
      </FilePick>
      <DialogTrigger isOpen={way !== null} onOpenChange={(open) => !open && setWay(null)}>
        <span hidden />
        <ModalOverlay isDismissable className={`${scrimClasses} md:p-8`}>
          <Modal className="shadow-float w-full max-w-2xl rounded-md border border-line bg-panel">
            <Dialog className="flex max-h-[80vh] flex-col outline-none">
              <div className="flex items-center justify-between border-b border-line px-5 py-3">
                <Heading slot="title" className="text-base font-semibold">
                  {way && wayNames[way]}
                </Heading>
                <button type="button" aria-label="Close" onClick={() => setWay(null)} className="rounded-md p-1 text-quiet hover:bg-sunk hover:text-ink">
                  <X aria-hidden className="size-4" />
                </button>
              </div>
              <div className="min-h-0 overflow-auto px-5 py-4">
                {way === 'address' && <FromAddress brand={brand} onDone={onDone} onClose={() => setWay(null)} />}
                {way === 'library' && <FromLibrary brand={brand} onDone={onDone} />}
                {way === 'post' && <FromPost brand={brand} onDone={onDone} />}
              </div>
            </Dialog>
          </Modal>
        </ModalOverlay>
      </DialogTrigger>
    </div>
  );
}

type WayProps = Pick<BringInProps, 'brand' | 'onDone'>;

function FromAddress({ brand, onDone, onClose }: WayProps & { readonly onClose: () => void }) {
  const [address, setAddress] = useState('');
  const fetchIt = useMutation({
    mutationFn: () => call(fetchMedia, { params: { brand }, body: { address } }),
    onSuccess: (item) => {
      onDone(item);
      onClose();
    },
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        fetchIt.mutate();
      }}
      className="space-y-4"
    >
      <Field label="Address of the picture, clip or sound" hint="Only public addresses are fetched. Note the credit and the licence afterwards." problem={fetchIt.error?.message}>
        {({ id, describedBy, invalid }) => <input id={id} aria-describedby={describedBy} aria-invalid={invalid} value={address} placeholder="https://" onChange={(event) => setAddress(event.target.value)} className={inputClasses} />}
      </Field>
      <Button type="submit" look="primary" disabled={fetchIt.isPending || address.trim() === ''}>
        {fetchIt.isPending ? 'Fetching…' : 'Fetch it'}
      </Button>
    </form>
  );
}

function FromLibrary({ brand, onDone }: WayProps) {
  const [words, setWords] = useState('');
  const found = useQuery({ queryKey: ['library', brand, words], queryFn: () => call(searchLibrary, { params: { brand }, query: { words } }), placeholderData: (before) => before });
  const take = useMutation({
    mutationFn: (picture: string) => call(takeFromLibrary, { params: { brand, picture } }),
    onSuccess: (item) => {
      toast('done', `“${item.name}” is among your media, with its credit.`);
      onDone(item);
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <>
      <input type="search" aria-label="Search the library" placeholder="e.g. bread, hands, morning" value={words} onChange={(event) => setWords(event.target.value)} className={inputClasses} />
      {found.isError && <p className="mt-3 text-sm text-coral-ink">{found.error.message}</p>}
      {found.data?.items.length === 0 && <p className="mt-3 text-sm text-quiet">The library has nothing like that. Try one word.</p>}
      <ul className="mt-4 grid grid-cols-3 gap-3">
        {found.data?.items.map((picture) => (
          <li key={picture.id}>
            <button type="button" disabled={take.isPending} onClick={() => take.mutate(picture.id)} className="block w-full overflow-hidden rounded-md border border-line text-left hover:border-house">
              <img src={addressOf(getLibraryPreview, { brand, picture: picture.id })} alt={picture.title} loading="lazy" className="aspect-[4/3] w-full bg-sunk object-cover" />
              <span className="block truncate px-2 pt-1 text-sm font-medium">{picture.title}</span>
              <span className="block truncate px-2 pb-1.5 text-xs text-quiet">
                {picture.credit}, {picture.licence.toLowerCase()}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

function FromPost({ brand, onDone }: WayProps) {
  const posts = useQuery({ queryKey: ['sent', brand], queryFn: () => call(listDeliveries, { params: { brand }, query: { state: 'sent', limit: 30 } }) });
  const take = useMutation({
    mutationFn: (delivery: string) => call(mediaFromPost, { params: { brand }, body: { delivery } }),
    onSuccess: (item) => {
      toast('done', `“${item.name}” is among your media.`);
      onDone(item);
    },
    onError: (error) => toast('problem', error.message),
  });
  if (posts.data?.items.length === 0) return <p className="text-sm text-quiet">Nothing has gone out yet. What does can be used again from here.</p>;
  return (
    <ul className="divide-y divide-line border-y border-line">
      {posts.data?.items.map((post) => (
        <li key={post.id} className="flex items-center gap-3 py-2 text-sm">
          <span className="min-w-0 flex-1 truncate">
            <span className="font-medium">{post.pieceName}</span> <span className="text-quiet">{post.placementName}</span>
          </span>
          <Button size="small" disabled={take.isPending} onClick={() => take.mutate(post.id)}>
            Import
          </Button>
        </li>
      ))}
    </ul>
  );
}
