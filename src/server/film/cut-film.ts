import { createHash } from 'node:crypto';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { subjectOf } from '../../core/video/film.ts';
import type { FilmMeasures } from '../../core/video/film-measures.ts';
import { exists } from '../media/derivatives.ts';
import { madeOnce } from '../media/made-once.ts';
import type { Services } from '../services.ts';
import type { FilmSource } from './film-source.ts';
import { renderFilm, type FilmOptions } from './render-film.ts';

/** A film as a file, and what was measured on it. */
export interface MadeFilm {
  readonly path: string;
  readonly measures: FilmMeasures | null;
}

/** The file of one cut of a video. What has been made of the very same content is found again, whoever made it. */
export async function cutFilm({ media, render }: Pick<Services, 'render' | 'media'>, source: FilmSource, options: FilmOptions): Promise<MadeFilm> {
  const key = keyOf(source, options);
  const noted = media.derivedPathOf(key, 'measures.json');
  const path = await madeOnce(media, media.derivedPathOf(key, `film.${options.format}`), async (to) => {
    const measures = await renderFilm(source, to, { media, render }, options);
    await mkdir(dirname(noted), { recursive: true });
    if (measures) await writeFile(noted, JSON.stringify(measures));
  });
  return { path, measures: (await exists(noted)) ? (JSON.parse(await readFile(noted, 'utf8')) as FilmMeasures) : null };
}

function keyOf({ cut, timeline, track, clips, films, musicPath, voicePath }: FilmSource, { format, maxBytes, title }: FilmOptions): string {
  const subjects = [...films].map(([id, film]) => [id, subjectOf(film)]);
  return createHash('sha256').update(JSON.stringify([cut, timeline, track, [...clips], subjects, musicPath, voicePath, format, maxBytes, title])).digest('hex');
}
