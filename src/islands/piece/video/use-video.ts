import { useEffect, useMemo, useRef, useState, useSyncExternalStore, type RefObject } from 'react';
import { getRecordingFile } from '../../../contract/media-contracts.ts';
import { linkedCut } from '../../../core/piece/adjustment.ts';
import type { Piece } from '../../../core/piece/piece.ts';
import type { Recording } from '../../../core/video/recording.ts';
import { saidWordAt, spokenSpans, wordStartsMs } from '../../../core/video/said-words.ts';
import { shotEnds, takesCover } from '../../../core/video/shot-ends.ts';
import { subtitleStyle } from '../../../core/video/subtitle-style.ts';
import { ALONE, filledSlide } from '../../../core/piece/slides-of-cut.ts';
import { slideTemplate } from '../../../core/template/slide-template.ts';
import type { Template } from '../../../core/template/template.ts';
import { coverFrame, coverOf, coverTemplate } from '../../../core/video/cover.ts';
import { shotsUnder } from '../../../core/video/place-subtitle.ts';
import { takesSubtitleFile } from '../../../core/video/subtitles.ts';
import { shotMovements } from '../../../core/video/movement.ts';
import { timelineOf, toMs, type Moment, type Timeline } from '../../../core/video/timeline.ts';
import type { WantedCut } from '../../../workers/wall-protocol.ts';
import { addressOf } from '../../ui/call.ts';
import type { MediaItem } from '../../media/media-address.ts';
import type { Cut, Cuts } from '../use-cuts.ts';
import { VideoPlayer, type PlayedSound, type PlayerState } from '../../preview/video-player.ts';
import { singlePicture } from '../../preview/wanted-cut.ts';

interface UseVideoInput {
  readonly piece: Piece;
  readonly cuts: Cuts;
  readonly brand: string;
  readonly media: ReadonlyMap<string, MediaItem>;
  /** Keys of the cuts that are in view: while it plays, only these are painted. */
  readonly seen: RefObject<ReadonlySet<string>>;
}

export interface Video {
  /** What is played. */
  readonly timeline: Timeline;
  /** Length of what the cuts share. */
  readonly wholeFrames: number;
  readonly player: VideoPlayer | null;
  readonly state: PlayerState;
  readonly recordings: ReadonlyMap<string, Recording>;
  /** The timelines of cuts that are not as long as the others, or leave shots out. */
  readonly own: ReadonlyMap<string, Timeline>;
  /** The cut whose own timeline is played; null: what all others share. */
  readonly playedCut: string | null;
  readonly setPlayedCut: (key: string | null) => void;
  /** Whether the covers are shown instead of the moment at hand. */
  readonly showsCovers: boolean;
  readonly setShowsCovers: (shows: boolean) => void;
}

/** The clips and sounds among media, by id. */
export function recordingsOf(media: ReadonlyMap<string, MediaItem>) {
  return new Map([...media].flatMap(([id, { recording }]) => (recording ? [[id, recording] as const] : [])));
}

const stopped: PlayerState = { frame: 0, isPlaying: false };
const never = (): (() => void) => () => undefined;
const getStopped = (): PlayerState => stopped;

/** A video on the wall: all its cuts in step, playing or standing at one moment. */
export function useVideo({ piece, cuts, brand, media, seen }: UseVideoInput): Video {
  const { frames, track } = piece;
  const recordings = useMemo(() => recordingsOf(media), [media]);
  const whole = useMemo(() => timelineOf(frames, recordings), [frames, recordings]);
  const own = useMemo(() => ownTimelines(cuts.list, recordings, whole), [cuts.list, recordings, whole]);
  const [playedCut, setPlayedCut] = useState<string | null>(null);
  const timeline = (playedCut === null ? undefined : own.get(playedCut)) ?? whole;
  const played = useMemo(() => {
    const sound = (id: string | undefined, more: Pick<PlayedSound, 'volume' | 'loops'>, speaks: boolean): readonly PlayedSound[] => {
      const item = id === undefined ? undefined : media.get(id);
      return item?.recording ? [{ address: recordingAddress(brand, item), speech: speaks ? item.recording : null, ...more }] : [];
    };
    return {
      timeline,
      addresses: new Map([...media.values()].flatMap((item) => (item.recording?.kind === 'clip' ? [[item.id, recordingAddress(brand, item)] as const] : []))),
      sounds: [...sound(track?.voice, { volume: 1, loops: false }, true), ...sound(track?.music, { volume: track?.musicVolume ?? 1, loops: true }, false)],
    };
  }, [timeline, media, brand, track]);
  // The player paints whenever its clock says so, with what the page shows then.
  const [showsCovers, setShowsCovers] = useState(false);
  const latest = useRef({ cuts, piece, media, whole, timeline, showsCovers });
  latest.current = { cuts, piece, media, whole, timeline, showsCovers };
  const [player, setPlayer] = useState<VideoPlayer | null>(null);
  useEffect(() => {
    const made = new VideoPlayer(async (frame, moment, pictures, which) => {
      const { wall, content } = latest.current.cuts;
      if (!wall || wall.isBusy) return false;
      const { list } = latest.current.cuts;
      const wanted = wantedAt(latest.current, list.filter(({ key }) => seen.current.has(key) === (which === 'seen')), frame, moment);
      if (wanted.length === 0) return true;
      const clips = [moment.shot.clip, moment.over?.shot.clip].flatMap((clip) => (clip ? [clip.mediaId] : []));
      // A video looks as it goes out: empty texts are left out, as they are in the file. A shot with nothing in it shows where things go.
      wall.paint({ content, ghosts: false, cuts: wanted }, false, clips.length > 0 ? await pictures(clips, wall.painterCount) : []);
      return true;
    });
    setPlayer(made);
    return () => made.close();
  }, [seen]);
  useEffect(() => player?.show(played), [player, played]);
  const { list, content, wanted, scaleOf, wall } = cuts;
  // What is reported of a painting is new every time; only what is painted may lead to another one.
  useEffect(() => player?.repaint(), [player, piece, list, content, wanted, scaleOf, wall, showsCovers]);
  return { timeline, wholeFrames: whole.lengthFrames, player, recordings, own, showsCovers, setShowsCovers, playedCut: playedCut !== null && own.has(playedCut) ? playedCut : null, setPlayedCut, state: useSyncExternalStore(player?.subscribe ?? never, player?.getState ?? getStopped, getStopped) };
}

