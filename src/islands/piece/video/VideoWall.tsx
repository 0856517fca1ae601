import Maximize2 from 'lucide-react/icons/maximize-2';
import Minimize2 from 'lucide-react/icons/minimize-2';
import Pause from 'lucide-react/icons/pause';
import SquareSplitHorizontal from 'lucide-react/icons/square-split-horizontal';
import ImagePlus from 'lucide-react/icons/image-plus';
import Play from 'lucide-react/icons/play';
import { castDraft } from 'immer';
import { nanoid } from 'nanoid';
import { memo, useEffect, useMemo, useRef, useState, type KeyboardEvent as KeyPress } from 'react';
import type { Frame } from '../../../core/piece/piece.ts';
import { VIDEO_FPS } from '../../../core/video/shot-times.ts';
import { coverOf, restingFrame } from '../../../core/video/cover.ts';
import { splitShot } from '../../../core/video/split-shot.ts';
import { momentAt, toMs } from '../../../core/video/timeline.ts';
import { Button } from '../../ui/Button.tsx';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { NoCuts } from '../NoCuts.tsx';
import type { ContactProps } from '../view-props.ts';
import { CutCanvas } from '../../preview/CutCanvas.tsx';
import type { MediaItem } from '../../media/media-address.ts';
import { SlideStrip } from '../slides/SlideStrip.tsx';
import type { Cut, Cuts } from '../use-cuts.ts';
import { useVideo, type Video } from './use-video.ts';
import { VideoLength } from './VideoLength.tsx';
import { ExportVideo } from './ExportVideo.tsx';
import { WallScale } from '../../preview/WallScale.tsx';

interface VideoWallProps extends Omit<ContactProps, 'onLook'> {
  readonly media: ReadonlyMap<string, MediaItem>;
}

const SHOT_PX = 128;
const GAP_PX = 8;
/** Room beside a cut that is looked at closer, and below it for what it is called. */
const PAD_PX = 20;
const CAPTION_PX = 60;

