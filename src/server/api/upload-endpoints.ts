import { nanoid } from 'nanoid';
import * as contracts from '../../contract/media-contracts.ts';
import type { Caller } from '../auth/caller.ts';
import type { Brand } from '../db/brand-repository.ts';
import { enqueueJob, findJob, moveJob, restartJob } from '../db/job-repository.ts';
import { findMedia } from '../db/media-repository.ts';
import { deleteUpload, findUpload, insertUpload, type PendingUpload } from '../db/upload-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { importJob, importJobKey } from '../imports/import-upload.ts';
import { waitForJob } from '../jobs/wait-for-job.ts';
import { requireBrandRoom } from '../media/brand-room.ts';
import { UploadParts } from '../media/upload-parts.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { describeMedia } from './describe-media.ts';

/** A picture is imported within this time, mostly: then its upload answers it at once. */
const SOON_MS = 2_500;

async function getUpload(services: Services, brand: Brand, caller: Caller, id: string): Promise<PendingUpload> {
  const upload = await findUpload(services.db, brand.id, caller.person.id, id);
  if (!upload) throw notFound('upload');
  return upload;
}

/** Where an upload stands: its bytes, then its import, then the item. */
async function describeUpload({ db, media }: Services, brand: Brand, upload: PendingUpload) {
  const job = await findJob(db, importJobKey(upload.id));
  const item = upload.mediaId === null ? null : await findMedia(db, brand.id, upload.mediaId);
  const received = upload.mediaId === null ? await new UploadParts(media).received(upload.id) : upload.bytes;
  return { id: upload.id, received, item: item && describeMedia(item), work: job && { state: job.state, progress: job.progress, problem: job.problem } };
}

const startUpload = defineEndpoint({
  contract: contracts.startUpload,
  may: 'make',
  async handle({ services, brand, caller, body }) {
    await requireBrandRoom(services, brand.id, caller.person.id, body.bytes);
    const id = nanoid(16);
    await insertUpload(services.db, { id, brandId: brand.id, personId: caller.person.id, name: body.name, bytes: body.bytes, startedMs: services.clock.machineNowMs() });
    return { id, received: 0, item: null, work: null };
  },
});

const askUpload = defineEndpoint({
  contract: contracts.getUpload,
  may: 'make',
  handle: async ({ services, brand, caller, params }) => describeUpload(services, brand, await getUpload(services, brand, caller, params.upload)),
});

const sendUploadPart = defineEndpoint({
  contract: contracts.sendUploadPart,
  may: 'make',
  async handle({ services, brand, caller, params, query, request }) {
    const { db, clock, media } = services;
    const upload = await getUpload(services, brand, caller, params.upload);
    // The last part may be sent again, when its answer was lost.
    if (await findJob(db, importJobKey(upload.id))) return describeUpload(services, brand, upload);
    const parts = new UploadParts(media);
    const received = await parts.append(upload.id, query.at, upload.bytes, request);
    if (received < upload.bytes) return { id: upload.id, received, item: null, work: null };
    await enqueueJob(db, await importJob(parts, upload.id), clock.machineNowMs());
    await waitForJob(db, importJobKey(upload.id), SOON_MS, request.signal);
    return describeUpload(services, brand, await getUpload(services, brand, caller, upload.id));
  },
});

const retryUpload = defineEndpoint({
  contract: contracts.retryUpload,
  may: 'make',
  async handle({ services, brand, caller, params }) {
    const upload = await getUpload(services, brand, caller, params.upload);
    if (!(await restartJob(services.db, importJobKey(upload.id)))) throw new ProblemError(409, 'not-possible-now', 'Only an import that has failed can be retried.');
    return describeUpload(services, brand, upload);
  },
});

const dropUpload = defineEndpoint({
  contract: contracts.dropUpload,
  may: 'make',
  async handle({ services, brand, caller, params }) {
    const upload = await getUpload(services, brand, caller, params.upload);
    await moveJob(services.db, importJobKey(upload.id), 'cancel', services.clock.machineNowMs());
    await new UploadParts(services.media).drop(upload.id);
    await deleteUpload(services.db, upload.id);
    return undefined;
  },
});

export const uploadEndpoints: readonly Endpoint[] = [startUpload, askUpload, sendUploadPart, retryUpload, dropUpload];
