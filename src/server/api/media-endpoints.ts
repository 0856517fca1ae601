import { createHash } from 'node:crypto';
import { readFile, rm, writeFile } from 'node:fs/promises';
import { fileTypeFromBuffer } from 'file-type';
import * as contracts from '../../contract/media-contracts.ts';
import { getChannel, type Brand } from '../db/brand-repository.ts';
import { findDelivery } from '../db/delivery-repository.ts';
import { deleteMedia, findMedia, findMediaByIds, findMediaBySource, latestMedia, listTags, pageMedia, updateMedia, type MediaItem, type StoredRecording } from '../db/media-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import type { FocalAt } from '../../core/video/recording.ts';
import { derivedFile } from '../derived/derived-file.ts';
import { recordingCopy } from '../derived/recording-copies.ts';
import { smallCopy } from '../derived/small-copy.ts';
import { readPin } from '../documents/pins.ts';
import { imported } from '../imports/import-at-once.ts';
import { keepMediaBytes } from '../imports/keep-media.ts';
import { requireBrandRoom } from '../media/brand-room.ts';
import { isRecordingType, receiveUpload } from '../media/receive-upload.ts';
import { usesOfMedia } from '../imports/uses-of-media.ts';
import { guardedFetch } from '../outside/guarded-fetch.ts';
import { getLibraryEntry, libraryFile, searchPictureLibrary } from '../outside/picture-library.ts';
import { cutSourceOf, metadataOf, slidesIn } from '../render/cut-source.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { describeMedia, summarizeMedia } from './describe-media.ts';
import { fileResponse, rangeResponse } from './file-response.ts';
import { nextCursor, PAGE_SIZE, readCursor } from './page-cursor.ts';

async function getItem(services: Services, brand: Brand, id: string): Promise<MediaItem> {
  const item = await findMedia(services.db, brand.id, id);
  if (!item) throw notFound('picture');
  return item;
}

const listMedia = defineEndpoint({
  contract: contracts.listMedia,
  may: 'see',
  async handle({ services, brand, query }) {
    const limit = query.limit ?? PAGE_SIZE;
    const words = (query.words ?? '').split(/\s+/).filter((word) => word !== '');
    const items = await pageMedia(services.db, brand.id, { before: readCursor(query.before), limit, words, tag: query.tag ?? null, archived: query.archived === 'only', kind: query.kind ?? null });
    return { items: items.map(summarizeMedia), next: nextCursor(items, limit, (item) => ({ ms: item.createdMs, id: item.id })) };
  },
});

const listMediaDetails = defineEndpoint({
  contract: contracts.listMediaDetails,
  may: 'see',
  async handle({ services, brand, query }) {
    const ids = (query.ids ?? '').split(',').filter((id) => id !== '');
    const items = query.latest === undefined ? await findMediaByIds(services.db, brand.id, ids) : await latestMedia(services.db, brand.id, query.latest);
    return { items: items.map(describeMedia) };
  },
});

const listMediaTags = defineEndpoint({
  contract: contracts.listMediaTags,
  may: 'see',
  handle: async ({ services, brand }) => ({ tags: [...(await listTags(services.db, brand.id))] }),
});

/** A whole file in one request: the request waits while the queue imports it. */
const uploadMedia = defineEndpoint({
  contract: contracts.uploadMedia,
  may: 'make',
  async handle({ services, brand, caller, query, request }) {
    await requireBrandRoom(services, brand.id, caller.person.id, Number(request.headers.get('content-length') ?? 0));
    const received = await receiveUpload(request, services.media);
    return describeMedia(await imported(services, brand, { received, name: query.name, personId: caller.person.id, signal: request.signal }));
  },
});

const getMedia = defineEndpoint({
  contract: contracts.getMedia,
  may: 'see',
  handle: async ({ services, brand, params }) => describeMedia(await getItem(services, brand, params.media)),
});

function staleItem(current: MediaItem): ProblemError {
  return new ProblemError(409, 'stale-revision', 'Somebody else has just changed this picture.', { current: describeMedia(current) });
}

