import { readFile } from 'node:fs/promises';
import { backoffMs, MAX_ATTEMPTS } from '../../core/post/backoff.ts';
import { getPlacement, type NetworkSheet } from '../../core/network/network-sheet.ts';
import type { Frame } from '../../core/piece/piece.ts';
import type { Cue } from '../../core/piece/track.ts';
import type { CutCover } from '../../core/video/cover.ts';
import { writeVtt } from '../../core/video/subtitles.ts';
import { toMs } from '../../core/video/timeline.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { ConnectorError, type Connector, type OutgoingPicture, type OutgoingPost } from '../connectors/connector.ts';
import { getChannel, type Channel } from '../db/brand-repository.ts';
import { getSnapshot, noteProgress, type Delivery, type Outcome } from '../db/delivery-repository.ts';
import { makeVideoFile } from '../video/video-file.ts';
import { coverOfCut, paintCover } from '../video/video-cover.ts';
import { videoSourceOf, goesAsFile, type VideoSource } from '../video/video-source.ts';
import { videoMimes } from '../video/render-video.ts';
import { cutSourceOf, metadataOf, slidesIn } from '../render/cut-source.ts';
import type { Services } from '../services.ts';

/** How a channel is spoken to; tests pass their own. */
export type ConnectorFor = (channel: Channel, sheet: NetworkSheet) => Connector;

/** Thrown between two steps when another dispatcher has taken the delivery over: stop, and touch nothing more. */
export class LeaseLostError extends Error {
  override readonly name = 'LeaseLostError';
  readonly code = 'lease-lost';
}

/**
 * One attempt at one delivery:
 *
 * ```
 * ask (if publishing was tried before) -> render -> upload -> prepare -> write down the intent -> publish
 * ```
 *
 * Progress is written down after each step, so that a restart goes on from there. Publishing happens only after the
 * intent is in the database, and with an intent in the database the network is asked first: nothing is published twice.
 * @throws LeaseLostError when the delivery is held by another
 */
export async function deliver(services: Services, delivery: Delivery, connectorFor: ConnectorFor, signal: AbortSignal): Promise<Outcome> {
  try {
    const address = await attempt(services, delivery, connectorFor, signal);
    return { kind: 'confirm', address, sentMs: await services.clock.nowMs() };
  } catch (error) {
    if (!(error instanceof ConnectorError)) throw error;
    return outcomeOf(error, delivery, services.clock.machineNowMs());
  }
}

async function attempt(services: Services, delivery: Delivery, connectorFor: ConnectorFor, signal: AbortSignal): Promise<string> {
  const channel = await getChannel(services.db, delivery.channelId);
  const snapshot = await getSnapshot(services.db, delivery.snapshotId);
  const sheet = sheetOf(snapshot, channel.network);
  const connector = connectorFor(channel, sheet);
  const note = async (progress: Parameters<typeof noteProgress>[3]): Promise<void> => {
    if (!(await noteProgress(services.db, delivery.id, delivery.lease ?? '', progress))) throw new LeaseLostError();
  };

  let { remoteMedia, remoteDraftId } = delivery;
  const { idempotencyKey } = delivery;
  if (delivery.publishIntentMs !== null) {
    const known = await connector.findPublication({ idempotencyKey, remoteDraftId }, signal);
    if (known.kind === 'published') return known.address;
  }
  const frames = slidesIn(snapshot, channel.network, delivery);
  const asDocument = snapshot.piece.kind === 'carousel' && getPlacement(sheet, delivery.placement).carousel?.as === 'document';
  const video = snapshot.piece.kind === 'video' ? videoParts(snapshot, channel.network, delivery, services) : null;
  const wanted = video ? video.files : asDocument ? 1 : frames.length;
  if (remoteMedia.length < wanted) {
    const source = cutSourceOf(snapshot, channel.network, delivery, services.media);
    const metadata = metadataOf(snapshot, delivery.pieceName, delivery.altText, frames);
    const pictures = video
      ? await videoFiles(services, snapshot, delivery, video, sheet, signal)
      : await services.render.pictures(
          asDocument
            ? { kind: 'as', source, format: 'pdf', scale: 1, maxBytes: sheet.files.maxDocumentBytes ?? sheet.files.maxImageBytes, metadata }
            : { kind: 'full', source, maxBytes: sheet.files.maxImageBytes, metadata },
        );
    // What was uploaded before a restart is there already.
    for (const picture of pictures.slice(remoteMedia.length)) {
      const { remoteMediaId } = await connector.upload(picture, signal);
      remoteMedia = [...remoteMedia, remoteMediaId];
      await note({ remoteMedia });
    }
  }
  const post = video ? outgoingVideo(delivery, remoteMedia, video) : outgoingPost(delivery, remoteMedia, frames);
  if (remoteDraftId === null) {
    ({ remoteDraftId } = await connector.prepare(post, signal));
    if (remoteDraftId !== null) await note({ remoteDraftId });
  }
  await note({ publishIntentMs: services.clock.machineNowMs() });
  return (await connector.publish(post, { idempotencyKey, remoteDraftId }, signal)).address;
}

