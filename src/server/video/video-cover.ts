import { createHash } from 'node:crypto';
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { COVER } from '../../core/template/template.ts';
import { linkedCut } from '../../core/piece/adjustment.ts';
import { ALONE, filledSlide } from '../../core/piece/slides-of-cut.ts';
import type { CutRef } from '../../core/piece/piece.ts';
import { getPlacement } from '../../core/network/network-sheet.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { slideTemplate } from '../../core/template/slide-template.ts';
import { coverFrame, coverOf, coverTemplate, type CutCover } from '../../core/video/cover.ts';
import { VIDEO_FPS } from '../../core/video/shot-times.ts';
import type { SlideSource } from '../render/render-cut.ts';
import type { Services } from '../services.ts';
import type { VideoFile } from './video-file.ts';
import type { VideoSource } from './video-source.ts';
import { inputFile, runFfmpeg } from '../ffmpeg/run-ffmpeg.ts';

const MAX_MS = 60_000;
/** JPEG quality as ffmpeg counts it: 2 is the best. */
const QUALITY = '2';

/** What stands for the video in one cut of a snapshot; null where the place takes no cover or none was chosen. */
export function coverOfCut({ piece, sheets }: Pick<Snapshot, 'piece' | 'sheets'>, network: string, { placement }: CutRef, { timeline }: Pick<VideoSource, 'timeline'>): CutCover | null {
  const sheet = sheets.find(({ key }) => key === network);
  return sheet ? coverOf(piece.cover, getPlacement(sheet, placement).video, piece.frames, timeline) : null;
}

/**
 * A cover as JPEG in the size of its cut: painted, or taken from the video.
 * @param video where the video of the cut lies
 */
export async function paintCover(services: Pick<Services, 'render' | 'media'>, cover: CutCover, { piece, template }: Pick<Snapshot, 'piece' | 'template'>, source: VideoSource, video: () => Promise<string>, maxBytes: number): Promise<Uint8Array> {
  if (cover.kind === 'frame') return frameOf(services.media, await video(), cover.frame);
  const slide: SlideSource =
    cover.kind === 'picture'
      ? { template: coverTemplate, frame: coverFrame(cover.mediaId), adjustment: linkedCut, place: ALONE, family: COVER }
      : { template: slideTemplate(template, cover.frame.slide), frame: filledSlide(cover.frame, piece.frames[0], template, ALONE), adjustment: linkedCut, place: ALONE, family: COVER };
  const [picture] = await services.render.pictures({ kind: 'as', source: { ...source.cut, slides: [slide] }, format: 'jpeg', scale: 1, maxBytes, metadata: [] });
  if (!picture) throw new RangeError('A cover has no picture');
  return picture.bytes;
}

export class NoCoverError extends Error {
  override readonly name = 'NoCoverError';
  readonly code = 'no-cover';
}

/** The cover of a cut as a file of its own. What no place asks for can be downloaded all the same, as the place would show it. */
export async function coverFile(services: Pick<Services, 'render' | 'media'>, snapshot: Snapshot, network: string, cut: CutRef, source: VideoSource, video: () => Promise<string>): Promise<VideoFile> {
  const cover = coverOfCut(snapshot, network, cut, source);
  if (!cover) throw new NoCoverError('There is no cover');
  const bytes = await paintCover(services, cover, snapshot, source, video, Infinity);
  const path = services.media.derivedPathOf(createHash('sha256').update(bytes).digest('hex'), 'cover.jpg');
  await mkdir(dirname(path), { recursive: true });
  await writeFile(path, bytes);
  return { path, measures: null };
}

async function frameOf(store: Services['media'], video: string, frame: number): Promise<Uint8Array> {
  const temporary = `${await store.temporaryPath()}.jpg`;
  try {
    // Half a frame further, so that rounding does not find the one before.
    await runFfmpeg([...inputFile(video, '-ss', ((frame + 0.5) / VIDEO_FPS).toFixed(4)), '-frames:v', '1', '-q:v', QUALITY, temporary], { mostMs: MAX_MS });
    return await readFile(temporary);
  } finally {
    await rm(temporary, { force: true });
  }
}
