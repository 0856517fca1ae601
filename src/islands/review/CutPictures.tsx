import { useEffect, useState, type MouseEvent } from 'react';
import type { RemarkPlace } from '../../core/post/remark-place.ts';
import { CutVideo } from './CutVideo.tsx';
import type { PictureSource, ReviewCut, ShownReview, VideoSource } from './review-types.ts';
import { numbered } from './review-types.ts';

interface CutPicturesProps {
  readonly review: ShownReview;
  readonly pictureOf: PictureSource;
  readonly videoOf: VideoSource;
  /** Null where nothing may be remarked. */
  readonly onPlace: ((place: RemarkPlace) => void) | null;
  readonly pending: RemarkPlace | null;
}

const TALL_PX = 260;

/** Every cut as it goes out; a press on it begins a remark on that spot. */
export function CutPictures({ review, pictureOf, videoOf, onPlace, pending }: CutPicturesProps) {
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-5">
      {review.cuts.flatMap((cut) => Array.from({ length: Math.max(1, review.kind === 'video' ? 1 : cut.slides) }, (_, slide) => <OneCut key={`${cut.deliveryId}-${slide}`} cut={cut} slide={slide} review={review} pictureOf={pictureOf} videoOf={videoOf} onPlace={onPlace} pending={pending} />))}
    </div>
  );
}

function OneCut({ cut, slide, review, pictureOf, videoOf, onPlace, pending }: CutPicturesProps & { readonly cut: ReviewCut; readonly slide: number }) {
  const heightPx = Math.min(TALL_PX, cut.heightPx);
  const widthPx = Math.min(360, Math.round((heightPx * cut.widthPx) / cut.heightPx));
  const isHere = (place: RemarkPlace | null): place is RemarkPlace => place?.deliveryId === cut.deliveryId && place.kind === 'spot' && (place.slide ?? 0) === slide;
  const pins = numbered(review.remarks).filter(({ remark }) => isHere(remark.place) && !remark.isResolved);
  const name = `${cut.channelName}, ${cut.placementName}${cut.slides > 1 && review.kind !== 'video' ? `, slide ${slide + 1}` : ''}`;
  const place = (event: MouseEvent<HTMLButtonElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    // Pressed with the keyboard there is no pointer: the middle is meant.
    const isPointed = event.detail > 0;
    onPlace?.({ kind: 'spot', deliveryId: cut.deliveryId, slide, x: isPointed ? (event.clientX - box.left) / box.width : 0.5, y: isPointed ? (event.clientY - box.top) / box.height : 0.5 } as RemarkPlace);
  };
  return (
    <figure className="max-w-full" style={{ width: widthPx }}>
      <div className="relative">
        {onPlace ? (
          <button type="button" aria-label={`Remark on ${name}`} onClick={place} className="block w-full cursor-crosshair rounded-md">
            <Picture source={pictureOf} cut={cut} slide={slide} name={name} />
          </button>
        ) : (
          <Picture source={pictureOf} cut={cut} slide={slide} name={name} />
        )}
        {pins.map(({ remark, number }) => (
          <Pin key={remark.id} x={remark.place?.x ?? 0} y={remark.place?.y ?? 0} text={String(number)} />
        ))}
        {isHere(pending) && <Pin x={pending.x ?? 0} y={pending.y ?? 0} text="+" />}
      </div>
      {review.kind === 'video' && <CutVideo cut={cut} videoOf={videoOf} onPlace={onPlace} />}
      <figcaption className="mt-1 text-xs text-quiet">{name}</figcaption>
    </figure>
  );
}

function Pin({ x, y, text }: { readonly x: number; readonly y: number; readonly text: string }) {
  return (
    <span aria-hidden className="pointer-events-none absolute grid size-5 -translate-x-1/2 -translate-y-1/2 place-items-center rounded-full rounded-bl-none border border-panel bg-house text-xs font-bold text-house-ink" style={{ left: `${x * 100}%`, top: `${y * 100}%` }}>
      {text}
    </span>
  );
}

function Picture({ source, cut, slide, name }: { readonly source: PictureSource; readonly cut: ReviewCut; readonly slide: number; readonly name: string }) {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    let isGone = false;
    void Promise.resolve(source(cut.deliveryId, slide)).then(
      (found) => void (isGone || setAddress(found)),
      () => undefined,
    );
    return () => {
      isGone = true;
    };
  }, [source, cut.deliveryId, slide]);
  return <img src={address ?? undefined} alt={name} loading="lazy" className="block w-full rounded-md border border-line bg-sunk" style={{ aspectRatio: `${cut.widthPx} / ${cut.heightPx}` }} />;
}
