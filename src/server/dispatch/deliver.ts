import { readFile } from 'node:fs/promises';
import { backoffMs, MOST_ATTEMPTS } from '../../core/post/backoff.ts';
import { getPlacement, type NetworkSheet } from '../../core/network/network-sheet.ts';
import type { Frame } from '../../core/piece/piece.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import { ConnectorError, type Connector, type OutgoingPicture, type OutgoingPost } from '../connectors/connector.ts';
import { getChannel, type Channel } from '../db/brand-repository.ts';
import { getSnapshot, noteProgress, type Delivery, type Outcome } from '../db/delivery-repository.ts';
import { cutFilm } from '../film/cut-film.ts';
import { filmSourceOf } from '../film/film-source.ts';
import { filmMimes } from '../film/render-film.ts';
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
  const isVideo = snapshot.piece.kind === 'video';
  const wanted = asDocument || isVideo ? 1 : frames.length;
  if (remoteMedia.length < wanted) {
    const source = cutSourceOf(snapshot, channel.network, delivery, services.media);
    const metadata = metadataOf(snapshot, delivery.pieceName, delivery.altText, frames);
    const pictures = isVideo
      ? [await videoOf(services, snapshot, delivery, channel.network, sheet, signal)]
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
  const post = outgoingPost(delivery, remoteMedia, frames);
  if (remoteDraftId === null) {
    ({ remoteDraftId } = await connector.prepare(post, signal));
    if (remoteDraftId !== null) await note({ remoteDraftId });
  }
  await note({ publishIntentMs: services.clock.machineNowMs() });
  return (await connector.publish(post, { idempotencyKey, remoteDraftId }, signal)).address;
}

/** The cut of a video as a file; one that has been made of the same content before is found again. */
async function videoOf(services: Services, snapshot: Snapshot, delivery: Delivery, network: string, sheet: NetworkSheet, signal: AbortSignal): Promise<OutgoingPicture> {
  const source = filmSourceOf(snapshot, network, delivery, services.media);
  const path = await cutFilm(services, source, { format: 'mp4', maxBytes: sheet.files.maxVideoBytes ?? Infinity, title: delivery.pieceName, signal, onProgress: () => undefined });
  return { bytes: await readFile(path), mime: filmMimes.mp4 };
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
  if (delivery.attempt >= MOST_ATTEMPTS) {
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
