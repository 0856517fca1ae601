import { createHash } from 'node:crypto';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { subjectOf } from '../../core/video/recording.ts';
import type { VideoMeasures } from '../../core/video/video-measures.ts';
import { exists } from '../media/derivatives.ts';
import { madeOnce } from '../media/made-once.ts';
import type { Services } from '../services.ts';
import type { VideoSource } from './video-source.ts';
import { renderVideo, type VideoOptions } from './render-video.ts';

/** A video as a file, and what was measured on it. */
export interface VideoFile {
  readonly path: string;
  readonly measures: VideoMeasures | null;
}

/** The file of one cut of a video. What has been made of the very same content is found again, whoever made it. */
export async function makeVideoFile({ media, render }: Pick<Services, 'render' | 'media'>, source: VideoSource, options: VideoOptions): Promise<VideoFile> {
  const key = keyOf(source, options);
  const noted = media.derivedPathOf(key, 'measures.json');
  const path = await madeOnce(media, media.derivedPathOf(key, `video.${options.format}`), async (to) => {
    const measures = await renderVideo(source, to, { media, render }, options);
    await mkdir(dirname(noted), { recursive: true });
    if (measures) await writeFile(noted, JSON.stringify(measures));
  });
  return { path, measures: (await exists(noted)) ? (JSON.parse(await readFile(noted, 'utf8')) as VideoMeasures) : null };
}

function keyOf({ cut, timeline, track, clips, recordings, hasCover, musicPath, voicePath }: VideoSource, { format, maxBytes, title }: VideoOptions): string {
  const subjects = [...recordings].map(([id, recording]) => [id, subjectOf(recording)]);
  return createHash('sha256').update(JSON.stringify([cut, timeline, track, [...clips], subjects, hasCover, musicPath, voicePath, format, maxBytes, title])).digest('hex');
}