const changeMedia = defineEndpoint({
  contract: contracts.changeMedia,
  may: 'make',
  async handle({ services, brand, params, body, nowMs }) {
    const current = await getItem(services, brand, params.media);
    const { focal, subject, name, altText, credit, licence, licenceUntil, tags, archived } = body;
    const updated = await updateMedia(services.db, brand.id, params.media, body.revision, {
      ...(focal === undefined ? {} : { focal }),
      ...(subject === undefined ? {} : { recording: withSubject(current, subject) }),
      ...(name === undefined ? {} : { name }),
      ...(altText === undefined ? {} : { altText }),
      ...(tags === undefined ? {} : { tags: [...new Set(tags)] }),
      ...(archived === undefined ? {} : { archivedMs: archived ? nowMs : null }),
      terms: { credit: credit ?? current.terms.credit, licence: licence ?? current.terms.licence, licenceUntil: licenceUntil === undefined ? current.terms.licenceUntil : licenceUntil },
    }, services.clock.machineNowMs());
    if (!updated) throw staleItem(await getItem(services, brand, params.media));
    return describeMedia(updated);
  },
});

const getMediaUses = defineEndpoint({
  contract: contracts.getMediaUses,
  may: 'see',
  async handle({ services, brand, params }) {
    await getItem(services, brand, params.media);
    return usesOfMedia(services, brand, params.media);
  },
});

const deleteMediaItem = defineEndpoint({
  contract: contracts.deleteMedia,
  may: 'make',
  async handle({ services, brand, params }) {
    await getItem(services, brand, params.media);
    const uses = await usesOfMedia(services, brand, params.media);
    if (uses.pieces.length + uses.scheduled + uses.sent > 0 || uses.inBook) {
      throw new ProblemError(409, 'in-use', 'This picture is in use, so it cannot be deleted. Archive it instead: it stays where it is used and is not offered any more.');
    }
    await deleteMedia(services.db, brand.id, params.media);
    return undefined;
  },
});

const replaceMediaFile = defineEndpoint({
  contract: contracts.replaceMediaFile,
  may: 'make',
  async handle({ services, brand, params, caller, query, request }) {
    const current = await getItem(services, brand, params.media);
    if (current.revision !== query.revision) throw staleItem(current);
    const received = await receiveUpload(request, services.media);
    const twin = await findMediaBySource(services.db, brand.id, received.hash);
    if (twin) {
      await rm(received.path, { force: true });
      throw new ProblemError(409, 'picture-known', `This file is already here, as “${twin.name}”.`);
    }
    const replaces = { mediaId: current.id, revision: current.revision };
    return describeMedia(await imported(services, brand, { received, name: query.name, personId: caller.person.id, signal: request.signal, about: { replaces } }));
  },
});

const fetchMedia = defineEndpoint({
  contract: contracts.fetchMedia,
  may: 'make',
  async handle({ services, brand, caller, body, request, nowMs }) {
    const fetched = await guardedFetch(body.address, { mostBytes: contracts.MAX_UPLOAD_BYTES, trustedHosts: services.settings.trustedHosts, accept: 'image/*,video/*,audio/*' });
    const name = decodeURIComponent(new URL(fetched.address).pathname.split('/').at(-1) ?? '').slice(0, 200) || new URL(fetched.address).hostname;
    if (!isRecordingType((await fileTypeFromBuffer(fetched.bytes))?.mime)) return describeMedia(await keepMediaBytes(services, brand, fetched.bytes, { name, sourceAddress: fetched.address }, nowMs));
    // Clips and sounds are transcoded: that is work of the queue.
    const path = await services.media.temporaryPath();
    await writeFile(path, fetched.bytes);
    const received = { path, bytes: fetched.bytes.length, hash: createHash('sha256').update(fetched.bytes).digest('hex') };
    return describeMedia(await imported(services, brand, { received, name, personId: caller.person.id, signal: request.signal, about: { sourceAddress: fetched.address } }));
  },
});

const mediaFromPost = defineEndpoint({
  contract: contracts.mediaFromPost,
  may: 'make',
  async handle({ services, brand, body, nowMs }) {
    const delivery = await findDelivery(services.db, brand.id, body.delivery);
    if (delivery?.state !== 'sent') throw notFound('post that has gone out');
    const channel = await getChannel(services.db, delivery.channelId);
    const snapshot = await readPin(services.db, delivery.pin);
    const picture = await services.render.picture({ kind: 'as', source: cutSourceOf(snapshot, channel.network, delivery, services.media), format: 'png', scale: 1, maxBytes: Infinity, metadata: metadataOf(snapshot, delivery.pieceName, delivery.words.altText ?? '', slidesIn(snapshot, channel.network, delivery)) });
    const name = `${delivery.pieceName}, ${delivery.placementName}`.slice(0, 200);
    return describeMedia(await keepMediaBytes(services, brand, picture.bytes, { name, altText: delivery.words.altText ?? '', tags: ['published'], ...(delivery.address === null ? {} : { sourceAddress: delivery.address }) }, nowMs));
  },
});

