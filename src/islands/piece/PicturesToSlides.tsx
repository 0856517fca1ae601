import Images from 'lucide-react/icons/images';
import { nanoid } from 'nanoid';
import { pictureSlides } from '../../core/piece/draft-slides.ts';
import { ownSlots } from '../../core/piece/slides-of-cut.ts';
import { FilePick } from '../ui/FilePick.tsx';
import { UploadList } from '../make/UploadList.tsx';
import { useUploads } from '../make/use-uploads.ts';
import type { ContactProps } from './ContactSheet.tsx';
import type { MediaItem } from './PieceEditor.tsx';
import { draftFrame } from './draft-frame.ts';

const byName = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Several pictures at once, a slide each, in the order of their names; offered where the template has slides for pictures. */
export function PicturesToSlides({ template, store, brand, onMedia }: ContactProps) {
  const add = (item: MediaItem): void => {
    onMedia(item);
    const id = nanoid(8);
    store.change('pictures', (draft) => {
      const slides = pictureSlides(template, store.getState().history.document.frames, [item.id], () => id);
      draft.frames = slides as unknown as typeof draft.frames;
      if (item.altText !== '' && draft.frames.some((frame) => frame.id === id)) draftFrame(draft, id).altText = item.altText;
    });
  };
  const uploads = useUploads(brand.slug, add);
  const takesPictures = template.slides?.some((slide) => slide.use === 'picture' && ownSlots(template, slide.key).some((slot) => slot.kind === 'picture')) ?? false;
  if (!takesPictures) return null;
  return (
    <div className="relative">
      <FilePick accept="image/jpeg,image/png,image/webp" multiple onFiles={(files) => uploads.add(files.toSorted((a, b) => byName.compare(a.name, b.name)))}>
        <Images aria-hidden className="size-4" />
        From pictures
      </FilePick>
      {uploads.list.length > 0 && (
        <div className="shadow-float absolute top-10 right-0 z-30 w-80 rounded-md border border-line bg-panel p-3">
          <UploadList uploads={uploads} />
        </div>
      )}
    </div>
  );
}
