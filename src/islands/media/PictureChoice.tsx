import { useState, type ReactNode } from 'react';
import { Button } from '../ui/Button.tsx';
import { MediaPicker } from './MediaPicker.tsx';
import { mediaAddress, type MediaItem } from './media-address.ts';

interface PictureChoiceProps {
  readonly brand: string;
  readonly picture: MediaItem | null;
  readonly onChoose: (picture: MediaItem | null) => void;
  /** What it is like without one. */
  readonly children?: ReactNode;
}

/** A picture that belongs to something, or none: chosen from the media, or uploaded. */
export function PictureChoice({ brand, picture, onChoose, children }: PictureChoiceProps) {
  const [isPicking, setPicking] = useState(false);
  return (
    // What is submitted in the picker is no submit of the form around it.
    <div className="flex items-center gap-3" onSubmit={(event) => event.stopPropagation()}>
      {picture && <img src={mediaAddress(brand, picture, 240)} alt={picture.altText} className="size-14 rounded-md border border-line object-cover" />}
      <Button size="small" onClick={() => setPicking(true)}>
        {picture ? 'Another picture' : 'Add a picture'}
      </Button>
      {picture && (
        <Button size="small" look="quiet" onClick={() => onChoose(null)}>
          Without
        </Button>
      )}
      {!picture && children !== undefined && <span className="text-xs text-quiet">{children}</span>}
      {isPicking && (
        <MediaPicker
          brand={brand}
          onChoose={(item) => {
            onChoose(item);
            setPicking(false);
          }}
          onClose={() => setPicking(false)}
        />
      )}
    </div>
  );
}