/** What goes along with a video. */
interface VideoParts {
  readonly source: VideoSource;
  readonly cover: CutCover | null;
  /** The cover goes as a picture of its own; else it is a moment of the video. */
  readonly coverIsFile: boolean;
  readonly subtitles: readonly Cue[] | null;
  /** How many files that makes: the video, its cover, its subtitles, in this order. */
  readonly files: number;
}

function videoParts(snapshot: Snapshot, network: string, delivery: Delivery, services: Services): VideoParts {
  const source = videoSourceOf(snapshot, network, delivery, services.media);
  const cover = coverOfCut(snapshot, network, delivery, source);
  const coverIsFile = cover !== null && source.cut.placement.video?.cover === 'any';
  const subtitles = goesAsFile(snapshot, network, delivery) ? (snapshot.piece.track?.subtitles ?? []).filter(({ fromMs }) => fromMs < toMs(source.timeline.lengthFrames)) : null;
  return { source, cover, coverIsFile, subtitles, files: 1 + (coverIsFile ? 1 : 0) + (subtitles ? 1 : 0) };
}

/** A video as files; one that has been made of the same content before is found again. */
async function videoFiles(services: Services, snapshot: Snapshot, delivery: Delivery, { source, cover, coverIsFile, subtitles }: VideoParts, sheet: NetworkSheet, signal: AbortSignal): Promise<readonly OutgoingPicture[]> {
  const { path } = await makeVideoFile(services, source, { format: 'mp4', maxBytes: sheet.files.maxVideoBytes ?? Infinity, title: delivery.pieceName, signal, onProgress: () => undefined });
  return [
    { bytes: await readFile(path), mime: videoMimes.mp4 },
    ...(cover && coverIsFile ? [{ bytes: await paintCover(services, cover, snapshot, source, () => Promise.resolve(path), sheet.files.maxImageBytes), mime: videoMimes.jpg }] : []),
    ...(subtitles ? [{ bytes: new TextEncoder().encode(writeVtt(subtitles)), mime: 'text/vtt' }] : []),
  ];
}

function outgoingVideo(delivery: Delivery, [video, ...along]: readonly string[], { cover, coverIsFile, subtitles }: VideoParts): OutgoingPost {
  const { placement, caption, altText, title, link, firstComment } = delivery;
  if (video === undefined) throw new RangeError('A post without a video cannot be published');
  const coverId = coverIsFile ? along[0] : undefined;
  const subtitlesId = subtitles ? along[coverIsFile ? 1 : 0] : undefined;
  const coverAtMs = cover?.kind === 'frame' && !coverIsFile ? Math.round(toMs(cover.frame)) : undefined;
  return { placement, caption, altText, title, link, firstComment, media: [{ id: video, altText }], along: { ...(coverId === undefined ? {} : { coverId }), ...(coverAtMs === undefined ? {} : { coverAtMs }), ...(subtitlesId === undefined ? {} : { subtitlesId }) } };
}

function outgoingPost(delivery: Delivery, remoteMedia: readonly string[], frames: readonly Frame[]): OutgoingPost {
  const { placement, caption, altText, title, link, firstComment } = delivery;
  // A carousel's own alt text says what its first slide shows, where that has none.
  const [first, ...more] = remoteMedia.map((id, index) => ({ id, altText: (frames[index]?.altText ?? '').trim() || (index === 0 ? altText : '') }));
  if (!first) throw new RangeError('A post without a picture cannot be published');
  return { placement, caption, altText, title, link, firstComment, media: [first, ...more] };
}

function sheetOf(snapshot: Snapshot, network: string): NetworkSheet {
  const sheet = snapshot.sheets.find((each) => each.key === network);
  if (!sheet) throw new RangeError(`The snapshot has no sheet of '${network}'`);
  return sheet;
}

/** What a fault means for the delivery: refused for good, or another attempt later, as often as is reasonable. */
function outcomeOf(error: ConnectorError, delivery: Delivery, machineNowMs: number): Outcome {
  if (error.code === 'refused' || error.code === 'ended') return { kind: 'refuse', problem: error.message };
  if (delivery.attempt >= MAX_ATTEMPTS) {
    return { kind: 'refuse', problem: `${error.message} Given up after ${delivery.attempt} attempts.` };
  }
  const waitMs = backoffMs(delivery.attempt, seedOf(delivery), error.retryAfterMs);
  return { kind: 'postpone', problem: error.message, notBeforeMs: machineNowMs + waitMs };
}

/** A number in [0, 1) that differs between deliveries and attempts but not between runs. */
function seedOf({ id, attempt }: Delivery): number {
  let sum = attempt * 7;
  for (const letter of id) sum = (sum * 31 + letter.charCodeAt(0)) % 1009;
  return sum / 1009;
}