function ownTimelines(cuts: readonly Cut[], recordings: ReadonlyMap<string, Recording>, whole: Timeline): ReadonlyMap<string, Timeline> {
  const timesOf = ({ shots }: Timeline): string => shots.map(({ frame, startFrame, lengthFrames, clip }) => `${frame.id} ${startFrame} ${lengthFrames} ${clip?.fromFrame ?? ''}`).join();
  const shared = timesOf(whole);
  return new Map(
    cuts.flatMap(({ key, slides }) => {
      const timeline = timelineOf(slides.map(({ frame }) => frame), recordings);
      return timesOf(timeline) === shared ? [] : [[key, timeline] as const];
    }),
  );
}

function recordingAddress(brand: string, item: MediaItem): string {
  return addressOf(getRecordingFile, { brand, media: item.id }, { of: item.revision });
}

/** Every cut at one moment: its shots are fitted together, one of them (or two, in a transition) is painted. */
interface Shown extends Pick<UseVideoInput, 'cuts' | 'piece' | 'media'> {
  readonly whole: Timeline;
  /** What is played. */
  readonly timeline: Timeline;
  readonly showsCovers: boolean;
}

function wantedAt({ cuts, piece, media, whole, timeline, showsCovers }: Shown, list: readonly Cut[], frame: number, moment: Moment): readonly WantedCut[] {
  const density = Math.min(2, globalThis.devicePixelRatio || 1);
  const atMs = toMs(frame);
  const line = piece.track?.subtitles?.find(({ fromMs, toMs: endMs, text }) => text.trim() !== '' && atMs >= fromMs && atMs < endMs);
  return list.flatMap((cut): readonly WantedCut[] => {
    const scale = cuts.scaleOf(cut) * density;
    const cover = showsCovers ? paintedCover(cut, piece, whole, scale, cuts.template) : null;
    if (cover) return [cover];
    const all = cuts.wanted(cut, scale);
    const indexOf = (id: string): number => cut.slides.findIndex((slide) => slide.frame.id === id);
    const [at, before] = [indexOf(moment.shot.frame.id), moment.over ? indexOf(moment.over.shot.frame.id) : -1];
    const subtitle = line && !takesSubtitleFile(piece.track, cut.placement.video) ? subtitleCut(cut, line.text, subtitleStyle(cuts.content.book).template, scale) : null;
    const shots = all.map((wanted, index): WantedCut => {
      const { shot, over } = index === at ? { shot: moment.shot, over: moment.over } : { shot: moment.over?.shot, over: null };
      if (index !== at && index !== before) return { ...wanted, unseen: true };
      if (!shot) return wanted;
      const inside = { frame: frame - shot.startFrame, ...shotEnds(timeline, timeline.shots.indexOf(shot), takesCover(piece.cover, cut.placement.video)), lengthFrames: shot.lengthFrames, movements: shotMovements(shot, media, wanted.adjustment.crops ?? {}) };
      if (index === before) return { ...wanted, unseen: true, moment: inside };
      const behind = all[before];
      return { ...wanted, key: cut.key, moment: { ...inside, ...(over && behind ? { over: { key: behind.key, kind: shot.into.kind, progress: over.progress } } : {}), ...(subtitle && line ? { subtitle: { key: subtitle.key, over: shotsUnder(line, timeline).flatMap((under) => all[under]?.key ?? []), word: saidWordAt(wordStartsMs(line, spokenSpans(piece.track, recordingsOf(media))), atMs) } } : {}) } };
    });
    return subtitle ? [...shots, subtitle] : shots;
  });
}

/** A cover that is painted by itself; null for one that is a moment of the video. */
function paintedCover(cut: Cut, piece: Piece, whole: Timeline, scale: number, template: Template): WantedCut | null {
  const cover = coverOf(piece.cover, cut.placement.video, piece.frames, whole);
  if (!cover || cover.kind === 'frame') return null;
  const { key, placement } = cut;
  return cover.kind === 'picture'
    ? singlePicture({ key, template: coverTemplate, frame: coverFrame(cover.mediaId), placement, adjustment: linkedCut, scale })
    : singlePicture({ key, template: slideTemplate(template, cover.frame.slide), frame: filledSlide(cover.frame, piece.frames[0], template, ALONE), placement, adjustment: linkedCut, scale });
}

function subtitleCut({ key, placement }: Cut, text: string, template: Template, scale: number): WantedCut {
  return { ...singlePicture({ key: `${key}~line`, template, frame: { id: 'line', slots: { line: { kind: 'text', text } } }, placement, adjustment: linkedCut, scale }), run: key, family: 'subtitle', unseen: true };
}