/** All cuts of a video in step, over the strip of its shots. */
export function VideoWall({ cuts: all, ...props }: VideoWallProps) {
  const { piece, brand, media, template, store, frame, chosen, onChosen, readOnly, pieceId } = props;
  const [lookedKey, setLookedKey] = useState<string | null>(null);
  const [room, setRoom] = useState({ width: 0, height: 0 });
  const closer = useMemo(() => (lookedKey === null ? null : closerLook(all.list, lookedKey, room, all.wallScale)), [all.list, all.wallScale, lookedKey, room]);
  const cuts = closer ? { ...all, ...closer } : all;
  const seen = useRef(new Set<string>());
  const { timeline, wholeFrames, player, state, recordings, own, playedCut, setPlayedCut, showsCovers, setShowsCovers } = useVideo({ piece, cuts, brand: brand.slug, media, seen });
  useEffect(() => {
    const back = (event: KeyboardEvent): void => void (event.key === 'Escape' && setLookedKey(null));
    addEventListener('keydown', back);
    return () => removeEventListener('keydown', back);
  }, []);
  const at = timeline.shots.find((shot) => shot.frame.id === frame.id);
  const lookedAt = useRef<string | null>(null);
  useEffect(() => {
    // A shot that is chosen is looked at where all of it has come in; while it is changed, the moment stays.
    if (!player || !at || lookedAt.current === at.frame.id) return;
    lookedAt.current = at.frame.id;
    if (!player.getState().isPlaying) player.seek(restingFrame(at));
  }, [player, at]);
  /** The shot at a moment becomes the one at work, so that what is changed is what is seen; while it plays, the fields stay. */
  const follow = (videoFrame: number): void => {
    const shown = momentAt(timeline, videoFrame)?.shot.frame.id;
    if (shown === undefined || shown === frame.id) return;
    lookedAt.current = shown;
    onChosen(new Set([shown]), shown);
  };
  // Not while one scrubs: other fields for every shot on the way would make it stutter.
  const settle = (): void => {
    const now = player?.getState();
    if (now && !now.isPlaying) follow(now.frame);
  };
  const toggle = (): void => {
    if (!state.isPlaying) return player?.play();
    player?.pause();
    follow(state.frame);
  };
  const keys = (event: KeyPress): void => {
    const steps: Readonly<Record<string, number>> = { ArrowLeft: -1, ArrowRight: 1, PageUp: -VIDEO_FPS, PageDown: VIDEO_FPS };
    const step = steps[event.key];
    if (event.key === ' ') toggle();
    else if (step !== undefined) player?.seek(state.frame + (event.shiftKey ? step * VIDEO_FPS : step));
    else return;
    event.preventDefault();
  };
  const moment = momentAt(timeline, state.frame);
  const partsOfShot = (id: string): readonly [Frame, Frame] | null => (moment && playedCut === null ? splitShot(moment.shot, state.frame - moment.shot.startFrame, template, id) : null);
  const split = (): void => {
    const parts = partsOfShot(nanoid(8));
    if (!parts) return;
    store.change(`split-${parts[1].id}`, (draft) => {
      const at = draft.frames.findIndex(({ id }) => id === parts[0].id);
      if (at >= 0) draft.frames.splice(at, 1, ...castDraft(parts));
    });
  };
  const lookAtCovers = (shows: boolean): void => {
    setShowsCovers(shows);
    if (!shows) return;
    player?.pause();
    const moments = cuts.list.map(({ placement }) => coverOf(piece.cover, placement.video, piece.frames, timeline));
    const moment = moments.find((cover) => cover?.kind === 'frame');
    if (moment?.kind === 'frame') player?.seek(moment.frame);
  };
  const last = Math.max(0, timeline.lengthFrames - 1);
  return (
    <section aria-label="Video wall" className="relative flex min-w-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-3 px-5 pt-4 pb-2">
        <Button look="primary" onClick={toggle} disabled={!player} className="w-22">
          {state.isPlaying ? <Pause aria-hidden className="size-4" /> : <Play aria-hidden className="size-4" />}
          {state.isPlaying ? 'Pause' : 'Play'}
        </Button>
        <input
          type="range"
          aria-label="Moment"
          aria-valuetext={`${clock(state.frame)} of ${clock(timeline.lengthFrames)}`}
          min={0}
          max={last}
          value={state.frame}
          onChange={(event) => player?.seek(event.target.valueAsNumber)}
          onPointerUp={settle}
          onKeyUp={settle}
          onKeyDown={keys}
          className="min-w-28 flex-1 accent-house"
        />
        <output className="w-26 text-sm tabular-nums" data-frame={state.frame}>
          {clock(state.frame)} / {clock(timeline.lengthFrames)}
        </output>
      </div>
      <div className="flex flex-wrap items-center gap-2 px-5 pb-3">
        {!readOnly && (
          <>
            <Button disabled={!partsOfShot('new')} onClick={split}>
              <SquareSplitHorizontal aria-hidden className="size-4" />
              Split here
            </Button>
            <Button onClick={() => store.change('cover', (draft) => void (draft.cover = { kind: 'frame', atMs: Math.round(toMs(state.frame)) }))}>
              <ImagePlus aria-hidden className="size-4" />
              Cover from here
            </Button>
            <VideoLength piece={piece} store={store} cuts={cuts} recordings={recordings} own={new Set(own.keys())} />
          </>
        )}
        {piece.cover && (
          <Button aria-pressed={showsCovers} look={showsCovers ? 'primary' : 'plain'} onClick={() => lookAtCovers(!showsCovers)}>
            Covers
          </Button>
        )}
        <span className="ml-auto">
          <WallScale cuts={cuts} compact />
        </span>
        {cuts.list.length > 0 && <ExportVideo brand={brand.slug} pieceId={pieceId} store={store} cuts={cuts} />}
      </div>
      {cuts.problem && (
        <p role="alert" className="px-5 pb-3 text-sm text-coral-ink">
          The cuts could not be painted: {cuts.problem}
        </p>
      )}
      {cuts.list.length === 0 && (
        <div className="px-5 pb-5">
          <NoCuts brand={brand.slug} kind={piece.kind} />
        </div>
      )}
      <CutList cuts={cuts} seen={seen.current} onSeen={() => player?.repaint()} onRoom={setRoom} onLook={(key) => setLookedKey(lookedKey === null ? key : null)} isCloser={lookedKey !== null} lengthFrames={wholeFrames} own={own} playedCut={playedCut} onPlayCut={setPlayedCut} />
      <div className="overflow-x-auto border-t border-line bg-wall px-5 pt-3 pb-4">
        <SlideStrip frames={piece.frames} template={template} store={store} frameId={frame.id} chosen={chosen} onChosen={onChosen} readOnly={readOnly} columnPx={SHOT_PX} headerPx={-GAP_PX} gapPx={GAP_PX} />
      </div>
    </section>
  );
}

/** One cut alone, as large as there is room; null when it is no longer there. */
function closerLook(list: readonly Cut[], key: string, room: { readonly width: number; readonly height: number }, wallScale: number): Pick<Cuts, 'list' | 'wallScale' | 'scaleOf'> | null {
  const [cut] = list.filter((each) => each.key === key);
  if (!cut) return null;
  const { width, height } = cut.placement.exportPx;
  const scale = Math.max(wallScale, Math.min(1, (room.width - 2 * PAD_PX) / width, (room.height - CAPTION_PX) / height));
  return { list: [cut], wallScale: scale, scaleOf: () => scale };
}

interface CutListProps {
  readonly cuts: Cuts;
  /** Cuts that are in view, kept up to date here. */
  readonly seen: Set<string>;
  readonly onSeen: () => void;
  readonly onRoom: (room: { readonly width: number; readonly height: number }) => void;
  readonly onLook: (key: string) => void;
  readonly isCloser: boolean;
  readonly lengthFrames: number;
  readonly own: Video['own'];
  readonly playedCut: string | null;
  readonly onPlayCut: (key: string | null) => void;
}

