import { createHash } from 'node:crypto';
import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname } from 'node:path';
import { subjectOf } from '../../core/video/film.ts';
import { exists } from '../media/derivatives.ts';
import type { Services } from '../services.ts';
import type { FilmSource } from './film-source.ts';
import { renderFilm, type FilmOptions } from './render-film.ts';

/**
 * The file of one cut of a video. What has been made of the very same content is found again, whoever made it.
 * @returns the path of the file
 */
export async function cutFilm(services: Pick<Services, 'render' | 'media'>, source: FilmSource, options: FilmOptions): Promise<string> {
  const key = keyOf(source, options);
  const path = services.media.derivedPathOf(key, `film.${options.format}`);
  if (await exists(path)) return path;
  const temporary = `${await services.media.temporaryPath()}.${options.format}`;
  try {
    await renderFilm(source, temporary, services, options);
    await mkdir(dirname(path), { recursive: true });
    await rename(temporary, path);
  } finally {
    await rm(temporary, { force: true });
  }
  return path;
}

function keyOf({ cut, timeline, track, clips, films, musicPath, voicePath }: FilmSource, { format, maxBytes, title }: FilmOptions): string {
  return createHash('sha256').update(JSON.stringify([cut, timeline, track, [...clips], [...films].map(([id, film]) => [id, subjectOf(film)]), musicPath, voicePath, format, maxBytes, title])).digest('hex');
}
