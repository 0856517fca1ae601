import { useRef } from 'react';
import { putPicture } from '../../../core/piece/put-picture.ts';
import type { Frame } from '../../../core/piece/piece.ts';
import type { Template } from '../../../core/template/template.ts';
import type { MediaItem } from '../../media/media-address.ts';
import { useUploads, type Uploads } from '../../media/use-uploads.ts';
import { toast } from '../../ui/toast.tsx';
import type { LookProps } from '../view-props.ts';

type SlotProps = Pick<LookProps, 'store' | 'media' | 'onMedia'>;

/** Puts a picture into a slot of a frame, with what it brings along. */
export function putInSlot({ store, media, onMedia }: SlotProps, frame: Frame, slot: string, chosen: MediaItem): void {
  const value = frame.slots[slot];
  const before = value?.kind === 'picture' ? (media.get(value.mediaId) ?? null) : null;
  onMedia(chosen);
  let keepsOtherAltText = false;
  store.change(`slot-${frame.id}-${slot}`, (draft) => {
    keepsOtherAltText = putPicture(draft, { frameId: frame.id, slot, before, picture: chosen }).keepsOtherAltText;
  });
  if (keepsOtherAltText) toast('problem', 'The alt text stays as it was written. Check whether it still describes the picture.');
}

/** Files for the picture slots of a frame, in their order. */
export interface PictureSlots {
  readonly uploads: Uploads;
  readonly isTaking: boolean;
  readonly add: (files: readonly File[]) => void;
}

export function usePictureSlots(props: SlotProps & Pick<LookProps, 'brand' | 'readOnly'>, template: Template, frame: Frame): PictureSlots {
  const slots = template.slots.filter((slot) => slot.kind === 'picture').map(({ key }) => key);
  const waiting = useRef<string[]>([]);
  const uploads = useUploads(props.brand.slug, (item) => {
    const slot = waiting.current.shift();
    if (slot !== undefined) putInSlot(props, frame, slot, item);
  });
  return {
    uploads,
    isTaking: !props.readOnly && slots.length > 0,
    add: (files) => {
      const taken = files.slice(0, slots.length);
      waiting.current.push(...slots.slice(0, taken.length));
      uploads.add(taken);
    },
  };
}
