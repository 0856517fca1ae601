import type { Piece } from '../../core/piece/piece.ts';
import { getPlacement } from '../../core/network/network-sheet.ts';
import { takesSubtitleFile } from '../../core/video/subtitles.ts';
import type { CutRef } from '../../core/piece/piece.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { wholeFilm, type Film } from '../../core/video/film.ts';
import { timelineOf, type Timeline } from '../../core/video/timeline.ts';
import type { MediaStore } from '../media/media-store.ts';
import { cutSourceOf, slidesIn } from '../render/cut-source.ts';
import type { CutSource } from '../render/render-cut.ts';
import type { FilmFile } from './picture-graph.ts';

/** All that one cut of a video is made of, as plain data. */
export interface FilmSource {
  readonly cut: CutSource;
  readonly timeline: Timeline;
  readonly track: NonNullable<Piece['track']>;
  /** What is known of the clips and sounds, by id. */
  readonly films: ReadonlyMap<string, Film>;
  /** Working copies of the clips that the shots show. */
  readonly clips: ReadonlyMap<string, FilmFile>;
  readonly musicPath: string | null;
  readonly voicePath: string | null;
}

/** The clips and sounds among a snapshot's pictures, by id. */
export function filmsIn({ pictures }: Pick<Snapshot, 'pictures'>): ReadonlyMap<string, Film> {
  return new Map(pictures.flatMap(({ id, film }) => (film ? [[id, wholeFilm<Film>(film)] as const] : [])));
}

/** Whether the subtitles of a cut go along as a file instead of lying over its pictures. */
export function goesAsFile({ piece, sheets }: Pick<Snapshot, 'piece' | 'sheets'>, network: string, { placement }: CutRef): boolean {
  const sheet = sheets.find(({ key }) => key === network);
  return sheet !== undefined && takesSubtitleFile(piece.track, getPlacement(sheet, placement).video);
}

/** What one cut of a snapshot's video is made of, with the files it lies in. */
export function filmSourceOf(snapshot: Snapshot, network: string, cut: CutRef, store: MediaStore): FilmSource {
  const pathOf = (id: string | undefined): string | null => {
    const film = snapshot.pictures.find((picture) => picture.id === id)?.film;
    return film ? store.pathOf(film.storedHash) : null;
  };
  const films = filmsIn(snapshot);
  const track = snapshot.piece.track ?? {};
  return {
    cut: cutSourceOf(snapshot, network, cut, store),
    timeline: timelineOf(slidesIn(snapshot, network, cut), films),
    films,
    track: goesAsFile(snapshot, network, cut) ? { ...track, subtitles: [] } : track,
    clips: new Map(snapshot.pictures.flatMap(({ id, film, widthPx, heightPx }) => (film?.kind === 'clip' ? [[id, { path: store.pathOf(film.storedHash), widthPx, heightPx }] as const] : []))),
    musicPath: pathOf(track.music),
    voicePath: pathOf(track.voice),
  };
}