const CutList = memo(function CutList({ cuts, seen, onSeen, onRoom, onLook, isCloser, lengthFrames, own, playedCut, onPlayCut }: CutListProps) {
  const box = useRef<HTMLDivElement>(null);
  const tell = useRef(onSeen);
  tell.current = onSeen;
  const keys = cuts.list.map(({ key }) => key).join(' ');
  useEffect(() => {
    const root = box.current;
    if (!root) return;
    const observer = new IntersectionObserver(
      (entries) => {
        for (const { target, isIntersecting } of entries) {
          const key = (target as HTMLElement).dataset['cut'] ?? '';
          if (isIntersecting) seen.add(key);
          else seen.delete(key);
        }
        tell.current();
      },
      { root },
    );
    seen.clear();
    for (const item of root.querySelectorAll('[data-cut]')) observer.observe(item);
    return () => observer.disconnect();
    // Another wall has other canvases.
  }, [keys, seen, cuts.wall]);
  useEffect(() => {
    const { current } = box;
    if (!current) return;
    const observer = new ResizeObserver(() => onRoom({ width: current.clientWidth, height: current.clientHeight }));
    observer.observe(current);
    return () => observer.disconnect();
  }, [onRoom]);
  return (
    // It can be scrolled by keys, as there is nothing in it to go to.
    <div ref={box} role="region" aria-label={isCloser ? 'One cut' : 'All cuts'} tabIndex={0} className="min-h-0 flex-1 overflow-auto px-5 pb-5">
      <ul className="flex flex-wrap items-start gap-5">
        {cuts.list.map((cut) => (
          <VideoCut key={cut.key} cut={cut} cuts={cuts} seconds={(own.get(cut.key)?.lengthFrames ?? lengthFrames) / VIDEO_FPS} isOwn={own.has(cut.key)} isPlayed={playedCut === cut.key} isCloser={isCloser} onLook={() => onLook(cut.key)} onPlay={() => onPlayCut(playedCut === cut.key ? null : cut.key)} />
        ))}
      </ul>
    </div>
  );
});

interface VideoCutProps {
  readonly cut: Cut;
  readonly cuts: Cuts;
  readonly seconds: number;
  /** It has lengths of its own, which are played by themselves. */
  readonly isOwn: boolean;
  readonly isPlayed: boolean;
  readonly isCloser: boolean;
  readonly onLook: () => void;
  readonly onPlay: () => void;
}

function VideoCut({ cut, cuts, seconds, isOwn, isPlayed, isCloser, onLook, onPlay }: VideoCutProps) {
  const { sheet, placement } = cut;
  const { width, height } = placement.exportPx;
  const over = cut.slides.map(({ key }) => cuts.reports.get(key)?.texts.find((text) => text.kind === 'overflows')).find((text) => text !== undefined);
  const rule = placement.video;
  const problem = over?.kind === 'overflows' ? `too long by ${over.overBy}` : rule && seconds > rule.mostSeconds ? `${Math.ceil(seconds - rule.mostSeconds)} s too long` : rule && seconds < rule.leastSeconds ? `${(rule.leastSeconds - seconds).toFixed(1)} s too short` : null;
  return (
    <li className="max-w-full [&>canvas]:max-w-full">
      <CutCanvas wall={cuts.wall} cutKey={cut.key} widthPx={Math.round(width * cuts.wallScale)} heightPx={Math.round(height * cuts.wallScale)} label={`The cut for ${sheet.name} ${placement.name}`} />
      <p className="mt-1 flex items-center justify-between gap-2 text-xs">
        <span className="flex items-center gap-1.5 font-semibold">
          <ChannelBadge badge={sheet.badge} />
          {placement.name}
          <button type="button" aria-label={isCloser ? 'Back to all cuts' : `Look closer at ${sheet.name} ${placement.name}`} onClick={onLook} className="rounded-sm p-1 text-quiet hover:bg-sunk hover:text-ink">
            {isCloser ? <Minimize2 aria-hidden className="size-3.5" /> : <Maximize2 aria-hidden className="size-3.5" />}
          </button>
        </span>
        {problem ? <span className="font-medium text-coral-ink">{problem}</span> : <span className="text-quiet tabular-nums">{`${width} × ${height}`}</span>}
      </p>
      {isOwn && (
        <Button size="small" look={isPlayed ? 'primary' : 'plain'} aria-pressed={isPlayed} className="mt-1" onClick={onPlay}>
          {isPlayed ? 'Back to the others' : `Its own ${seconds.toFixed(1)} s`}
        </Button>
      )}
    </li>
  );
}

function clock(frame: number): string {
  const seconds = frame / VIDEO_FPS;
  return `${Math.floor(seconds / 60)}:${(seconds % 60).toFixed(1).padStart(4, '0')}`;
}
