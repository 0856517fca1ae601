import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { array, object, string } from 'yup';
import { getPlacement, type NetworkSheet } from '../../core/network/network-sheet.ts';
import type { Frame } from '../../core/piece/piece.ts';
import type { Cue } from '../../core/piece/track.ts';
import type { CutCover } from '../../core/video/cover.ts';
import { writeVtt } from '../../core/video/subtitles.ts';
import { toMs } from '../../core/video/timeline.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import type { OutgoingFile } from '../connectors/connector.ts';
import type { Delivery } from '../db/delivery-repository.ts';
import { exists } from '../media/derivatives.ts';
import { cutSourceOf, metadataOf, slidesIn } from '../render/cut-source.ts';
import type { RenderedPicture } from '../render/render-cut.ts';
import type { Services } from '../services.ts';
import { coverOfCut, paintCover } from '../video/video-cover.ts';
import { makeVideoFile } from '../video/video-file.ts';
import { videoMimes } from '../video/video-mimes.ts';
import { goesAsFile, videoSourceOf, type VideoSource } from '../video/video-source.ts';

type Needed = Pick<Services, 'render' | 'media'>;
type Outgoing = Pick<Delivery, 'pin' | 'pieceName' | 'channelId' | 'placement' | 'network' | 'words'>;

/** What goes along with a video. */
export interface VideoParts {
  readonly source: VideoSource;
  readonly cover: CutCover | null;
  /** The cover goes as a picture of its own; else it is a moment of the video. */
  readonly coverIsFile: boolean;
  readonly subtitles: readonly Cue[] | null;
}

/** The files of a delivery, in the order in which they go: what they are of, and how many. */
export interface OutgoingPlan {
  readonly snapshot: Snapshot;
  readonly sheet: NetworkSheet;
  readonly frames: readonly Frame[];
  readonly video: VideoParts | null;
  readonly asDocument: boolean;
  readonly count: number;
}

/** @throws RangeError when the snapshot has no sheet of the delivery's network */
export function planFiles({ media }: Pick<Services, 'media'>, snapshot: Snapshot, delivery: Outgoing): OutgoingPlan {
  const { network } = delivery;
  const sheet = snapshot.sheets.find((each) => each.key === network);
  if (!sheet) throw new RangeError(`The snapshot has no sheet of '${network}'`);
  const frames = slidesIn(snapshot, network, delivery);
  const asDocument = snapshot.piece.kind === 'carousel' && getPlacement(sheet, delivery.placement).carousel?.as === 'document';
  const video = snapshot.piece.kind === 'video' ? videoParts(snapshot, delivery, media) : null;
  return { snapshot, sheet, frames, video, asDocument, count: video ? 1 + (video.coverIsFile ? 1 : 0) + (video.subtitles ? 1 : 0) : asDocument ? 1 : frames.length };
}

function videoParts(snapshot: Snapshot, delivery: Outgoing, media: Services['media']): VideoParts {
  const { network } = delivery;
  const source = videoSourceOf(snapshot, network, delivery, media);
  const cover = coverOfCut(snapshot, network, delivery, source);
  const coverIsFile = cover !== null && source.cut.placement.video?.cover === 'any';
  const subtitles = goesAsFile(snapshot, network, delivery) ? (snapshot.piece.track?.subtitles ?? []).filter(({ fromMs }) => fromMs < toMs(source.timeline.lengthFrames)) : null;
  return { source, cover, coverIsFile, subtitles };
}

/** Makes the files of a delivery; what was made ahead is found again. */
export async function makeFiles(services: Needed, plan: OutgoingPlan, delivery: Outgoing, signal: AbortSignal): Promise<readonly OutgoingFile[]> {
  return plan.video ? videoFiles(services, plan, plan.video, delivery, signal) : pictureFiles(services, plan, delivery);
}

const listSchema = array(object({ name: string().required(), mime: string().required() }).required()).required();

async function pictureFiles({ media, render }: Needed, { snapshot, sheet, frames, asDocument }: OutgoingPlan, delivery: Outgoing): Promise<readonly OutgoingFile[]> {
  // What travels inside the files is part of what they are.
  const name = createHash('sha256').update(JSON.stringify([delivery.channelId, delivery.placement, delivery.pieceName, delivery.words.altText ?? ''])).digest('hex').slice(0, 16);
  const made = await readMade(media, delivery.pin, name);
  if (made) return made;
  const source = cutSourceOf(snapshot, delivery.network, delivery, media);
  const metadata = metadataOf(snapshot, delivery.pieceName, delivery.words.altText ?? '', frames);
  const pictures: readonly RenderedPicture[] = await render.pictures(
    asDocument
      ? { kind: 'as', source, format: 'pdf', scale: 1, maxBytes: sheet.files.maxDocumentBytes ?? sheet.files.maxImageBytes, metadata }
      : { kind: 'full', source, maxBytes: sheet.files.maxImageBytes, metadata },
  );
  const list: { readonly name: string; readonly mime: string }[] = [];
  for (const [index, { bytes, mime }] of pictures.entries()) {
    await media.keepDerived(delivery.pin, `out-${name}-${index}`, bytes);
    list.push({ name: `out-${name}-${index}`, mime });
  }
  await media.keepDerived(delivery.pin, `out-${name}.json`, Buffer.from(JSON.stringify(list)));
  return pictures.map(({ bytes, mime }): OutgoingFile => ({ kind: 'bytes', bytes, mime }));
}

/** Pictures that were made before; null where one is missing: derived files may be deleted at any time. */
async function readMade(media: Services['media'], pin: string, name: string): Promise<readonly OutgoingFile[] | null> {
  const listPath = media.derivedPathOf(pin, `out-${name}.json`);
  if (!(await exists(listPath))) return null;
  const list: unknown = JSON.parse(await readFile(listPath, 'utf8'));
  if (!listSchema.isValidSync(list)) return null;
  const paths = list.map((each) => ({ path: media.derivedPathOf(pin, each.name), mime: each.mime }));
  const areThere = await Promise.all(paths.map(({ path }) => exists(path)));
  return areThere.every(Boolean) ? paths.map(({ path, mime }): OutgoingFile => ({ kind: 'file', path, mime })) : null;
}

/** A video as files; one that has been made of the same content before is found again. */
async function videoFiles(services: Needed, { snapshot, sheet }: OutgoingPlan, { source, cover, coverIsFile, subtitles }: VideoParts, delivery: Outgoing, signal: AbortSignal): Promise<readonly OutgoingFile[]> {
  const { path } = await makeVideoFile(services, source, { format: 'mp4', maxBytes: sheet.files.maxVideoBytes ?? Infinity, title: delivery.pieceName, signal, onProgress: () => undefined });
  return [
    { kind: 'file', path, mime: videoMimes.mp4 },
    ...(cover && coverIsFile ? [{ kind: 'bytes' as const, bytes: await paintCover(services, cover, snapshot, source, () => Promise.resolve(path), sheet.files.maxImageBytes), mime: videoMimes.jpg }] : []),
    ...(subtitles ? [{ kind: 'bytes' as const, bytes: new TextEncoder().encode(writeVtt(subtitles)), mime: 'text/vtt' }] : []),
  ];
}
