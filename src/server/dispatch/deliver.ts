import { backoffMs, MAX_ATTEMPTS, spreadOf } from '../../core/job/backoff.ts';
import { getPlacement, type NetworkSheet } from '../../core/network/network-sheet.ts';
import type { Frame } from '../../core/piece/piece.ts';
import type { Cue } from '../../core/piece/track.ts';
import type { CutCover } from '../../core/video/cover.ts';
import { writeVtt } from '../../core/video/subtitles.ts';
import { toMs } from '../../core/video/timeline.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { ConnectorError, type OutgoingFile, type OutgoingPost } from '../connectors/connector.ts';
import type { ConnectorFor } from '../connectors/registry.ts';
import { getChannel } from '../db/brand-repository.ts';
import { noteProgress, type Delivery, type Outcome } from '../db/delivery-repository.ts';
import { readPin } from '../documents/pins.ts';
import { makeVideoFile } from '../video/video-file.ts';
import { coverOfCut, paintCover } from '../video/video-cover.ts';
import { videoSourceOf, goesAsFile, type VideoSource } from '../video/video-source.ts';
import { videoMimes } from '../video/video-mimes.ts';
import { cutSourceOf, metadataOf, slidesIn } from '../render/cut-source.ts';
import type { RenderedPicture } from '../render/render-cut.ts';
import type { Services } from '../services.ts';

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
 * Each step writes its result down, so that a restart continues after the last one. Publishing happens only after the
 * intent is in the database, and with an intent in the database the network is asked first: nothing is published twice.
 * @throws LeaseLostError when the delivery is held by another
 */
export async function deliver(services: Services, delivery: Delivery, connectorFor: ConnectorFor, signal: AbortSignal): Promise<Outcome> {
  try {
    const address = await attempt(services, delivery, connectorFor, signal);
    return { kind: 'confirm', address, sentMs: await services.clock.nowMs() };
  } catch (error) {
    if (!(error instanceof ConnectorError)) throw error;
    services.log.info({ err: error, delivery: delivery.id, attempt: delivery.attempt }, 'the network did not take it');
    return outcomeOf(error, delivery, services.clock.machineNowMs());
  }
}

