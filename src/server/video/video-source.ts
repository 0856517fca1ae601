import type { Piece } from '../../core/piece/piece.ts';
import { getPlacement, type VideoRule } from '../../core/network/network-sheet.ts';
import { takesCover } from '../../core/video/shot-ends.ts';
import { takesSubtitleFile } from '../../core/video/subtitles.ts';
import type { CutRef } from '../../core/piece/piece.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { wholeRecording, type Recording } from '../../core/video/recording.ts';
import { timelineOf, type Timeline } from '../../core/video/timeline.ts';
import type { MediaStore } from '../media/media-store.ts';
import { cutSourceOf, slidesIn } from '../render/cut-source.ts';
import type { CutSource } from '../render/render-cut.ts';
import type { ClipFile } from './picture-graph.ts';

/** All that one cut of a video is made of, as plain data. */
export interface VideoSource {
  readonly cut: CutSource;
  readonly timeline: Timeline;
  readonly track: NonNullable<Piece['track']>;
  /** What is known of the clips and sounds, by id. */
  readonly recordings: ReadonlyMap<string, Recording>;
  /** Working copies of the clips that the shots show. */
  readonly clips: ReadonlyMap<string, ClipFile>;
  /** Whether a cover stands for it before it plays. */
  readonly hasCover: boolean;
  readonly musicPath: string | null;
  readonly voicePath: string | null;
}

/** The clips and sounds among a snapshot's pictures, by id. */
export function recordingsIn({ pictures }: Pick<Snapshot, 'pictures'>): ReadonlyMap<string, Recording> {
  return new Map(pictures.flatMap(({ id, recording }) => (recording ? [[id, wholeRecording<Recording>(recording)] as const] : [])));
}

/** Whether the subtitles of a cut go along as a file instead of lying over its pictures. */
export function goesAsFile(snapshot: Pick<Snapshot, 'piece' | 'sheets'>, network: string, cut: CutRef): boolean {
  return takesSubtitleFile(snapshot.piece.track, videoRuleOf(snapshot, network, cut));
}

/** What a place takes of a video; undefined where it takes none. */
function videoRuleOf({ sheets }: Pick<Snapshot, 'sheets'>, network: string, { placement }: CutRef): VideoRule | undefined {
  const sheet = sheets.find(({ key }) => key === network);
  return sheet && getPlacement(sheet, placement).video;
}

/** What one cut of a snapshot's video is made of, with the files it lies in. */
export function videoSourceOf(snapshot: Snapshot, network: string, cut: CutRef, store: MediaStore): VideoSource {
  const pathOf = (id: string | undefined): string | null => {
    const recording = snapshot.pictures.find((picture) => picture.id === id)?.recording;
    return recording ? store.pathOf(recording.storedHash) : null;
  };
  const recordings = recordingsIn(snapshot);
  const track = snapshot.piece.track ?? {};
  return {
    cut: cutSourceOf(snapshot, network, cut, store),
    timeline: timelineOf(slidesIn(snapshot, network, cut), recordings),
    recordings,
    hasCover: takesCover(snapshot.piece.cover, videoRuleOf(snapshot, network, cut)),
    track: goesAsFile(snapshot, network, cut) ? { ...track, subtitles: [] } : track,
    clips: new Map(snapshot.pictures.flatMap(({ id, recording, widthPx, heightPx }) => (recording?.kind === 'clip' ? [[id, { path: store.pathOf(recording.storedHash), widthPx, heightPx }] as const] : []))),
    musicPath: pathOf(track.music),
    voicePath: pathOf(track.voice),
  };
}
