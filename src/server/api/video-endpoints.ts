import { nanoid } from 'nanoid';
import * as contracts from '../../contract/video-contracts.ts';
import { slugOf } from '../../core/words/slug.ts';
import { fileNames, USUAL_NAME_PATTERN } from '../../core/export/file-names.ts';
import { getPlacement } from '../../core/network/network-sheet.ts';
import { pieceName } from '../../core/piece/piece.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { getChannel, type Brand } from '../db/brand-repository.ts';
import { enqueueJob, findJob, findJobs, moveJob, type Job } from '../db/job-repository.ts';
import { findVideoExport, insertVideoExport, listVideoExportsOf, type VideoExport } from '../db/video-export-repository.ts';
import { pinSnapshot, readPin } from '../documents/pins.ts';
import { notFound, ProblemError } from '../errors.ts';
import { exists } from '../media/derivatives.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import type { Services } from '../services.ts';
import { exportJob, exportJobKey } from '../video/export-handler.ts';
import { videoMimes } from '../video/video-mimes.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { attachment } from './attachment.ts';
import { rangeResponse } from './file-response.ts';
import { getStoredPiece } from './piece-endpoints.ts';

/** From this share on, what it has taken so far says how long the rest will take. */
const MIN_SHARE = 0.15;

function describe({ id, channelId, placement, format, createdMs, measures }: VideoExport, job: Job | undefined, machineNowMs: number) {
  // The work of old exports is swept; what was made is found again by its content.
  const state = job?.state ?? 'done';
  const share = job?.progress ?? 1;
  const startedMs = job?.startedMs ?? null;
  const leftMs = state === 'running' && startedMs !== null && share >= MIN_SHARE ? ((machineNowMs - startedMs) * (1 - share)) / share : null;
  return { id, channelId, placement, format, state, share, problem: job?.problem ?? null, createdMs, leftMs, measures };
}

async function describeAll({ db, clock }: Services, pieceId: string) {
  const exports = await listVideoExportsOf(db, pieceId);
  const jobs = await findJobs(db, exports.map(({ id }) => exportJobKey(id)));
  return { exports: exports.map((each) => describe(each, jobs.get(exportJobKey(each.id)), clock.machineNowMs())) };
}

async function getExport(services: Services, brand: Brand, pieceId: string, id: string): Promise<VideoExport> {
  await getStoredPiece(services, brand, pieceId);
  const found = await findVideoExport(services.db, pieceId, id);
  if (!found) throw notFound('export');
  return found;
}

const startVideoExports = defineEndpoint({
  contract: contracts.startVideoExports,
  may: 'make',
  async handle({ services, brand, params, body }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    if (piece.document.kind !== 'video') throw new ProblemError(422, 'no-video', 'Only a video can be made into a video file.');
    const cuts = piece.document.cuts.filter((cut) => body.cuts.some(({ channelId, placement }) => channelId === cut.channelId && placement === cut.placement));
    if (cuts.length < body.cuts.length) throw notFound('cut');
    const snapshot = await makeSnapshot(services, brand, piece.document);
    const createdMs = services.clock.machineNowMs();
    await services.db.transaction(async (trx) => {
      const { pin } = await pinSnapshot(trx, snapshot, createdMs);
      for (const { channelId, placement } of cuts) {
        const id = nanoid(12);
        await insertVideoExport(trx, { id, brandId: brand.id, pieceId: piece.id, channelId, placement, format: body.format, pin, createdMs });
        await enqueueJob(trx, exportJob(id), createdMs);
      }
    });
    return describeAll(services, piece.id);
  },
});

const listVideoExports = defineEndpoint({
  contract: contracts.listVideoExports,
  may: 'see',
  async handle({ services, brand, params }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    return describeAll(services, piece.id);
  },
});

const cancelVideoExport = defineEndpoint({
  contract: contracts.cancelVideoExport,
  may: 'make',
  async handle({ services, brand, params }) {
    const found = await getExport(services, brand, params.piece, params.export);
    await moveJob(services.db, exportJobKey(found.id), 'cancel', services.clock.machineNowMs());
    return undefined;
  },
});

const getVideoFile = defineEndpoint({
  contract: contracts.getVideoFile,
  may: 'see',
  async handle({ services, brand, params, request, nowMs }) {
    const found = await getExport(services, brand, params.piece, params.export);
    const response = await rangeResponse(request, await pathOf(services, found), videoMimes[found.format]);
    response.headers.set('content-disposition', attachment(await fileNameOf(services, brand, found, nowMs)));
    return response;
  },
});

/**
 * Where the file of an export lies. The cache may have been emptied: then it is asked for anew.
 * @throws ProblemError 409 while it is not made, 503 while it is made again
 */
async function pathOf({ db, clock }: Services, { id }: VideoExport): Promise<string> {
  const job = await findJob(db, exportJobKey(id));
  const path = job?.result?.['path'];
  if (job?.state === 'done' && typeof path === 'string' && (await exists(path))) return path;
  if (job && job.state !== 'done') throw new ProblemError(409, 'not-made', 'This video is not made yet.');
  await enqueueJob(db, exportJob(id), clock.machineNowMs(), { again: true });
  throw new ProblemError(503, 'not-ready', 'This file is made again. Ask for it in a moment.', { retryAfterSeconds: 5 });
}

async function fileNameOf({ db }: Services, brand: Brand, found: VideoExport, nowMs: number): Promise<string> {
  const snapshot = await readPin(db, found.pin);
  const { network } = await getChannel(db, found.channelId);
  const sheet = snapshot.sheets.find(({ key }) => key === network);
  if (!sheet) throw notFound('network');
  const { width, height } = getPlacement(sheet, found.placement).exportPx;
  const values = { piece: slugOf(pieceName(snapshot.piece)), network, placement: found.placement, width: String(width), height: String(height), date: wallTimeOf(nowMs, brand.zone).slice(0, 10), number: '01' };
  return fileNames(USUAL_NAME_PATTERN, [values], found.format)[0] ?? `video.${found.format}`;
}

export const videoEndpoints: readonly Endpoint[] = [startVideoExports, listVideoExports, cancelVideoExport, getVideoFile];
