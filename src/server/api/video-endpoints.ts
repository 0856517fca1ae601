import { nanoid } from 'nanoid';
import * as contracts from '../../contract/video-contracts.ts';
import { fileNames, slugOf, USUAL_NAME_PATTERN } from '../../core/export/file-names.ts';
import { getPlacement } from '../../core/network/network-sheet.ts';
import { pieceName } from '../../core/piece/piece.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { getChannel, type Brand } from '../db/brand-repository.ts';
import { findVideoExport, insertVideoExport, listVideoExportsOf, snapshotOfVideoExport, type VideoExport } from '../db/video-export-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { videoFileOfExport } from '../video/video-queue.ts';
import { videoMimes } from '../video/render-video.ts';
import { makeSnapshot } from '../pieces/make-snapshot.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { rangeResponse } from './file-response.ts';
import { getStoredPiece } from './piece-endpoints.ts';

/** From this share on, what it has taken so far says how long the rest will take. */
const MIN_SHARE = 0.15;

function describe({ id, channelId, placement, format, state, share, problem, createdMs, begunMs, measures }: VideoExport, machineNowMs: number) {
  const leftMs = state === 'making' && begunMs !== null && share >= MIN_SHARE ? ((machineNowMs - begunMs) * (1 - share)) / share : null;
  return { id, channelId, placement, format, state, share, problem, createdMs, leftMs, measures };
}

async function describeAll(services: Services, pieceId: string) {
  const nowMs = services.clock.machineNowMs();
  return { exports: (await listVideoExportsOf(services.db, pieceId)).map((each) => describe(each, nowMs)) };
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
    if (piece.document.kind !== 'video') throw new ProblemError(422, 'no-video', 'Only a video can be made into a video.');
    const cuts = piece.document.cuts.filter((cut) => body.cuts.some(({ channelId, placement }) => channelId === cut.channelId && placement === cut.placement));
    if (cuts.length < body.cuts.length) throw notFound('cut');
    const snapshot = await makeSnapshot(services, brand, piece.document);
    const createdMs = services.clock.machineNowMs();
    for (const { channelId, placement } of cuts) await insertVideoExport(services.db, { id: nanoid(12), brandId: brand.id, pieceId: piece.id, channelId, placement, format: body.format, createdMs }, snapshot);
    services.videos.wake();
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
    const found = await getExport(services, brand, params.piece, params.video);
    await services.videos.stop(found.id);
    return undefined;
  },
});

const getVideoFile = defineEndpoint({
  contract: contracts.getVideoFile,
  may: 'see',
  async handle({ services, brand, params, request, nowMs }) {
    const found = await getExport(services, brand, params.piece, params.video);
    if (found.state !== 'made') throw new ProblemError(409, 'not-made', 'This video is not made yet.');
    const snapshot = await snapshotOfVideoExport(services.db, found.id);
    const { network } = await getChannel(services.db, found.channelId);
    const sheet = snapshot.sheets.find(({ key }) => key === network);
    if (!sheet) throw notFound('network');
    const { width, height } = getPlacement(sheet, found.placement).exportPx;
    const values = { piece: slugOf(pieceName(snapshot.piece)), network, placement: found.placement, width: String(width), height: String(height), date: wallTimeOf(nowMs, brand.zone).slice(0, 10), number: '01' };
    const [name = `video.${found.format}`] = fileNames(USUAL_NAME_PATTERN, [values], found.format);
    // The cache may have been emptied: then it is made again.
    const { path } = await videoFileOfExport(services, found, { signal: request.signal, onProgress: () => undefined });
    const response = await rangeResponse(request, path, videoMimes[found.format]);
    response.headers.set('content-disposition', `attachment; filename="${name}"`);
    return response;
  },
});

export const videoEndpoints: readonly Endpoint[] = [startVideoExports, listVideoExports, cancelVideoExport, getVideoFile];
