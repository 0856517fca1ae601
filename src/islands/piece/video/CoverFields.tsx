import ImageIcon from 'lucide-react/icons/image';
import { useState } from 'react';
import { firstWords } from '../../../core/piece/piece.ts';
import type { Cover } from '../../../core/piece/cover.ts';
import { Button } from '../../ui/Button.tsx';
import { mediaAddress } from '../../media/media-address.ts';
import type { ContentProps } from '../view-props.ts';
import { MediaPicker } from '../../media/MediaPicker.tsx';

const selectLook = 'mt-1 h-8 w-full rounded-md border border-line bg-panel px-2 text-sm text-ink';
type Choice = 'none' | Cover['kind'];

/** What stands for the video before it plays: a moment, a picture of its own, or a shot that may be there for that alone. */
export function CoverFields({ piece, store, brand, media, onMedia, readOnly }: ContentProps) {
  const { cover } = piece;
  const [isPicking, setPicking] = useState(false);
  const set = (next: Cover | null): void =>
    store.change('cover', (draft) => {
      if (next === null) delete draft.cover;
      else draft.cover = next;
    });
  const choose = (choice: Choice): void => {
    if (choice === 'none') set(null);
    else if (choice === 'frame') set({ kind: 'frame', atMs: 1_500 });
    else if (choice === 'shot') set({ kind: 'shot', frameId: piece.frames[0].id });
    else setPicking(true);
  };
  const picture = cover?.kind === 'picture' ? media.get(cover.mediaId) : undefined;
  return (
    <details className="border-t border-line pt-3" open={cover !== undefined}>
      <summary className="cursor-pointer text-sm font-semibold">Cover</summary>
      <fieldset disabled={readOnly} className="mt-3 min-w-0 space-y-2">
        <legend className="sr-only">Cover</legend>
        <label className="block text-xs text-quiet">
          What stands for the video
          <select value={cover?.kind ?? 'none'} onChange={(event) => choose(event.target.value as Choice)} className={selectLook}>
            <option value="none">whatever each network takes</option>
            <option value="frame">a moment of it</option>
            <option value="shot">one of its shots</option>
            <option value="picture">a picture…</option>
          </select>
        </label>
        {cover === undefined && <p className="text-xs text-quiet">The first frame stands for it then: the words of the first shot are there from the start.</p>}
        {cover?.kind === 'frame' && (
          <label className="block text-xs text-quiet">
            At, in seconds
            <input type="number" min={0} step={0.1} value={Math.round(cover.atMs / 100) / 10} onChange={(event) => Number.isFinite(event.target.valueAsNumber) && set({ kind: 'frame', atMs: Math.max(0, Math.round(event.target.valueAsNumber * 1000)) })} className={`${selectLook} tabular-nums`} />
          </label>
        )}
        {cover?.kind === 'shot' && (
          <label className="block text-xs text-quiet">
            Shot
            <select value={cover.frameId} onChange={(event) => set({ kind: 'shot', frameId: event.target.value })} className={selectLook}>
              {piece.frames.map((frame, index) => (
                <option key={frame.id} value={frame.id}>
                  {index + 1} {firstWords({ frames: [frame] })} {frame.shot?.onlyCover ? '(not played)' : ''}
                </option>
              ))}
            </select>
          </label>
        )}
        {cover?.kind === 'picture' && (
          <p className="flex items-center gap-3 text-sm">
            {picture ? <img src={mediaAddress(brand.slug, picture, 240)} alt="" className="h-14 w-20 rounded-md object-cover" /> : <ImageIcon aria-hidden className="size-6 text-quiet" />}
            <Button size="small" onClick={() => setPicking(true)}>
              Change
            </Button>
          </p>
        )}
      </fieldset>
      {isPicking && (
        <MediaPicker
          brand={brand.slug}
          onChoose={(item) => {
            onMedia(item);
            set({ kind: 'picture', mediaId: item.id });
            setPicking(false);
          }}
          onClose={() => setPicking(false)}
        />
      )}
    </details>
  );
}