const searchLibrary = defineEndpoint({
  contract: contracts.searchLibrary,
  may: 'see',
  handle: async ({ services, query }) => ({ items: [...(await searchPictureLibrary(services.settings, query.words ?? ''))] }),
});

const getLibraryPreview = defineEndpoint({
  contract: contracts.getLibraryPreview,
  may: 'see',
  async handle({ services, params }) {
    const preview = await libraryFile(services.settings, params.picture, 'small');
    return new Response(new Uint8Array(preview), { headers: { 'content-type': 'image/webp', 'cache-control': 'private, max-age=3600', 'x-content-type-options': 'nosniff' } });
  },
});

const takeFromLibrary = defineEndpoint({
  contract: contracts.takeFromLibrary,
  may: 'make',
  async handle({ services, brand, params, nowMs }) {
    const entry = await getLibraryEntry(services.settings, params.picture);
    const bytes = await libraryFile(services.settings, params.picture, 'whole');
    const terms = { credit: entry.credit, licence: entry.licence, licenceUntil: entry.licenceUntil };
    return describeMedia(await keepMediaBytes(services, brand, bytes, { name: entry.title, altText: entry.alt, terms, tags: entry.tags }, nowMs));
  },
});

const getMediaFile = defineEndpoint({
  contract: contracts.getMediaFile,
  may: 'see',
  async handle({ services, brand, params, query, request }) {
    const item = await getItem(services, brand, params.media);
    // An address that names the revision shows the same bytes for good; one that does not is asked again after a replacement.
    const keep = new URL(request.url).searchParams.has('of') ? 'for-good' : 'ask-again';
    return fileResponse(request, await derivedFile(services, smallCopy(services, item.storedHash, query.fit), request.signal), 'image/webp', keep);
  },
});

const getRecordingFile = defineEndpoint({
  contract: contracts.getRecordingFile,
  may: 'see',
  async handle({ services, brand, params, request }) {
    const { recording } = await getItem(services, brand, params.media);
    if (!recording) throw notFound('clip or sound');
    return rangeResponse(request, await derivedFile(services, recordingCopy(services, recording, 'playback'), request.signal), recording.mime);
  },
});

/** A clip whose subject a person has placed, in order; null goes back to what was found. */
function withSubject({ recording }: MediaItem, subject: readonly FocalAt[] | null): StoredRecording {
  if (recording?.kind !== 'clip') throw new ProblemError(422, 'no-clip', 'Only the subject of a clip moves.');
  const { subject: _, ...found } = recording;
  if (subject === null) return found;
  if (subject.some(({ atMs }) => atMs > recording.durationMs)) throw new ProblemError(422, 'beyond-clip', 'A moment lies beyond the end of the clip.');
  return { ...found, subject: [...subject].sort((a, b) => a.atMs - b.atMs) };
}

const getClipStrip = defineEndpoint({
  contract: contracts.getClipStrip,
  may: 'see',
  async handle({ services, brand, params, request }) {
    const { recording } = await getItem(services, brand, params.media);
    if (recording?.kind !== 'clip') throw notFound('clip');
    return fileResponse(request, await derivedFile(services, recordingCopy(services, recording, 'strip'), request.signal), 'image/jpeg', 'ask-again');
  },
});

const getSoundWave = defineEndpoint({
  contract: contracts.getSoundWave,
  may: 'see',
  async handle({ services, brand, params, request }) {
    const { recording } = await getItem(services, brand, params.media);
    if (!recording?.hasSound) throw notFound('sound');
    const path = await derivedFile(services, recordingCopy(services, recording, 'wave'), request.signal);
    return { peaks: JSON.parse(await readFile(path, 'utf8')) as number[] };
  },
});

export const mediaEndpoints: readonly Endpoint[] = [
  listMedia,
  listMediaDetails,
  listMediaTags,
  uploadMedia,
  fetchMedia,
  mediaFromPost,
  getMedia,
  changeMedia,
  deleteMediaItem,
  getMediaUses,
  replaceMediaFile,
  getMediaFile,
  getRecordingFile,
  getClipStrip,
  getSoundWave,
  searchLibrary,
  getLibraryPreview,
  takeFromLibrary,
];