async function attempt(services: Services, delivery: Delivery, connectorFor: ConnectorFor, signal: AbortSignal): Promise<string> {
  const kept = await getChannel(services.db, delivery.channelId);
  const channel = { ...kept, token: services.sealer.open(kept.token) };
  const snapshot = await readPin(services.db, delivery.pin);
  const sheet = sheetOf(snapshot, channel.network);
  const connector = connectorFor(channel, sheet);
  const note = async (progress: Parameters<typeof noteProgress>[3]): Promise<void> => {
    if (!(await noteProgress(services.db, delivery.id, delivery.lease ?? '', progress))) throw new LeaseLostError();
  };

  let { remoteMedia, remoteDraftId } = delivery;
  const { idempotencyKey } = delivery;
  if (delivery.publishIntentMs !== null) {
    if (!connector.capabilities.findsPublications) throw new ConnectorError('refused', `${sheet.name} cannot say whether this post is out. Look at the channel before you retry it.`);
    const known = await connector.findPublication({ idempotencyKey, remoteDraftId }, signal);
    if (known.kind === 'published') return known.address;
  }
  const frames = slidesIn(snapshot, channel.network, delivery);
  const asDocument = snapshot.piece.kind === 'carousel' && getPlacement(sheet, delivery.placement).carousel?.as === 'document';
  const video = snapshot.piece.kind === 'video' ? videoParts(snapshot, channel.network, delivery, services) : null;
  const wanted = video ? video.files : asDocument ? 1 : frames.length;
  if (remoteMedia.length < wanted) {
    const source = cutSourceOf(snapshot, channel.network, delivery, services.media);
    const metadata = metadataOf(snapshot, delivery.pieceName, delivery.words.altText ?? '', frames);
    const painted = (): Promise<readonly RenderedPicture[]> =>
      services.render.pictures(
        asDocument
          ? { kind: 'as', source, format: 'pdf', scale: 1, maxBytes: sheet.files.maxDocumentBytes ?? sheet.files.maxImageBytes, metadata }
          : { kind: 'full', source, maxBytes: sheet.files.maxImageBytes, metadata },
      );
    const files = video ? await videoFiles(services, snapshot, delivery, video, sheet, signal) : (await painted()).map(({ bytes, mime }): OutgoingFile => ({ kind: 'bytes', bytes, mime }));
    // What was uploaded before a restart is there already.
    for (const file of files.slice(remoteMedia.length)) {
      const { remoteMediaId } = await connector.upload(file, signal);
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
  try {
    return (await connector.publish(post, { idempotencyKey, remoteDraftId }, signal)).address;
  } catch (error) {
    // A network that asks to come back later has done nothing: there is nothing to ask for then.
    if (error instanceof ConnectorError && error.code === 'busy') await note({ publishIntentMs: null });
    // An attempt before, late on its way, may have come through a moment ago: then the network refuses this one as a repeat.
    if (!(error instanceof ConnectorError) || error.code !== 'refused' || delivery.publishIntentMs === null || !connector.capabilities.findsPublications) throw error;
    const known = await connector.findPublication({ idempotencyKey, remoteDraftId }, signal);
    if (known.kind === 'published') return known.address;
    throw error;
  }
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
async function videoFiles(services: Services, snapshot: Snapshot, delivery: Delivery, { source, cover, coverIsFile, subtitles }: VideoParts, sheet: NetworkSheet, signal: AbortSignal): Promise<readonly OutgoingFile[]> {
  const { path } = await makeVideoFile(services, source, { format: 'mp4', maxBytes: sheet.files.maxVideoBytes ?? Infinity, title: delivery.pieceName, signal, onProgress: () => undefined });
  return [
    { kind: 'file', path, mime: videoMimes.mp4 },
    ...(cover && coverIsFile ? [{ kind: 'bytes' as const, bytes: await paintCover(services, cover, snapshot, source, () => Promise.resolve(path), sheet.files.maxImageBytes), mime: videoMimes.jpg }] : []),
    ...(subtitles ? [{ kind: 'bytes' as const, bytes: new TextEncoder().encode(writeVtt(subtitles)), mime: 'text/vtt' }] : []),
  ];
}

function outgoingVideo(delivery: Delivery, [video, ...along]: readonly string[], { cover, coverIsFile, subtitles }: VideoParts): OutgoingPost {
  const { placement, words } = delivery;
  if (video === undefined) throw new RangeError('A post without a video cannot be published');
  const coverId = coverIsFile ? along[0] : undefined;
  const subtitlesId = subtitles ? along[coverIsFile ? 1 : 0] : undefined;
  const coverAtMs = cover?.kind === 'frame' && !coverIsFile ? Math.round(toMs(cover.frame)) : undefined;
  return { placement, words, media: [{ id: video, altText: words.altText ?? '', mime: videoMimes.mp4 }], along: { ...(coverId === undefined ? {} : { coverId }), ...(coverAtMs === undefined ? {} : { coverAtMs }), ...(subtitlesId === undefined ? {} : { subtitlesId }) } };
}

function outgoingPost(delivery: Delivery, remoteMedia: readonly string[], frames: readonly Frame[]): OutgoingPost {
  const { placement, words } = delivery;
  // A carousel's own alt text says what its first slide shows, where that has none.
  const [first, ...more] = remoteMedia.map((id, index) => ({ id, altText: (frames[index]?.altText ?? '').trim() || (index === 0 ? (words.altText ?? '') : '') }));
  if (!first) throw new RangeError('A post without a picture cannot be published');
  return { placement, words, media: [first, ...more] };
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
  const waitMs = backoffMs(delivery.attempt, spreadOf(delivery.id, delivery.attempt), error.retryAfterMs);
  return { kind: 'postpone', problem: error.message, notBeforeMs: machineNowMs + waitMs };
}
