import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type { RemarkPlace } from '../../core/post/remark-place.ts';
import { Button } from '../ui/Button.tsx';
import type { ReviewCut, VideoSource } from './review-types.ts';

interface CutVideoProps {
  readonly cut: ReviewCut;
  readonly videoOf: VideoSource;
  /** Null where nothing may be remarked. */
  readonly onPlace: ((place: RemarkPlace) => void) | null;
}

const ASK_AGAIN_MS = 2_000;
/** After this many requests the person presses Play again. */
const MAX_ASKED = 150;

/** Loads and plays the video of a cut. A remark applies to the moment on screen. */
export function CutVideo({ cut, videoOf, onPlace }: CutVideoProps) {
  const player = useRef<HTMLVideoElement>(null);
  const load = useMutation({
    mutationFn: async () => {
      for (let asked = 0; asked < MAX_ASKED; asked += 1) {
        const video = await videoOf(cut.deliveryId);
        if (video) return URL.createObjectURL(video);
        await new Promise((resolve) => setTimeout(resolve, ASK_AGAIN_MS));
      }
      throw new Error('The video is still being made. Try again in a few minutes.');
    },
  });
  const address = load.data;
  useEffect(() => () => void (address && URL.revokeObjectURL(address)), [address]);
  if (address === undefined) {
    return (
      <div className="mt-1.5">
        <Button size="small" disabled={load.isPending} onClick={() => load.mutate()}>
          {load.isPending ? 'Making the video…' : 'Play the video'}
        </Button>
        {load.error && (
          <p role="alert" className="mt-1 text-xs text-coral-ink">
            {load.error.message}
          </p>
        )}
      </div>
    );
  }
  return (
    <div className="mt-1.5">
      <video ref={player} src={address} controls playsInline aria-label={`${cut.channelName}, ${cut.placementName}`} className="w-full rounded-md border border-line bg-sunk" />
      {onPlace && (
        <Button size="small" className="mt-1.5" onClick={() => onPlace({ kind: 'moment', deliveryId: cut.deliveryId, atMs: Math.round((player.current?.currentTime ?? 0) * 1000) } as RemarkPlace)}>
          Remark on this moment
        </Button>
      )}
    </div>
  );
}
