import { castDraft } from 'immer';
import Images from 'lucide-react/icons/images';
import { nanoid } from 'nanoid';
import { useState, type ReactNode } from 'react';
import { pictureSlides, takesPictures } from '../../../core/piece/draft-slides.ts';
import { FilePick } from '../../ui/FilePick.tsx';
import { DropFiles } from '../../media/DropFiles.tsx';
import { UploadList } from '../../media/UploadList.tsx';
import { useUploads, type Uploads } from '../../media/use-uploads.ts';
import type { ContactProps } from '../view-props.ts';
import type { MediaItem } from '../../media/media-address.ts';
import { draftFrame } from '../draft-frame.ts';
import { timeTaken } from './time-taken.ts';

const byName = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Several pictures at once become a slide each, in the order of their names or of the time they were taken. */
export interface PictureSlides {
  readonly uploads: Uploads;
  readonly order: PictureOrder;
  readonly setOrder: (order: PictureOrder) => void;
  readonly add: (files: readonly File[]) => void;
}

type PictureOrder = 'name' | 'time';
const orderNames: Readonly<Record<PictureOrder, string>> = { name: 'by name', time: 'by time taken' };

async function inOrder(files: readonly File[], order: PictureOrder): Promise<readonly File[]> {
  const named = files.toSorted((a, b) => byName.compare(a.name, b.name));
  if (order === 'name') return named;
  const taken = await Promise.all(named.map(timeTaken));
  return named.map((file, index) => ({ file, at: taken[index] ?? 0 })).toSorted((a, b) => a.at - b.at).map(({ file }) => file);
}

export function usePictureSlides({ template, store, brand, onMedia }: Pick<ContactProps, 'template' | 'store' | 'brand' | 'onMedia'>): PictureSlides {
  const addSlide = (item: MediaItem): void => {
    onMedia(item);
    store.change('pictures', (draft) => {
      const before = store.getState().history.document.frames;
      const slides = pictureSlides(template, before, [item.id], () => nanoid(8));
      draft.frames = castDraft(slides);
      const added = slides.find((frame) => !before.includes(frame) && Object.values(frame.slots).some((value) => value.kind === 'picture'));
      if (added && item.altText !== '') draftFrame(draft, added.id).altText = item.altText;
    });
  };
  const uploads = useUploads(brand.slug, addSlide);
  const [order, setOrder] = useState<PictureOrder>('name');
  return { uploads, order, setOrder, add: (files) => void inOrder(files, order).then(uploads.add) };
}

export function PicturesButton({ template, pictures }: Pick<ContactProps, 'template'> & { readonly pictures: PictureSlides }) {
  if (!takesPictures(template)) return null;
  return (
    <div className="relative flex">
      <FilePick accept="image/jpeg,image/png,image/webp,video/*" multiple onFiles={pictures.add}>
        <Images aria-hidden className="size-4" />
        From pictures
      </FilePick>
      <select aria-label="Order of the pictures" value={pictures.order} onChange={(event) => pictures.setOrder(event.target.value as PictureOrder)} className="ml-1 rounded-md border border-line bg-panel px-1 text-xs text-quiet">
        {Object.entries(orderNames).map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
      {pictures.uploads.list.length > 0 && (
        <div className="shadow-float absolute top-10 right-0 z-30 w-80 rounded-md border border-line bg-panel p-3">
          <UploadList uploads={pictures.uploads} />
        </div>
      )}
    </div>
  );
}

/** Pictures that are dropped on the sheet become slides, too. */
export function PicturesDrop({ template, pictures, readOnly, children }: Pick<ContactProps, 'template' | 'readOnly'> & { readonly pictures: PictureSlides; readonly children: ReactNode }) {
  return (
    <DropFiles isOpen={!readOnly && takesPictures(template)} onFiles={pictures.add} className="min-h-0 flex-1 overflow-auto px-5 pb-6">
      {children}
    </DropFiles>
  );
}
