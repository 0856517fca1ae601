import { createHash } from 'node:crypto';
import { mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { subjectOf } from '../../core/video/film.ts';
import type { FilmMeasures } from '../../core/video/film-measures.ts';
import { exists } from '../media/derivatives.ts';
import type { Services } from '../services.ts';
import type { FilmSource } from './film-source.ts';
import { renderFilm, type FilmOptions } from './render-film.ts';

/** A film as a file, and what was measured on it. */
export interface MadeFilm {
  readonly path: string;
  readonly measures: FilmMeasures | null;
}

/** Films that are being made in this process: whoever asks for the same one meanwhile waits for it. */
const making = new Map<string, Promise<MadeFilm>>();

/** The file of one cut of a video. What has been made of the very same content is found again, whoever made it. */
export async function cutFilm(services: Pick<Services, 'render' | 'media'>, source: FilmSource, options: FilmOptions): Promise<MadeFilm> {
  const key = keyOf(source, options);
  const path = services.media.derivedPathOf(key, `film.${options.format}`);
  const noted = services.media.derivedPathOf(key, 'measures.json');
  if (await exists(path)) return { path, measures: (await exists(noted)) ? (JSON.parse(await readFile(noted, 'utf8')) as FilmMeasures) : null };
  const under = making.get(path);
  // Another's work may be stopped by that other: then it is done here.
  if (under) return under.catch(() => cutFilm(services, source, options));
  const made = makeFilm(services, source, options, path, noted).finally(() => making.delete(path));
  making.set(path, made);
  return made;
}

async function makeFilm(services: Pick<Services, 'render' | 'media'>, source: FilmSource, options: FilmOptions, path: string, noted: string): Promise<MadeFilm> {
  const temporary = `${await services.media.temporaryPath()}.${options.format}`;
  try {
    const measures = await renderFilm(source, temporary, services, options);
    await mkdir(dirname(path), { recursive: true });
    if (measures) await writeFile(noted, JSON.stringify(measures));
    await rename(temporary, path);
    return { path, measures };
  } finally {
    await rm(temporary, { force: true });
  }
}

function keyOf({ cut, timeline, track, clips, films, musicPath, voicePath }: FilmSource, { format, maxBytes, title }: FilmOptions): string {
  const subjects = [...films].map(([id, film]) => [id, subjectOf(film)]);
  return createHash('sha256').update(JSON.stringify([cut, timeline, track, [...clips], subjects, musicPath, voicePath, format, maxBytes, title])).digest('hex');
}
