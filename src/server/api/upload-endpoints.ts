import { nanoid } from 'nanoid';
import * as contracts from '../../contract/media-contracts.ts';
import type { Caller } from '../auth/caller.ts';
import type { Brand } from '../db/brand-repository.ts';
import { deleteUpload, findUpload, insertUpload, takeStaleUploads, type PendingUpload } from '../db/upload-repository.ts';
import { notFound } from '../errors.ts';
import { keepMedia } from '../imports/keep-media.ts';
import { UploadParts } from '../media/upload-parts.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { describeMedia } from './media-endpoints.ts';

/** Parts of files that nobody has gone on with for so long are thrown away. */
const STALE_AFTER_MS = 24 * 3_600_000;

async function getUpload(services: Services, brand: Brand, caller: Caller, id: string): Promise<PendingUpload> {
  const upload = await findUpload(services.db, brand.id, caller.person.id, id);
  if (!upload) throw notFound('upload');
  return upload;
}

const startUpload = defineEndpoint({
  contract: contracts.startUpload,
  may: 'make',
  async handle({ services, brand, caller, body }) {
    const parts = new UploadParts(services.media);
    const startedMs = services.clock.machineNowMs();
    for (const stale of await takeStaleUploads(services.db, startedMs - STALE_AFTER_MS)) await parts.drop(stale);
    const id = nanoid(16);
    await insertUpload(services.db, { id, brandId: brand.id, personId: caller.person.id, name: body.name, bytes: body.bytes, startedMs });
    return { id, received: 0, item: null };
  },
});

const askUpload = defineEndpoint({
  contract: contracts.getUpload,
  may: 'make',
  async handle({ services, brand, caller, params }) {
    const upload = await getUpload(services, brand, caller, params.upload);
    return { id: upload.id, received: await new UploadParts(services.media).received(upload.id), item: null };
  },
});

const sendUploadPart = defineEndpoint({
  contract: contracts.sendUploadPart,
  may: 'make',
  async handle({ services, brand, caller, params, query, request, nowMs }) {
    const upload = await getUpload(services, brand, caller, params.upload);
    const parts = new UploadParts(services.media);
    const received = await parts.append(upload.id, query.at, upload.bytes, request);
    if (received < upload.bytes) return { id: upload.id, received, item: null };
    try {
      const item = await keepMedia(services, brand, { path: parts.pathOf(upload.id), hash: await parts.hashOf(upload.id), name: upload.name }, nowMs);
      return { id: upload.id, received, item: describeMedia(item) };
    } finally {
      // Whole or unusable, the file has been looked at: there is nothing to go on with.
      await parts.drop(upload.id);
      await deleteUpload(services.db, upload.id);
    }
  },
});

const dropUpload = defineEndpoint({
  contract: contracts.dropUpload,
  may: 'make',
  async handle({ services, brand, caller, params }) {
    const upload = await getUpload(services, brand, caller, params.upload);
    await new UploadParts(services.media).drop(upload.id);
    await deleteUpload(services.db, upload.id);
    return undefined;
  },
});

export const uploadEndpoints: readonly Endpoint[] = [startUpload, askUpload, sendUploadPart, dropUpload];
