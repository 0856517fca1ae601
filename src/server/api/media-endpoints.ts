import { rm } from 'node:fs/promises';
import { nanoid } from 'nanoid';
import * as contracts from '../../contract/media-contracts.ts';
import { findMedia, findMediaBySource, insertMediaOnce, pageMedia, updateMedia, type MediaItem } from '../db/media-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { pictureDerivative } from '../media/derivatives.ts';
import { importPicture } from '../media/import-picture.ts';
import { receiveUpload } from '../media/receive-upload.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { fileResponse } from './file-response.ts';
import { nextCursor, PAGE_SIZE, readCursor } from './page-cursor.ts';

export function describeMedia(item: MediaItem) {
  return {
    id: item.id,
    name: item.name,
    widthPx: item.widthPx,
    heightPx: item.heightPx,
    bytes: item.bytes,
    mime: item.mime,
    altText: item.altText,
    focal: item.ownFocal ?? item.facts.focal,
    focalBy: item.ownFocal ? ('person' as const) : ('proposal' as const),
    facts: item.facts,
    revision: item.revision,
    createdMs: item.createdMs,
  };
}

const listMedia = defineEndpoint({
  contract: contracts.listMedia,
  may: 'see',
  async handle({ services, brand, query }) {
    const limit = query.limit ?? PAGE_SIZE;
    const items = await pageMedia(services.db, brand.id, { before: readCursor(query.before), limit });
    return { items: items.map(describeMedia), next: nextCursor(items, limit, (item) => ({ ms: item.createdMs, id: item.id })) };
  },
});

const uploadMedia = defineEndpoint({
  contract: contracts.uploadMedia,
  may: 'make',
  async handle({ services, brand, query, request, nowMs }) {
    const received = await receiveUpload(request, services.media);
    try {
      const known = await findMediaBySource(services.db, brand.id, received.hash);
      if (known) return describeMedia(known);
      const picture = await importPicture(received.path, query.name);
      const storedHash = await services.media.keep(picture.bytes);
      const item = await insertMediaOnce(services.db, {
        id: nanoid(12),
        brandId: brand.id,
        name: query.name,
        mime: picture.mime,
        widthPx: picture.widthPx,
        heightPx: picture.heightPx,
        bytes: picture.bytes.length,
        sourceHash: received.hash,
        storedHash,
        facts: picture.facts,
        ownFocal: null,
        altText: '',
        revision: 1,
        createdMs: nowMs,
      });
      return describeMedia(item);
    } finally {
      await rm(received.path, { force: true });
    }
  },
});

const getMedia = defineEndpoint({
  contract: contracts.getMedia,
  may: 'see',
  async handle({ services, brand, params }) {
    const item = await findMedia(services.db, brand.id, params.media);
    if (!item) throw notFound('picture');
    return describeMedia(item);
  },
});

const changeMedia = defineEndpoint({
  contract: contracts.changeMedia,
  may: 'make',
  async handle({ services, brand, params, body }) {
    const change = { ...(body.focal === undefined ? {} : { focal: body.focal }), ...(body.altText === undefined ? {} : { altText: body.altText }) };
    const updated = await updateMedia(services.db, brand.id, params.media, body.revision, change);
    if (updated) return describeMedia(updated);
    const current = await findMedia(services.db, brand.id, params.media);
    if (!current) throw notFound('picture');
    throw new ProblemError(409, 'stale-revision', 'Somebody else has just changed this picture.', { current: describeMedia(current) });
  },
});

const getMediaFile = defineEndpoint({
  contract: contracts.getMediaFile,
  may: 'see',
  async handle({ services, brand, params, query }) {
    const item = await findMedia(services.db, brand.id, params.media);
    if (!item) throw notFound('picture');
    return fileResponse(await pictureDerivative(services.media, item.storedHash, query.fit), 'image/webp', 'for-good');
  },
});

export const mediaEndpoints: readonly Endpoint[] = [listMedia, uploadMedia, getMedia, changeMedia, getMediaFile];
