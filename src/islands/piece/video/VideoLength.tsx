import Timer from 'lucide-react/icons/timer';
import { useMemo, useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import type { Piece } from '../../../core/piece/piece.ts';
import { adjustCut } from '../../../core/piece/adjust.ts';
import { slideKey } from '../../../core/piece/piece.ts';
import type { Recording } from '../../../core/video/recording.ts';
import { VIDEO_FPS } from '../../../core/video/shot-times.ts';
import { shorten, SHORTEN_RULE } from '../../../core/video/shorten.ts';
import { snapToBeats } from '../../../core/video/snap-to-beats.ts';
import { timelineOf } from '../../../core/video/timeline.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { toast } from '../../ui/toast.tsx';
import type { PieceStore } from '../piece-store.ts';
import type { Cut, Cuts } from '../use-cuts.ts';

interface LengthProps {
  readonly piece: Piece;
  readonly store: PieceStore;
  readonly cuts: Cuts;
  readonly recordings: ReadonlyMap<string, Recording>;
  /** Cuts with lengths of their own. */
  readonly own: ReadonlySet<string>;
}

const USUAL_SECONDS = 15;

/** How long the video is: shorter for all cuts or for one, and its cuts on the beat of the music. */
export function VideoLength(props: LengthProps) {
  return (
    <DialogTrigger>
      <AriaButton className={buttonClasses('plain')}>
        <Timer aria-hidden className="size-4" />
        Length
      </AriaButton>
      <Popover className="shadow-float w-96 rounded-md border border-line bg-panel p-4" placement="bottom end">
        <Dialog aria-label="Length of the video" className="space-y-3 outline-none">
          {({ close }) => <Lengths {...props} close={close} />}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}

function Lengths({ piece, store, cuts, recordings, own, close }: LengthProps & { readonly close: () => void }) {
  const seconds = (frames: readonly Piece['frames'][number][]): number => timelineOf(frames, recordings).lengthFrames / VIDEO_FPS;
  const tooLong = cuts.list.find(({ slides, placement }) => placement.video && seconds(slides.map(({ frame }) => frame)) > placement.video.mostSeconds);
  const [cutKey, setCutKey] = useState(tooLong?.key ?? '');
  const [target, setTarget] = useState(tooLong?.placement.video?.mostSeconds ?? USUAL_SECONDS);
  const cut = cuts.list.find(({ key }) => key === cutKey);
  const shortened = useMemo(() => (Number.isFinite(target) && target > 0 ? shorten(piece.frames, recordings, target * 1000) : null), [piece.frames, recordings, target]);
  const nowSeconds = seconds(cut ? cut.slides.map(({ frame }) => frame) : piece.frames);
  const music = piece.track?.music === undefined ? undefined : recordings.get(piece.track.music);
  const apply = (): void => {
    if (!shortened) return;
    // What it does is seen on the wall behind it.
    close();
    if (cut) keepForCut(store, cut, piece, shortened);
    else
      store.change('shorten', (draft) => {
        draft.frames = draft.frames.filter(({ id }) => !shortened.without.includes(id)) as typeof draft.frames;
        for (const frame of draft.frames) frame.shot = { ...frame.shot, lengthMs: shortened.lengths.get(frame.id) };
      });
  };
  const snap = (): void => {
    if (!music) return;
    const lengths = snapToBeats(piece.frames, recordings, music);
    if (lengths.size === 0) return toast('done', 'Every cut is on the beat already, or no beat is near.');
    store.change('beats', (draft) => {
      for (const frame of draft.frames) if (lengths.has(frame.id)) frame.shot = { ...frame.shot, lengthMs: lengths.get(frame.id) };
    });
  };
  return (
    <>
      <div className="grid grid-cols-[1fr_6rem] gap-2">
        <label className="text-xs text-quiet">
          For
          <select value={cutKey} onChange={(event) => setCutKey(event.target.value)} className="mt-1 h-8 w-full rounded-md border border-line bg-panel px-2 text-sm text-ink">
            <option value="">all cuts</option>
            {cuts.list.map(({ key, sheet, placement }) => (
              <option key={key} value={key}>
                {sheet.name} {placement.name} alone
              </option>
            ))}
          </select>
        </label>
        <label className="text-xs text-quiet">
          Seconds
          <input type="number" min={1} max={600} step={1} value={Number.isFinite(target) ? target : ''} onChange={(event) => setTarget(event.target.valueAsNumber)} className="mt-1 h-8 w-full rounded-md border border-line bg-panel px-2 text-sm text-ink tabular-nums" />
        </label>
      </div>
      <p className="text-xs text-quiet">
        {cut ? 'It lasts' : 'The video lasts'} {nowSeconds.toFixed(1)} s now. {SHORTEN_RULE}
      </p>
      <p role="status" className="text-xs font-medium">
        {!shortened ? 'It cannot be as short as that: what its first and last shot say takes longer to read.' : nowSeconds <= target ? 'It is no longer than that.' : `Makes it ${(shortened.lengthMs / 1000).toFixed(1)} s${shortened.without.length > 0 ? `, without ${shortened.without.length === 1 ? 'one shot' : `${shortened.without.length} shots`}` : ', with all shots'}.`}
      </p>
      <div className="flex flex-wrap gap-2">
        <Button look="primary" disabled={!shortened || nowSeconds <= target} onClick={apply}>
          Make it {Number.isFinite(target) ? target : 0} s
        </Button>
        {cut && own.has(cut.key) && <Button onClick={() => followAgain(store, cut)}>As long as the others again</Button>}
        {music && music.facts.beatsMs.length > 0 && <Button onClick={snap}>Cut on the beat</Button>}
      </div>
    </>
  );
}

function keepForCut(store: PieceStore, cut: Cut, piece: Piece, { lengths, without }: { readonly lengths: ReadonlyMap<string, number>; readonly without: readonly string[] }): void {
  store.change(`shorten-${cut.key}`, (draft) => {
    adjustCut(draft, cut.key, (adjustment) => void (adjustment.withoutSlides = [...without]));
    for (const { id } of piece.frames) {
      const lengthMs = lengths.get(id);
      if (lengthMs !== undefined) adjustCut(draft, slideKey(cut.ref, id), (adjustment) => void (adjustment.lengthMs = lengthMs));
    }
  });
}

function followAgain(store: PieceStore, cut: Cut): void {
  store.change(`follow-${cut.key}`, (draft) => {
    for (const key of Object.keys(draft.adjustments)) {
      if (key !== cut.key && !key.startsWith(`${cut.key}/`)) continue;
      adjustCut(draft, key, (adjustment) => {
        if (key === cut.key) delete adjustment.withoutSlides;
        delete adjustment.lengthMs;
        delete adjustment.fromMs;
      });
    }
  });
}
